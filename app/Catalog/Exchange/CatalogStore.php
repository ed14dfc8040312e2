<?php

namespace App\Catalog\Exchange;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;

/**
 * Reads and writes catalog entries as pack nodes. Only what differs is written, so that the history of a
 * system-versioned table holds real changes, each with the person who made it.
 */
final class CatalogStore
{
    /**
     * @param  list<\stdClass>  $nodes  checked entries of one kind
     * @return array{new: int, changed: int, same: int}
     */
    public function write(string $kind, array $nodes, ?int $familyId = null, int $firstPosition = 0): array
    {
        $map = CatalogMap::of($kind);
        $counts = ['new' => 0, 'changed' => 0, 'same' => 0];
        if ($nodes === []) {
            return $counts;
        }
        if (isset($map['list'])) {
            return $this->writeLists($map, $nodes);
        }
        $ids = CatalogMap::ids($map['fields'], $nodes);
        $rows = array_map(
            function (\stdClass $node, int $i) use ($map, $ids, $familyId, $firstPosition): array {
                $row = CatalogMap::row($map['fields'], $node, $ids);

                return $row +
                    ($familyId === null ? [] : ['family_id' => $familyId]) +
                    (isset($map['spec']) ? ['kind' => $map['spec'], 'position' => $firstPosition + $i] : []);
            },
            $nodes,
            array_keys($nodes),
        );

        return $this->writeRows($map['table'], $rows, $this->keyColumns($map));
    }

    /**
     * What writing these rows would do; nothing is written.
     *
     * @param  list<array<string, mixed>>  $rows
     * @param  list<string>  $key
     * @return array{new: list<array<string, mixed>>, changed: list<array{row: array<string, mixed>, before: object}>,
     *     same: int}
     */
    public function compare(string $table, array $rows, array $key): array
    {
        $existing = [];
        foreach (array_chunk($rows, 1000) as $chunk) {
            $query = DB::table($table)->whereIn($key[0], array_values(array_unique(array_column($chunk, $key[0]))));
            foreach (array_slice($key, 1) as $column) {
                $query->whereIn($column, array_values(array_unique(array_column($chunk, $column))));
            }
            foreach ($query->get() as $row) {
                $existing[$this->keyOf((array) $row, $key)] = $row;
            }
        }
        $out = ['new' => [], 'changed' => [], 'same' => 0];
        foreach ($rows as $row) {
            $before = $existing[$this->keyOf($row, $key)] ?? null;
            if ($before === null) {
                $out['new'][] = $row;
            } elseif ($this->differs($row, $before)) {
                $out['changed'][] = ['row' => $row, 'before' => $before];
            } else {
                $out['same']++;
            }
        }

        return $out;
    }

    /**
     * @param  list<array<string, mixed>>  $rows
     * @param  list<string>  $key
     * @return array{new: int, changed: int, same: int}
     */
    public function writeRows(string $table, array $rows, array $key): array
    {
        $compared = $this->compare($table, $rows, $key);
        $by = $table === 'stock_lots' ? [] : ['changed_by' => Auth::id()]; // stock is no catalog: it is not versioned
        foreach (array_chunk($compared['new'], 500) as $chunk) {
            DB::table($table)->insert(array_map(fn (array $r) => $r + $by, $chunk));
        }
        foreach (array_chunk($compared['changed'], 500) as $chunk) {
            DB::table($table)->upsert(array_map(fn (array $c) => $c['row'] + $by, $chunk), $key);
        }

        return [
            'new' => count($compared['new']),
            'changed' => count($compared['changed']),
            'same' => $compared['same'],
        ];
    }

    /**
     * Entries of a kind as nodes, in the order they were first written.
     *
     * @param  list<string>|null  $keys  only these, as key() writes them
     * @return array<string, \stdClass> key => node
     */
    public function nodes(string $kind, ?string $asOf = null, ?int $familyId = null, ?array $keys = null): array
    {
        $map = CatalogMap::of($kind);
        $out = [];
        if (isset($map['list'])) {
            foreach ($this->readLists($map, $asOf, $keys) as $node) {
                $out[$this->key($kind, $node)] = $node;
            }

            return $out;
        }
        $query = $this->at($map['table'], $asOf)
            ->when($familyId !== null, fn (Builder $q) => $q->where('family_id', $familyId))
            ->when(isset($map['spec']), fn (Builder $q) => $q->where('kind', $map['spec'])->orderBy('position'));
        $this->narrow($query, $map, $keys);
        $rows = $query->orderBy('id')->get();
        $codes = CatalogMap::codes($map['fields'], $rows);
        $families = CatalogMap::inFamily($kind) ? DB::table('families')->pluck('code', 'id')->all() : [];
        foreach ($rows as $row) {
            $node = CatalogMap::node($map['fields'], $row, $codes);
            $out[$this->key($kind, $node, $families[$row->family_id ?? 0] ?? null)] = $node;
        }

        return $out;
    }

    /** The entry's key as one text: the family first where the kind lives in one. */
    public function key(string $kind, \stdClass $node, ?string $family = null): string
    {
        $parts = array_map(fn (string $f) => (string) $node->{$f}, CatalogMap::of($kind)['key']);

        return implode('|', $family === null ? $parts : [$family, ...$parts]);
    }

    public function at(string $table, ?string $asOf): Builder
    {
        return $asOf === null
            ? DB::table($table)
            : DB::table(
                DB::raw(
                    "`$table` FOR SYSTEM_TIME AS OF TIMESTAMP '".
                        Carbon::parse($asOf)->utc()->format('Y-m-d H:i:s.u').
                        "'",
                ),
            );
    }

    public function delete(string $kind, string $key): bool
    {
        $map = CatalogMap::of($kind);
        if (isset($map['list'])) {
            $owner = DB::table($map['list']['owners'])
                ->where(explode(':', $map['fields'][$map['key'][0]])[0], $key)
                ->value('id');
            $gone = DB::table($map['table'])->where($map['list']['ownerId'], $owner)->delete();
            if ($map['list']['owners'] !== 'parts') {
                $gone += DB::table($map['list']['owners'])->where('id', $owner)->delete();
            }

            return $gone > 0;
        }
        $query = DB::table($map['table']);
        $this->narrow($query, $map, [$key]);

        return $query->delete() > 0;
    }

    /**
     * @param  array<string, mixed>  $map
     * @param  list<string>|null  $keys
     */
    public function narrow(Builder $query, array $map, ?array $keys): void
    {
        if ($keys === null) {
            return;
        }
        $inFamily = $map['family'] ?? false;
        isset($map['spec']) && $query->where('kind', $map['spec']);
        if (! $inFamily && count($map['key']) === 1) {
            $query->whereIn(CatalogMap::parse($map['fields'][$map['key'][0]])[0], $keys);

            return;
        }
        $query->where(function (Builder $any) use ($map, $keys, $inFamily): void {
            $any->whereRaw('1 = 0');
            foreach ($keys as $key) {
                $parts = explode('|', $key);
                $any->orWhere(function (Builder $one) use ($map, $parts, $inFamily): void {
                    if ($inFamily) {
                        $one->where(
                            'family_id',
                            DB::table('families')->where('code', array_shift($parts))->value('id'),
                        );
                    }
                    foreach ($map['key'] as $i => $field) {
                        [$column, $type] = CatalogMap::parse($map['fields'][$field]);
                        $value = $parts[$i] ?? '';
                        $one->where(
                            $column,
                            in_array($type, ['part', 'variant', 'vehicle'], true)
                                ? CatalogMap::ids([$field => $map['fields'][$field]], [(object) [$field => $value]])[
                                        $type
                                    ][$value] ?? 0
                                : $value,
                        );
                    }
                });
            }
        });
    }

    /**
     * @param  array<string, mixed>  $map
     * @return list<string> unique columns of the table
     */
    private function keyColumns(array $map): array
    {
        $columns = array_map(fn (string $f) => explode(':', $map['fields'][$f])[0], $map['key']);

        return array_values(match (true) {
            isset($map['spec']) => ['family_id', 'kind', ...$columns],
            in_array($map['table'], ['options', 'packages'], true) => ['family_id', ...$columns],
            default => $columns,
        });
    }

    /**
     * @param  array<string, mixed>  $row
     * @param  list<string>  $key
     */
    private function keyOf(array $row, array $key): string
    {
        // The collation of the tables does not tell capitals apart, so neither may the comparison.
        return mb_strtolower(implode("\0", array_map(fn (string $c) => (string) $row[$c], $key)));
    }

    /** @param  array<string, mixed>  $row */
    private function differs(array $row, object $before): bool
    {
        foreach ($row as $column => $value) {
            $old = $before->{$column};
            $same = match (true) {
                $value === null || $old === null => $value === $old,
                is_int($value) || is_float($value) => (float) $value === (float) $old,
                $value !== '' && ($value[0] === '{' || $value[0] === '[') => json_encode(json_decode($value)) ===
                    json_encode(json_decode((string) $old)),
                default => $value === (string) $old,
            };
            if (! $same) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  array<string, mixed>  $map
     * @param  list<\stdClass>  $nodes
     * @return array{new: int, changed: int, same: int}
     */
    private function writeLists(array $map, array $nodes): array
    {
        $list = $map['list'];
        $counts = ['new' => 0, 'changed' => 0, 'same' => 0];
        $heads = array_map(fn (\stdClass $n) => CatalogMap::row($map['fields'], $n, []), $nodes);
        $column = explode(':', $map['fields'][$map['key'][0]])[0];
        if ($list['owners'] !== 'parts') {
            $this->writeRows($list['owners'], $heads, [$column]);
        }
        $owners = CatalogMap::idsOf($list['owners'], $column, array_column($heads, $column));
        $items = array_values(array_merge(...array_map(fn (\stdClass $n) => $n->{$list['field']}, $nodes)));
        $ids = CatalogMap::ids($list['of'], $items);
        $there = DB::table($map['table'])
            ->whereIn($list['ownerId'], array_values($owners))
            ->get()
            ->groupBy(fn (\stdClass $r) => (string) $r->{$list['ownerId']});
        foreach ($nodes as $n => $node) {
            $owner = $owners[$heads[$n][$column]];
            $rows = [];
            foreach ($node->{$list['field']} as $i => $item) {
                $rows[] = [$list['ownerId'] => $owner, 'position' => $i] + CatalogMap::row($list['of'], $item, $ids);
            }
            $gone = ($there[$owner] ?? collect())
                ->whereNotIn('part_id', array_column($rows, 'part_id'))
                ->pluck('part_id')
                ->all();
            if ($gone !== []) {
                DB::table($map['table'])->where($list['ownerId'], $owner)->whereIn('part_id', $gone)->delete();
            }
            $written = $this->writeRows($map['table'], $rows, [$list['ownerId'], 'part_id']);
            $counts[
                match (true) {
                    ! isset($there[$owner]) => 'new',
                    $gone !== [] || $written['new'] + $written['changed'] > 0 => 'changed',
                    default => 'same',
                }
            ]++;
        }

        return $counts;
    }

    /**
     * @param  array<string, mixed>  $map
     * @param  list<string>|null  $keys
     * @return list<\stdClass>
     */
    private function readLists(array $map, ?string $asOf, ?array $keys): array
    {
        $list = $map['list'];
        $column = explode(':', $map['fields'][$map['key'][0]])[0];
        $owners = $this->at($list['owners'], $asOf)
            ->when($keys !== null, fn (Builder $q) => $q->whereIn($column, $keys))
            ->when(
                $list['owners'] === 'parts',
                fn (Builder $q) => $q->whereIn('id', $this->at($map['table'], $asOf)->select($list['ownerId'])),
            )
            ->orderBy('id')
            ->get()
            ->keyBy('id');
        $rows = collect();
        foreach (array_chunk($owners->keys()->all(), 1000) as $chunk) {
            $rows = $rows->concat(
                $this->at($map['table'], $asOf)->whereIn($list['ownerId'], $chunk)->orderBy('position')->get(),
            );
        }
        $codes = CatalogMap::codes($list['of'], $rows);
        $items = $rows->groupBy(fn (\stdClass $r) => (string) $r->{$list['ownerId']});

        return array_values($owners
            ->map(function (object $owner) use ($map, $list, $codes, $items): \stdClass {
                $node = CatalogMap::node($map['fields'], $owner, []);
                $node->{$list['field']} = ($items[$owner->id] ?? collect())
                    ->map(
                        fn (\stdClass $r) => isset($list['of'][''])
                            ? $codes['part'][$r->part_id]
                            : CatalogMap::node($list['of'], $r, $codes),
                    )
                    ->values()
                    ->all();

                return $node;
            })
            ->values()
            ->all());
    }
}
