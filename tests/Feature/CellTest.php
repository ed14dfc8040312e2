<?php

namespace Tests\Feature;

use App\Kernel\Ledger\VerifyState;
use App\Shop\Models\Person;
use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Actions\OnTheRig;
use App\Stations\Dyno\LiveToken;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use App\Stations\Dyno\Queries\GoodRuns;
use App\Stations\Dyno\Trace;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Yard\Rig\Once;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** Runs on their way between desk, rig and verdict. */
final class CellTest extends TestCase
{
    private function queued(): Run
    {
        $this->bringTo('dyno');

        return Run::query()->findOrFail(
            $this->as('dyno')
                ->write('/units/C-9001/dyno/runs', ['cell' => 'A'])
                ->assertCreated()
                ->json('id'),
        );
    }

    public function test_a_run_carries_program_limits_and_exact_ratios(): void
    {
        $run = $this->queued();
        $this->assertSame('queued', $run->state);
        // Ravigneaux closed forms for 26/38/74
        $this->assertEqualsWithDelta(
            ['1' => 74 / 26, '2' => (74 * 64) / (26 * 112), '3' => 1.0, '4' => 74 / 112, 'R' => -74 / 38],
            $run->program['ratios'],
            1e-9,
        );
        $this->assertSame(0.9, $run->program['limits']['shiftDuration_s']['max']);
    }

    public function test_the_package_alters_the_limits(): void
    {
        $this->bringTo('dyno', 'C-9001', 'tow');
        $id = $this->as('dyno')->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated()->json('id');
        $this->assertSame(
            ['min' => 0.03, 'max' => 0.7],
            Run::query()->findOrFail($id)->program['limits']['shiftDuration_s'],
            'a firm package shifts quicker: its window is lower',
        );
    }

    public function test_one_run_at_a_time(): void
    {
        $this->queued();
        $this->assertProblem($this->write('/units/C-9001/dyno/runs', ['cell' => 'A']), 409, 'already on its way');
    }

    public function test_a_queued_run_can_be_cancelled_once(): void
    {
        $run = $this->queued();
        $this->write("/dyno/runs/$run->id/cancel")
            ->assertOk()
            ->assertJsonPath('state', 'cancelled');
        $this->assertProblem($this->write("/dyno/runs/$run->id/cancel"), 409, 'already over');
        $this->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated();
    }

    public function test_a_running_run_is_asked_to_stop(): void
    {
        $run = $this->queued();
        $run->update(['state' => 'running']);
        $this->write("/dyno/runs/$run->id/cancel")->assertOk();
        $this->assertTrue($run->refresh()->cancel_requested);
        $this->assertSame('running', $run->state, 'the gateway stops the rig and says so');
    }

    public function test_nothing_is_judged_before_it_is_analysed_or_twice(): void
    {
        $run = $this->queued();
        $this->assertProblem(
            $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']),
            409,
            'not analysed yet',
        );
        $run->update(['state' => 'analysed']);
        $this->assertProblem(
            $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']),
            409,
            'Nothing of this run was held against a limit',
        );
        $this->check($run, 70.0, true);
        $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass'])->assertOk();
        $this->assertProblem($this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']), 409, 'dispatch');
    }

    public function test_what_a_later_run_measured_is_not_passed_by_on_an_earlier_one(): void
    {
        $run = $this->queued();
        $run->update(['state' => 'analysed']);
        $this->check($run, 70.0, true);
        $later = Run::query()->findOrFail(
            $this->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated()->json('id'),
        );
        $pass = fn () => $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']);
        foreach (['running', 'analysed'] as $state) {
            $later->update(['state' => $state]);
            $this->assertProblem($pass(), 409, "Run $later->id of this unit came after this one");
        }
        $later->update(['state' => 'cancelled']);
        $pass()->assertOk();
    }

    public function test_a_conditional_pass_is_the_managers_with_a_reason(): void
    {
        $run = $this->queued();
        $run->update(['state' => 'analysed']);
        $this->check($run, 90.0, false);
        $this->assertProblem(
            $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'conditional', 'reason' => 'x']),
            403,
            'Only the shop manager',
        );
        $this->assertProblem(
            $this->as('manager')->write("/dyno/runs/$run->id/verdict", ['verdict' => 'conditional']),
            422,
            'Say why',
            '/reason',
        );
        $card = $this->write("/dyno/runs/$run->id/verdict", [
            'verdict' => 'conditional',
            'reason' => 'Cold oil, agreed with the customer',
        ])->assertOk();
        $this->assertSame('dispatch', $card->json('station'));
        $sheet = $this->onCard('dispatch.sheet');
        $this->assertSame(
            ['conditional', 'Cold oil, agreed with the customer'],
            [$sheet['dyno']['verdict'], $sheet['dyno']['reason']],
        );
    }

    /** @var array<string, list<list<float>>> what the rig sent, by fault */
    private static array $sent = [];

    /**
     * Records what the rig would send of a unit, as somebody alters it, and analyses it.
     *
     * @param  callable  $altered  (rows, steps of the program) => rows
     * @param  list<array<string, mixed>>  $faults
     */
    private function recorded(callable $altered, array $faults = []): Run
    {
        $run = $this->queued();
        $program = $run->program;
        $file = json_decode((string) json_encode(app(OnTheRig::class)->file($run->build)), true);
        $rows = self::$sent[json_encode($faults)] ??= array_values(iterator_to_array(
            Once::run($file, $faults, $program['steps'], (float) $program['end'], 5),
        ));
        $rows = $altered($rows, $program['steps']);
        @mkdir(dirname(Trace::path($run)), 0775, true);
        $lines = array_map(fn (array $row) => implode(',', $row), $rows);
        $header = implode(',', ['t_s', ...Trace::CHANNELS]);
        file_put_contents(Trace::path($run), "$header\n".implode("\n", $lines)."\n");
        $run->update(['state' => 'recorded', 'ended_at' => now(), 'trace_path' => "traces/run-$run->id.csv"]);
        app()->call([new AnalyseRun($run->id), 'handle']);

        return $run->refresh();
    }

    public function test_the_house_holds_a_run_to_what_it_allowed_on_the_day_of_the_test(): void
    {
        $this->house('dyno-flare', '2', 'Our customers feel four.');
        $this->house('dyno-slip', '9');
        $run = $this->recorded(fn (array $rows) => $rows);
        $this->assertSame(['flare_rpm'], $run->program['houseLimits'], 'the program forbids more than the house');
        $this->assertSame(1.5, $run->program['limits']['slip_pct']['max']);
        $this->assertSame(
            ['house'],
            $run->checks->where('pass', false)->where('name', 'Flare')->pluck('against')->unique()->values()->all(),
        );
        $this->house('dyno-flare', '200');
        $this->assertProblem($this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']), 409, 'Flare');
        $page = (string) $this->get("/api/dyno/runs/$run->id/certificate")->assertOk()->getContent();
        $this->assertMatchesRegularExpression('/house\s+to 2\s/', $page);
        $shown = $this->read('/units/C-9001?sections=dyno')->assertOk()->json('dyno.program.limits');
        $this->assertSame(80, $shown['flare_rpm']['max'], 'the next run is held to what holds then');
    }

    public function test_a_whole_recording_of_a_sound_unit_passes_and_its_hash_is_in_the_ledger_and_on_the_sheet(): void
    {
        $run = $this->recorded(fn (array $rows) => $rows);
        $this->assertSame('analysed', $run->state, (string) $run->error);
        $this->assertSame([], $run->checks->where('pass', false)->pluck('name')->all());
        $packed = (string) file_get_contents('compress.zlib://'.Trace::path($run).'.gz');
        $this->assertSame(hash('sha256', $packed), $run->trace_sha256);
        $this->assertFileDoesNotExist(Trace::path($run), 'kept packed');
        $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass'])->assertOk();
        $event = DB::table('ledger')->where('kind', 'run.analysed')->orderByDesc('id')->value('payload');
        $this->assertSame($run->trace_sha256, json_decode($event, true)['traceSha256']);
        $sheet = $this->onCard('dispatch.sheet');
        $this->assertSame($run->trace_sha256, $sheet['dyno']['traceSha256']);
    }

    public function test_lost_samples_never_hide_a_slow_shift(): void
    {
        // One sample in three is missing for a second at each shift: taken for evenly spaced, the shifts look short.
        $thinned = function (array $rows, array $steps): array {
            $at = array_column(array_filter($steps, fn (array $s) => isset($s['gear'])), 't');
            $shifting = fn (float $t): bool => array_filter($at, fn ($s) => $t >= $s && $t < $s + 1.0) !== [];

            return array_values(
                array_filter(
                    $rows,
                    fn (array $row, int $k) => $k % 3 !== 0 || ! $shifting((float) $row[0]),
                    ARRAY_FILTER_USE_BOTH,
                ),
            );
        };
        $run = $this->recorded($thinned, [['fault' => 'slow-accumulator', 'where' => 'C3', 'severity' => 0.95]]);
        $this->assertSame('analysed', $run->state, (string) $run->error);
        $lost = $run->checks->firstWhere('name', 'Samples lost');
        $this->assertFalse($lost?->pass);
        $this->assertGreaterThan(100, $lost->value);
        $late = $run->checks->where('name', 'Shift delay')->where('pass', false)->pluck('place');
        $this->assertContains('2-3', $late, 'the shift is as late as it was');
        $of = $run->checks->where('name', 'Shift delay')->where('place', '2-3')->keyBy('against');
        ['limits' => $limits, 'reference' => $good] = $run->program;
        $this->assertSame((float) $limits['shiftDelay_s']['max'], $of['limits']->most);
        $this->assertSame((float) $good['shift:2-3#1:delay']['max'], $of['good units']->most);
        $this->assertProblem(
            $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']),
            409,
            'Samples lost',
        );
    }

    /**
     * @param  list<list<mixed>>  $rows
     * @return list<list<mixed>> with something else for an input speed
     */
    private static function with(array $rows, int $n, string $text): array
    {
        $rows[$n][1] = $text;

        return $rows;
    }

    public static function lies(): array
    {
        $swap = function (array $rows): array {
            [$rows[500], $rows[501]] = [$rows[501], $rows[500]];

            return $rows;
        };

        return [
            'time that runs backwards' => [$swap, 'runs backwards'],
            'text in a channel' => [fn (array $r) => self::with($r, 700, '=cmd()'), '=cmd()'],
            'a number that is none' => [fn (array $r) => self::with($r, 700, 'NAN'), 'NAN'],
            'time beyond the run' => [
                fn (array $r) => [...$r, [999.0, ...array_fill(0, 12, 1)]],
                'belongs to no place',
            ],
            'nothing at all' => [fn (array $r) => [], 'holds no sample'],
        ];
    }

    #[DataProvider('lies')]
    public function test_what_is_no_recording_of_the_run_is_refused(callable $altered, string $says): void
    {
        $run = $this->recorded($altered);
        $this->assertSame('failed', $run->state);
        $this->assertStringContainsString($says, (string) $run->error);
    }

    public function test_doubled_samples_are_named_and_do_not_pass(): void
    {
        $run = $this->recorded(fn (array $r) => [...array_slice($r, 0, 900), ...array_slice($r, 899)]);
        $twice = $run->checks->firstWhere('name', 'Samples that came twice');
        $this->assertSame([1.0, false], [$twice?->value, $twice?->pass]);
    }

    public function test_a_recording_changed_after_its_analysis_is_not_judged(): void
    {
        $run = $this->recorded(fn (array $rows) => $rows);
        $this->assertSame([], app(VerifyState::class)->verify()['differences'], 'packed is not altered');
        $kept = (string) file_get_contents(Trace::path($run).'.gz');
        file_put_contents(Trace::path($run).'.gz', (string) gzencode("t_s\n"), FILE_APPEND);
        $this->assertProblem(
            $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']),
            409,
            'not the one that was analysed',
        );
        $told = fn (): array => array_column(app(VerifyState::class)->verify()['differences'], 'what');
        $this->assertSame(["its file traces/run-$run->id.csv was altered"], $told());
        unlink(Trace::path($run).'.gz');
        $this->assertSame(["its file traces/run-$run->id.csv is gone"], $told());
        file_put_contents(Trace::path($run).'.gz', $kept); // every test leaves what the events say
    }

    public function test_a_run_without_its_recording_ends_with_a_sentence(): void
    {
        $run = $this->queued();
        @unlink(Trace::path($run));
        $run->update(['state' => 'recorded']);
        app()->call([new AnalyseRun($run->id), 'handle']);
        $this->assertSame('failed', $run->refresh()->state);
        $this->assertStringContainsString('is not there', (string) $run->error);
    }

    public function test_a_damaged_recording_fails_the_run_with_a_sentence(): void
    {
        $run = $this->queued();
        $run->update(['state' => 'recorded']);
        @mkdir(dirname(Trace::path($run)), 0775, true);
        file_put_contents(Trace::path($run), "t_s,input_rpm,output_rpm\n0,900,850\n");
        app()->call([new AnalyseRun($run->id), 'handle']);
        $this->assertSame('failed', $run->refresh()->state);
        $this->assertStringContainsString('could not be analysed: ', $run->error);
    }

    public function test_a_recording_is_drawn_at_any_width_and_downloaded_as_it_was_written(): void
    {
        $run = $this->recorded(fn (array $rows) => $rows);
        $sent = self::$sent['[]'];
        $whole = $this->get("/api/dyno/runs/$run->id")->assertOk()->json('trace');
        $this->assertLessThanOrEqual(2 * 2000, count($whole['channels']['turbine_rpm']));
        $turbine = array_column($sent, 2);
        $this->assertEqualsWithDelta(max($turbine), max($whole['channels']['turbine_rpm']), 0.01, 'no peak is lost');
        $this->assertEqualsWithDelta(min($turbine), min($whole['channels']['turbine_rpm']), 0.01);
        $near = $this->get("/api/dyno/runs/$run->id/trace?from=10&to=12&points=1000")->assertOk()->json();
        $this->assertSame(0.005, $near['every_s'], 'close enough it is every sample');
        $this->assertEqualsWithDelta(
            array_column(array_slice($sent, 2000, 400), 3),
            $near['channels']['output_rpm'],
            0.01,
        );
        $this->assertProblem(
            $this->get("/api/dyno/runs/$run->id/trace?from=5&to=2", ['Accept' => 'application/json']),
            422,
            'to',
            '/to',
        );
        $csv = $this->get("/api/dyno/runs/$run->id/trace.csv")->assertOk()->streamedContent();
        $this->assertSame($run->trace_sha256, hash('sha256', $csv));
    }

    public function test_numbers_stand_beside_those_of_runs_that_passed(): void
    {
        $this->bringTo('dyno');
        $build = $this->unit()->currentBuild;
        $by = Person::query()->where('badge', '104')->valueOrFail('id');
        $run = fn (string $verdict, float ...$values): Run => tap(Run::query()->create([
            'build_id' => $build?->id,
            'loop_no' => 1,
            'state' => 'analysed',
            'specimen' => 'x',
            'program' => ['steps' => [], 'ratios' => [], 'limits' => [], 'rate_hz' => 200, 'end' => 0],
            'verdict' => $verdict,
            'verdict_reason' => 'as measured',
            'suspect' => $verdict === 'fail' ? 'C3' : '',
            'verdict_by' => $by,
            'verdict_at' => now(),
            'started_by' => $by,
            'queued_at' => now(),
        ]), function (Run $made) use ($values): void {
            foreach ($values as $n => $value) {
                RunCheck::query()->create([
                    'run_id' => $made->id,
                    'position' => $n,
                    'name' => 'Shift time',
                    'place' => ['1-2', '2-3'][$n],
                    'value' => $value,
                    'unit' => 's',
                    'pass' => true,
                ]);
            }
        });
        foreach ([0.20, 0.24, 0.22, 0.23] as $value) {
            $run('pass', $value);
        }
        $run('fail', 9.0, 9.0);
        $last = $run('fail', 0.30);
        $this->assertSame([], GoodRuns::beside($last), 'four say nothing');
        $run('pass', 0.21, 0.4);
        $bands = GoodRuns::beside($last);
        $this->assertCount(1, $bands, 'one reading at 2-3 says nothing');
        $expected = ['check' => 'Shift time', 'where' => '1-2', 'low' => 0.2, 'high' => 0.24, 'runs' => 5];
        $this->assertEqualsWithDelta($expected, $bands[0], 1e-6);
    }

    public function test_what_a_run_shows_names_the_suspect(): void
    {
        $run = $this->recorded(fn (array $rows) => $rows, [
            ['fault' => 'slow-accumulator', 'where' => 'C3', 'severity' => 0.95],
        ]);
        $analysis = $this->get("/api/dyno/runs/$run->id")->json('analysis');
        $this->assertSame('C3', $analysis['suspects'][0]['element']);
        $this->assertStringContainsString('Shift 2-3', $analysis['suspects'][0]['because']);
        $this->assertProblem($this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']), 409, '2-3');
    }

    public function test_the_certificate_shows_curves_numbers_verdict_and_hash(): void
    {
        $run = $this->recorded(fn (array $rows) => $rows);
        $this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass'])->assertOk();
        $page = (string) $this->get("/api/dyno/runs/$run->id/certificate")->assertOk()->getContent();
        $must = [
            $run->trace_sha256,
            'Passed',
            'cell A',
            "Filled with {$run->program['fluid']['litres']} l of",
            'Shift delay',
            'Time to engage',
            'data:image/svg+xml',
        ];
        foreach ($must as $shown) {
            $this->assertStringContainsString((string) $shown, $page);
        }
        $pdf = $this->get("/api/dyno/runs/$run->id/certificate.pdf")->assertOk();
        $this->assertSame('%PDF', substr((string) $pdf->getContent(), 0, 4));
        $run->update(['analysis' => null]);
        $this->assertProblem(
            $this->get("/api/dyno/runs/$run->id/certificate", ['Accept' => 'application/json']),
            409,
            'nothing to certify',
        );
    }

    public function test_the_file_of_the_unit_for_the_rig_is_how_it_was_built(): void
    {
        $run = $this->queued();
        $file = json_decode(
            (string) file_get_contents(config('yard.state')."/app/specimens/$run->specimen.json"),
            true,
        );
        $this->assertSame('specimen/1', $file['format']);
        $this->assertSame([$run->build->serial, 'RD4'], [$file['serial'], $file['family']]);
        $this->assertSame(['C1', 'C2', 'C3', 'B1', 'B2'], array_slice(array_keys($file['capacities']), 0, 5));
        $this->assertEqualsWithDelta(35.8, $file['accumulators']['C3']['volume_cm3'], 0.1);
    }

    public function test_live_addresses_are_signed_and_expire(): void
    {
        $run = $this->queued();
        preg_match('#^/live/runs/(\d+)\?until=(\d+)&sign=([0-9a-f]{64})$#', LiveToken::url($run), $m);
        $this->assertTrue(LiveToken::valid((int) $m[1], (int) $m[2], $m[3]));
        $this->assertFalse(LiveToken::valid((int) $m[1] + 1, (int) $m[2], $m[3]), 'another run');
        $this->assertFalse(LiveToken::valid((int) $m[1], (int) $m[2] + 1, $m[3]), 'a longer time');
        $this->assertFalse(LiveToken::valid((int) $m[1], time() - 1, $m[3]), 'expired');
    }

    public function test_the_cell_is_closed_to_units_elsewhere_and_on_hold(): void
    {
        $this->bringTo('ordering');
        $this->as('dyno');
        $this->assertProblem($this->write('/units/C-9001/dyno/runs', ['cell' => 'A']), 409, 'no released build');
        $this->bringTo('dyno', 'C-9002');
        $this->as('dyno')
            ->write('/units/C-9002/holds', ['reason' => 'Oil leak at the tail'])
            ->assertCreated();
        $this->assertProblem($this->write('/units/C-9002/dyno/runs', ['cell' => 'A']), 409, 'Oil leak at the tail');
    }
}
