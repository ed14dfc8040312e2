<?php

namespace Tests\Feature;

use App\Catalog\Models\Part;
use App\Shop\Models\Gauge;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\Measurement;
use App\Stock\Models\InstalledPart;
use App\Stock\Models\Lot;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;
use Tools\Demo\DemoShop;

/** Gauges checked and studied, processes read back, parts of the order picked lot by lot, the record on paper. */
final class AssemblyDepthTest extends TestCase
{
    private const AT = '/units/C-9001/assembly';

    private function build(): Build
    {
        return $this->unit()->currentBuild ?? $this->fail('There is no build.');
    }

    public function test_a_gauge_found_bad_puts_what_it_showed_in_doubt_and_bars_the_sign_off(): void
    {
        $this->bringTo('assembly');
        $this->assembleEverything('C-9001');
        $this->as('manager');
        $check = fn (string $gauge, array $body) => $this->write("/gauges/$gauge/checks", $body);
        $this->assertProblem($check('F-01', ['result' => 'good']), 422, 'a day that is still to come', '/nextDue');
        $this->assertProblem($check('F-01', ['result' => 'bad']), 422, 'Say what is wrong', '/note');
        $this->assertProblem($check('F-77', ['result' => 'bad', 'note' => 'x']), 404, 'no gauge F-77');
        $this->assertSame(403, $this->as('builder')->write('/gauges/F-01/checks', ['result' => 'good'])->status());
        $this->as('manager');
        $bad = $check('F-01', ['result' => 'bad', 'note' => 'The 0.020 leaf is 0.022.'])->assertCreated();
        $gauge = array_column($bad->json('gauges'), null, 'code')['F-01'];
        $this->assertTrue($gauge['overdue'], 'out of use');
        $shown = Measurement::query()->where('gauge_id', Gauge::query()->where('code', 'F-01')->value('id'))->count();
        $doubtful = $this->read('/gauges/F-01/doubtful');
        $this->assertSame($shown, $doubtful->json('total'));
        $this->assertSame('C-9001', $doubtful->json('readings.0.coreTag'));
        $refused = $this->as('builder')->write(self::AT.'/sign-off');
        $this->assertProblem($refused, 409, 'was found bad afterwards');
        $this->as('manager');
        $due = now()->addYear()->format('Y-m-d');
        $check('F-01', ['result' => 'good', 'nextDue' => $due, 'note' => 'New leaves.'])->assertCreated();
        $still = $this->as('builder')->write(self::AT.'/sign-off');
        $this->assertProblem($still, 409, 'was found bad afterwards');
        $this->assertSame(0, $this->read('/gauges/D-01/doubtful')->json('total'));
    }

    public function test_a_study_says_what_a_gauge_and_its_people_spread(): void
    {
        $this->as('manager');
        $rows = [];
        foreach (['Imre' => 0.0, 'Bo' => 0.002] as $person => $off) {
            foreach (['A' => 0.020, 'B' => 0.030, 'C' => 0.025] as $part => $size) {
                foreach ([-0.0005, 0.0005] as $error) {
                    $rows[] = ['person' => $person, 'part' => $part, 'reading' => ($size + $off + $error).' in'];
                }
            }
        }
        $study = $this->write('/gauges/F-01/studies', compact('rows'))->assertCreated();
        $gauge = array_column($study->json('gauges'), null, 'code')['F-01'];
        // By hand: no interaction, so its squares (none) join the error: 12 x 0.0005^2 over 6 + 2 freedoms.
        $repeatability = sqrt(12 * 0.0005 ** 2 / 8);
        $this->assertEqualsWithDelta($repeatability, $gauge['study']['repeatability'], 1e-9);
        // People: 6 x (0.001^2 + 0.001^2) over one freedom, less the error, over 6 readings each.
        $people = sqrt((12 * 0.001 ** 2 - $repeatability ** 2) / 6);
        $this->assertEqualsWithDelta($people, $gauge['study']['reproducibility'], 1e-9);
        $this->assertEqualsWithDelta(hypot($repeatability, $people), $gauge['spread'], 1e-9);
        $short = $this->write('/gauges/F-01/studies', ['rows' => array_slice($rows, 0, 11)]);
        $this->assertProblem($short, 422, 'Everybody measures every part equally often', '/rows');
        $wrong = ['reading' => '3 bar'] + $rows[0];
        $refused = $this->write('/gauges/F-01/studies', ['rows' => [$wrong, ...$rows]]);
        $this->assertProblem($refused, 422, 'pressure', '/rows/0/reading');
    }

    public function test_a_place_is_charted_over_its_builds(): void
    {
        $this->bringTo('assembly');
        $this->assembleEverything('C-9001');
        $this->assertProblem($this->read('/processes/RD4/torque/pump'), 404, 'no such place');
        $this->assertProblem($this->read('/processes/XX/pack/C1'), 404, 'no family');
        $families = array_column($this->read('/processes')->json('families'), null, 'family');
        $this->assertContains('C1', array_column($families['RD4']['places'], 'code'));
        $few = $this->read('/processes/RD4/pack/C1');
        $this->assertCount(1, $few->json('points'));
        $this->assertStringContainsString('say nothing yet', $few->json('why'));
        $first = Measurement::query()->where('kind', 'pack')->where('code', 'C1')->firstOrFail();
        $this->tampered = true;
        // Nine more builds: quiet, then one far out. Moving ranges 8 x 0.001 and 0.012; sigma is their mean over 1.128.
        foreach ([1, 2, 1, 2, 1, 2, 1, 2, 14] as $n => $thousandths) {
            $raw = fn (Model $of, array $with): array => $with + array_intersect_key(
                $of->getAttributes(),
                array_flip($of->getFillable()),
            );
            $other = ['serial' => "VY-99-000$n", 'generation' => $n + 2];
            $build = DB::table('builds')->insertGetId($raw($this->build(), $other));
            $value = (float) $first->value + $thousandths / 1000;
            DB::table('measurements')->insert($raw($first, ['build_id' => $build, 'value' => $value]));
        }
        $chart = $this->read('/processes/RD4/pack/C1');
        $this->assertNull($chart->json('why'));
        $this->assertEqualsWithDelta(
            6 * (0.001 * 8 + 0.012) / 9 / 1.128,
            $chart->json('upper') - $chart->json('lower'),
            1e-5,
            'd2 of two values is 1.128 (printed tables)',
        );
        $this->assertContains(['rule' => 1, 'index' => 10], $chart->json('signals'));
    }

    public function test_each_line_of_the_order_is_taken_from_the_lot_that_was_scanned(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $lines = fn ($answer): array => array_column($answer->json('lines'), null, 'part');
        $list = $lines($this->read(self::AT.'/picks'));
        $kit = array_column($this->read(self::AT.'/picks')->json('kits'), null, 'kit')['KT-RD4'];
        $this->assertNotSame([], $kit['omits'], 'what somebody would look for in the kit in vain');
        $frictions = $list['FR-F080'];
        $this->assertSame([5, 5], [$frictions['count'], $frictions['left']]);
        $lot = $frictions['lots'][0];
        $asked = ['part' => 'FR-F080', 'lot' => $lot['lot']];
        $pick = fn (array $more) => $this->write(self::AT.'/picks', $more + $asked);
        $this->assertProblem($pick(['part' => 'WHEEL']), 422, 'The order asks for no', '/part');
        $this->assertProblem($pick(['lot' => 'NOWHERE']), 422, 'There is no lot', '/lot');
        $other = $list['FR-H077']['lots'][0]['lot'];
        $this->assertProblem($pick(['lot' => $other]), 422, 'the order asks for', '/lot');
        $picked = $lines($pick([])->assertCreated())['FR-F080'];
        $this->assertSame([['part' => 'FR-F080', 'lot' => $lot['lot'], 'count' => 5]], $picked['picked']);
        $this->assertSame($lot['pieces'] - 5, (int) Lot::query()->where('lot', $lot['lot'])->value('quantity'));
        $this->assertProblem($pick([]), 409, 'picked already');
        $this->assertSame('C-9001', $this->read("/lots/{$lot['lot']}")->json('units.0.coreTag'), 'it can be recalled');
        $back = $this->write(self::AT.'/picks/FR-F080', [], null, 'DELETE')->assertOk();
        $this->assertSame(5, $lines($back)['FR-F080']['left']);
        $this->assertSame($lot['pieces'], (int) Lot::query()->where('lot', $lot['lot'])->value('quantity'));
        $again = $this->write(self::AT.'/picks/FR-F080', [], null, 'DELETE');
        $this->assertProblem($again, 409, 'Nothing of');
        $this->assertSame(1, InstalledPart::query()->where('place', 'order:FR-F080')->count(), 'and stays on record');
    }

    public function test_work_that_asks_for_a_skill_is_done_or_looked_over_by_somebody_who_has_it(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'support');
        $support = fn (): array => array_column(
            $this->onCard('assembly.work.operations'),
            null,
            'code',
        )['support'];
        $this->actingAs(Person::query()->where('badge', '107')->firstOrFail());
        $prove = fn (string $proof, array $answer) => $this->prove('C-9001', 'assembly', 'support', $proof, $answer);
        $prove('tool-aligning-ring', ['code' => 'ST-09'])->assertOk();
        $held = ['pump-forward' => '25', 'pump-reverse' => '25', 'pump-slide' => '20', 'gauge' => 'V-01'];
        $prove('values-pump-vacuum', $held)->assertOk();
        $prove('torque-pump-cover', ['reading' => '20 N.m', 'gauge' => 'T-01'])->assertOk();
        $this->assertSame('running', $support()['activity'], 'no pump man: it is not done yet');
        $this->assertStringContainsString('Somebody good at pumps', $support()['proven'][3]['open']);
        $sign = fn (string $badge) => $prove('skilled-pumps', ['badge' => $badge, 'pin' => DemoShop::pin($badge)]);
        $this->assertProblem($sign('107'), 422, 'somebody else', '/answer/badge');
        $this->assertProblem($sign('104'), 422, 'is not down as good at pumps', '/answer/badge');
        $sign('103')->assertOk();
        $this->assertSame('done', $support()['state']);
        $undo = ['move' => 'undo', 'note' => 'One dowel was out.'];
        $this->write(self::AT.'/operations/support/moves', $undo)->assertOk();
        $this->as('builder');
        $prove('tool-aligning-ring', ['code' => 'ST-09'])->assertOk();
        $prove('values-pump-vacuum', $held)->assertOk();
        $prove('torque-pump-cover', ['reading' => '20 N.m', 'gauge' => 'T-01'])->assertOk();
        $this->assertSame('done', $support()['state'], 'who did it is good at pumps');
    }

    public function test_an_air_check_is_the_hole_it_leaks_through_held_against_good_builds(): void
    {
        $this->bringTo('assembly');
        $this->assertSame([], $this->read(self::AT.'/air')->json('checks'), 'nothing read yet');
        $this->assembleEverything('C-9001');
        $check = array_column($this->read(self::AT.'/air')->json('checks'), null, 'code')['C1'];
        $this->assertNull($check['good']);
        $read = Measurement::query()->where('kind', 'air-check')->where('code', 'C1')->firstOrFail();
        // Above 1.9 times the air around the flow is choked, and the pressure falls as exp(-t/T): by hand
        // A = V ln(p0/p1) / (Cd sqrt(R T) t psi), psi = 0.6847 for air (gas-dynamics texts).
        [$p0, $p1] = [40 * 6.894757 + 101.325, (40 - (float) $read->value) * 6.894757 + 101.325];
        $area = 0.00022 * log($p0 / $p1) / (0.8 * sqrt(287.05 * 293.15) * 10 * 0.6847);
        $this->assertEqualsWithDelta(sqrt(4 * $area / M_PI) * 1000, $check['mm'], 1e-3 * $check['mm']);
        $this->tampered = true;
        $raw = fn (Model $of, array $with): array => $with + array_intersect_key(
            $of->getAttributes(),
            array_flip($of->getFillable()),
        );
        foreach ([0.8, 0.9, 1.0, 1.1, 1.2] as $n => $loss) {
            $other = ['serial' => "VY-98-000$n", 'generation' => $n + 2];
            $build = DB::table('builds')->insertGetId($raw($this->build(), $other));
            DB::table('measurements')->insert($raw($read, ['build_id' => $build, 'value' => $loss]));
        }
        DB::table('measurements')->where('id', $read->id)->update(['value' => 5]);
        $leak = array_column($this->read(self::AT.'/air')->json('checks'), null, 'code')['C1'];
        $this->assertSame(5, $leak['good']['n']);
        $this->assertTrue($leak['unlike']);
        DB::table('measurements')->where('id', $read->id)->update(['value' => 1]);
        $this->assertFalse(array_column($this->read(self::AT.'/air')->json('checks'), null, 'code')['C1']['unlike']);
    }

    public function test_the_bin_is_shared_out_among_the_builds_at_the_bench(): void
    {
        $this->bringTo('assembly');
        $this->bringTo('assembly', 'C-9002');
        $this->as('builder');
        $plan = fn (array $depths = []) => $this->write('/bin-plans/RD4/C1', $depths === [] ? [] : compact('depths'));
        $all = $plan()->assertOk();
        $this->assertSame([2, true, []], [$all->json('assigned'), $all->json('optimal'), $all->json('oneMore')]);
        $window = array_column($this->build()->frozen()['packs'], 'window', 'code')['C1'];
        foreach ($all->json('builds') as $build) {
            $this->assertGreaterThanOrEqual($window['min'], $build['clearance']);
            $this->assertLessThanOrEqual($window['max'], $build['clearance']);
            $this->assertFalse($build['measured']);
        }
        // Of what a build takes one of, one piece of one size is left: the second build goes without.
        $slots = array_column($this->build()->frozen()['packs'], null, 'code')['C1']['slots'];
        $single = array_values(array_filter($slots, fn (array $s): bool => $s['pick'] === 1))[0];
        $scarce = array_column($all->json('builds.0.picks'), 'part', 'slot')[$single['name']];
        $id = Part::query()->where('number', $scarce)->value('id');
        $sizes = Part::query()->whereIn('number', array_column($single['options'], 'part'))->pluck('id');
        Lot::query()->whereIn('part_id', $sizes)->update(['quantity' => 0]);
        Lot::query()->where('part_id', $id)->limit(1)->update(['quantity' => 1]);
        $short = $plan()->assertOk();
        $this->assertSame(1, $short->json('assigned'));
        $this->assertContains($scarce, array_column($short->json('oneMore'), 'part'));
        // Accepted is kept: the one that got it has it, the other is offered nothing, until it is given back.
        $kept = $this->write('/bin-plans/RD4/C1/kept', ['depths' => []])->assertCreated();
        $has = array_column($kept->json('builds'), 'kept', 'coreTag');
        $owner = (string) array_search(true, $has, true);
        $other = $owner === 'C-9001' ? 'C-9002' : 'C-9001';
        $this->assertFalse($has[$other]);
        $depth = ['reading' => '0.982 in'];
        $offer = fn (string $tag) => $this->write("/units/$tag/assembly/places/C1/propose", $depth)->json('result');
        $this->assertTrue($offer($owner)['feasible']);
        $this->assertFalse($offer($other)['feasible'], 'what is kept is offered to nobody else');
        $this->assertSame(1, $plan()->json('assigned'), 'a new plan may give what an old one kept to somebody else');
        $back = $this->write("/bin-plans/RD4/C1/kept/$owner", [], null, 'DELETE')->assertOk();
        $this->assertNotContains(true, array_column($back->json('builds'), 'kept'));
        $this->assertTrue($offer($other)['feasible']);
        $none = $this->write("/bin-plans/RD4/C1/kept/$owner", [], null, 'DELETE');
        $this->assertProblem($none, 409, 'Nothing is kept');
        $this->assertProblem($plan(['C-9002' => '3 bar']), 422, 'pressure', '/depths/C-9002');
        $this->assertProblem($this->write('/bin-plans/XX/C1'), 404, 'no family XX');
        $this->assertSame([], $this->write('/bin-plans/RD4/ZZ')->json('builds'), 'nobody has such a pack');
        $this->assertSame(403, $this->as('viewer')->write('/bin-plans/RD4/C1')->status());
    }

    public function test_the_record_of_a_build_names_what_is_otherwise_than_the_book(): void
    {
        $this->bringTo('assembly');
        $this->assertProblem($this->read('/units/C-9009/assembly/record'), 404, 'nothing under this number');
        $this->workThrough('C-9001', 'assembly', 'piston-C1');
        $this->as('builder');
        $note = 'The tool is at the grinder.';
        $this->prove('C-9001', 'assembly', 'piston-C1', 'tool-lip-tool', ['without' => true], $note)->assertOk();
        $this->assembleEverything('C-9001');
        $page = $this->read(self::AT.'/record')->assertOk()->getContent();
        $this->assertStringContainsString('done without its special tool: '.$note, (string) $page);
        $this->assertStringContainsString('Not dyno-tested', (string) $page);
        $this->assertStringContainsString('F-01, in date to', (string) $page);
        $pdf = (string) $this->read(self::AT.'/record.pdf')->assertOk()->getContent();
        $this->assertStringStartsWith('%PDF-', $pdf);
    }
}
