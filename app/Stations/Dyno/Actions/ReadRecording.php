<?php

namespace App\Stations\Dyno\Actions;

use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Yard\Core\BadInput;
use Yard\Core\Dyno\ForeignCsv;

/** Turns a recording made elsewhere into one of the house, line by line, and hands it to the analysis. */
final class ReadRecording implements ShouldQueue
{
    use Queueable;

    /** What is analysed of a recording at most, seconds. */
    public const LONGEST_S = 1800.0;

    private const LOOK_EVERY = 5000;

    /** One attempt: a half-read file is marked failed, never started again by itself. */
    public int $tries = 1;

    public int $timeout = 1800;

    public function __construct(private readonly int $runId)
    {
        $this->onQueue('imports');
    }

    public function handle(): void
    {
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state !== 'queued') {
            return;
        }
        $run->update(['state' => 'running']);
        try {
            $read = $this->read($run);
            $run->refresh()->update($read === null ? ['state' => 'cancelled', 'ended_at' => now()] : $read);
        } catch (BadInput $e) {
            $run->refresh()->update(['state' => 'failed', 'error' => $e->getMessage(), 'ended_at' => now()]);
        }
        @unlink(TakeRecording::path($run));
        $run->state === 'recorded' && AnalyseRun::dispatch($run->id);
    }

    public function failed(\Throwable $e): void
    {
        $run = Run::query()->find($this->runId);
        $run?->update(['state' => 'failed', 'error' => 'Reading the file broke off.', 'ended_at' => now()]);
        $run === null || @unlink(TakeRecording::path($run));
    }

    /**
     * @return array<string, mixed>|null columns of the run; null: somebody cancelled it
     *
     * @throws BadInput
     */
    private function read(Run $run): ?array
    {
        $from = fopen(TakeRecording::path($run), 'r') ?: throw new BadInput('gone', 'The file is not there any more.');
        $to = fopen(Trace::path($run), 'w') ?: throw new BadInput('disk', 'The recording cannot be written.');
        $size = max(1, (int) filesize(TakeRecording::path($run)));
        $columns = TakeRecording::columns($run->program['as']);
        $csv = new ForeignCsv(...$columns);
        $rate = $csv->rate($from);
        fwrite($to, implode(',', ['t_s', ...array_keys($columns[1])])."\n");
        $last = 0.0;
        foreach ($csv->rows($from, $rate, self::LONGEST_S) as $n => $row) {
            $last = $row[0];
            $line = implode(',', array_map(fn (float $v): string => (string) round($v, 6), $row));
            if (fwrite($to, "$line\n") === false) {
                throw new BadInput('disk', 'The recording could not be written: the disk may be full.');
            }
            if ($n % self::LOOK_EVERY === 0 && $this->cancelled($run, 99.0 * (int) ftell($from) / $size)) {
                return null;
            }
        }

        return [
            'program' => ['rate_hz' => $rate, 'end' => $last] + $run->program,
            'state' => 'recorded',
            'ended_at' => now(),
            'trace_path' => "traces/run-$run->id.csv",
        ];
    }

    private function cancelled(Run $run, float $progress): bool
    {
        Run::query()->whereKey($run->id)->update(['progress' => round(min(99.0, $progress), 2)]);

        return (bool) Run::query()->whereKey($run->id)->value('cancel_requested');
    }
}
