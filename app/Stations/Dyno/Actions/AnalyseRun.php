<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Stations\Dyno\Models\ReferenceUnit;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Pyramid;
use App\Stations\Dyno\Queries\ReferenceRuns;
use App\Stations\Dyno\Trace;
use App\Yard\Contracts\ElementWeights;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\LongTrace;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\RigDrift;
use Yard\Core\Dyno\RigReadings;
use Yard\Core\Dyno\Samples;
use Yard\Core\Dyno\TestEvidence;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Input;

/**
 * Reads the recorded trace, measures it and holds it against the limits.
 *
 * @phpstan-import-type Check from JudgeTrace
 */
final class AnalyseRun implements ShouldQueue
{
    use Queueable;

    private ElementWeights $weights;

    public function __construct(private readonly int $runId)
    {
        $this->onQueue('analysis');
    }

    public function handle(Ledger $ledger, ElementWeights $weights): void
    {
        $this->weights = $weights;
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state !== 'recorded') {
            return;
        }
        try {
            [$analysis, $checks, $samples, $channels] = $run->purpose === 'foreign'
                ? self::foreign($run)
                : $this->whole($run, Trace::samples($run));
            $checks = [...JudgeTrace::completeness($samples), ...$checks];
        } catch (BadInput|Refusal $e) {
            $run->update([
                'state' => 'failed',
                'error' => 'The recording could not be analysed: '.$e->getMessage(),
                'ended_at' => now(),
            ]);

            return;
        }
        Pyramid::build($run, $channels);
        $run->getConnection()->transaction(fn () => $this->keep($run, $analysis, $checks, $samples, $ledger));
        Trace::pack($run);
    }

    /**
     * A recording made elsewhere may be of any length: it is read stretch by stretch.
     *
     * @return array{array<string, mixed>, list<Check>, Samples, null}
     */
    private static function foreign(Run $run): array
    {
        ['rate_hz' => $rate, 'end' => $end, 'steps' => $steps, 'ratios' => $ratios] = $run->program;
        $trace = new LongTrace((float) $rate, $ratios, Commands::of($steps, (float) $end));
        $reading = Trace::reading($run);
        foreach ($reading as $samples) {
            if ($samples->held() >= LongTrace::STRETCH) {
                $samples->forget($trace->take($samples->channels()));
            }
        }

        $samples = $reading->getReturn();

        return [$trace->report($samples->channels()), [], $samples, null];
    }

    /** @return array{array<string, mixed>, list<Check>, Samples, array<string, list<float>>} */
    private function whole(Run $run, Samples $samples): array
    {
        $channels = $samples->channels();
        [$analysis, $checks] = $run->purpose === 'reference'
            ? $this->cell($run, $channels, $samples)
            : $this->measured($run, $channels);

        return [$analysis, $checks, $samples, $channels];
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @return array{array<string, mixed>, list<Check>} analysis, and what it is held against
     */
    private function measured(Run $run, array $channels): array
    {
        ['rate_hz' => $rate, 'steps' => $steps, 'ratios' => $ratios] = $run->program;
        $analysis = self::analysis($run, $channels);
        $changes = Commands::of($steps, count($channels['input_rpm']) / $rate)->changes($ratios);
        ['limits' => $limits] = $run->program;
        $checks = JudgeTrace::judge($analysis, $limits, $changes, $run->program['houseLimits'] ?? []);
        $readings = CellReadings::of((float) $rate, $channels, $steps, $ratios, $analysis);
        $reference = JudgeTrace::reference($readings, $run->program['reference'] ?? []);
        $chart = ApplyChart::read(Input::of($run->build->frozen()['train']));
        $weak = $this->weights->of($run->build->unit->knownFamily())['weights'];
        $evidence = new TestEvidence($chart, $analysis, [...$checks, ...$reference]);

        return [
            [
                'readings' => $reference,
                'suspects' => $evidence->suspects($weak),
                'observed' => $evidence->observed(),
            ] + $analysis,
            [...$checks, ...self::inShort($reference)],
        ];
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @return array<string, mixed>
     */
    private static function analysis(Run $run, array $channels): array
    {
        ['rate_hz' => $rate, 'steps' => $steps, 'ratios' => $ratios] = $run->program;
        $recording = Recording::of((float) $rate, $channels);

        return (new TraceAnalysis($recording, $ratios, Commands::of($steps, $recording->seconds())))->report();
    }

    /**
     * A run of the reference unit: what the cell shows, against what it showed in the runs before.
     *
     * @param  array<string, list<float>>  $channels
     * @return array{array<string, mixed>, list<Check>}
     */
    private function cell(Run $run, array $channels, Samples $samples): array
    {
        if ($samples->lost() > 0) {
            throw new Refusal('Samples were lost, so nothing can be told of the cell. Run the reference again.');
        }
        ['rate_hz' => $rate, 'steps' => $steps, 'ratios' => $ratios] = $run->program;
        $analysis = self::analysis($run, $channels);
        $readings = CellReadings::of((float) $rate, $channels, $steps, $ratios, $analysis);
        $unit = ReferenceUnit::of($run->cell) ?? throw new Refusal('The reference unit was let go during the run.');
        $drift = RigDrift::of([
            ...ReferenceRuns::readings(ReferenceRuns::of($unit, $run->id)),
            RigReadings::of((float) $rate, $channels, $readings, $ratios),
        ]);
        $checks = array_map(fn (array $c): array => [
            'check' => $c['check'],
            'value' => $c['points'][count($c['points']) - 1],
            'unit' => $c['unit'],
            'min' => $c['lower'],
            'max' => $c['upper'],
            'pass' => ! $c['out'] && $c['points'][count($c['points']) - 1] !== null,
            'where' => $c['where'],
            'against' => 'limits',
        ], $drift->charts);
        $moved = array_map(fn (array $c): string => lcfirst("$c[check], $c[where]"), $drift->moved());

        return [
            ['cell' => ['state' => $drift->state, 'moved' => $moved, 'readings' => $readings]] + $analysis,
            $checks,
        ];
    }

    /**
     * What lies outside, each by itself; of what lies inside, how many of a kind do. The rest is in the analysis.
     *
     * @param  list<Check>  $reference
     * @return list<Check>
     */
    private static function inShort(array $reference): array
    {
        $inside = $out = [];
        foreach ($reference as $check) {
            if ($check['pass']) {
                $inside[$check['check']] = ($inside[$check['check']] ?? 0) + 1;
            } else {
                $out[] = $check;
            }
        }
        foreach ($inside as $kind => $count) {
            $out[] = [
                'check' => "$kind, against good units", 'value' => (float) $count, 'unit' => 'inside', 'min' => null,
                'max' => null, 'pass' => true, 'where' => 'whole run', 'against' => 'good units',
            ];
        }

        return $out;
    }

    /**
     * @param  array<string, mixed>  $analysis
     * @param  list<Check>  $checks
     */
    private function keep(Run $run, array $analysis, array $checks, Samples $samples, Ledger $ledger): void
    {
        $run->update([
            'analysis' => $analysis,
            'state' => 'analysed',
            'progress' => 100,
            'trace_sha256' => Trace::sha256($run),
        ]);
        if ($run->purpose === 'reference') {
            ['state' => $state, 'moved' => $moved] = $analysis['cell'];
            $run->update([
                'verdict' => $state === 'drift' ? 'fail' : 'pass',
                'verdict_by' => $run->started_by,
                'verdict_at' => now(),
                'verdict_reason' => mb_strimwidth(implode(', ', $moved), 0, 280, '…'),
            ]);
            $state === 'drift' && app(HoldResults::class)->since($run, $moved);
        }
        OrderedRows::write($run->checks(), array_map(self::row(...), $checks));
        $ledger->onUnit($run->build->unit, 'run.analysed', [
            'run' => $run->id,
            'serial' => $run->build->serial,
            'traceSha256' => $run->trace_sha256,
            'samples' => $samples->expected() - $samples->lost(),
            'samplesLost' => $samples->lost(),
            'failedChecks' => array_values(
                array_map(
                    fn (array $c) => "{$c['check']}, {$c['where']}",
                    array_filter($checks, fn (array $c) => ! $c['pass']),
                ),
            ),
        ]);
    }

    /**
     * @param  Check  $check
     * @return array<string, mixed>
     */
    private static function row(array $check): array
    {
        return [
            'name' => $check['check'],
            'place' => $check['where'],
            'value' => $check['value'],
            'unit' => $check['unit'],
            'least' => $check['min'],
            'most' => $check['max'],
            'against' => $check['against'],
            'pass' => $check['pass'],
        ];
    }
}
