<?php

namespace App\Stations\Dyno\Console;

use App\Kernel\Transaction;
use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\CellLink;
use App\Stations\Dyno\Cells;
use App\Stations\Dyno\LiveViewers;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\RigWatch;
use Illuminate\Console\Command;
use React\EventLoop\Loop;
use React\Socket\SocketServer;

/**
 * The one process that talks to the test cells and streams live data to browsers (server-sent events). Runs are handed
 * over through the database, so that neither a restart of this process nor a lost browser loses one.
 */
final class GatewayCommand extends Command
{
    protected $signature = 'gateway:run';

    protected $description = 'Take queued runs to the test cells and stream them live';

    /** A recording that nobody analysed for so long is handed over once more, seconds. */
    private const FORGOTTEN_S = 60;

    private const LOOK_S = 0.25;

    /** @var list<CellLink> */
    private array $cells = [];

    public function handle(): int
    {
        // One by one, so that the ledger has an event of each.
        $left = Run::query()->where('state', 'running')->whereIn('cell', array_keys(Cells::all()))->get();
        $left->each(fn (Run $run) => $run->update([
            'state' => 'failed',
            'error' => 'The gateway was restarted during the run. Run it again.',
            'ended_at' => now(),
        ]));
        $viewers = new LiveViewers($this->first(...));
        foreach (Cells::all() as $cell => $port) {
            $this->cells[] = new CellLink($cell, $port, $viewers, $this->guarded(...));
        }
        $server = new SocketServer('127.0.0.1:'.config('yard.gateway_port'));
        $server->on('connection', $viewers->greet(...));
        foreach ($this->cells as $cell) {
            Loop::addPeriodicTimer(self::LOOK_S, fn () => $this->guarded($cell->tick(...)));
            Loop::addPeriodicTimer(RigWatch::EVERY_S, $cell->look(...));
        }
        Loop::addPeriodicTimer((float) self::FORGOTTEN_S, fn () => $this->guarded($this->remind(...)));
        Loop::addPeriodicTimer(15.0, $viewers->keepAwake(...));
        foreach ([SIGTERM, SIGINT] as $signal) {
            Loop::addSignal($signal, fn () => Loop::stop());
        }
        Loop::run();

        return 0;
    }

    /** @return list<array{string, array<string, mixed>}> */
    private function first(int $id): array
    {
        foreach ($this->cells as $cell) {
            $rows = $cell->soFar($id);
            if ($rows !== null) {
                return [['samples', ['rows' => $rows, 'replay' => true]]];
            }
        }
        $told = [];
        $this->guarded(function () use ($id, &$told): void {
            $run = Run::query()->find($id);
            if ($run !== null && $run->state !== 'queued') {
                $told[] = ['end', ['state' => $run->state, 'error' => $run->error]];
            }
        });

        return $told;
    }

    /** What was recorded and never analysed, because the queue was away, is handed over once more. */
    private function remind(): void
    {
        $forgotten = Run::query()
            ->where('state', 'recorded')
            ->where('ended_at', '<', now()->subSeconds(self::FORGOTTEN_S))
            ->pluck('id');
        foreach ($forgotten as $id) {
            AnalyseRun::dispatch((int) $id);
        }
    }

    /** A database that is away for a moment must not end the gateway. */
    private function guarded(callable $work): void
    {
        try {
            $work();
        } catch (\Throwable $e) {
            report($e);
            $this->error($e->getMessage());
            Transaction::reconnect();
        }
    }
}
