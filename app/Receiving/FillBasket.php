<?php

namespace App\Receiving;

use App\Ledger\Ledger;
use App\Shop\Refused;
use App\Track\Unit;
use Illuminate\Support\Facades\DB;

/** Ties a tagged tray to a unit and lists what lies in it. */
final class FillBasket
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  list<array{name: string, count: int, keepTogether?: string}>  $items */
    public function fill(Unit $unit, string $tag, array $items): Basket
    {
        $basket = Basket::query()->where('tag', $tag)->lockForUpdate()->first();
        if ($basket !== null && $basket->unit_id !== null && $basket->unit_id !== $unit->id) {
            throw Refused::at('/tag', "Tray $tag holds parts of another unit; empty it first.");
        }
        $basket ??= new Basket(['tag' => $tag]);
        $basket->fill(['unit_id' => $unit->id, 'version' => ($basket->version ?? 0) + 1])->save();
        DB::table('basket_items')->where('basket_id', $basket->id)->delete();
        DB::table('basket_items')->insert(array_map(fn (array $i) => ['basket_id' => $basket->id, 'name' => $i['name'], 'count' => $i['count'], 'keep_together' => $i['keepTogether'] ?? ''], $items));
        $this->ledger->onUnit($unit, 'basket.filled', ['tag' => $tag, 'items' => $items]);

        return $basket;
    }
}
