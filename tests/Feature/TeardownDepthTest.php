<?php

namespace Tests\Feature;

use App\Stations\Teardown\Models\FindingPlate;
use App\Stations\Teardown\Queries\LostHardParts;
use App\Stock\Models\Lot;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** What is found on a part, plate by plate and by the gauge; leaks, repairs, metals, and parts that move on. */
final class TeardownDepthTest extends TestCase
{
    private const FINDINGS = '/units/C-9001/teardown/findings';

    /** @return array<string, mixed> */
    private function finding(string $part): array
    {
        $list = $this->onCard('teardown.inspection');

        return array_column($list, 'finding', 'part')[$part];
    }

    public function test_plates_are_graded_in_stack_order_and_say_which_end_is_worse(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $said = ['part' => 'forward-frictions', 'disposition' => 'replace', 'role' => 'cause'];
        $plates = ['even brown', 'even brown', 'dark', 'black', 'coned or fused'];
        $this->write(self::FINDINGS, $said + ['plates' => $plates])->assertCreated();
        $found = $this->finding('forward-frictions');
        $this->assertSame($plates, $found['plates']);
        $this->assertSame('coned or fused', $found['condition'], 'the worst plate is the condition of the pack');
        $this->assertStringContainsString('Worse towards the backing plate', $found['burn']);
        $again = ['version' => $found['version']] + $said;
        $this->assertProblem(
            $this->write(self::FINDINGS, $again + ['plates' => $plates, 'condition' => 'dark']),
            422,
            'the pack cannot be',
            '/condition',
        );
        $this->assertProblem(
            $this->write(self::FINDINGS, $again + ['plates' => ['even brown', 'purple']]),
            422,
            'no condition of this part',
            '/plates/1',
        );
        $this->write(self::FINDINGS, $again + ['plates' => array_reverse($plates)])->assertCreated();
        $this->assertStringContainsString('towards the piston', $this->finding('forward-frictions')['burn']);
        $this->assertSame(5, FindingPlate::query()->count(), 'what was said before is taken back');
        $this->assertProblem(
            $this->write(self::FINDINGS, ['part' => 'sprag', 'plates' => ['holds one way']] + $said),
            422,
            'no such plates',
            '/plates',
        );
    }

    public function test_a_measure_is_taken_with_a_gauge_and_held_against_its_window(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $play = ['part' => 'pinion-play', 'condition' => 'within the window'];
        $play += ['disposition' => 'reuse', 'role' => 'none'];
        $this->assertProblem($this->write(self::FINDINGS, $play), 422, 'is measured here', '/reading');
        $this->assertProblem($this->write(self::FINDINGS, $play + ['reading' => '.02']), 422, 'which gauge', '/gauge');
        $this->assertProblem(
            $this->write(self::FINDINGS, $play + ['reading' => '.02', 'gauge' => 'T-01']),
            422,
            'not a length',
            '/gauge',
        );
        $wide = ['condition' => 'over the window', 'reading' => '0.9 mm', 'gauge' => 'F-01'] + $play;
        $this->assertProblem($this->write(self::FINDINGS, $wide), 422, 'outside its window', '/note');
        $this->write(self::FINDINGS, $wide + ['note' => 'The customer was told and takes it.'])->assertCreated();
        $found = $this->finding('pinion-play');
        $this->assertSame(['0.9 mm', false, 'F-01'], [$found['reading'], $found['inside'], $found['gauge']]);
        $good = ['reading' => '0.5 mm', 'gauge' => 'F-01', 'version' => $found['version']] + $play;
        $this->write(self::FINDINGS, $good)->assertCreated();
        $this->assertTrue($this->finding('pinion-play')['inside'], '0.5 mm is 0.0197 in');
    }

    public function test_a_leak_is_traced_by_looks_in_the_order_of_what_they_are_worth(): void
    {
        $this->bringTo('teardown');
        $see = fn (array $observed) => $this->as('teardown')->write('/units/C-9001/teardown/leak', compact('observed'));
        $start = $this->onCard('teardown.leak');
        $this->assertSame([], (array) $start['observed']);
        $this->assertContains($start['ranking'][0]['id'], ['pan', 'front-seal'], 'nothing seen: what leaks most often');
        $leak = $see(['where' => 'bell housing'])->assertOk()->json('teardown.leak');
        $this->assertSame('front-seal', $leak['ranking'][0]['id']);
        $best = array_keys($leak['next'], max($leak['next']))[0];
        $this->assertContains($best, ['drip', 'level', 'vent', 'when'], 'a cheap look before the converter comes out');
        $oil = $see(['where' => 'bell housing', 'drip' => 'engine oil'])->json('teardown.leak');
        $this->assertSame('engine-seal', $oil['ranking'][0]['id'], 'not this unit at all');
        $this->assertGreaterThan(0.6, $oil['ranking'][0]['posterior']);
        $this->assertEqualsWithDelta(1, array_sum(array_column($oil['ranking'], 'posterior')), 1e-9);
        $this->assertProblem($see(['where' => 'the roof']), 422, 'is no answer', '/observed/where');
        $this->assertProblem($see(['colour' => 'red']), 422, 'is looked at', '/observed/colour');
    }

    public function test_a_broken_bolt_is_got_out_and_stays_with_the_unit(): void
    {
        $this->bringTo('teardown');
        $repair = fn (array $with) => $this->as('teardown')->write('/units/C-9001/teardown/repairs', $with + [
            'place' => 'pump',
            'trouble' => 'broken',
            'method' => 'left-drill',
        ]);
        $this->assertProblem($repair(['place' => 'roof rack']), 422, 'no fastener or shaft', '/place');
        $this->assertProblem($repair(['method' => 'chase']), 422, 'no help where it is broken', '/method');
        $this->assertProblem($repair(['trouble' => 'sad']), 422, '', '/trouble');
        $kept = $repair(['note' => 'Third bolt, at four o\'clock'])->assertCreated()->json('teardown.rescue.repairs');
        $this->assertSame(['Pump to case', 'broken', 0.7], [$kept[0]['name'], $kept[0]['trouble'], $kept[0]['hours']]);
        $this->workThrough('C-9001', 'teardown');
        $this->write('/units/C-9001/teardown/complete')->assertOk();
        $pump = array_column($this->onCard('assembly.work.operations'), null, 'code')['pump'];
        $this->assertStringContainsString('Left-hand drill', $pump['earlier'][0], 'said where it bites');
    }

    public function test_near_magnesium_no_flame_no_weld_and_no_steel_bolt(): void
    {
        $this->receive('C-9001', ['family' => 'TX6', 'vehicle' => 'any'])->assertCreated();
        $this->write('/units/C-9001/identification', ['variant' => 'TX6-F1', 'note' => 'papers'])->assertOk();
        $this->as('manager')->write('/units/C-9001/ordering', ['package' => 'daily'])->assertCreated();
        $this->write('/units/C-9001/ordering/release', ['version' => 1])->assertOk();
        $methods = array_column($this->onCard('teardown.rescue.methods'), null, 'code');
        $this->assertStringContainsString('No flame', $methods['flame']['forbidden']);
        $this->assertNull($methods['warm-air']['forbidden']);
        $this->assertStringContainsString('bedded in paste', $methods['insert']['note']);
        $weld = ['place' => 'pan', 'trouble' => 'broken', 'method' => 'weld-stub'];
        $this->assertProblem(
            $this->as('teardown')->write('/units/C-9001/teardown/repairs', $weld),
            422,
            'No welding near a magnesium case',
            '/method',
        );
        $this->workThrough('C-9001', 'teardown');
        $this->write('/units/C-9001/teardown/complete')->assertOk();
        $this->workThrough('C-9001', 'assembly', 'pump');
        $say = fn (string $choice) => $this->as('builder')
            ->prove('C-9001', 'assembly', 'pump', 'metal-pump', compact('choice'));
        $this->assertProblem($say('wood'), 422, 'a magnet tells', '/answer/choice');
        $said = fn ($answer): ?string => array_column($answer->json('assembly.work.operations'), null, 'code')['pump'][
            'proven'
        ][0]['open'];
        $steel = (string) $said($say('steel')->assertOk());
        $this->assertStringContainsString('Steel in magnesium eats the hole', $steel);
        $this->assertNull($said($say('aluminium')->assertOk()));
    }

    public function test_what_goes_to_the_shelf_is_a_lot_with_its_core_and_nobody_elses_part_without_their_word(): void
    {
        $unit = $this->bringTo('teardown');
        DB::table('units')->where('id', $unit->id)->update(['ownership' => 'customer']);
        $this->tampered = true;
        $this->as('teardown');
        $planet = ['part' => 'planet', 'condition' => 'sound', 'disposition' => 'shelf', 'role' => 'none'];
        $this->assertProblem($this->write(self::FINDINGS, $planet), 422, 'swap agreement', '/disposition');
        $swap = ['part' => 'planet', 'agreedBy' => 'C. Bray', 'how' => 'By telephone'];
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/swaps', ['agreedBy' => ''] + $swap),
            422,
            'Say who',
            '/agreedBy',
        );
        $this->write('/units/C-9001/teardown/swaps', $swap)->assertCreated();
        $this->assertProblem($this->write('/units/C-9001/teardown/swaps', $swap), 409, 'agreed already');
        $this->write(self::FINDINGS, $planet)->assertCreated();
        $this->workThrough('C-9001', 'teardown');
        $this->write('/units/C-9001/teardown/complete')->assertOk();
        $lot = Lot::query()->where('origin_unit_id', $unit->id)->sole();
        $this->assertSame(['PL-94', 1], [$lot->part->number, $lot->quantity]);
        $this->assertSame(
            [['part' => 'PL-94', 'name' => $lot->part->name, 'lot' => 'C-9001/PL-94']],
            $this->onCard('teardown.reclaimed'),
        );
    }

    public function test_the_report_says_the_cause_in_plain_words_and_comes_as_a_pdf(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->write(self::FINDINGS, [
            'part' => 'forward-frictions',
            'plates' => ['even brown', 'dark', 'black'],
            'disposition' => 'replace',
            'role' => 'cause',
            'note' => 'Ran <dry> & hot',
        ])->assertCreated();
        $this->write('/units/C-9001/teardown/repairs', [
            'place' => 'pump',
            'trouble' => 'broken',
            'method' => 'left-drill',
        ])->assertCreated();
        $page = (string) $this->get('/api/units/C-9001/teardown/report')->assertOk()->getContent();
        $this->assertStringContainsString('Forward frictions: black.', $page);
        $this->assertStringContainsString('Worse towards the backing plate', $page);
        $this->assertStringContainsString('Ran &lt;dry&gt; &amp; hot', $page, 'what was typed is text, not markup');
        $this->assertStringContainsString('Left-hand drill', $page);
        $pdf = $this->get('/api/units/C-9001/teardown/report.pdf')->assertOk();
        $this->assertSame('application/pdf', $pdf->headers->get('Content-Type'));
        $this->assertStringStartsWith('%PDF-', (string) $pdf->getContent());
        $this->assertProblem($this->getJson('/api/units/C-0000/teardown/report'), 404, 'nothing under this number');
    }

    public function test_what_is_renewed_as_a_rule_lives_on_only_with_a_word(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $ring = ['part' => 'snap-rings', 'condition' => 'sits in its groove'];
        $ring += ['disposition' => 'reuse', 'role' => 'none'];
        $this->assertProblem($this->write(self::FINDINGS, $ring), 422, 'why it is not renewed', '/note');
        $this->write(self::FINDINGS, $ring + ['note' => 'None on the shelf, the customer agreed'])->assertCreated();
        $seal = ['part' => 'front-seal', 'condition' => 'hard', 'disposition' => 'replace', 'role' => 'none'];
        $this->write(self::FINDINGS, $seal)->assertCreated();
        $shell = ['part' => 'shell', 'condition' => 'sound', 'disposition' => 'replace', 'role' => 'none'];
        $this->write(self::FINDINGS, $shell)->assertCreated();
        $lost = fn (): array => app(LostHardParts::class)->of($this->unit());
        $this->assertSame([], $lost(), 'a sound part that is renewed anyhow costs the sender nothing');
        $this->write(self::FINDINGS, ['condition' => 'splines eaten', 'version' => 1] + $shell)->assertCreated();
        $this->assertSame(['SH-80'], $lost());
    }

    public function test_parts_found_sound_are_said_in_one_go_but_not_what_is_measured(): void
    {
        $this->bringTo('teardown');
        $say = fn (string ...$parts) => $this->as('teardown')
            ->write('/units/C-9001/teardown/unharmed', compact('parts'));
        $this->assertProblem($say('forward-steels', 'chimney'), 422, 'no part', '/parts/1');
        $this->assertNull(array_column(
            $this->onCard('teardown.inspection'),
            'finding',
            'part',
        )['forward-steels'], 'whole or not at all');
        $this->assertProblem($say('pinion-play'), 422, 'a look does not tell', '/parts/0');
        $say('forward-steels', 'forward-hub', 'snap-rings')->assertCreated();
        $this->assertSame(
            ['bright and flat', 'reuse', 'replace'],
            [
                $this->finding('forward-steels')['condition'],
                $this->finding('forward-hub')['disposition'],
                $this->finding('snap-rings')['disposition'],
            ],
        );
        $this->assertProblem($say('forward-hub'), 422, 'was looked at already', '/parts/0');
    }

    public function test_what_the_parts_look_like_is_evidence_of_what_failed(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $share = function (): float {
            $suspects = $this->onCard('teardown.suspects');
            $c3 = array_filter($suspects, fn (array $s): bool => [$s['element'], $s['fault']] === ['C3', 'weak']);

            return array_values($c3)[0]['posterior'];
        };
        $this->assertSame([], $this->onCard('teardown.suspects'));
        $observed = ['1' => 'ok', '2' => 'ok', '3' => 'slips', '4' => 'delayed'];
        $this->write('/units/C-9001/teardown/symptoms', compact('observed'))->assertOk();
        $driven = $share();
        $said = ['part' => 'high-frictions', 'disposition' => 'replace', 'role' => 'none'];
        $this->write(self::FINDINGS, $said + ['condition' => 'even brown'])->assertCreated();
        $this->assertLessThan($driven, $share(), 'sound plates speak for the pack');
        $version = $this->finding('high-frictions')['version'];
        $black = compact('version') + ['condition' => 'black', 'role' => 'cause'] + $said;
        $this->write(self::FINDINGS, $black)->assertCreated();
        $this->assertGreaterThan($driven, $share());
        $because = $this->onCard('teardown.suspects.0.because');
        $this->assertStringContainsString('Its parts were found burnt.', $because);
    }

    public function test_causes_are_counted_shown_and_taken_back(): void
    {
        $causes = fn (): array => $this->read('/catalog/families/RD4')->json('causes');
        $this->bringTo('teardown');
        $this->as('teardown');
        $before = $causes();
        $this->assertTrue($before['learns']);
        $said = ['part' => 'high-frictions', 'condition' => 'black', 'disposition' => 'replace'];
        $this->write(self::FINDINGS, $said + ['role' => 'cause'])->assertCreated();
        $after = $causes();
        $this->assertSame(1 + ($before['counts']['C3'] ?? 0), $after['counts']['C3']);
        $this->assertGreaterThan($before['weights']['C3'], $after['weights']['C3']);
        $this->assertLessThan($before['weights']['C2'], $after['weights']['C2']);
        $version = $this->finding('high-frictions')['version'];
        $this->write(self::FINDINGS, compact('version') + $said + ['role' => 'collateral'])->assertCreated();
        $this->assertSame($before['counts'], $causes()['counts'], 'what is no cause any more does not count');
    }

    public function test_the_life_of_a_unit_is_told_struck_and_read_with_its_plates(): void
    {
        $at = '/units/C-9001/teardown/timeline';
        $this->receive('C-9001', ['odometer' => '210000 km'])->assertCreated();
        $this->as('manager');
        $tell = fn (string $km, string $kind, string $said) => $this->write(
            $at,
            ['at' => $km] + compact('kind', 'said'),
        );
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M', 'note' => 'by the papers'])->assertOk();
        $tell('186000', 'complaint', 'no fourth')->assertOk();
        $life = $tell('88500 mi', 'complaint', 'flares into third')->assertOk()->json('teardown.life');
        $this->assertSame([142427, 186000], array_column($life['entries'], 'km'));
        $this->assertSame('88500 mi', $life['entries'][0]['typed']);
        $this->assertSame('It began at 142 427 km: flares into third.', $life['says'][0]);
        $this->assertContains('No fluid change is told of for 210 000 km.', $life['says']);
        $this->assertProblem($tell('250000 km', 'service', 'fluid'), 422, 'after it came in, at 210000 km', '/at');
        $this->assertProblem($tell('far', 'service', 'fluid'), 422, 'far', '/at');
        $this->assertProblem($tell('100 km', 'guess', 'fluid'), 422, 'kind', '/kind');
        $struck = ['km' => 186000, 'kind' => 'complaint', 'said' => 'no fourth'];
        $life = $this->write("$at/struck", $struck)->assertOk()->json('teardown.life');
        $this->assertCount(1, $life['entries']);
        $this->assertProblem($this->write("$at/struck", $struck), 409, 'no longer told');
    }
}
