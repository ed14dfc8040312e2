<?php

namespace App\Stations\Dyno;

use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\Connector;

/**
 * The cable to the test rig during one run: JSON line by line (docs/formats/rig.md). A cable that is out for a moment
 * is plugged in again and the run resumed after the last sample that is safe on this side; what comes twice is
 * dropped, what is missing ends the run.
 */
final class RigLine
{
    /** A cable away for longer ends the run, seconds. */
    private const AWAY_S = 2.0;

    private const RETRY_S = 0.2;

    /** A rig that has not come to rest after the run before is waited for, seconds. */
    private const BUSY_S = 5.0;

    /** What was said last leaves before the cable is taken out, seconds. */
    private const PARTING_S = 1.0;

    /** Why a rig ends a run by itself. */
    private const STOPPED = [
        'emergency' => 'The emergency stop of the rig was pressed.',
        'unheard' => 'The test rig stopped the run: it heard nothing of the shop any more.',
    ];

    /** A line of the rig is a few kilobytes; what comes without an end is not listened to any longer. */
    private const LONGEST_LINE = 1_000_000;

    private ?ConnectionInterface $rig = null;

    private string $buffer = '';

    private bool $started = false;

    private bool $over = false;

    private ?float $awaySince = null;

    private readonly float $since;

    /** Number of the next sample. */
    private int $next = 0;

    /** How much of what is to be done before the run is done. */
    private int $done = 0;

    /**
     * @param  array<string, mixed>  $start  the message that begins the run
     * @param  callable(list<mixed>): bool  $keep  takes rows in order; false when they are no samples
     * @param  callable(array<string, mixed>): void  $told  what else the rig says of the run
     * @param  callable(string, ?string): void  $end  state and what went wrong
     * @param  list<array<string, mixed>>  $before  messages whose answers are waited for before it begins
     */
    public function __construct(
        private readonly int $port,
        private readonly array $start,
        private $keep,
        private $told,
        private $end,
        private readonly array $before = [],
    ) {
        $this->since = microtime(true);
        $this->connect();
    }

    /** @param  array<string, mixed>  $message */
    public function send(array $message): void
    {
        $this->rig?->write(json_encode($message)."\n");
    }

    /** An abort that was just said still reaches the rig. */
    public function close(): void
    {
        $this->over = true;
        $rig = $this->rig;
        $this->rig = null;
        if ($rig !== null) {
            $rig->removeAllListeners('data');
            $rig->end();
            Loop::addTimer(self::PARTING_S, $rig->close(...));
        }
    }

    private function connect(): void
    {
        (new Connector(['timeout' => self::AWAY_S]))->connect("127.0.0.1:$this->port")->then(
            $this->connected(...),
            fn () => $this->away($this->started
                ? 'The connection to the test rig broke off during the run.'
                : 'The test rig does not answer. Is it switched on?'),
        );
    }

    private function connected(ConnectionInterface $rig): void
    {
        if ($this->over) {
            $rig->close();

            return;
        }
        [$this->rig, $this->buffer] = [$rig, ''];
        $rig->on('data', $this->hear(...));
        $rig->on('close', function () use ($rig): void {
            if ($this->rig === $rig) {
                $this->rig = null;
                $this->away('The connection to the test rig broke off during the run.');
            }
        });
        $this->started
            ? $this->send(['type' => 'resume', 'run' => $this->start['run'], 'after' => $this->next - 1])
            : $this->begin();
    }

    /** What comes first: the next step before the run, or the run itself. */
    private function begin(): void
    {
        $this->send($this->before[$this->done] ?? $this->start);
    }

    private function away(string $why): void
    {
        if ($this->over) {
            return;
        }
        $this->awaySince ??= microtime(true);
        if (! $this->started || microtime(true) - $this->awaySince > self::AWAY_S) {
            $this->finish('failed', $why);

            return;
        }
        Loop::addTimer(self::RETRY_S, $this->retry(...));
    }

    private function retry(): void
    {
        if (! $this->over && $this->rig === null) {
            $this->connect();
        }
    }

    private function hear(string $data): void
    {
        $this->buffer .= $data;
        if (strlen($this->buffer) > self::LONGEST_LINE && ! str_contains($this->buffer, "\n")) {
            $this->finish('failed', 'The test rig sends a line without an end.');

            return;
        }
        while (! $this->over && ($end = strpos($this->buffer, "\n")) !== false) {
            $message = json_decode(substr($this->buffer, 0, $end), true);
            $this->buffer = substr($this->buffer, $end + 1);
            $this->answer(is_array($message) ? $message : []);
        }
    }

    /** @param  array<string, mixed>  $message */
    private function answer(array $message): void
    {
        switch ($message['type'] ?? '') {
            case 'started':
            case 'resumed':
                [$this->started, $this->awaySince] = [true, null];
                ($this->told)($message);
                break;
            case 'samples':
                $this->take($message['seq'] ?? null, $message['rows'] ?? null);
                break;
            case 'ended':
                $this->ended($message);
                break;
            case 'error':
                $this->refused($message);
                break;
            default:
                $this->other($message);
        }
    }

    /** @param  array<string, mixed>  $message */
    private function other(array $message): void
    {
        ($this->told)($message);
        if (in_array($message['type'] ?? '', ['filled', 'primed'], true) && ! $this->started) {
            $this->done++;
            $this->begin();
        }
    }

    /** @param  array<string, mixed>  $message */
    private function refused(array $message): void
    {
        $busy = ($message['code'] ?? '') === 'busy' && ! $this->started;
        if ($busy && microtime(true) - $this->since < self::BUSY_S) {
            Loop::addTimer(self::RETRY_S, $this->begin(...));

            return;
        }
        $this->finish('failed', 'The test rig says: '.self::said($message));
    }

    private function take(mixed $seq, mixed $rows): void
    {
        if (! is_int($seq) || ! is_array($rows) || $seq > $this->next) {
            $why = is_int($seq) ? "samples before number $seq are missing" : 'samples without their number came';
            $this->finish('failed', "The test rig lost its count: $why.");

            return;
        }
        $new = array_slice(array_values($rows), $this->next - $seq);
        if ($new !== [] && ($this->keep)($new)) {
            $this->next += count($new);
            $this->send(['type' => 'ack', 'seq' => $this->next - 1]);
        }
    }

    /** @param  array<string, mixed>  $message */
    private function ended(array $message): void
    {
        match (true) {
            ($message['why'] ?? '') !== 'end' => $this->finish(
                'failed',
                self::STOPPED[$message['why'] ?? ''] ?? 'The test rig stopped the run.',
            ),
            ($message['samples'] ?? null) !== $this->next => $this->finish(
                'failed',
                'The test rig counted other samples than came.',
            ),
            default => $this->finish('recorded', null),
        };
    }

    private function finish(string $state, ?string $why): void
    {
        if (! $this->over) {
            $this->close();
            ($this->end)($state, $why);
        }
    }

    /** @param  array<mixed>  $message */
    private static function said(array $message): string
    {
        $said = $message['message'] ?? null;

        return is_string($said) ? mb_strimwidth($said, 0, 200, '…') : 'an error without a word';
    }
}
