<?php

namespace App\Work\Queries;

use App\Work\Bench;
use App\Work\Generation;
use App\Work\Models\Proof;
use App\Work\ProofKind;
use App\Yard\Models\Unit;

/** The small parts a teardown counted out of a unit. */
final class CountedOut
{
    /** @return array<string, int> what => how many, none left out */
    public static function of(Unit $unit): array
    {
        $counted = [];
        $proofs = Proof::query()
            ->where([
                'unit_id' => $unit->id,
                'generation' => Generation::of($unit, Bench::Teardown->value),
                'bench' => Bench::Teardown->value,
                'kind' => ProofKind::Count->value,
            ])
            ->whereNull('undone_at')
            ->orderBy('id')
            ->get();
        foreach ($proofs as $proof) {
            foreach ($proof->answer['counts'] ?? [] as $what => $count) {
                $counted[$what] = ($counted[$what] ?? 0) + $count;
            }
        }

        return array_filter($counted);
    }
}
