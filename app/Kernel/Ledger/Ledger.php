<?php

namespace App\Kernel\Ledger;

use Closure;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Request;

/**
 * The append-only record of what happened. Each event carries the SHA-256 of itself and its predecessor in its stream
 * (one stream a unit, others for catalog, stock and shop), so that a changed or removed row is found. It also carries
 * what became of the rows it is about, so that a state that nothing led to is found too.
 */
final class Ledger
{
    public const GENESIS = '0000000000000000000000000000000000000000000000000000000000000000';

    /** Of rows that changed without an event of their own. */
    private const ROWS_CHANGED = 'rows.changed';

    private const JSON = JSON_THROW_ON_ERROR |
        JSON_UNESCAPED_UNICODE |
        JSON_UNESCAPED_SLASHES |
        JSON_PRESERVE_ZERO_FRACTION;

    /** Events of one piece of work are written together, but never more than this at once. */
    private const TOGETHER = 200;

    private int $depth = 0;

    /** @var list<array<string, mixed>> events that are whole, in their order, to be written together */
    private array $whole = [];

    /** @var list<Change> since the last event */
    private array $changes = [];

    /** @var array<string, mixed>|null the last event; what changes before the next one or the end belongs to it */
    private ?array $event = null;

    /**
     * Everything that changes in here belongs to its events. The caller holds the transaction.
     *
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    public function within(Closure $work): mixed
    {
        if ($this->depth > 0) {
            return $work();
        }

        return DB::transactionLevel() === 0 ? DB::transaction(fn () => $this->begin($work)) : $this->begin($work);
    }

    /** A row is not any more what it was. */
    public function changed(Change $change): void
    {
        $this->changes[] = $change;
    }

    /** What happened since the last event is taken back. */
    public function forget(): void
    {
        [$this->event, $this->changes, $this->whole] = [null, [], []];
    }

    /** Writes what waits: before somebody reads the ledger, and at the end. */
    public function settle(): void
    {
        if ($this->event === null && $this->changes !== []) {
            $this->event = $this->event('rows', self::ROWS_CHANGED, [], null);
        }
        $this->close();
        [$events, $this->whole] = [$this->whole, []];
        $this->write($events);
    }

    /** The last event has all its changes. */
    private function close(): void
    {
        if ($this->event !== null) {
            $changes = $this->changes === [] ? null : json_encode($this->changes, self::JSON);
            $this->whole[] = $this->event + ['changes' => $changes];
            [$this->event, $this->changes] = [null, []];
        }
    }

    /** @param  array<string, mixed>  $payload */
    public function onUnit(Subject $unit, string $kind, array $payload): void
    {
        $this->record($unit->ledgerStream(), $kind, $payload, $unit->ledgerUnit());
    }

    /** @param  array<string, mixed>  $payload */
    public function record(string $stream, string $kind, array $payload, ?int $unitId = null): void
    {
        $this->within(function () use ($stream, $kind, $payload, $unitId): void {
            count($this->whole) < self::TOGETHER ? $this->close() : $this->settle();
            $this->event = $this->event($stream, $kind, $payload, $unitId);
        });
    }

    /**
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    private function begin(Closure $work): mixed
    {
        $this->depth++;
        try {
            $result = $work();
            $this->settle();

            return $result;
        } finally {
            $this->depth--;
            $this->forget();
        }
    }

    /**
     * @param  array<string, mixed>  $payload
     * @return array<string, mixed>
     */
    private function event(string $stream, string $kind, array $payload, ?int $unitId): array
    {
        /** @var object|null $person */
        $person = Auth::user();

        return [
            'stream' => $stream,
            'at' => now()->format('Y-m-d H:i:s.u'),
            'tablet_at' => self::tabletTime(),
            'unit_id' => $unitId,
            'badge' => $person instanceof Author ? $person->badge() : null,
            'station' => self::station(),
            'kind' => $kind,
            'payload' => json_encode($payload, self::JSON),
        ];
    }

    /** @param  list<array<string, mixed>>  $events */
    private function write(array $events): void
    {
        $heads = [];
        foreach ($events as $n => $event) {
            $stream = $event['stream'];
            // The stream's row serialises writers; its head is also a second account of where the chain ends.
            $head = $heads[$stream] ??= self::lockedHead($stream);
            $event += ['seq' => $head->seq + 1, 'prev_hash' => $head->hash];
            $events[$n] = $event += ['hash' => self::hash($event)];
            [$head->seq, $head->hash] = [$event['seq'], $event['hash']];
        }
        $events === [] || DB::table('ledger')->insert($events);
        foreach ($heads as $stream => $head) {
            $now = ['seq' => $head->seq, 'hash' => $head->hash];
            DB::table('ledger_streams')->where('stream', $stream)->update($now);
            DB::afterCommit(
                fn () => Anchors::add((string) $stream, ...$now) || AnchorLater::dispatch((string) $stream, ...$now),
            );
        }
    }

    /** The head of a stream, locked; one that did not exist a moment ago begins, whoever is first. */
    private static function lockedHead(string $stream): \stdClass
    {
        return DB::select(
            'INSERT INTO ledger_streams (stream, seq, hash) VALUES (?, 0, ?)
            ON DUPLICATE KEY UPDATE seq = seq RETURNING stream, seq, hash',
            [$stream, self::GENESIS],
        )[0];
    }

    /** The hash of the last event of a stream; empty where it has none. */
    public static function headOf(string $stream): string
    {
        return (string) DB::table('ledger_streams')->where('stream', $stream)->value('hash');
    }

    /**
     * Who wrote last on each unit.
     *
     * @param  array<int>  $unitIds
     * @return array<int, array{badge: ?string, at: string}> by unit
     */
    public static function lastTouched(array $unitIds): array
    {
        $last = DB::table('ledger')->whereIn('unit_id', $unitIds)->groupBy('unit_id')->selectRaw('MAX(id) AS id');
        $rows = [];
        $of = DB::table('ledger')->joinSub($last, 'last', 'last.id', '=', 'ledger.id');
        foreach ($of->get(['unit_id', 'badge', 'at']) as $row) {
            $rows[(int) $row->unit_id] = ['badge' => $row->badge, 'at' => $row->at];
        }

        return $rows;
    }

    /** @param  array<string, mixed>  $row */
    public static function hash(array $row): string
    {
        $sealed = ['stream', 'seq', 'at', 'tablet_at', 'unit_id', 'badge', 'station', 'kind', 'payload', 'prev_hash'];
        if (isset($row['changes'])) {
            $sealed[] = 'changes'; // events from before rows were accounted for have none
        }
        $values = array_map(fn (string $k) => isset($row[$k]) ? (string) $row[$k] : null, $sealed);

        return hash('sha256', json_encode($values, JSON_THROW_ON_ERROR));
    }

    /** Where the tablet stands; what is no name of a place is not written down. */
    private static function station(): ?string
    {
        $sent = Request::header('X-Station');

        return is_string($sent) && preg_match('/^[a-zA-Z0-9 -]{1,40}$/', $sent) === 1 ? $sent : null;
    }

    /** When the tablet says it happened: differs from the server's time after a lost connection. */
    private static function tabletTime(): ?string
    {
        $sent = Request::header('X-Tablet-Time');
        $time = is_string($sent) ? \DateTimeImmutable::createFromFormat('!Y-m-d\TH:i:s.vp', $sent) : false;

        return $time === false ? null : $time->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s.u');
    }
}
