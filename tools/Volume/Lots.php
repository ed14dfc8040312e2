<?php

namespace Tools\Volume;

use Illuminate\Database\Connection;

/** Lots that were used up over the years: each lot of today had forerunners, every one for some dozens of units. */
final readonly class Lots
{
    private const COPIES_OF_ONE = 25;

    private int $first;

    private int $each;

    /** @param  list<int>  $units  those that are copied */
    public function __construct(Connection $db, array $units, int $copies)
    {
        $this->first = 1 + (int) $db->table('stock_lots')->max('id');
        $this->each = intdiv($copies, self::COPIES_OF_ONE) + 1;
        $number = $this->of('l.id', 'n.seq * '.self::COPIES_OF_ONE);
        $last = $this->each - 1;
        $used = 'SELECT i.lot_id FROM installed_parts i JOIN builds b ON b.id = i.build_id WHERE b.unit_id IN ('.
            implode(', ', $units).')';
        $db->statement(
            'INSERT INTO stock_lots (id, part_id, lot, quantity, supplier, place, received_on) '.
                "SELECT $number, l.part_id, CONCAT(l.lot, '-', $number), 0, l.supplier, l.place, ".
                "l.received_on - INTERVAL n.seq WEEK FROM stock_lots l JOIN seq_0_to_$last n WHERE l.id IN ($used)",
        );
    }

    /** SQL for the lot a copy took its part from. */
    public function of(string $lot, string $copy): string
    {
        return "$this->first + $lot * $this->each + FLOOR($copy / ".self::COPIES_OF_ONE.')';
    }
}
