<?php

namespace App\Kernel\Ledger;

use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Request;

/**
 * The append-only record of what happened. Each event carries the SHA-256 of itself and its predecessor in its stream
 * (one stream a unit, others for catalog, stock and shop), so that a changed or removed row is found.
 */
final class Ledger
{
    public const GENESIS = '0000000000000000000000000000000000000000000000000000000000000000';

    /** @param  array<string, mixed>  $payload */
    public function onUnit(Subject $unit, string $kind, array $payload): void
    {
        $this->record($unit->ledgerStream(), $kind, $payload, $unit->ledgerUnit());
    }

    /** @param  array<string, mixed>  $payload */
    public function record(string $stream, string $kind, array $payload, ?int $unitId = null): void
    {
        DB::transaction(function () use ($stream, $kind, $payload, $unitId): void {
            // The stream's row serialises writers; its head is also a second account of where the chain ends.
            $head = DB::table('ledger_streams')->where('stream', $stream)->lockForUpdate()->first();
            if ($head === null) {
                DB::table('ledger_streams')->upsert(
                    ['stream' => $stream, 'seq' => 0, 'hash' => self::GENESIS],
                    ['stream'],
                    ['stream'],
                );
                $head = DB::table('ledger_streams')->where('stream', $stream)->lockForUpdate()->sole();
            }
            /** @var object|null $person */
            $person = Auth::user();
            $row = [
                'stream' => $stream,
                'seq' => $head->seq + 1,
                'at' => now()->format('Y-m-d H:i:s.u'),
                'tablet_at' => self::tabletTime(),
                'unit_id' => $unitId,
                'badge' => $person instanceof Author ? $person->badge() : null,
                'station' => self::station(),
                'kind' => $kind,
                'payload' => json_encode(
                    $payload,
                    JSON_THROW_ON_ERROR |
                        JSON_UNESCAPED_UNICODE |
                        JSON_UNESCAPED_SLASHES |
                        JSON_PRESERVE_ZERO_FRACTION,
                ),
                'prev_hash' => $head->hash,
            ];
            $row['hash'] = self::hash($row);
            DB::table('ledger')->insert($row);
            DB::table('ledger_streams')
                ->where('stream', $stream)
                ->update(['seq' => $row['seq'], 'hash' => $row['hash']]);
            DB::afterCommit(fn () => Anchors::add($stream, $row['seq'], $row['hash']));
        });
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
        foreach (DB::table('ledger')->joinSub($last, 'last', 'last.id', '=', 'ledger.id')->get() as $row) {
            $rows[(int) $row->unit_id] = ['badge' => $row->badge, 'at' => $row->at];
        }

        return $rows;
    }

    /** @param  array<string, mixed>  $row */
    public static function hash(array $row): string
    {
        return hash(
            'sha256',
            json_encode(
                array_map(fn (string $k) => isset($row[$k]) ? (string) $row[$k] : null, [
                    'stream',
                    'seq',
                    'at',
                    'tablet_at',
                    'unit_id',
                    'badge',
                    'station',
                    'kind',
                    'payload',
                    'prev_hash',
                ]),
                JSON_THROW_ON_ERROR,
            ),
        );
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
