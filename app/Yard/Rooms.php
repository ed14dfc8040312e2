<?php

namespace App\Yard;

use App\Catalog\CatalogRoom;
use App\Insight\InsightRoom;
use App\Interchange\InterchangeRoom;
use App\Money\MoneyRoom;
use App\Shop\ShopRoom;
use App\Stock\StockRoom;
use App\Yard\Contracts\Room;

/** All rooms of the house: the yard, the stations in the order of the work, the side rooms. */
final class Rooms
{
    private const SIDE_ROOMS = [
        ShopRoom::class,
        CatalogRoom::class,
        InterchangeRoom::class,
        MoneyRoom::class,
        StockRoom::class,
        InsightRoom::class,
    ];

    /** @return list<class-string<Room>> */
    public static function all(): array
    {
        $stations = array_map(fn (StationName $s) => $s->station(), StationName::inHouse());

        return [YardRoom::class, ...$stations, ...self::SIDE_ROOMS];
    }
}
