<?php

namespace Tests\Feature;

use App\Shop\Models\SpecialTool;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Models\SecondGrade;
use App\Work\Models\Discrepancy;
use App\Yard\Models\Unit;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Pieces, ways of making good, special tools, washing, trays on the scale, second looks, money, the vehicle, loans. */
final class TeardownCareTest extends TestCase
{
    private const AT = '/units/C-9001/teardown';

    private const SNAP_RINGS = ['part' => 'snap-rings', 'condition' => 'broken'] + self::RENEWED;

    private const RENEWED = ['disposition' => 'replace', 'role' => 'collateral'];

    public function test_every_piece_of_a_broken_part_is_accounted_for(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $find = fn (array $more) => $this->write(self::AT.'/findings', $more + self::SNAP_RINGS);
        $this->assertProblem($find([]), 422, 'lay the pieces together', '/pieces');
        $this->assertProblem($find(['pieces' => 'some']), 422, 'pieces', '/pieces');
        $card = $find(['pieces' => 'missing'])->assertCreated();
        $open = $card->json('teardown.discrepancies.0');
        $this->assertStringContainsString('"Snap rings of all packs" are not found', $open['said']);
        $this->assertStringContainsString('has travelled', $open['means']);
        $this->assertProblem($this->write(self::AT.'/complete', ['noCauseFound' => true]), 409, 'are not found');
        $version = $card->json('teardown.inspection');
        $version = array_column($version, 'finding', 'part')['snap-rings']['version'];
        $whole = $find(['pieces' => 'whole', 'version' => $version])->assertCreated();
        $whole->assertJsonPath('teardown.discrepancies', []);
        $this->assertSame(1, Discrepancy::query()->whereNotNull('undone_at')->count(), 'what was said stays on record');
        $sound = ['condition' => 'sits in its groove', 'version' => $version + 1] + self::SNAP_RINGS;
        $this->write(self::AT.'/findings', $sound)->assertCreated();
        $this->assertNull(Finding::query()->where('part', 'snap-rings')->value('pieces'));
    }

    public function test_what_is_made_good_names_its_way_and_its_hours(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $planet = ['part' => 'planet', 'condition' => 'loose pins', 'disposition' => 'recondition', 'role' => 'none'];
        $this->assertProblem($this->write(self::AT.'/findings', $planet), 422, 'Pins and washers', '/route');
        $wrong = $this->write(self::AT.'/findings', $planet + ['route' => 'lap-pump']);
        $this->assertProblem($wrong, 422, 'not made good that way', '/route');
        $this->write(self::AT.'/findings', $planet + ['route' => 'pins'])->assertCreated();
        $this->assertSame('1.00', Finding::query()->where('part', 'planet')->value('route_hours'));
        $seal = ['part' => 'front-seal', 'condition' => 'hard', 'disposition' => 'recondition', 'role' => 'none'];
        $refused = $this->write(self::AT.'/findings', $seal + ['note' => 'Try it.']);
        $this->assertProblem($refused, 422, 'not reconditioned here', '/route');
        $costs = $this->read(self::AT.'/costs')->json();
        $this->assertSame([['what' => 'Planet set made good', 'hours' => 1]], $costs['hours']);
    }

    public function test_the_operation_that_needs_a_special_tool_asks_for_it(): void
    {
        SpecialTool::query()->create([
            'tag' => 'ST-90',
            'kind' => 'pump-puller',
            'name' => 'Old hammer',
            'place' => 'wall',
            'inspected_until' => now()->subDay()->format('Y-m-d'),
        ]);
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->workThrough('C-9001', 'teardown', 'pump', 'pump-pressed');
        $at = self::AT.'/operations/pump/proofs/tool-pump-puller';
        $scan = fn (array $answer, string $note = '') => $this->write($at, compact('answer', 'note'));
        $this->assertProblem($scan(['code' => '']), 422, 'Scan the pump puller', '/answer/code');
        $this->assertProblem($scan(['code' => 'ST-77']), 422, 'in the register', '/answer/code');
        $this->assertProblem($scan(['code' => 'ST-01']), 422, 'is not a pump puller', '/answer/code');
        $this->assertProblem($scan(['code' => 'st-90']), 422, 'was to be looked at by', '/answer/code');
        $this->assertProblem($scan(['without' => true]), 422, 'Say why it is done without', '/note');
        $card = $scan(['without' => true], 'The hammer is at the other bench.')->assertOk();
        $pump = array_column($card->json('teardown.work.operations'), null, 'code')['pump'];
        $this->assertSame('running', $pump['activity'], 'a tool in hand is no work done');
        $this->assertNotNull($pump['proven'][0]['by'], 'by name');
        $scan(['code' => 'st-03'])->assertOk();
    }

    public function test_grey_film_makes_washing_a_step_of_its_own_and_the_rinse_is_held_against_the_house(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $codes = fn (): array => array_column($this->onCard('teardown.work.operations'), 'code');
        $this->assertNotContains('wash-debris', $codes());
        $unit = Unit::query()->where('core_tag', 'C-9001')->firstOrFail();
        $unit->update(['clues' => ['inside-film' => 'grey over everything']]);
        $this->assertContains('wash-debris', $codes());
        $unit->update(['clues' => []]);
        $converter = ['part' => 'converter', 'condition' => 'contaminated'] + self::RENEWED;
        $this->write(self::AT.'/findings', $converter)->assertCreated();
        $this->assertContains('wash-debris', $codes());
        $this->workThrough('C-9001', 'teardown', 'rinse');
        $patch = fn (array $answer) => $this->write(
            self::AT.'/operations/rinse/proofs/patch-rinse-of-case-and-valve-body',
            compact('answer'),
        );
        $many = $patch(['um4' => '900', 'um6' => 'many', 'um14' => '9']);
        $this->assertProblem($many, 422, 'Type how many', '/answer/um6');
        $this->assertProblem($patch(['um6' => '-3', 'um14' => '9']), 422, 'um6', '/answer/um6');
        $this->assertProblem($patch(['um6' => '9', 'um14' => '300']), 422, 'larger', '/answer/um14');
        $dirty = $patch(['um4' => '9000', 'um6' => '3000', 'um14' => '300'])->assertOk();
        $rinse = fn ($card) => array_column($card->json('teardown.work.operations'), null, 'code')['rinse'];
        $this->assertStringContainsString('The rinse is 20/19/15', $rinse($dirty)['proven'][0]['open']);
        $clean = $patch(['um4' => '1000', 'um6' => '300', 'um14' => '30'])->assertOk();
        $this->assertSame('done', $rinse($clean)['state']);
    }

    public function test_a_shop_without_a_patch_kit_is_not_asked_for_one(): void
    {
        $this->house('patch-test', 'none', 'We have no kit.');
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->workThrough('C-9001', 'teardown');
        $left = array_filter(
            $this->onCard('teardown.work.operations'),
            fn (array $o): bool => $o['state'] !== 'done' && ! $o['alternative'],
        );
        $this->assertSame([], array_column($left, 'code'));
    }

    public function test_small_parts_are_counted_by_weight(): void
    {
        $this->receive();
        $this->as('teardown');
        $items = [
            ['name' => 'check balls', 'count' => 8],
            ['name' => 'accumulator spring', 'count' => 1, 'keepTogether' => '1-2'],
        ];
        $this->write('/units/C-9001/trays', ['tag' => 'T-1', 'items' => $items])->assertCreated();
        $weighing = ['item' => 'check balls', 'sample' => 8, 'sampleWeight' => '8.4 g', 'basket' => '120 g'];
        $weigh = fn (string $filled, array $more = []) => $this->write(
            '/units/C-9001/trays/T-1/weighings',
            ['filled' => $filled] + $more + $weighing,
        );
        $this->assertProblem($weigh('117 g'), 422, 'less than nothing', '/filled');
        $this->assertProblem($weigh('127.9 g'), 422, 'something else lies with them', '/filled');
        $this->assertProblem($weigh('heavy'), 422, 'heavy', '/filled');
        $this->assertProblem($weigh('127 g', ['sampleWeight' => '0 g']), 422, 'must weigh something', '/sampleWeight');
        $this->assertProblem($weigh('127 g', ['item' => 'rings']), 422, 'not on the list', '/item');
        $weigh('127.3 g')->assertCreated()->assertJsonPath('trays.0.items.0.weighed', 7);
        $stage = fn (string $stage) => $this->write('/units/C-9001/trays/T-1/stage', compact('stage'), null, 'PUT');
        $stage('washer')->assertOk()->assertJsonPath('trays.0.stage', 'washer');
        $this->assertProblem($stage('washer'), 409, 'there already');
        $this->assertProblem($stage('bin'), 422, 'stage', '/stage');
        $this->write('/units/C-9001/trays/T-1', [], null, 'DELETE')->assertOk()->assertJsonPath('trays', []);
    }

    public function test_what_was_counted_out_is_offered_until_it_lies_in_a_tray(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $loose = fn (): array => array_column($this->read('/units/C-9001/trays')->json('loose'), 'count', 'name');
        $this->assertSame([], $loose());
        $this->workThrough('C-9001', 'teardown', 'valve-body');
        $this->assertArrayNotHasKey('check balls', $loose(), 'they lie under the valve body');
        $this->workThrough('C-9001', 'teardown');
        $counted = $loose();
        $this->assertSame(8, $counted['check balls']);
        $items = [['name' => 'check balls', 'count' => 7]];
        $this->write('/units/C-9001/trays', ['tag' => 'T-1', 'items' => $items])->assertCreated();
        $this->assertEquals(['check balls' => 1] + $counted, $loose());
    }

    public function test_two_people_grade_the_same_part_and_the_second_does_not_know_the_first(): void
    {
        $this->house('second-grade-every', '1');
        $this->bringTo('teardown');
        $this->as('teardown');
        $seen = ['sprag' => 'pitted race', 'bushings' => 'sound', 'bush-drum' => 'wiped'];
        $seen += ['tail-bush' => 'sound', 'bush-stator' => 'wiped', 'bush-shell' => 'sound'];
        foreach ($seen as $part => $condition) {
            $finding = compact('part', 'condition') + ['disposition' => 'replace', 'role' => 'none'];
            $this->write(self::AT.'/findings', $finding)->assertCreated();
        }
        $this->assertSame([], $this->read('/second-looks')->json('parts'), 'not those one graded first');
        $again = fn (string $part, string $condition) => $this->write(
            self::AT.'/second-looks',
            compact('part', 'condition'),
        );
        $this->assertProblem($again('sprag', 'pitted race'), 409, 'somebody else');
        $this->as('builder');
        $due = $this->read('/second-looks')->json('parts');
        $this->assertSame(array_keys($seen), array_column($due, 'part'));
        $this->assertStringNotContainsString('first', (string) json_encode($due));
        $this->assertProblem($again('sprag', 'purple'), 422, 'no condition', '/condition');
        $again('sprag', 'flipped cage')->assertCreated()->assertJsonPath('first', 'pitted race');
        $this->assertProblem($again('sprag', 'pitted race'), 404, 'No second grade is due');
        $again('bushings', 'sound')->assertCreated();
        $again('bush-drum', 'wiped')->assertCreated();
        $again('tail-bush', 'sound')->assertCreated();
        $again('bush-stator', 'dark')->assertCreated();
        $again('bush-shell', 'sound')->assertCreated()->assertJsonPath('parts', []);
        // Worked by hand, weights 1, 1/2, 0: three good-good, one each of borderline-scrap, scrap-scrap and
        // scrap-borderline. Observed (3 + 1/2 + 1 + 1/2) / 6 = 5/6; by chance, both with margins (3, 1, 2) / 6,
        // (9 + 1 + 4 + (3 + 2 + 3 + 2) / 2) / 36 = 19/36.
        $rows = array_column($this->read('/second-looks/agreement')->json('rows'), null, 'kind');
        $this->assertEqualsWithDelta((5 / 6 - 19 / 36) / (1 - 19 / 36), $rows['']['kappa'], 1e-9);
        $this->assertSame([6, 5], [$rows['']['n'], $rows['bush']['n']]);
        $this->assertNull($rows['one-way']['kappa']);
        $this->assertSame(6, SecondGrade::query()->count());
    }

    public function test_the_shops_own_picture_of_a_condition_is_what_others_grade_by(): void
    {
        $this->bringTo('teardown');
        $this->as('manager');
        $photo = $this->post(
            '/api/units/C-9001/photos',
            ['photo' => UploadedFile::fake()->image('a.jpg', 40, 40), 'place' => 'sprag: pitted race'],
            ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json'],
        )->assertCreated()->json('id');
        $choose = fn (array $more) => $this->write(
            self::AT.'/references',
            $more + ['part' => 'sprag', 'condition' => 'pitted race', 'photo' => $photo],
        );
        $this->assertProblem($choose(['photo' => 999999]), 422, 'no such picture', '/photo');
        $this->assertProblem($choose(['part' => 'wheel']), 422, 'on the inspection list', '/part');
        $expected = ['kind' => 'one-way', 'condition' => 'pitted race', 'photo' => $photo];
        $choose([])->assertCreated()->assertJsonPath('teardown.references', [$expected]);
        $this->as('teardown');
        $this->assertSame(403, $choose([])->status());
    }

    public function test_what_came_to_light_is_reckoned_and_the_customer_is_asked(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $drum = ['part' => 'reverse-drum', 'condition' => 'snap-ring land cracked'] + self::RENEWED;
        $this->write(self::AT.'/findings', $drum)->assertCreated();
        $costs = $this->read(self::AT.'/costs')->json();
        $part = array_column($costs['parts'], null, 'part')['DR-95'];
        $this->assertFalse($part['inOrder']);
        $this->assertEqualsWithDelta($part['price'], $costs['partsAdded'], 1e-9);
        $this->assertEqualsWithDelta($part['price'], $costs['costAdded'], 1e-9, 'no hours came to light');
        $this->assertSame('Rebuild this one', $costs['choices'][0]['what']);
        $this->assertStringContainsString('more than ordered', $costs['choices'][0]['note']);
        $asked = ['text' => 'New reverse drum', 'hours' => 0.5, 'price' => 240];
        $this->assertProblem(
            $this->write(self::AT.'/extra-work', ['hours' => -1] + $asked),
            422,
            'hours',
            '/hours',
        );
        $id = $this->write(self::AT.'/extra-work', $asked)->assertCreated()->json('extraWork.0.id');
        $this->assertContains("extra-work:$id", $this->blockers('sign-off'));
        $said = ['answer' => 'approved', 'answeredBy' => 'C. Bray', 'how' => 'by telephone'];
        $this->assertProblem(
            $this->write(self::AT."/extra-work/$id/answer", ['answer' => 'maybe'] + $said),
            422,
            'answer',
            '/answer',
        );
        $answered = $this->write(self::AT."/extra-work/$id/answer", $said)->assertOk();
        $answered->assertJsonPath('extraWork.0.answer', 'approved');
        $this->assertProblem($this->write(self::AT."/extra-work/$id/answer", $said), 409, 'answered already');
        $this->assertNotContains("extra-work:$id", $this->blockers('sign-off'));
    }

    public function test_a_cause_in_the_vehicle_is_told_and_holds_the_warranty(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->assertProblem($this->read(self::AT.'/letter'), 409, 'no letter to write');
        $name = fn (string $cause) => $this->write(
            self::AT.'/vehicle-causes',
            ['cause' => $cause, 'note' => 'Paste in the lines.'],
        );
        $this->assertProblem($name('moon'), 422, 'no cause called', '/cause');
        $id = $name('cooler')->assertCreated()->json('vehicleCauses.0.id');
        $this->assertProblem($name('cooler'), 409, 'named already');
        $letter = $this->read(self::AT.'/letter')->assertOk()->getContent();
        $this->assertStringContainsString('Cooler exchanged, lines flushed', (string) $letter);
        $this->assertStringContainsString('Paste in the lines.', (string) $letter);
        $pdf = $this->read(self::AT.'/letter.pdf')->assertOk();
        $this->assertStringStartsWith('%PDF-', (string) $pdf->getContent());
        $this->assertStringContainsString(
            'In the vehicle',
            (string) $this->read(self::AT.'/report')->assertOk()->getContent(),
        );
        $this->workThrough('C-9001', 'teardown');
        $this->write(self::AT.'/complete', ['noCauseFound' => true])->assertOk();
        $this->assembleEverything('C-9001');
        $this->write('/units/C-9001/assembly/sign-off')->assertCreated();
        $this->passDyno('C-9001');
        $this->workThrough('C-9001', 'dispatch');
        $this->as('manager')->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])->assertCreated();
        $this->as('returns');
        $sheet = $this->onCard('dispatch.sheet');
        $this->assertSame('Cooler exchanged, lines flushed, flow measured.', $sheet['conditions'][0]['condition']);
        $installed = [
            'installedOn' => now()->format('Y-m-d'),
            'odometer' => '120000 km',
            'installer' => 'Pier Street Garage',
            'items' => ['cooler'],
            'converterDepth' => '27 mm',
            'flexplateDepth' => '22 mm',
        ];
        $commission = fn () => $this->write('/units/C-9001/dispatch/commissioning', $installed);
        $this->assertProblem($commission(), 409, 'The warranty does not start yet. Cooler');
        $settled = ['who' => 'Pier Street Garage', 'how' => 'new cooler, 26 November'];
        $this->write(self::AT."/vehicle-causes/$id/settled", $settled)->assertOk();
        $this->assertProblem($this->write(self::AT."/vehicle-causes/$id/settled", $settled), 409, 'settled already');
        $commission()->assertCreated();
    }

    public function test_a_part_on_loan_does_not_ship(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $loan = ['name' => 'Sensor harness', 'origin' => 'unit C-7', 'reason' => 'test run'];
        $id = $this->write(self::AT.'/loans', $loan)->assertCreated()->json('loans.0.id');
        $this->assertContains("loan:$id", $this->blockers('ship'));
        $this->write(self::AT."/loans/$id/out", [])->assertOk();
        $this->assertProblem($this->write(self::AT."/loans/$id/out", []), 409, 'out already');
        $this->assertNotContains("loan:$id", $this->blockers('ship'));
    }

    public function test_tools_are_registered_by_the_manager(): void
    {
        $tool = ['tag' => 'st-50', 'kind' => 'lip-tool', 'name' => 'Lip tools', 'place' => 'drawer 2'];
        $tool += ['inspectedUntil' => '2027-01-31'];
        $this->as('builder');
        $this->assertSame(403, $this->write('/tools', $tool)->status());
        $this->as('manager');
        $this->assertProblem($this->write('/tools', ['kind' => 'spoon'] + $tool), 422, 'no kind of tool', '/kind');
        $soon = $this->write('/tools', ['inspectedUntil' => 'soon'] + $tool);
        $this->assertProblem($soon, 422, 'inspected', '/inspectedUntil');
        $this->write('/tools', $tool)->assertCreated();
        $this->assertProblem($this->write('/tools', $tool), 422, 'ST-50 already', '/tag');
        $changed = array_diff_key(['place' => 'drawer 3', 'version' => 1] + $tool, ['tag' => 0]);
        $this->write('/tools/ST-50', $changed, null, 'PUT')->assertOk();
        $this->assertProblem($this->write('/tools/ST-50', $changed, null, 'PUT'), 409, 'Somebody else changed');
        $tools = array_column($this->read('/tools')->json('tools'), null, 'tag');
        $this->assertSame('drawer 3', $tools['ST-50']['place']);
    }

    /** @return array<string, array{list<string>, int, string}> */
    public static function scales(): array
    {
        return [
            'eight balls in a basket' => [['--pieces' => '8', '--piece' => '1.05', '--basket' => '120'], 0, '128.4 g'],
            'nothing on it' => [[], 0, '0.0 g'],
            'no number' => [['--pieces' => 'a few'], 2, '--pieces must be a number'],
            'no step' => [['--step' => '0'], 2, '--step must be a number'],
        ];
    }

    /** @param  array<string, string>  $options */
    #[DataProvider('scales')]
    public function test_the_stand_in_of_the_scale_types_what_a_scale_would(array $options, int $rc, string $said): void
    {
        [$code, $output] = $this->command('stand-in:scale', $options);
        $this->assertSame($rc, $code);
        $this->assertStringContainsString($said, $output);
    }

    /** @return list<string> codes of what bars the gate */
    private function blockers(string $gate): array
    {
        $unit = Unit::query()->where('core_tag', 'C-9001')->firstOrFail();
        $blockers = app(\App\Yard\Gatekeeper::class)->blockers($unit, \App\Yard\Gate::from($gate));

        return array_column(array_map(fn (\App\Yard\Contracts\Blocker $b) => $b->jsonSerialize(), $blockers), 'code');
    }
}
