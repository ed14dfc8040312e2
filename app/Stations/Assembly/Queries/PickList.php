<?php

namespace App\Stations\Assembly\Queries;

use App\Stock\Queries\Substitutes;
use App\Yard\Models\Build;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What a frozen order asks from the shelf, what was taken for each line, and where more of it lies. */
final class PickList
{
    /** Before the number of a line, as the place of what was taken for it. */
    public const PLACE = 'order:';

    /** @return array{lines: list<array<string, mixed>>, kits: list<array<string, mixed>>} */
    public function of(Build $build): array
    {
        $bom = $build->frozen()['bom'];
        $numbers = array_map(strval(...), array_column($bom, 'part'));
        $instead = Substitutes::for($numbers);
        $taken = $this->taken($build);
        $shelf = $this->shelf([...$numbers, ...array_merge(...array_map(array_keys(...), array_values($instead)))]);
        $lines = [];
        $needed = self::neededAt($build->frozen());
        foreach ($bom as $line) {
            $picked = $taken[self::PLACE.$line['part']] ?? [];
            $lines[] = [
                'part' => $line['part'],
                'name' => $line['name'],
                'count' => $line['count'],
                'picked' => $picked,
                'left' => max(0, $line['count'] - array_sum(array_column($picked, 'count'))),
                'lots' => $shelf[$line['part']] ?? [],
                'neededAt' => $needed[$line['part']] ?? [],
                'instead' => self::instead($instead[$line['part']] ?? [], $shelf),
            ];
        }

        return ['lines' => $lines, 'kits' => $this->kits($bom)];
    }

    /**
     * What a part that is missing stops: the operations that put in the pack or take the play it belongs to.
     *
     * @param  array<string, mixed>  $spec  frozen specification
     * @return array<string, list<string>> names of operations, by part number
     */
    private static function neededAt(array $spec): array
    {
        $places = [];
        foreach (['pack' => $spec['packs'], 'end-play' => $spec['endPlays']] as $kind => $rows) {
            foreach ($rows as $row) {
                $slots = array_merge($row['options'] ?? [], ...array_column($row['slots'] ?? [], 'options'));
                $numbers = [...array_column($row['fixed'] ?? [], 'part'), ...array_column($slots, 'part')];
                $places["$kind:{$row['code']}"] = $numbers;
            }
        }
        $needed = [];
        foreach ($spec['assembly'] as $operation) {
            $of = array_unique(array_column($operation['proofs'] ?? [], 'of'));
            foreach (array_merge(...array_values(array_intersect_key($places, array_flip($of)))) as $number) {
                $needed[$number][] = $operation['name'];
            }
        }

        return array_map(fn (array $names): array => array_values(array_unique($names)), $needed);
    }

    /** @return array<string, list<array{part: string, lot: ?string, count: int}>> by place */
    private function taken(Build $build): array
    {
        return DB::table('installed_parts AS i')
            ->join('parts AS p', 'p.id', '=', 'i.part_id')
            ->leftJoin('stock_lots AS l', 'l.id', '=', 'i.lot_id')
            ->where('i.build_id', $build->id)
            ->whereNull('i.removed_at')
            ->where('i.place', 'like', self::PLACE.'%')
            ->orderBy('i.id')
            ->get(['p.number', 'l.lot', 'i.count', 'i.place'])
            ->groupBy('place')
            ->map(fn (Collection $rows): array => array_values($rows->map(fn (\stdClass $r): array => [
                'part' => $r->number,
                'lot' => $r->lot,
                'count' => (int) $r->count,
            ])->all()))
            ->all();
    }

    /**
     * @param  list<string>  $numbers
     * @return array<string, list<array{lot: string, pieces: int, place: string}>>
     */
    private function shelf(array $numbers): array
    {
        return DB::table('stock_lots AS l')
            ->join('parts AS p', 'p.id', '=', 'l.part_id')
            ->whereIn('p.number', array_unique($numbers))
            ->where('l.quantity', '>', 0)
            ->orderBy('l.received_on')
            ->orderBy('l.id')
            ->get(['p.number', 'l.lot', 'l.quantity', 'l.place'])
            ->groupBy('number')
            ->map(fn (Collection $rows): array => array_values($rows->map(fn (\stdClass $r): array => [
                'lot' => $r->lot,
                'pieces' => (int) $r->quantity,
                'place' => $r->place,
            ])->all()))
            ->all();
    }

    /**
     * @param  array<string, string>  $ways  numbers, and why they may stand for the line
     * @param  array<string, list<array<string, mixed>>>  $shelf
     * @return list<array<string, mixed>> those that are on the shelf
     */
    private static function instead(array $ways, array $shelf): array
    {
        $found = [];
        foreach ($ways as $number => $why) {
            isset($shelf[$number]) && $found[] = ['part' => $number, 'why' => $why, 'lots' => $shelf[$number]];
        }

        return $found;
    }

    /**
     * Kits that hold something of the order: what they leave out of it, and what of them it does not ask for.
     *
     * @param  list<array<string, mixed>>  $bom
     * @return list<array<string, mixed>>
     */
    private function kits(array $bom): array
    {
        $asked = array_column($bom, 'count', 'part');
        $names = array_column($bom, 'name', 'part');
        $numbers = array_map(strval(...), array_keys($asked));
        $rows = DB::table('kit_items AS k')
            ->join('parts AS kit', 'kit.id', '=', 'k.kit_id')
            ->join('parts AS p', 'p.id', '=', 'k.part_id')
            ->whereIn('k.kit_id', fn ($q) => $q->from('kit_items')
                ->join('parts', 'parts.id', '=', 'kit_items.part_id')
                ->whereIn('parts.number', $numbers)
                ->select('kit_id'))
            ->orderBy('kit.number')
            ->get(['kit.number AS kit', 'kit.name', 'p.number', 'p.name AS part', 'k.count']);

        return array_values($rows->groupBy('kit')->map(fn (Collection $items, string $kit): array => [
            'kit' => $kit,
            'name' => $items->first()->name ?? $kit,
            'holds' => array_values($items->map(fn (\stdClass $i): string => "$i->count $i->part")->all()),
            'omits' => array_values(array_map(
                fn (string $n): string => $names[$n],
                array_diff($numbers, $items->pluck('number')->all()),
            )),
            'tooMuch' => array_values($items
                ->filter(fn (\stdClass $i): bool => $i->count > ($asked[$i->number] ?? 0))
                ->map(fn (\stdClass $i): string => $i->part)
                ->all()),
        ])->all());
    }
}
