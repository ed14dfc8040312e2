<?php

namespace App\Stock\Actions;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stock\Models\HeldPart;
use App\Stock\Models\InstalledPart;
use App\Stock\Models\Lot;
use App\Yard\Models\Build;
use Illuminate\Support\Collection;

/** Takes parts from the shelf into a build, oldest lot first, and remembers which lot went where. */
final class IssueParts
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /**
     * @param  list<array{part: string, count: int}>  $picks
     * @param  string|null  $lot  the only lot to take from, where one was scanned
     */
    public function issue(Build $build, string $place, array $picks, Person $by, ?string $lot = null): void
    {
        foreach ($picks as $pick) {
            $part = Part::query()->where('number', $pick['part'])->firstOrFail();
            $left = $pick['count'];
            foreach ($this->lots($part, $lot) as $from) {
                $take = min($left, $from->quantity);
                $this->take($build, $part, $from, $take, $place, $by);
                if (($left -= $take) === 0) {
                    continue 2;
                }
            }
            $there = $pick['count'] - $left;
            throw new Refusal("The shelf has only $there of {$pick['count']} \"$part->name\" ($part->number).", 409);
        }
    }

    /** @return Collection<int, Lot> what is on the shelf, the oldest first, locked */
    private function lots(Part $part, ?string $lot): Collection
    {
        return Lot::query()
            ->where('part_id', $part->id)
            ->when($lot !== null, fn ($lots) => $lots->where('lot', $lot))
            ->where('quantity', '>', 0)
            ->orderBy('received_on')
            ->orderBy('id')
            ->lockForUpdate()
            ->get();
    }

    private function take(Build $build, Part $part, Lot $lot, int $count, string $place, Person $by): void
    {
        $lot->decrement('quantity', $count);
        InstalledPart::create([
            'build_id' => $build->id,
            'part_id' => $part->id,
            'lot_id' => $lot->id,
            'count' => $count,
            'origin' => 'lot',
            'place' => $place,
            'fitted_by' => $by->id,
            'fitted_at' => now(),
        ]);
        $this->ledger->record("part:$part->number", 'stock.issued', [
            'lot' => $lot->lot,
            'count' => $count,
            'serial' => $build->serial,
            'place' => $place,
        ]);
    }

    /** Puts what was fitted at a place back on the shelf it came from. */
    public function takeBack(Build $build, string $place): void
    {
        foreach (
            InstalledPart::query()
                ->where('build_id', $build->id)
                ->where('place', $place)
                ->whereNull('removed_at')
                ->lockForUpdate()
                ->get() as $installed
        ) {
            $installed->update(['removed_at' => now()]);
            if ($installed->lot_id !== null) {
                Lot::query()->whereKey($installed->lot_id)->increment('quantity', $installed->count);
            }
        }
    }

    /**
     * @param  list<string>  $numbers
     * @param  list<int>  $builds  what is kept for these counts as free
     * @return array<string, int> part number => pieces on the shelf that are kept for nobody else
     */
    public static function free(array $numbers, array $builds): array
    {
        $kept = HeldPart::query()
            ->join('parts', 'parts.id', '=', 'held_parts.part_id')
            ->whereIn('number', $numbers)
            ->whereNull('released_at')
            ->whereNotIn('build_id', $builds)
            ->groupBy('number')
            ->selectRaw('number, SUM(count) AS pieces')
            ->pluck('pieces', 'number');
        $shelf = self::onShelf($numbers);
        foreach ($shelf as $number => $pieces) {
            $shelf[$number] = max(0, $pieces - (int) ($kept[$number] ?? 0));
        }

        return $shelf;
    }

    /**
     * @param  list<string>  $numbers
     * @return array<string, int> part number => pieces on the shelf
     */
    private static function onShelf(array $numbers): array
    {
        return Part::query()
            ->leftJoin('stock_lots', 'stock_lots.part_id', '=', 'parts.id')
            ->whereIn('number', $numbers)
            ->groupBy('number')
            ->selectRaw('number, COALESCE(SUM(quantity), 0) AS pieces')
            ->pluck('pieces', 'number')
            ->map(fn ($n) => (int) $n)
            ->all();
    }
}
