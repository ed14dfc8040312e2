<?php

namespace Tests\Feature;

use App\Shop\Models\Person;
use App\Stations\Dyno\Models\Run;
use App\Yard\Models\Build;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/**
 * Fifty requests for one decision, ten at the same moment, each with a key of its own: one has its effect, the others
 * are told so in a sentence. In a database of its own, since what several processes see must be committed.
 */
final class RacesTest extends TestCase
{
    private const DATABASE = 'yard_races';

    private const RACERS = 10;

    private const REQUESTS_EACH = 5;

    private static bool $ready = false;

    public function createApplication()
    {
        $app = parent::createApplication();
        foreach (['owner', 'yard', 'progress'] as $connection) {
            $app['config']->set("database.connections.$connection.database", self::DATABASE);
        }
        if (! self::$ready) {
            Artisan::call('migrate:fresh', ['--force' => true, '--database' => 'owner']);
            Artisan::call('db:grants');
            Artisan::call('catalog:import', ['file' => database_path('demo/catalog.json')]);
            self::$ready = true;
        }

        return $app;
    }

    /** What one test commits the next one finds. */
    protected function furnish(): void
    {
        Person::query()->exists() || parent::furnish();
    }

    /** @return array<int, string|null> */
    protected function connectionsToTransact(): array
    {
        return [];
    }

    /**
     * @param  list<array{string, string, array<string, mixed>}>  $requests  dealt out to the racers in turn
     * @return list<array{int, ?string}> status and sentence of each
     */
    private function race(string $role, array $requests): array
    {
        $person = Person::query()->where('role', $role)->orderBy('id')->firstOrFail();
        $hands = [];
        foreach ($requests as $i => $request) {
            $hands[$i % self::RACERS][] = $request;
        }
        $start = microtime(true) + 2.5;
        $running = [];
        foreach ($hands as $hand) {
            $command = [
                PHP_BINARY,
                dirname(__DIR__).'/fixtures/racer.php',
                self::DATABASE,
                (string) $person->id,
                (string) $start,
                json_encode($hand, JSON_THROW_ON_ERROR),
            ];
            $pipes = [];
            $process = proc_open($command, [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
            $running[] = [$process, $pipes];
        }
        $answers = [];
        foreach ($running as [$process, $pipes]) {
            $out = (string) stream_get_contents($pipes[1]);
            $errors = (string) stream_get_contents($pipes[2]);
            proc_close($process);
            $this->assertIsArray(json_decode($out, true), "A racer fell: $out $errors");
            array_push($answers, ...json_decode($out, true));
        }

        return $answers;
    }

    /**
     * @param  list<array<string, mixed>>  $bodies  one or several different answers to the same question
     * @return array{int, ?string} the one that had its effect
     */
    private function assertOneEffect(string $role, string $path, array $bodies): array
    {
        $requests = [];
        for ($i = 0; $i < self::RACERS * self::REQUESTS_EACH; $i++) {
            $requests[] = ['POST', $path, $bodies[$i % count($bodies)]];
        }
        $answers = $this->race($role, $requests);
        $done = array_values(array_filter($answers, fn (array $a) => $a[0] < 300));
        $refused = array_filter($answers, fn (array $a) => $a[0] >= 300);
        $this->assertCount(1, $done, json_encode(array_count_values(array_column($answers, 0))));
        foreach ($refused as [$status, $sentence]) {
            $this->assertContains($status, [409, 422], (string) $sentence);
            $this->assertNotEmpty($sentence);
        }

        return $done[0];
    }

    private function events(string $kind, string $tag): int
    {
        return DB::table('ledger')->where('kind', $kind)->where('unit_id', $this->unit($tag)->id)->count();
    }

    public function test_an_identity_is_confirmed_once(): void
    {
        $this->bringTo('identification', 'C-9101');
        $this->assertOneEffect('receiver', '/units/C-9101/identification', [
            ['variant' => 'RD4-M', 'note' => 'seen'],
            ['variant' => 'RD4-E', 'note' => 'seen'],
        ]);
        $this->assertSame(1, $this->events('identification.confirmed', 'C-9101'));
        $this->assertSame(1, DB::table('identifications')->where('unit_id', $this->unit('C-9101')->id)->count());
    }

    public function test_a_hold_is_lifted_once(): void
    {
        $this->receive('C-9102')->assertCreated();
        $this->as('manager')->write('/units/C-9102/holds', ['reason' => 'looks wrong'])->assertCreated();
        $hold = DB::table('holds')->where('unit_id', $this->unit('C-9102')->id)->value('id');
        $this->assertOneEffect('manager', "/holds/$hold/lift", [['reason' => 'is right']]);
        $this->assertSame(1, $this->events('hold.lifted', 'C-9102'));
    }

    public function test_a_tray_is_filled_once(): void
    {
        $this->receive('C-9103')->assertCreated();
        $this->assertOneEffect('receiver', '/units/C-9103/trays', [
            ['tag' => 'T-900', 'items' => [['name' => 'check balls', 'count' => 8]]],
        ]);
        $this->assertSame(1, $this->events('tray.filled', 'C-9103'));
    }

    public function test_a_build_is_released_once(): void
    {
        $this->bringTo('ordering', 'C-9104');
        $this->as('manager')
            ->write('/units/C-9104/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->assertOneEffect('manager', '/units/C-9104/ordering/release', [
            ['version' => 1, 'acknowledged' => ['pressure-raised', 'lockup-firm']],
        ]);
        $this->assertSame(1, $this->events('build.released', 'C-9104'));
    }

    public function test_an_assembly_is_signed_once_a_run_judged_once_a_unit_shipped_once_and_it_comes_back_once(): void
    {
        $this->bringTo('assembly', 'C-9105');
        // two tablets with one operation: the first says it, the others are told who did
        $this->assertOneEffect('builder', '/units/C-9105/assembly/operations/clean/proofs/done', [[]]);
        $this->assertSame(1, $this->events('assembly.step', 'C-9105'));
        $this->assembleEverything('C-9105');
        $this->assertOneEffect('builder', '/units/C-9105/assembly/sign-off', [[]]);
        $build = Build::query()->where('unit_id', $this->unit('C-9105')->id)->sole();
        $signed = DB::table('sign_offs')->where('build_id', $build->id)->where('what', 'assembly');
        $this->assertSame(1, $signed->count());

        $this->assertOneEffect('manager', '/units/C-9105/money/credit-revision', [
            ['reason' => 'drum is cracked', 'version' => $this->unit('C-9105')->version],
        ]);
        $this->assertSame(1, $this->events('credit.revised', 'C-9105'));

        $run = $this->analysedRun($build);
        $this->assertOneEffect('dyno', "/dyno/runs/$run->id/verdict", [
            ['verdict' => 'pass'],
            ['verdict' => 'fail', 'reason' => 'slips', 'suspect' => 'C3'],
        ]);
        $this->assertSame(1, $this->events('run.judged', 'C-9105'));
        $passed = $run->refresh()->verdict === 'pass';
        $this->assertSame($passed ? 'passed' : 'released', $build->refresh()->state);
        $this->assertSame($passed ? 'dispatch' : 'assembly', $this->unit('C-9105')->station->value);
        if (! $passed) {
            $run->update(['verdict' => 'pass', 'verdict_reason' => '', 'suspect' => '']);
            $build->update(['state' => 'passed']);
            $this->unit('C-9105')->update(['station' => 'dispatch']);
        }

        $this->workThrough('C-9105', 'dispatch');
        $this->assertOneEffect('manager', '/units/C-9105/dispatch/shipment', [
            ['carrier' => 'own', 'customer' => 'WS-LOW'],
        ]);
        $this->assertSame(1, DB::table('shipments')->where('build_id', $build->id)->count());

        $this->assertOneEffect('returns', '/returns', [
            ['serial' => $build->serial, 'complaint' => 'slips again', 'failedOn' => '2026-11-20'],
        ]);
        $this->assertSame(1, DB::table('returns')->where('build_id', $build->id)->count());
    }

    public function test_different_cores_are_received_side_by_side(): void
    {
        $requests = [];
        for ($n = 0; $n < 60; $n++) {
            $requests[] = ['POST', '/receiving', [
                'coreTag' => 'C-92'.str_pad((string) $n, 2, '0', STR_PAD_LEFT),
                'jobType' => 'rebuild',
                'ownership' => 'exchange',
                'family' => 'RD4',
                'complaint' => 'none',
            ]];
        }
        $answers = $this->race('receiver', $requests);
        $this->assertSame([201 => 60], array_count_values(array_column($answers, 0)), json_encode($answers[0]));
        $this->assertSame(60, DB::table('ledger')->where('kind', 'core.received')->where('stream', 'like', '%')
            ->whereIn('unit_id', DB::table('units')->where('core_tag', 'like', 'C-92%')->select('id'))->count());
        [$status, $output] = $this->command('ledger:verify');
        $this->assertSame(0, $status, $output);
    }

    private function analysedRun(Build $build): Run
    {
        return Run::create([
            'build_id' => $build->id,
            'loop_no' => 1,
            'state' => 'analysed',
            'specimen' => (string) $build->serial,
            'started_by' => Person::query()->where('role', 'dyno')->value('id'),
            'queued_at' => now(),
            'program' => ['rate_hz' => 200, 'steps' => [], 'ratios' => [], 'limits' => []],
            'analysis' => ['gears' => []],
        ])->refresh();
    }
}
