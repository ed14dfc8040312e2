<?php

namespace App\Stations\Receiving\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Receiving\Models\Tray;
use App\Yard\Models\Unit;

/** A tray goes on its round: bench, washer, inspection, shelf; or its parts are in the unit and it is free again. */
final class MoveTray
{
    public const STAGES = ['bench', 'washer', 'inspection', 'shelf'];

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function move(Unit $unit, string $tag, string $stage, Person $by): void
    {
        $tray = self::tray($unit, $tag);
        if ($tray->stage === $stage) {
            throw new Refusal("Tray $tag is there already.", 409);
        }
        $moved = ['moved_by' => $by->id, 'moved_at' => now(), 'version' => $tray->version + 1];
        $tray->update(['stage' => $stage] + $moved);
        $this->ledger->onUnit($unit, 'tray.moved', ['tag' => $tag, 'stage' => $stage]);
    }

    public function free(Unit $unit, string $tag, Person $by): void
    {
        $tray = self::tray($unit, $tag);
        $tray->items()->get()->each->delete();
        $tray->update([
            'unit_id' => null,
            'stage' => 'bench',
            'moved_by' => $by->id,
            'moved_at' => now(),
            'version' => $tray->version + 1,
        ]);
        $this->ledger->onUnit($unit, 'tray.freed', ['tag' => $tag]);
    }

    private static function tray(Unit $unit, string $tag): Tray
    {
        return Tray::query()->where('tag', $tag)->where('unit_id', $unit->id)->lockForUpdate()->first() ??
            throw new Refusal("Tray $tag is not tied to this unit.", 404);
    }
}
