<?php

namespace Tests\Feature;

use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Actions\OnTheRig;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use App\Yard\Models\Hold;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;
use Yard\Rig\Once;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** A unit that stays in the house tells a cell that drifts, and what it let pass is held. */
final class ReferenceTest extends TestCase
{
    /** @param  list<array<string, mixed>>  $faults */
    private function record(Run $run, array $faults, int $seed): Run
    {
        $file = json_decode((string) json_encode(app(OnTheRig::class)->file($run->build)), true);
        $rows = iterator_to_array(
            Once::run($file, $faults, $run->program['steps'], (float) $run->program['end'], $seed),
        );
        @mkdir(dirname(Trace::path($run)), 0775, true);
        $lines = array_map(fn (array $row) => implode(',', $row), $rows);
        file_put_contents(
            Trace::path($run),
            implode(',', ['t_s', ...Trace::CHANNELS])."\n".implode("\n", $lines)."\n",
        );
        $run->update(['state' => 'recorded', 'ended_at' => now(), 'trace_path' => "traces/run-$run->id.csv"]);
        app()->call([new AnalyseRun($run->id), 'handle']);

        return $run->refresh();
    }

    /** @param  list<array<string, mixed>>  $faults */
    private function reference(int $seed, array $faults = []): Run
    {
        $this->as('dyno')->write('/dyno/cells/A/reference-runs')->assertCreated();

        return $this->record(Run::query()->latest('id')->firstOrFail(), $faults, $seed);
    }

    /** A unit at the dyno whose run in the cell lies inside all limits, not judged. */
    private function tested(string $tag, int $seed): Run
    {
        $this->bringTo('dyno', $tag);
        $id = $this->as('dyno')->write("/units/$tag/dyno/runs", ['cell' => 'A'])->assertCreated()->json('id');

        return $this->record(Run::query()->findOrFail($id), [], $seed);
    }

    private function pass(Run $run): void
    {
        $this->as('dyno')->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass'])->assertOk();
    }

    public function test_a_cell_that_drifts_passes_nothing_and_holds_what_it_let_pass(): void
    {
        $this->pass($this->tested('C-9001', 5));
        $keep = fn (string $tag, string $cell = 'A') => $this->as('manager')->write(
            "/dyno/cells/$cell/reference",
            ['coreTag' => $tag],
            null,
            'PUT',
        );
        $keep('C-9001')->assertOk()->assertJsonPath('cells.0.reference.coreTag', 'C-9001');
        $this->assertProblem($keep('C-9001', 'B'), 422, 'reference of another cell', '/coreTag');
        $this->assertProblem($keep('C-9001'), 409, 'let that go first');
        $this->assertProblem($keep('C-9001', 'Z'), 422, 'A or B', '/cell');
        $this->assertStringContainsString(
            'reference of cell A and stays in the house',
            (string) json_encode($this->write('/units/C-9001/dispatch/shipment', ['carrier' => 'x'])->json()),
        );
        foreach (range(1, 8) as $seed) {
            $run = $this->reference($seed);
            $this->assertSame(['analysed', 'pass', 'baseline'], [
                $run->state, $run->verdict, $run->analysis['cell']['state'] ?? $run->error,
            ]);
        }
        $this->assertSame('good', $this->reference(21)->analysis['cell']['state']);

        // One passes in the right cell, one waits for its verdict, then the torque cell drifts.
        $this->pass($this->tested('C-9002', 6));
        $waiting = $this->tested('C-9003', 7);
        $beside = $this->read("/dyno/runs/$waiting->id")->assertOk()->json('reference');
        $this->assertSame(['VY-26-0001', 'pass'], [$beside['serial'], $beside['verdict']]);
        $numbers = fn (array $of): array => array_column(
            array_map(fn (array $r): array => ['at' => "$r[check], $r[where]"] + $r, $of),
            'value',
            'at',
        );
        [$its, $unit] = [$numbers($beside['readings']), $numbers($waiting->analysis['readings'])];
        $lines = preg_grep('/^Line pressure, /', array_keys(array_intersect_key($its, $unit))) ?: [];
        $this->assertGreaterThan(3, count($lines), 'what is read of the unit was read of the reference unit too');
        foreach ($lines as $line) {
            $this->assertEqualsWithDelta(1.0, $unit[$line] / $its[$line], 0.05, $line);
        }
        $drifted = $this->reference(22, [['fault' => 'drifting-torque-cell', 'severity' => 0.3]]);
        $this->assertSame('fail', $drifted->verdict);
        $this->assertStringContainsString(
            'it tells of cell A, and is no verdict on this unit',
            (string) $this->get("/api/dyno/runs/$drifted->id/certificate")->assertOk()->getContent(),
        );
        $this->assertStringContainsString('torque out over torque in', $drifted->verdict_reason);
        $held = Hold::query()->where('kind', 'cell-drift')->get();
        $this->assertSame([$this->unit('C-9002')->id], $held->pluck('unit_id')->all());
        $this->assertProblem(
            $this->as('dyno')->write("/dyno/runs/$waiting->id/verdict", ['verdict' => 'pass']),
            409,
            'Cell A drifted at its last reference run',
        );
        $shown = $this->read('/dyno/cells')->assertOk()->json('cells.0');
        $this->assertSame(['drift', ['C-9002'], true], [
            $shown['last']['state'], array_column($shown['since'], 'coreTag'), $shown['since'][0]['inHouse'],
        ]);
        $this->assertContains(true, array_column($shown['charts'], 'out'));
        $this->assertTrue($this->onCard('dyno.cells', 'C-9003')[0]['drifted']);

        // Once more with the cell mended: what waited passes, what was held stays held until somebody says so.
        $this->assertSame('pass', $this->reference(23)->verdict);
        $this->pass($waiting);
        $this->assertSame(1, Hold::query()->where('kind', 'cell-drift')->whereNull('lifted_at')->count());

        $gone = fn () => $this->as('manager')->write('/dyno/cells/A/reference', [], null, 'DELETE');
        $gone()->assertOk()->assertJsonPath('cells.0.reference', null);
        $this->assertProblem($gone(), 409, 'no reference unit');
        $this->assertProblem($this->write('/dyno/cells/A/reference-runs'), 409, 'no reference unit');
    }

    public function test_which_cell_a_unit_stands_on_is_said(): void
    {
        $this->bringTo('dyno');
        $this->as('dyno');
        $this->assertProblem($this->write('/units/C-9001/dyno/runs'), 422, 'A or B', '/cell');
        $this->assertProblem($this->write('/units/C-9001/dyno/runs', ['cell' => 'C']), 422, 'A or B', '/cell');
        $this->write('/units/C-9001/dyno/runs', ['cell' => 'B'])->assertCreated()->assertJsonPath('cell', 'B');
        $this->assertSame([null, '0'], array_map(
            fn (array $c): ?string => $c['busy'] === null ? null : '0',
            $this->onCard('dyno.cells'),
        ));
        config(['yard.cells' => ['A' => 1]]);
        $this->bringTo('dyno', 'C-9002');
        $this->as('dyno')->write('/units/C-9002/dyno/runs')->assertCreated()->assertJsonPath('cell', 'A');
    }

    public function test_a_run_without_all_its_samples_says_nothing_of_the_cell(): void
    {
        $this->pass($this->tested('C-9001', 5));
        $this->as('manager')->write('/dyno/cells/A/reference', ['coreTag' => 'C-9001'], null, 'PUT')->assertOk();
        $this->as('dyno')->write('/dyno/cells/A/reference-runs')->assertCreated();
        $this->assertProblem($this->write('/dyno/cells/A/reference-runs'), 409, 'already on its way');
        $run = Run::query()->latest('id')->firstOrFail();
        @mkdir(dirname(Trace::path($run)), 0775, true);
        $row = implode(',', [0, ...array_fill(0, count(Trace::CHANNELS), 1)]);
        file_put_contents(Trace::path($run), implode(',', ['t_s', ...Trace::CHANNELS])."\n$row\n");
        $run->update(['state' => 'recorded', 'ended_at' => now(), 'trace_path' => "traces/run-$run->id.csv"]);
        app()->call([new AnalyseRun($run->id), 'handle']);
        $this->assertSame(['failed', null], [$run->refresh()->state, $run->verdict]);
        $this->assertStringContainsString('Samples were lost', (string) $run->error);
        $this->assertSame('failed', $this->read('/dyno/cells')->json('cells.0.last.state'));
    }

    public function test_a_house_that_wants_a_reference_run_each_shift_gets_it(): void
    {
        $run = $this->tested('C-9001', 5);
        $this->house('reference-run', 'bar');
        $verdict = fn () => $this->as('dyno')->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']);
        $this->assertProblem($verdict(), 409, 'had no good reference run');
        $good = Run::query()->create([
            'build_id' => $run->build_id,
            'loop_no' => 1,
            'state' => 'analysed',
            'program' => $run->program,
            'specimen' => 'x',
            'cell' => 'A',
            'purpose' => 'reference',
            'verdict' => 'pass',
            'verdict_by' => $run->started_by,
            'started_by' => $run->started_by,
            'queued_at' => now(),
            'ended_at' => now(),
        ]);
        Carbon::setTestNow(now()->addHours(11));
        $this->assertProblem($verdict(), 409, 'had no good reference run');
        Carbon::setTestNow();
        $verdict()->assertOk();
        $this->assertSame(1, DB::table('dyno_runs')->where('id', $good->id)->count());
    }
}
