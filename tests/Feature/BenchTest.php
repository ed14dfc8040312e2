<?php

namespace Tests\Feature;

use App\Catalog\Exchange\BadPack;
use App\Catalog\Exchange\CheckPack;
use App\Catalog\Models\JobType;
use App\Work\Bench;
use App\Work\Models\WorkedOperation;
use App\Work\Queries\BenchWork;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** The one bench: operations, their proofs, and what else happens to them. */
final class BenchTest extends TestCase
{
    private const TAG = 'C-9001';

    /** @return array<string, array<string, mixed>> by code */
    private function operations(string $bench): array
    {
        return array_column($this->onCard("$bench.work.operations", self::TAG), null, 'code');
    }

    private function move(string $bench, string $operation, string $move, string $note = ''): TestResponse
    {
        return $this->write('/units/'.self::TAG."/$bench/operations/$operation/moves", [
            'move' => $move,
            'note' => $note,
        ]);
    }

    private function photo(): string
    {
        return (string) $this->post(
            '/api/units/'.self::TAG.'/photos',
            ['photo' => UploadedFile::fake()->image('a.jpg', 40, 40), 'place' => 'harness'],
            ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json'],
        )->assertCreated()->json('id');
    }

    public function test_what_is_not_due_is_refused_by_name_and_nothing_is_written(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->assertProblem(
            $this->prove(self::TAG, 'teardown', 'planets', 'condition-planet', [
                'condition' => 'sound',
                'disposition' => 'reuse',
                'role' => 'none',
            ]),
            409,
            'comes after',
        );
        $this->assertProblem($this->prove(self::TAG, 'teardown', 'nowhere', 'done'), 404, 'no operation');
        $this->assertProblem($this->prove(self::TAG, 'teardown', 'outside', 'count'), 404, 'no proof');
        $this->assertSame(0, WorkedOperation::query()->count());
    }

    public function test_an_operation_is_done_with_its_last_proof_and_knows_who_when_and_how_long(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $this->assertProblem(
            $this->prove(self::TAG, 'teardown', 'outside', 'photo-harness-routing', ['photo' => '999999']),
            422,
            'Take a picture',
            '/answer/photo',
        );
        $this->freezeSecond();
        $this->move('teardown', 'outside', 'start')->assertOk();
        $this->travel(90)->seconds();
        $again = fn () => $this->prove(self::TAG, 'teardown', 'outside', 'photo-harness-routing', [
            'photo' => $this->photo(),
        ]);
        $again()->assertOk();
        $done = $this->operations('teardown')['outside'];
        $this->assertSame(['done', 'Pell Ardane', 90], [$done['state'], $done['by'], $done['worked_s']]);
        $this->assertProblem(
            $again(),
            409,
            'is done: Pell Ardane',
        );
    }

    public function test_a_jam_is_set_aside_and_another_way_leads_on(): void
    {
        $this->bringTo('teardown');
        $this->workThrough(self::TAG, 'teardown', 'pump', 'pump-pressed');
        $this->as('teardown');
        $this->assertProblem($this->move('teardown', 'pump', 'jam'), 422, 'what jams', '/note');
        $this->move('teardown', 'pump', 'jam', 'The puller slips off.')->assertOk();
        $counts = ['counts' => ['pump bolts' => 7, 'sealing rings' => 5]];
        $this->assertProblem(
            $this->prove(self::TAG, 'teardown', 'pump', 'count', $counts),
            409,
            'The puller slips off.',
        );
        $operations = $this->operations('teardown');
        $this->assertSame(['jammed', 'waits'], [$operations['pump']['state'], $operations['pump-look']['state']]);
        $this->assertSame([], $operations['pump-look']['barredBy'], 'the other way is open');
        $this->move('teardown', 'pump-pressed', 'jam', 'The shaft sits fast.')->assertOk();
        $this->assertSame(['pump', 'pump-pressed'], $this->operations('teardown')['reverse-drum']['barredBy']);
        $this->move('teardown', 'pump-pressed', 'free')->assertOk();
        $this->prove(self::TAG, 'teardown', 'pump-pressed', 'count', $counts)->assertOk();
        $operations = $this->operations('teardown');
        $this->assertSame('done', $operations['pump-pressed']['state']);
        $this->assertSame('open', $operations['reverse-drum']['state']);
        $this->workThrough(self::TAG, 'teardown', 'pump');
        $this->write('/units/'.self::TAG.'/teardown/complete')->assertOk();
    }

    public function test_what_is_undone_opens_exactly_what_was_done_on_top_of_it(): void
    {
        $this->bringTo('assembly');
        $this->workThrough(self::TAG, 'assembly', 'pump');
        $this->as('builder');
        $before = BenchWork::of($this->unit(self::TAG), Bench::Assembly)->done();
        $this->assertProblem($this->move('assembly', 'output', 'undo'), 422, 'why', '/note');
        $this->move('assembly', 'output', 'undo', 'A shim was left on the table.')->assertOk();
        $work = BenchWork::of($this->unit(self::TAG), Bench::Assembly);
        $opened = array_values(array_diff($before, $work->done()));
        sort($opened);
        $this->assertSame(
            [
                'band', 'end-play', 'forward-hub', 'high-in', 'input', 'output', 'parking', 'planets', 'rear-play',
                'reverse-in', 'servo', 'shell', 'speed-sensor', 'speed-wheel', 'tail',
            ],
            $opened,
        );
        $this->assertStringContainsString('was undone', $this->operations('assembly')['shell']['reason']);
        $readings = $this->onCard('assembly.places', self::TAG);
        $front = array_values(array_filter($readings, fn (array $p) => $p['code'] === 'front'))[0];
        $this->assertSame([[], null], [$front['readings'], $front['fit']], 'play and washer are open again');
        $this->assertSame(0, DB::table('installed_parts')->where('place', 'front')->whereNull('removed_at')->count());
        $this->assertProblem($this->move('assembly', 'output', 'undo', 'again'), 409, 'not done');
        $this->assembleEverything(self::TAG);
        $this->write('/units/'.self::TAG.'/assembly/sign-off')->assertCreated();
    }

    public function test_the_least_work_to_a_part_is_planned_with_what_is_renewed_and_where(): void
    {
        $this->bringTo('teardown');
        $reach = fn (string $part) => $this->as('teardown')->read("/units/C-9001/teardown/reach?part=$part");
        $servo = $reach('servo')->assertOk()->json();
        // by hand: outside 0.3, pan 0.3, valve body 0.5, accumulators and servo behind it
        $hours = array_sum(array_column($servo['operations'], 'hours'));
        $this->assertEqualsWithDelta($hours, $servo['hours'], 1e-6);
        $this->assertSame('servo', end($servo['operations'])['code']);
        $this->assertContains('pan gasket', $servo['renews']);
        $codes = array_column($servo['operations'], 'code');
        $this->assertNotContains('converter-out', $codes, 'nothing that is not needed');
        $this->assertTrue($reach('filter')->json('inVehicle') || ! in_array('pump', $codes, true));
        $far = $reach('roller-none');
        $this->assertProblem($far, 422, 'No operation of this teardown takes off', '/part');
        $drum = $reach('reverse-drum')->json();
        $this->assertContains('pump', array_column($drum['operations'], 'code'), 'the cheaper of two ways');
        $this->assertFalse($drum['inVehicle']);
        $this->workThrough('C-9001', 'teardown', 'pump', 'pump-pressed');
        $jam = fn (string $code) => $this->as('teardown')->write(
            "/units/C-9001/teardown/operations/$code/moves",
            ['move' => 'jam', 'note' => 'The puller slips off'],
        )->assertOk();
        $jam('pump');
        $this->assertContains('pump-pressed', array_column($reach('reverse-drum')->json('operations'), 'code'));
        $jam('pump-pressed');
        $barred = $reach('reverse-drum')->json();
        $this->assertFalse($barred['possible']);
        $this->assertEqualsCanonicalizing(['pump', 'pump-pressed'], array_column($barred['because'], 'code'));
        $this->assertSame([], $reach('pan')->json('operations'), 'it is off already');
    }

    public function test_a_timer_runs_by_the_servers_clock_and_holds_what_waits_for_it(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $soak = fn (array $answer = [], string $note = '') => $this->prove(
            self::TAG,
            'assembly',
            'soak',
            'timer-soaking',
            $answer,
            $note,
        );
        $this->prove(self::TAG, 'assembly', 'clean', 'done')->assertOk();
        $this->assertProblem($soak(['already' => true]), 422, 'since when', '/note');
        $soak()->assertOk();
        $this->assertProblem($soak(), 409, '30 min left');
        $this->travel(29)->minutes();
        $this->assertProblem($this->prove(self::TAG, 'assembly', 'soak', 'done'), 409, '1 min left');
        $this->assertContains('soak', $this->operations('assembly')['pack-C1']['waitsFor']);
        $this->travel(2)->minutes();
        $this->prove(self::TAG, 'assembly', 'soak', 'done')->assertOk();
        $this->assertNotContains('soak', $this->operations('assembly')['pack-C1']['waitsFor']);
    }

    public function test_a_part_turned_round_is_kept_as_said_and_not_satisfied(): void
    {
        $this->bringTo('assembly');
        $this->workThrough(self::TAG, 'assembly', 'sprag');
        $this->as('builder');
        $say = fn (string $choice) => $this->prove(
            self::TAG,
            'assembly',
            'sprag',
            'orientation-sprag-cage',
            ['choice' => $choice],
        );
        $this->assertProblem($say('upside down'), 422, 'Say how it lies', '/answer/choice');
        $say('the narrow lip')->assertOk();
        $sprag = $this->operations('assembly')['sprag'];
        $this->assertStringContainsString('is not how it belongs', $sprag['proven'][0]['open']);
        $say('the wide lip')->assertOk();
        $sign = fn (string $badge, string $pin) => $this->prove(
            self::TAG,
            'assembly',
            'sprag',
            'sign-sprag-holds-one-way-by-a-second-pair-of-hands',
            ['badge' => $badge, 'pin' => $pin],
        );
        $this->assertProblem($sign('103', '315897'), 422, 'somebody else', '/answer/badge');
        $this->assertProblem($sign('100', '000000'), 422, 'do not go together');
        $sign('100', '482163')->assertOk();
        $sprag = $this->operations('assembly')['sprag'];
        $this->assertSame(['done', 'Mara Quill'], [$sprag['state'], $sprag['proven'][1]['by']]);
    }

    public function test_what_somebody_left_half_done_is_said_to_the_next(): void
    {
        $this->bringTo('assembly');
        $this->workThrough(self::TAG, 'assembly', 'roller');
        $this->as('builder')->prove(self::TAG, 'assembly', 'roller', 'count', ['counts' => ['rollers' => 16]]);
        $this->assertProblem($this->move('assembly', 'clean', 'pause'), 409, 'is done');
        $this->move('assembly', 'roller', 'pause', 'Called to the telephone before it was tried.')->assertOk();
        $left = $this->onCard('assembly.work.handover', self::TAG);
        $this->assertSame(
            [['roller', 'paused', 'Imre Soll', 'Called to the telephone before it was tried.', 1, 2]],
            array_map(
                fn (array $h) => [$h['operation'], $h['activity'], $h['by'], $h['note'], $h['proven'], $h['of']],
                $left,
            ),
        );
    }

    public function test_the_time_of_a_tablet_counts_and_a_clock_set_back_is_refused(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $clean = '/units/'.self::TAG.'/assembly/operations/clean/proofs/done';
        $at = fn (string $at, string $sent) => $this->write($clean, ['at' => $at, 'sent' => $sent]);
        $this->assertProblem($at('2026-01-01T08:10:00Z', '2026-01-01T08:00:00Z'), 422, 'clock of this tablet', '/at');
        $this->travelTo('2026-11-27T10:00:00Z');
        // the tablet is hours wrong, but it knows how long ago it was
        $at('2026-01-01T08:00:00Z', '2026-01-01T08:20:00Z')->assertOk();
        $clean = $this->operations('assembly')['clean'];
        $this->assertSame('2026-11-27T09:40:00Z', $clean['at']);
        $this->assertSame('2026-01-01T08:00:00Z', $clean['tabletAt']);
    }

    public function test_a_reseal_asks_only_for_what_a_reseal_needs(): void
    {
        $this->receive(self::TAG, ['jobType' => 'reseal'])->assertCreated();
        $this->write('/units/'.self::TAG.'/identification', ['variant' => 'RD4-M', 'note' => 'papers'])->assertOk();
        $this->as('manager')->write('/units/'.self::TAG.'/ordering', ['package' => 'daily'])->assertCreated();
        $this->write('/units/'.self::TAG.'/ordering/release', ['version' => 1])->assertOk();
        $teardown = array_keys($this->operations('teardown'));
        $this->assertSame(
            [
                'outside', 'speed-sensor', 'cooler', 'converter-out', 'converter-look', 'tail', 'rear-seal', 'pan',
                'filter', 'pump', 'pump-pressed', 'front-seal', 'rings',
            ],
            $teardown,
        );
        $assembly = $this->operations('assembly');
        $kinds = array_unique(array_merge(...array_map(
            fn (array $o) => array_column($o['proofs'], 'kind'),
            array_values(array_filter($assembly, fn (array $o) => ! isset($o['because']))),
        )));
        $this->assertSame([], array_intersect(['fit', 'reading', 'air', 'timer'], $kinds), 'no pack is opened');
        $this->assertContains('torque', $kinds);
        $this->assertEqualsCanonicalizing(
            ['clean', 'rear-seal'],
            $assembly['tail']['after'],
            'what came between is not part of the job',
        );
        JobType::query()->where('code', 'reseal')->sole()->update(['scopes' => ['pan']]);
        $this->assertCount(count($assembly), $this->operations('assembly'), 'the scopes were frozen with the order');
    }

    /** @return array<string, array{callable(\stdClass): mixed, string, string}> */
    public static function badBenches(): array
    {
        $rd4 = fn (\stdClass $p) => $p->families[0];

        return [
            'a circle' => [
                fn ($p) => ($rd4($p)->assembly[0]->after = ['converter']),
                '/families/0/assembly',
                'wait for each other',
            ],
            'after nothing known' => [
                fn ($p) => ($rd4($p)->teardown[3]->after = ['gone']),
                '/families/0/teardown/3/body/after/0',
                'gone',
            ],
            'a reading of no place' => [
                fn ($p) => ($rd4($p)->assembly[10]->proofs = ['reading pack:C9']),
                '/families/0/assembly/10/body/proofs/0/of',
                'no "C9" among the packs',
            ],
            'a right answer that is no choice' => [
                fn ($p) => ($rd4($p)->assembly[self::nth('assembly', 'sprag')]->proofs[0]->right = 'sideways'),
                '/families/0/assembly/'.self::nth('assembly', 'sprag').'/body/proofs/0/right',
                'one of the choices',
            ],
            'a kind of proof nobody knows' => [
                fn ($p) => ($rd4($p)->assembly[0]->proofs = ['prayer']),
                '/families/0/assembly/0/body/proofs/0',
                '',
            ],
            'a part that is not drawn' => [
                fn ($p) => ($rd4($p)->teardown[0]->parts = ['chimney']),
                '/families/0/teardown/0/body/parts/0',
                'is not drawn',
            ],
            'a part that comes off twice' => [
                fn ($p) => ($rd4($p)->teardown[self::nth('teardown', 'servo')]->removes = ['pan']),
                '/families/0/teardown/'.self::nth('teardown', 'servo').'/body/removes/0',
                'off already',
            ],
            'a part that never comes off' => [
                fn ($p) => ($rd4($p)->teardown[self::nth('teardown', 'servo')]->removes = []),
                '/families/0/teardown',
                '"servo" comes off by no operation',
            ],
            'a clutch that is not drawn' => [
                fn ($p) => array_splice($rd4($p)->body->section->parts, self::at($p, 'C3'), 1),
                '/families/0/body/section',
                'The element "C3" of the train is not drawn',
            ],
            'two parts in one place' => [
                fn ($p) => ($rd4($p)->body->section->parts[self::at($p, 'T2')]->x = [212, 217]),
                '/families/0/body/section/parts/'.self::placeOf('forward-drum'),
                'lies in the place of',
            ],
            'plates that differ from the margins' => [
                fn ($p) => ($rd4($p)->packs[0]->body->fixed[0]->count = 4),
                '/families/0/packs/0/body/fixed',
                'the margins reckon with 5',
            ],
            'a port outside its face' => [
                fn ($p) => ($rd4($p)->body->ports->list[2]->at = [10, 10]),
                '/families/0/body/ports/list/2/at',
                'outside the face',
            ],
            'two ports in one place' => [
                fn ($p) => ($rd4($p)->body->ports->list[1]->at = [153, -28]),
                '/families/0/body/ports/list/1/at',
                'The ports 1 and 2 lie over each other',
            ],
            'a port to hold shut that is not there' => [
                fn ($p) => ($rd4($p)->body->ports->list[0]->cover = [99]),
                '/families/0/body/ports/list/0/cover/0',
                'no other port 99',
            ],
            'an air check without a port' => [
                fn ($p) => array_splice($rd4($p)->body->ports->list, 6, 1),
                '/families/0/body/ports/list',
                'air check of "B2" needs one port and has 0',
            ],
            'a port of nothing that is checked' => [
                fn ($p) => ($rd4($p)->body->ports->list[3]->element = 'F1'),
                '/families/0/body/ports/list/3/element',
                'No air check',
            ],
            'a place drawn from a part that is not there' => [
                fn ($p) => ($rd4($p)->body->outline->places[6]->shape->part = 'chimney'),
                '/families/0/body/outline/places/6/shape/part',
                'chimney',
            ],
        ];
    }

    private static function at(\stdClass $pack, string $part): int
    {
        return (int) array_search($part, array_column($pack->families[0]->body->section->parts, 'code'), true);
    }

    private static function demo(): \stdClass
    {
        return json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'));
    }

    private static function placeOf(string $part): int
    {
        return self::at(self::demo(), $part);
    }

    private static function nth(string $bench, string $operation): int
    {
        return (int) array_search($operation, array_column(self::demo()->families[0]->{$bench}, 'code'), true);
    }

    #[DataProvider('badBenches')]
    public function test_a_pack_whose_bench_or_drawing_cannot_be_is_refused(
        callable $spoil,
        string $pointer,
        string $why,
    ): void {
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')));
        $spoil($pack);
        try {
            CheckPack::decoded((string) json_encode($pack));
            $this->fail('It was accepted.');
        } catch (BadPack $bad) {
            $found = array_filter(
                $bad->errors,
                fn (array $e) => str_starts_with($e['pointer'], $pointer) &&
                    ($why === '' || str_contains($e['detail'], $why)),
            );
            $this->assertNotSame([], $found, (string) json_encode(array_slice($bad->errors, 0, 4)));
        }
    }

    public function test_every_family_is_drawn_and_the_drawing_is_served(): void
    {
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $section = $this->as('viewer')->read("/catalog/families/$family/section")->assertOk()->json();
            $this->assertGreaterThan(35, count($section['parts']), $family);
            $this->assertGreaterThan(5, count($section['ports']['list']), $family);
        }
        $this->read('/catalog/families/NONE/section')->assertNotFound();
    }
}
