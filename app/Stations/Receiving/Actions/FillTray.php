<?php

namespace App\Stations\Receiving\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Stations\Receiving\Models\Tray;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\DB;

/** Ties a tagged tray to a unit and lists what lies in it. */
final class FillTray
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  list<array{name: string, count: int, keepTogether?: string}>  $items */
    public function fill(Unit $unit, string $tag, array $items): Tray
    {
        $basket = Tray::query()->where('tag', $tag)->lockForUpdate()->first();
        if ($basket !== null && $basket->unit_id !== null && $basket->unit_id !== $unit->id) {
            throw Refusal::at('/tag', "Tray $tag holds parts of another unit; empty it first.");
        }
        $basket ??= new Tray(['tag' => $tag]);
        $basket->fill(['unit_id' => $unit->id, 'version' => ($basket->version ?? 0) + 1])->save();
        DB::table('basket_items')->where('basket_id', $basket->id)->delete();
        DB::table('basket_items')->insert(
            array_map(
                fn (array $i) => [
                    'basket_id' => $basket->id,
                    'name' => $i['name'],
                    'count' => $i['count'],
                    'keep_together' => $i['keepTogether'] ?? '',
                ],
                $items,
            ),
        );
        $this->ledger->onUnit($unit, 'basket.filled', ['tag' => $tag, 'items' => $items]);

        return $basket;
    }
}
