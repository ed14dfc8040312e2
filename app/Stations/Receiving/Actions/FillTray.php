<?php

namespace App\Stations\Receiving\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Stations\Receiving\Models\Tray;
use App\Yard\Models\Unit;

/** Ties a tagged tray to a unit and lists what lies in it. */
final class FillTray
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  list<array{name: string, count: int, keepTogether?: string}>  $items */
    public function fill(Unit $unit, string $tag, array $items): Tray
    {
        $tray = Tray::query()->where('tag', $tag)->lockForUpdate()->first();
        if ($tray !== null && $tray->unit_id !== null && $tray->unit_id !== $unit->id) {
            throw Refusal::at('/tag', "Tray $tag holds parts of another unit; empty it first.");
        }
        $listed = array_map(
            fn (array $i) => [
                'name' => $i['name'],
                'count' => $i['count'],
                'keep_together' => $i['keepTogether'] ?? '',
            ],
            $items,
        );
        if ($tray?->unit_id === $unit->id && $tray->lists($listed)) {
            throw new Refusal("Tray $tag already lists exactly this.", 409);
        }
        $tray ??= new Tray(['tag' => $tag]);
        $tray->fill(['unit_id' => $unit->id, 'version' => ($tray->version ?? 0) + 1])->save();
        OrderedRows::clear($tray->items());
        $tray->items()->createMany($listed);
        $this->ledger->onUnit($unit, 'tray.filled', ['tag' => $tag, 'items' => $items]);

        return $tray;
    }
}
