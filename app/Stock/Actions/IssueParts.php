<?php

namespace App\Stock\Actions;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stock\Models\InstalledPart;
use App\Stock\Models\Lot;
use App\Yard\Models\Build;

/** Takes parts from the shelf into a build, oldest lot first, and remembers which lot went where. */
final class IssueParts
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  list<array{part: string, count: int}>  $picks */
    public function issue(Build $build, string $place, array $picks, Person $by): void
    {
        foreach ($picks as $pick) {
            $part = Part::query()->where('number', $pick['part'])->firstOrFail();
            $left = $pick['count'];
            foreach (
                Lot::query()
                    ->where('part_id', $part->id)
                    ->where('quantity', '>', 0)
                    ->orderBy('received_on')
                    ->orderBy('id')
                    ->lockForUpdate()
                    ->get() as $lot
            ) {
                $take = min($left, $lot->quantity);
                $lot->decrement('quantity', $take);
                InstalledPart::create([
                    'build_id' => $build->id,
                    'part_id' => $part->id,
                    'lot_id' => $lot->id,
                    'count' => $take,
                    'origin' => 'lot',
                    'place' => $place,
                    'fitted_by' => $by->id,
                    'fitted_at' => now(),
                ]);
                $this->ledger->record("part:$part->number", 'stock.issued', [
                    'lot' => $lot->lot,
                    'count' => $take,
                    'serial' => $build->serial,
                    'place' => $place,
                ]);
                if (($left -= $take) === 0) {
                    continue 2;
                }
            }
            throw new Refusal(
                'The shelf has only '.
                    ($pick['count'] - $left).
                    " of {$pick['count']} \"$part->name\" ($part->number).",
                409,
            );
        }
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
     * @return array<string, int> part number => pieces on the shelf
     */
    public static function onShelf(array $numbers): array
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
