<?php

namespace App\Stations\Dyno\Console;

use App\Kernel\Transaction;
use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\LiveToken;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Console\Command;
use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\Connector;
use React\Socket\SocketServer;

/**
 * The one process that talks to the rig and streams live data to browsers (server-sent events). Runs are handed over
 * through the database, so that neither a restart of this process nor a lost browser loses one.
 */
final class GatewayCommand extends Command
{
    protected $signature = 'gateway:run';

    protected $description = 'Take queued runs to the test rig and stream them live';

    private ?Run $run = null;

    private ?ConnectionInterface $rig = null;

    /** @var resource|null */
    private $file = null;

    private string $buffer = '';

    /** @var list<list<float>> every tenth sample of the current run, for browsers that come later */
    private array $replay = [];

    private int $samples = 0;

    private float $lastSaved = 0.0;

    private float $lastHeard = 0.0;

    /** @var array{Run, string, ?string}|null run, state and error still to be written: the database was away */
    private ?array $ended = null;

    /** A rig that says nothing for so long is taken for dead, seconds. */
    /** Samples beyond this many times those of the program are no run any more. */
    private const TOO_MANY = 2.0;

    private const SILENCE_S = 10.0;

    /** A line of the rig is a few kilobytes; what comes without an end is not listened to any longer. */
    private const LONGEST_LINE = 1_000_000;

    /** A recording that nobody analysed for so long is handed over once more, seconds. */
    private const FORGOTTEN_S = 60;

    /** @var \SplObjectStorage<ConnectionInterface, int> viewer => run */
    private \SplObjectStorage $viewers;

    public function handle(): int
    {
        $this->viewers = new \SplObjectStorage();
        Run::query()
            ->where('state', 'running')
            ->update([
                'state' => 'failed',
                'error' => 'The gateway was restarted during the run. Run it again.',
                'ended_at' => now(),
            ]);
        $server = new SocketServer('127.0.0.1:'.config('yard.gateway_port'));
        $server->on('connection', $this->greetViewer(...));
        Loop::addPeriodicTimer(0.25, fn () => $this->guarded($this->tick(...)));
        Loop::addPeriodicTimer((float) self::FORGOTTEN_S, fn () => $this->guarded($this->remind(...)));
        Loop::addPeriodicTimer(15.0, function (): void {
            foreach ($this->viewers as $viewer) {
                $viewer->write(": still here\n\n");
            }
        });
        foreach ([SIGTERM, SIGINT] as $signal) {
            Loop::addSignal($signal, fn () => Loop::stop());
        }
        Loop::run();

        return 0;
    }

    private function tick(): void
    {
        if ($this->ended !== null) {
            $this->write(...$this->ended);
        }
        if ($this->run !== null && microtime(true) - $this->lastHeard > self::SILENCE_S) {
            $this->finish('failed', 'The test rig fell silent for '.(int) self::SILENCE_S.' seconds.');
        }
        if ($this->run === null) {
            $this->run = Run::query()->where('state', 'queued')->orderBy('id')->first();
            $this->run !== null && $this->connect($this->run);

            return;
        }
        if (Run::query()->whereKey($this->run->id)->value('cancel_requested')) {
            $this->rig?->write(json_encode(['type' => 'abort'])."\n");
            $this->finish('cancelled', null);
        }
    }

    private function connect(Run $run): void
    {
        $run->update(['state' => 'running', 'progress' => 0]);
        [$this->replay, $this->samples, $this->buffer, $this->lastHeard] = [[], 0, '', microtime(true)];
        @mkdir(dirname(Trace::path($run)), 0775, true);
        $file = @fopen(Trace::path($run), 'w');
        if ($file === false) {
            $this->finish('failed', 'The recording cannot be written: the disk may be full.');

            return;
        }
        $this->file = $file;
        fputcsv($file, Trace::COLUMNS, escape: '');
        (new Connector(['timeout' => 3.0]))
            ->connect('127.0.0.1:'.config('yard.rig_port'))
            ->then(function (ConnectionInterface $rig) use ($run): void {
                $this->rig = $rig;
                $rig->on('data', fn (string $data) => $this->guarded(fn () => $this->hear($data)));
                $rig->on(
                    'close',
                    fn () => $this->guarded(function () use ($run): void {
                        $this->rig = null;
                        if ($this->run?->id === $run->id) {
                            $this->finish('failed', 'The connection to the test rig broke off during the run.');
                        }
                    }),
                );
                $rig->write(
                    json_encode([
                        'type' => 'load',
                        'run' => (string) $run->id,
                        'rate_hz' => $run->program['rate_hz'],
                        'end' => $run->program['end'],
                        'program' => $run->program['steps'],
                        'ratios' => $run->program['ratios'],
                        'specimen' => $run->specimen,
                    ])."\n",
                );
            }, fn () => $this->guarded(
                fn () => $this->finish('failed', 'The test rig does not answer. Is it switched on?'),
            ));
    }

    private function hear(string $data): void
    {
        $this->buffer .= $data;
        if (strlen($this->buffer) > self::LONGEST_LINE && ! str_contains($this->buffer, "\n")) {
            $this->finish('failed', 'The test rig sends a line without an end.');

            return;
        }
        while (($end = strpos($this->buffer, "\n")) !== false) {
            $message = json_decode(substr($this->buffer, 0, $end), true);
            $this->buffer = substr($this->buffer, $end + 1);
            $this->answer(is_array($message) ? $message : []);
        }
    }

    /** @param  array<string, mixed>  $message */
    private function answer(array $message): void
    {
        match ($message['type'] ?? '') {
            'loaded' => $this->rig?->write(json_encode(['type' => 'start'])."\n"),
            'samples' => $this->take(is_array($message['rows'] ?? null) ? $message['rows'] : []),
            'done' => $this->finish('recorded', null),
            'error' => $this->finish('failed', 'The test rig says: '.self::said($message)),
            default => null,
        };
    }

    /** @param  array<mixed>  $rows  samples as the rig sends them: one number a column */
    private function take(array $rows): void
    {
        if ($this->run === null || $this->file === null) {
            return;
        }
        $thin = [];
        foreach ($rows as $row) {
            if (! self::isSample($row)) {
                $this->finish(
                    'failed',
                    'The test rig sent what is no sample: '.mb_strimwidth((string) json_encode($row), 0, 80, '…'),
                );

                return;
            }
            if (fputcsv($this->file, $row, escape: '') === false) {
                $this->finish('failed', 'The recording could not be written: the disk may be full.');

                return;
            }
            if ($this->samples++ % 10 === 0) {
                $thin[] = $row;
            }
        }
        $this->replay = array_merge($this->replay, $thin);
        $last = end($rows);
        if ($last === false) {
            return;
        }
        $this->lastHeard = microtime(true);
        if ($this->samples > self::TOO_MANY * $this->run->program['rate_hz'] * $this->run->program['end']) {
            $this->finish('failed', 'The test rig sends on after the end of the program.');

            return;
        }
        $progress = round(min(99.0, (100.0 * $last[0]) / $this->run->program['end']), 2);
        $this->broadcast('samples', ['rows' => $thin, 'progress' => $progress]);
        if (microtime(true) - $this->lastSaved > 1.0) {
            $this->lastSaved = microtime(true);
            Run::query()
                ->whereKey($this->run?->id)
                ->update(['progress' => $progress]);
        }
    }

    /** @param  array<mixed>  $message */
    private static function said(array $message): string
    {
        $said = $message['message'] ?? null;

        return is_string($said) ? mb_strimwidth($said, 0, 200, '…') : 'an error without a word';
    }

    /** @phpstan-assert-if-true list<float> $row */
    private static function isSample(mixed $row): bool
    {
        return is_array($row) &&
            count($row) === count(Trace::COLUMNS) &&
            array_filter($row, fn (mixed $v): bool => (! is_int($v) && ! is_float($v)) || ! is_finite($v)) === [];
    }

    private function finish(string $state, ?string $error): void
    {
        $run = $this->run;
        $this->run = null;
        if ($this->file !== null) {
            fclose($this->file);
            $this->file = null;
        }
        $this->rig?->close();
        $this->rig = null;
        if ($run !== null) {
            $this->ended = [$run, $state, $error];
            $this->write($run, $state, $error);
        }
    }

    /** Written again at every tick until the database takes it: no run stays open for want of an end. */
    private function write(Run $run, string $state, ?string $error): void
    {
        $run->update([
            'state' => $state,
            'error' => $error,
            'ended_at' => now(),
            'trace_path' => $state === 'recorded' ? "traces/run-$run->id.csv" : null,
        ]);
        $this->ended = null;
        if ($state === 'recorded') {
            AnalyseRun::dispatch($run->id);
        }
        $this->broadcast('end', ['state' => $state, 'error' => $error], $run->id);
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

    private function greetViewer(ConnectionInterface $viewer): void
    {
        $request = '';
        $viewer->on('data', function (string $data) use ($viewer, &$request): void {
            $request .= $data;
            if (! str_contains($request, "\r\n\r\n") && strlen($request) < 8192) {
                return;
            }
            $viewer->removeAllListeners('data');
            $ok =
                preg_match(
                    '#^GET /live/runs/(\d+)\?until=(\d+)&sign=([0-9a-f]{64}) HTTP/1\.[01]\r\n#',
                    $request,
                    $m,
                ) === 1 && LiveToken::valid((int) $m[1], (int) $m[2], $m[3]);
            if (! $ok) {
                $viewer->end(
                    "HTTP/1.1 403 Forbidden\r\nContent-Type: text/plain\r\nContent-Length: 0\r\nConnection: "
                        ."close\r\n\r\n",
                );

                return;
            }
            $viewer->write(
                "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nCache-Control: no-store\r\nConnection: "
                    ."close\r\n\r\n",
            );
            $this->viewers[$viewer] = (int) $m[1];
            $viewer->on('close', fn () => $this->viewers->detach($viewer));
            if ($this->run?->id === (int) $m[1]) {
                $viewer->write(self::event('samples', ['rows' => $this->replay, 'replay' => true]));
            } else {
                $this->guarded(function () use ($viewer, $m): void {
                    $run = Run::query()->find((int) $m[1]);
                    if ($run !== null && $run->state !== 'queued') {
                        $viewer->write(self::event('end', ['state' => $run->state, 'error' => $run->error]));
                    }
                });
            }
        });
    }

    /** @param  array<string, mixed>  $data */
    private function broadcast(string $name, array $data, ?int $run = null): void
    {
        $run ??= $this->run?->id;
        foreach ($this->viewers as $viewer) {
            if ($this->viewers[$viewer] === $run) {
                $viewer->write(self::event($name, $data));
            }
        }
    }

    /** @param  array<string, mixed>  $data */
    private static function event(string $name, array $data): string
    {
        return "event: $name\ndata: ".json_encode($data)."\n\n";
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
