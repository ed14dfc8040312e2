<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\CatalogMap;
use App\Catalog\Exchange\CatalogStore;
use App\Shop\Queries\PeopleNames;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Who changed which entry when, and what differs between two moments: read from the system-versioned tables. */
final class CatalogHistory
{
    public function __construct(private readonly CatalogStore $store, private readonly PeopleNames $names)
    {
    }

    /**
     * @return list<array{from: string, by: ?string, node: ?\stdClass, changes: list<array{at: string, before: mixed,
     *     after: mixed}>}> newest first
     */
    public function of(string $kind, string $key): array
    {
        $out = [];
        $before = null;
        foreach (
            $this->moments($kind, fn (Builder $q, array $map) => $this->toEntry($q, $map, $key)) as $moment => $by
        ) {
            $node = $this->store->nodes($kind, $moment, null, [$key])[$key] ?? null;
            $changes = self::changes($before, $node);
            if ($changes !== [] || $before === null) {
                $out[] = [
                    'from' => self::iso($moment),
                    'by' => $this->names->of($by),
                    'node' => $node,
                    'changes' => $before === null ? [] : $changes,
                ];
            }
            $before = $node;
        }

        return array_reverse($out);
    }

    /**
     * @return list<array{kind: string, key: string, change: 'new'|'changed'|'removed', changes: list<array{at: string,
     *     before: mixed, after: mixed}>}>
     */
    public function between(string $from, string $to): array
    {
        $out = [];
        foreach (CatalogMap::kinds() as $kind) {
            if (! self::touched($kind, $from, $to)) {
                continue;
            }
            [$before, $after] = [$this->store->nodes($kind, $from), $this->store->nodes($kind, $to)];
            foreach (array_keys($before + $after) as $key) {
                $changed = self::changed($before[$key] ?? null, $after[$key] ?? null);
                if ($changed !== null) {
                    $out[] = ['kind' => $kind, 'key' => (string) $key] + $changed;
                }
            }
        }

        return $out;
    }

    /**
     * @return array{change: 'new'|'changed'|'removed', changes: list<array{at: string, before: mixed,
     *     after: mixed}>}|null null where nothing changed
     */
    private static function changed(?\stdClass $was, ?\stdClass $is): ?array
    {
        $changes = self::changes($was, $is);

        return match (true) {
            $changes === [] => null,
            $was === null => ['change' => 'new', 'changes' => []],
            $is === null => ['change' => 'removed', 'changes' => []],
            default => ['change' => 'changed', 'changes' => $changes],
        };
    }

    /** Whether any row of a kind, or of what belongs to it, began or ended between the two moments. */
    private static function touched(string $kind, string $from, string $to): bool
    {
        $map = CatalogMap::of($kind);
        $owners = $map['list']['owners'] ?? 'parts';
        foreach ([$map['table'], ...$owners === 'parts' ? [] : [$owners]] as $table) {
            $any = DB::table(DB::raw("`$table` FOR SYSTEM_TIME ALL"))
                ->where(
                    fn (Builder $w) => $w
                        ->whereBetween('ROW_START', [$from, $to])
                        ->orWhereBetween('ROW_END', [$from, $to]),
                )
                ->when(isset($map['spec']), fn (Builder $q) => $q->where('kind', $map['spec']))
                ->exists();
            if ($any) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return list<array{at: string, before: mixed, after: mixed}> the innermost places where two nodes differ,
     *     as JSON pointers
     */
    public static function changes(mixed $before, mixed $after, string $at = ''): array
    {
        if (
            ($before instanceof \stdClass && $after instanceof \stdClass) ||
            (is_array($before) && is_array($after))
        ) {
            $out = [];
            foreach (array_keys((array) $before + (array) $after) as $key) {
                $out = [
                    ...$out,
                    ...self::changes(((array) $before)[$key] ?? null, ((array) $after)[$key] ?? null, "$at/$key"),
                ];
            }

            return $out;
        }
        $same =
            is_numeric($before) && is_numeric($after) && ! is_string($before) && ! is_string($after)
                ? (float) $before === (float) $after
                : $before === $after;

        return $same ? [] : [['at' => $at, 'before' => $before, 'after' => $after]];
    }

    /**
     * Moments at which the rows of an entry changed, oldest first, with who wrote what holds from then on.
     *
     * @param  callable(Builder, array<string, mixed>): void  $narrow
     * @return array<string, ?int>
     */
    private function moments(string $kind, callable $narrow): array
    {
        $map = CatalogMap::of($kind);
        $moments = [];
        $query = DB::table(DB::raw("`{$map['table']}` FOR SYSTEM_TIME ALL"));
        $narrow($query, $map);
        foreach ($query->get(['ROW_START AS from', 'ROW_END AS to', 'changed_by']) as $row) {
            $moments[$row->from] = $row->changed_by;
            if (! str_starts_with($row->to, '2038') && ! str_starts_with($row->to, '2106')) {
                $moments[$row->to] ??= null;
            }
        }
        ksort($moments);

        return $moments;
    }

    /** @param  array<string, mixed>  $map */
    private function toEntry(Builder $query, array $map, string $key): void
    {
        isset($map['list'])
            ? $query->where(
                $map['list']['ownerId'],
                DB::table($map['list']['owners'])
                    ->where(CatalogMap::parse($map['fields'][$map['key'][0]])[0], $key)
                    ->value('id'),
            )
            : $this->store->narrow($query, $map, [$key]);
    }

    private static function iso(string $moment): string
    {
        return str_replace(' ', 'T', $moment).'Z';
    }
}
