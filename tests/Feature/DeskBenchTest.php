<?php

namespace Tests\Feature;

use App\Catalog\Exchange\CheckPack;
use App\Catalog\Models\Vocabulary;
use App\Work\Models\Recording;
use App\Yard\Models\Build;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Dispatch and the returns desk are benches like the others; what is said at one is kept as it was spoken. */
final class DeskBenchTest extends TestCase
{
    private const WEBM = "\x1A\x45\xDF\xA3 and what a browser wrote";

    private function packedUp(): void
    {
        $this->bringTo('dyno');
        $this->passDyno('C-9001');
    }

    /** @return array<string, string> state by code */
    private function states(string $bench): array
    {
        return array_column($this->onCard("$bench.work.operations"), 'state', 'code');
    }

    private function came(): string
    {
        $this->packedUp();
        $this->workThrough('C-9001', 'dispatch');
        $serial = $this->as('manager')
            ->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])
            ->assertCreated()
            ->json('serial');

        return $this->as('returns')
            ->write('/returns', ['serial' => $serial, 'complaint' => 'No drive', 'failedOn' => '2026-11-01'])
            ->assertCreated()
            ->json('returns.cases.0.number');
    }

    public function test_a_unit_leaves_only_packed_seated_and_under_its_own_label(): void
    {
        $this->packedUp();
        $this->as('manager');
        $refused = $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW']);
        $this->assertProblem($refused, 409, 'Converter strapped to the bell');
        $this->assertSame('waits', $this->states('dispatch')['converter-held']);
        $scan = ['dispatch', 'converter-seated', 'scan-converter-tag'];
        $tag = fn (string $code) => $this->prove('C-9001', ...$scan, answer: compact('code'));
        $this->assertProblem($tag('CV-1'), 422, 'that was \\"CV-9001\\"', '/answer/code');
        $tag('CV-9001')->assertOk();
        $two = $this->prove('C-9001', 'dispatch', 'converter-seated', 'count', ['counts' => ['clicks felt' => 2]]);
        $this->assertProblem($two, 422, 'clicks felt');
        $this->prove('C-9001', 'dispatch', 'converter-seated', 'count', ['counts' => ['clicks felt' => 3]])->assertOk();
        $this->assertSame('open', $this->states('dispatch')['converter-held']);
        $other = $this->prove('C-9001', 'dispatch', 'label', 'scan-unit-label', ['code' => 'VY-26-9999']);
        $this->assertProblem($other, 422, 'not the label of this unit', '/answer/code');
        $serial = Build::query()->firstOrFail()->serial;
        $this->prove('C-9001', 'dispatch', 'label', 'scan-unit-label', ['code' => $serial])->assertOk();
        $this->workThrough('C-9001', 'dispatch');
        $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])->assertCreated();
        $this->assertProblem(
            $this->prove('C-9001', 'dispatch', 'papers', 'done'),
            409,
            'at the customer',
        );
    }

    public function test_a_job_without_a_converter_is_not_asked_for_one(): void
    {
        $this->packedUp();
        $build = Build::query()->firstOrFail();
        $build->update(['spec' => ['scopes' => ['outside', 'pan', 'valve-body']] + $build->spec]);
        $asked = array_keys($this->as('manager')->states('dispatch'));
        $this->assertSame(['plugged', 'label', 'papers', 'packed'], $asked);
    }

    public function test_what_is_seen_at_the_desk_is_what_is_weighed(): void
    {
        $number = $this->came();
        $desk = fn (string $choice) => $this->prove(
            'C-9001',
            'returns',
            'codes',
            'observation-codes',
            ['choice' => $choice],
        );
        $work = $this->onCard('returns.work.operations');
        $asked = array_column($work, null, 'code')['codes']['proofs'][0];
        $this->assertSame(['none', 'overheat', 'sensor', 'slip', 'cannot be said'], $asked['choices']);
        $this->assertProblem($desk('perhaps'), 422, 'Vehicle codes', '/answer/choice');
        $before = $this->onCard('returns.cases.0.ranking');
        $case = $desk('overheat')->assertOk()->json('returns.cases.0');
        $this->assertSame(['codes' => 'overheat'], $case['observed']);
        $this->assertNotEquals($before, $case['ranking'], 'it weighs');
        $undo = $this->write('/units/C-9001/returns/operations/codes/moves', ['move' => 'undo', 'note' => 'Wrong car']);
        $this->assertSame([], $undo->assertOk()->json('returns.cases.0.observed'));
        $said = $desk('cannot be said')->assertOk();
        $this->assertSame([], $said->json('returns.cases.0.observed'));
        $this->assertEquals($before, $said->json('returns.cases.0.ranking'), 'what cannot be said weighs nothing');
        $this->assertSame('done', $this->states('returns')['codes']);
        $this->write("/returns/$number/verdict", [
            'verdict' => 'vehicle',
            'note' => 'Seen before',
            'split' => ['owner' => 100],
            'version' => $said->json('returns.cases.0.version'),
        ])->assertOk();
        $event = DB::table('ledger')->where('kind', 'return.decided')->value('payload') ?? '{}';
        $this->assertContains('Fluid drawn off and measured', json_decode($event, true)['notLookedAt'] ?? []);
        $this->assertProblem($desk('sensor'), 409, 'done');
    }

    private function speak(string $content, string $number = 'C-9001'): TestResponse
    {
        $file = UploadedFile::fake()->createWithContent('note.webm', $content);

        return $this->post(
            "/api/units/$number/teardown/operations/tail/recordings",
            ['sound' => $file],
            ['Accept' => 'application/json', 'Idempotency-Key' => uniqid('', true)],
        );
    }

    public function test_a_spoken_note_is_kept_as_it_was_spoken(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $work = $this->speak(self::WEBM)->assertOk()->json('teardown.work.operations');
        $spoken = array_column($work, 'spoken', 'code')['tail'];
        $this->assertCount(1, $spoken);
        $heard = $this->get("/api/units/C-9001/teardown/recordings/{$spoken[0]['id']}")->assertOk();
        $this->assertSame('audio/webm', $heard->headers->get('Content-Type'));
        $file = $heard->baseResponse->getFile()->getPathname();
        $this->assertSame(self::WEBM, file_get_contents($file));
        foreach (['<?php echo 1;', 'RIFF and more', ''] as $content) {
            $this->assertProblem($this->speak($content), 422, '', '/sound');
        }
        $this->assertProblem($this->speak(self::WEBM.str_repeat('a', 2_100_000)), 422, '2 MB', '/sound');
        $this->assertSame(1, Recording::query()->count());
        $this->receive('C-9002')->assertCreated();
        $foreign = $this->read("/units/C-9002/teardown/recordings/{$spoken[0]['id']}");
        $this->assertProblem($foreign, 404, 'no such recording of this unit');
        file_put_contents($file, 'somebody else said');
        $this->assertProblem(
            $this->read("/units/C-9001/teardown/recordings/{$spoken[0]['id']}"),
            409,
            'not the one that was spoken',
        );
        file_put_contents($file, self::WEBM);
        $this->assertProblem($this->as('viewer')->speak(self::WEBM), 403, '');
    }

    public function test_a_count_that_differs_bars_the_closing_until_somebody_says_what_became_of_it(): void
    {
        $this->bringTo('teardown');
        $this->workThrough('C-9001', 'teardown', 'valve-body', 'tail');
        $this->as('teardown');
        $balls = ['counts' => ['check balls' => 7, 'valve body bolts' => 22]];
        $card = $this->prove('C-9001', 'teardown', 'valve-body', 'count', $balls, 'Seven in the case');
        $open = $card->assertOk()->json('teardown.discrepancies');
        $this->assertSame([['check balls', 8, 7]], array_map(
            fn (array $d) => [$d['what'], $d['expected'], $d['counted']],
            $open,
        ));
        $this->assertStringContainsString('two circuits run into each other', $open[0]['means']);
        $this->prove('C-9001', 'teardown', 'valve-body', 'scan-tray', ['code' => 'T-9'])->assertOk();
        $this->workThrough('C-9001', 'teardown');
        $close = fn () => $this->as('teardown')->write('/units/C-9001/teardown/complete');
        $this->assertProblem($close(), 409, '7 check balls where there should be 8');
        $decide = fn (array $body, int $id) => $this->write("/units/C-9001/teardown/discrepancies/$id", $body);
        $this->assertProblem($decide(['decision' => 'came-so'], $open[0]['id']), 422, 'Say how that is known', '/note');
        $this->assertProblem($decide(['decision' => 'perhaps'], $open[0]['id']), 422, '', '/decision');
        $this->assertProblem($decide(['decision' => 'found'], 999_999), 404, 'no such difference');
        $said = ['decision' => 'came-so', 'note' => 'Its pocket is dark and dry.'];
        $decided = $decide($said, $open[0]['id'])->assertOk()->json('teardown.discrepancies.0');
        $this->assertSame(['came-so', 'Its pocket is dark and dry.'], [$decided['decision'], $decided['decisionNote']]);
        $this->assertProblem($decide($said, $open[0]['id']), 409, 'decided already');
        $close()->assertOk();
    }

    public function test_a_recount_after_an_undo_takes_the_difference_away(): void
    {
        $this->bringTo('teardown');
        $this->workThrough('C-9001', 'teardown', 'tail');
        $this->as('teardown');
        $this->prove('C-9001', 'teardown', 'tail', 'count', ['counts' => ['tail bolts' => 7]], 'One more')->assertOk();
        $differ = fn () => $this->onCard('teardown.discrepancies');
        $this->assertStringContainsString('another pattern', $differ()[0]['means']);
        $undo = ['move' => 'undo', 'note' => 'Counted the washer'];
        $this->write('/units/C-9001/teardown/operations/tail/moves', $undo)->assertOk();
        $this->assertSame([], $differ());
        $this->prove('C-9001', 'teardown', 'tail', 'count', ['counts' => ['tail bolts' => 6]])->assertOk();
        $this->assertSame([], $differ());
    }

    public function test_the_shop_s_own_lists_are_checked_like_those_of_a_family(): void
    {
        $wrong = function (array $operations): array {
            $pack = json_decode((string) file_get_contents(base_path('database/demo/catalog.json')));
            foreach ($pack->vocabularies as $vocabulary) {
                $vocabulary->code === 'returns-operations' &&
                    $vocabulary->body->operations = json_decode((string) json_encode($operations));
            }
            try {
                CheckPack::decoded((string) json_encode($pack));
            } catch (\App\Catalog\Exchange\BadPack $e) {
                return array_column($e->errors, 'detail', 'pointer');
            }

            return [];
        };
        $at = '/vocabularies/5/body/operations';
        $this->assertSame([], $wrong([['code' => 'a', 'name' => 'A', 'proofs' => ['observation codes']]]));
        $this->assertArrayHasKey("$at/0/proofs/0/of", $wrong([
            ['code' => 'a', 'name' => 'A', 'proofs' => ['observation colour-of-the-car']],
        ]));
        $this->assertArrayHasKey("$at/0/proofs/0/of", $wrong([
            ['code' => 'a', 'name' => 'A', 'proofs' => ['torque pump']],
        ]));
        $circle = $wrong([
            ['code' => 'a', 'name' => 'A', 'after' => ['b']],
            ['code' => 'b', 'name' => 'B', 'after' => ['a']],
        ]);
        $this->assertStringStartsWith($at, (string) array_key_first($circle));
        $this->assertNotSame([], $wrong([['code' => 'a', 'proofs' => ['done']]]), 'a name is missing');
    }

    public function test_a_shop_whose_catalog_has_no_such_lists_ships_as_before(): void
    {
        $this->packedUp();
        Vocabulary::query()->where('code', 'dispatch-operations')->delete();
        $this->assertSame([], $this->as('manager')->states('dispatch'));
        $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])->assertCreated();
    }
}
