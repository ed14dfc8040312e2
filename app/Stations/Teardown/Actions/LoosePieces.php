<?php

namespace App\Stations\Teardown\Actions;

use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Work\Bench;
use App\Work\Models\Discrepancy;
use App\Yard\Models\Unit;

/** Pieces of a broken part that were not found stand open like a count that differs, until somebody decides. */
final class LoosePieces
{
    public function tally(Unit $unit, Finding $finding, string $name, Person $by): void
    {
        $open = self::open($finding);
        if ($finding->pieces !== 'missing') {
            $this->forget($finding);

            return;
        }
        $open ?? Discrepancy::create([
            'unit_id' => $unit->id,
            'generation' => $finding->generation,
            'bench' => Bench::Teardown->value,
            'operation' => Discrepancy::INSPECTION,
            'proof' => $finding->part,
            'what' => $name,
            'expected' => 1,
            'counted' => 0,
            'note' => $finding->note,
            'counted_by' => $by->id,
            'counted_at' => now(),
        ]);
    }

    /** They turned up, or the part was never broken. */
    public function forget(Finding $finding): void
    {
        self::open($finding)?->update(['undone_at' => now()]);
    }

    private static function open(Finding $finding): ?Discrepancy
    {
        return Discrepancy::query()
            ->where('unit_id', $finding->unit_id)
            ->where('generation', $finding->generation)
            ->where('operation', Discrepancy::INSPECTION)
            ->where('proof', $finding->part)
            ->whereNull('undone_at')
            ->first();
    }
}
