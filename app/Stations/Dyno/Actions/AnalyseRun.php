<?php

namespace App\Stations\Dyno\Actions;

use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Yard\Core\BadInput;
use Yard\Core\Calculators;
use Yard\Core\Dyno\JudgeTrace;

/** Reads the recorded trace, measures it with trace.analyse and holds it against the limits. */
final class AnalyseRun implements ShouldQueue
{
    use Queueable;

    public function __construct(private readonly int $runId)
    {
    }

    public function handle(): void
    {
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state !== 'recorded') {
            return;
        }
        try {
            $channels = Trace::read($run);
            $commands = [];
            foreach ($run->program['steps'] as $step) {
                if (isset($step['gear']) || isset($step['lockup'])) {
                    $commands[] = array_intersect_key($step, array_flip(['t', 'gear', 'lockup']));
                }
            }
            $analysis = Calculators::call('trace.analyse', [
                'rate_hz' => $run->program['rate_hz'],
                'channels' => $channels,
                'ratios' => $run->program['ratios'],
                'commands' => $commands,
            ]);
            $analysis = json_decode(json_encode($analysis, JSON_THROW_ON_ERROR), true);
            $run->update([
                'analysis' => $analysis,
                'checks' => JudgeTrace::judge($analysis, $run->program['limits']),
                'state' => 'analysed',
                'progress' => 100,
            ]);
        } catch (BadInput $e) {
            $run->update([
                'state' => 'failed',
                'error' => 'The trace could not be analysed: '.$e->getMessage(),
                'ended_at' => now(),
            ]);
        }
    }
}
