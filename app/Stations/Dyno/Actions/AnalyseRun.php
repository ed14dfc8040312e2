<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Yard\Core\BadInput;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\Samples;
use Yard\Core\Dyno\TraceAnalysis;

/** Reads the recorded trace, measures it and holds it against the limits. */
final class AnalyseRun implements ShouldQueue
{
    use Queueable;

    public function __construct(private readonly int $runId)
    {
        $this->onQueue('analysis');
    }

    public function handle(Ledger $ledger): void
    {
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state !== 'recorded') {
            return;
        }
        try {
            $samples = Trace::samples($run);
            $recording = Recording::of((float) $run->program['rate_hz'], $samples->channels());
            $commands = Commands::of($run->program['steps'], $recording->seconds());
            $ratios = $run->program['ratios'];
            $analysis = (new TraceAnalysis($recording, $ratios, $commands))->report();
            $checks = [
                ...JudgeTrace::completeness($samples),
                ...JudgeTrace::judge($analysis, $run->program['limits'], $commands->changes($ratios)),
            ];
        } catch (BadInput|Refusal $e) {
            $run->update([
                'state' => 'failed',
                'error' => 'The recording could not be analysed: '.$e->getMessage(),
                'ended_at' => now(),
            ]);

            return;
        }
        $run->getConnection()->transaction(fn () => $this->keep($run, $analysis, $checks, $samples, $ledger));
    }

    /**
     * @param  array<string, mixed>  $analysis
     * @param  list<array{check: string, value: float|null, unit: string, min: float|null, max: float|null, pass: bool,
     *     where: string}>  $checks
     */
    private function keep(Run $run, array $analysis, array $checks, Samples $samples, Ledger $ledger): void
    {
        $run->update([
            'analysis' => $analysis,
            'state' => 'analysed',
            'progress' => 100,
            'trace_sha256' => Trace::sha256($run),
        ]);
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
     * @param  array{check: string, value: float|null, unit: string, min: float|null, max: float|null, pass: bool,
     *     where: string}  $check
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
            'pass' => $check['pass'],
        ];
    }
}
