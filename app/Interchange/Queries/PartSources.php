<?php

namespace App\Interchange\Queries;

use App\Catalog\Models\Part;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Yard\Core\Interchange\Supersession;

/** Where a part can come from: the shelf, a substitute, a kit, an equal part of another family, a core in the yard. */
final class PartSources
{
    private const SHOWN_CORES = 40;

    /** @return array<string, mixed> */
    public function of(Part $part): array
    {
        $chains = $this->chains($part->id);
        $replacedBy = $chains->replacing($part->number);
        $replaces = $chains->replacedBy($part->number);
        $equal = $this->equalParts($part->id);
        $kits = $this->kits($part->id);
        $sets = $this->sets($part->id);
        $fits = $this->fits($part->id);
        $named = $this->naming([
            $part->number,
            ...array_map(strval(...), array_keys($replacedBy + $replaces)),
            ...$equal->pluck('part'),
            ...$equal->pluck('equals'),
            ...$kits->pluck('number'),
            ...$sets->flatten()->pluck('number'),
        ]);
        $reclaimed = in_array($part->kind, ['hard', 'outside', 'converter'], true);

        return [
            'part' => $named($part->number) + [
                'kind' => $part->kind,
                'aliases' => $part->aliases,
                'lots' => $this->lots($part->id),
            ],
            'replacedBy' => self::ways($replacedBy, $named),
            'replaces' => self::ways($replaces, $named),
            'current' => $chains->current($part->number),
            'cycles' => $chains->cycles(),
            'equal' => $equal
                ->map(fn (\stdClass $e) => $named($e->part === $part->number ? $e->equals : $e->part) +
                    ['note' => $e->note] + $this->sourced($e))
                ->all(),
            'kits' => $kits->map(fn (\stdClass $k) => ['count' => $k->count] + $named($k->number))->all(),
            'sets' => self::together($sets, $named),
            'fits' => $fits->map($this->fit(...))->all(),
            'cores' => $reclaimed ? $this->cores($part, $fits) : [],
        ];
    }

    /**
     * @param  array<mixed>  $numbers  part numbers, some of them more than once
     * @return \Closure(string): array{number: string, name: string, price: float, pieces: int}
     */
    private function naming(array $numbers): \Closure
    {
        $stock = $this->stock(array_values(array_unique(array_map(strval(...), $numbers))));

        return fn (string $number): array => [
            'number' => $number,
            'name' => $stock[$number]->name ?? $number,
            'price' => (float) ($stock[$number]->price ?? 0),
            'pieces' => (int) ($stock[$number]->pieces ?? 0),
        ];
    }

    /**
     * @param  array<array-key, list<string>>  $found  the way to each number
     * @param  \Closure(string): array<string, mixed>  $named
     * @return list<array<string, mixed>>
     */
    private static function ways(array $found, \Closure $named): array
    {
        return array_map(
            fn (string $number, array $way) => $named($number) + ['way' => $way],
            array_map(strval(...), array_keys($found)),
            $found,
        );
    }

    /**
     * @param  Collection<string, Collection<int, \stdClass>>  $sets
     * @param  \Closure(string): array<string, mixed>  $named
     * @return list<array<string, mixed>>
     */
    private static function together(Collection $sets, \Closure $named): array
    {
        return array_values($sets
            ->map(
                fn (Collection $rows, string $name) => [
                    'name' => $name,
                    'why' => $rows->first()?->why,
                    'parts' => $rows->map(fn (\stdClass $r) => $named($r->number))->all(),
                ],
            )
            ->all());
    }

    /** @return array<string, mixed> */
    private function fit(\stdClass $f): array
    {
        return [
            'variant' => $f->code,
            'name' => $f->name,
            'years' => "$f->from_year-$f->to_year",
            'count' => $f->count,
        ] + $this->sourced($f);
    }

    /** @return array{source: string, confidence: mixed} */
    private function sourced(\stdClass $fact): array
    {
        return ['source' => trim("$fact->source, $fact->edition", ', '), 'confidence' => $fact->confidence];
    }

    /** @return Collection<int, \stdClass> */
    private function equalParts(int $partId): Collection
    {
        return DB::table('equal_parts AS e')
            ->join('parts AS a', 'a.id', '=', 'e.part_id')
            ->join('parts AS b', 'b.id', '=', 'e.equals_part_id')
            ->where('e.part_id', $partId)
            ->orWhere('e.equals_part_id', $partId)
            ->get(['a.number AS part', 'b.number AS equals', 'e.note', 'e.source', 'e.edition', 'e.confidence']);
    }

    /** @return Collection<int, \stdClass> */
    private function kits(int $partId): Collection
    {
        return DB::table('kit_items AS k')
            ->join('parts AS p', 'p.id', '=', 'k.kit_id')
            ->where('k.part_id', $partId)
            ->orderBy('p.number')
            ->limit(50)
            ->get(['p.number', 'p.name', 'p.price', 'k.count']);
    }

    /** @return Collection<string, Collection<int, \stdClass>> parts that only go together, by the name of the set */
    private function sets(int $partId): Collection
    {
        return DB::table('part_set_items AS i')
            ->join('part_sets AS s', 's.id', '=', 'i.set_id')
            ->join('part_set_items AS o', 'o.set_id', '=', 's.id')
            ->join('parts AS p', 'p.id', '=', 'o.part_id')
            ->where('i.part_id', $partId)
            ->orderBy('s.id')
            ->orderBy('o.position')
            ->get(['s.name', 's.why', 'p.number', 'p.name AS part'])
            ->groupBy('name');
    }

    /** @return Collection<int, \stdClass> the variants that carry the part */
    private function fits(int $partId): Collection
    {
        $columns = ['v.id', 'v.code', 'v.name', 'f.from_year', 'f.to_year', 'f.count'];

        return DB::table('part_fits AS f')
            ->join('variants AS v', 'v.id', '=', 'f.variant_id')
            ->where('f.part_id', $partId)
            ->orderBy('v.code')
            ->limit(200)
            ->get([...$columns, 'f.source', 'f.edition', 'f.confidence']);
    }

    /** @return list<\stdClass> */
    private function lots(int $partId): array
    {
        return array_values(
            DB::table('stock_lots')
                ->where('part_id', $partId)
                ->where('quantity', '>', 0)
                ->orderBy('received_on')
                ->limit(20)
                ->get(['lot', 'quantity', 'place', 'supplier'])
                ->all(),
        );
    }

    /** Every link of the chains this part stands in. */
    private function chains(int $partId): Supersession
    {
        $rows = DB::select(
            <<<'SQL'
            WITH RECURSIVE linked AS (
                SELECT CAST(? AS UNSIGNED) AS id
                UNION SELECT s.new_part_id FROM supersessions s JOIN linked l ON s.old_part_id = l.id
                UNION SELECT s.old_part_id FROM supersessions s JOIN linked l ON s.new_part_id = l.id
            )
            SELECT o.number AS old,
            n.number AS new,
            s.both_ways FROM supersessions s JOIN linked l ON l.id = s.old_part_id JOIN parts o ON o.id =
                s.old_part_id JOIN parts n ON n.id = s.new_part_id
            SQL
            ,
            [$partId],
        );

        $chains = new Supersession();
        foreach ($rows as $row) {
            $chains->supersede($row->old, $row->new, (bool) $row->both_ways);
        }

        return $chains;
    }

    /**
     * @param  list<string>  $numbers
     * @return Collection<string, \stdClass>
     */
    private function stock(array $numbers): Collection
    {
        return DB::table('parts AS p')
            ->leftJoin('stock_lots AS l', 'l.part_id', '=', 'p.id')
            ->whereIn('p.number', $numbers)
            ->groupBy('p.id')
            ->get(['p.number', 'p.name', 'p.price', DB::raw('COALESCE(SUM(l.quantity), 0) AS pieces')])
            ->keyBy('number');
    }

    /**
     * Cores not built yet whose variant carries the part and where nothing says it is missing or lost; what teardown
     * found sound first, parts donors before cores worth building.
     *
     * @param  Collection<int, \stdClass>  $fits
     * @return list<array<string, mixed>>
     */
    private function cores(Part $part, Collection $fits): array
    {
        $rows = DB::table('units AS u')
            ->join('variants AS v', 'v.id', '=', 'u.variant_id')
            ->leftJoin(
                'specs AS s',
                fn ($j) => $j
                    ->on('s.family_id', '=', 'u.family_id')
                    ->where('s.kind', 'finding')
                    ->whereRaw("JSON_VALUE(s.body, '$.part') = ?", [$part->number])
                    // a part may stand on the list more than once: looked at, and measured
                    ->whereRaw(
                        'NOT EXISTS (SELECT 1 FROM specs m WHERE m.family_id = s.family_id AND m.kind = s.kind '
                            ."AND m.position < s.position AND JSON_VALUE(m.body, '$.part') = ?)",
                        [$part->number],
                    ),
            )
            ->leftJoin(
                'findings AS f',
                fn ($j) => $j->on('f.unit_id', '=', 'u.id')->on('f.part', '=', 's.code')->where('f.generation', 1),
            )
            ->whereIn('u.variant_id', $fits->pluck('id'))
            ->whereIn('u.station', ['identification', 'ordering', 'teardown'])
            ->where('u.ownership', 'exchange')
            ->whereNotExists(
                fn ($q) => $q
                    ->from('intake_parts AS i')
                    ->whereColumn('i.unit_id', 'u.id')
                    ->where('i.part_id', $part->id),
            )
            ->whereNotExists(fn ($q) => self::lost($q, $part->number))
            ->orderByRaw("f.disposition IS NULL, FIELD(u.grade, 'D', 'C', 'B', 'A'), u.id")
            ->limit(self::SHOWN_CORES)
            ->select(['u.core_tag', 'v.code', 'u.station', 'u.grade', 'u.rack', 'u.clues'])
            ->addSelect(['f.disposition', 'f.condition'])
            ->get();

        return array_values($rows->map(self::core(...))->all());
    }

    /** Teardown found it lost, by whichever line of the list. */
    private static function lost(Builder $q, string $number): void
    {
        $q->from('findings AS l')
            ->join('specs AS ls', 'ls.code', '=', 'l.part')
            ->whereColumn('l.unit_id', 'u.id')
            ->whereColumn('ls.family_id', 'u.family_id')
            ->where('l.generation', 1)
            ->whereIn('l.disposition', ['scrap', 'replace'])
            ->where('ls.kind', 'finding')
            ->whereRaw("JSON_VALUE(ls.body, '$.part') = ?", [$number]);
    }

    /** @return array<string, mixed> */
    private static function core(\stdClass $r): array
    {
        return [
            'coreTag' => $r->core_tag,
            'variant' => $r->code,
            'station' => $r->station,
            'grade' => $r->grade,
            'rack' => $r->rack,
            'history' => json_decode($r->clues, true)['prior-service'] ?? null,
            'seen' => $r->disposition === null ? null : "$r->condition, $r->disposition",
        ];
    }
}
