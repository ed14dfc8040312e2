<?php

namespace App\Stations\Assembly\Actions;

use App\Catalog\Models\Family;
use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Queries\BinPlan;
use App\Stock\Models\HeldPart;
use App\Yard\Models\Build;

/** A plan of the bin that was accepted: what it gives each build is kept for it, until it goes in or is given back. */
final class HoldParts
{
    public function __construct(private readonly BinPlan $plan, private readonly Ledger $ledger)
    {
    }

    /** @param  array<string, string>  $depths  as measured, by core tag */
    public function accept(string $family, string $pack, array $depths, Person $by): void
    {
        // Two plans of one bin follow one another: the second sees what the first one kept.
        Family::query()->where('code', $family)->lockForUpdate()->first();
        $given = array_column($this->plan->of($family, $pack, $depths)['builds'], 'picks', 'coreTag');
        foreach ($given as $tag => $picks) {
            $build = Build::released((string) $tag);
            HeldPart::release($build, $pack);
            $ids = Part::query()->whereIn('number', array_column($picks, 'part'))->pluck('id', 'number');
            foreach ($picks as $pick) {
                HeldPart::create([
                    'build_id' => $build->id,
                    'place' => $pack,
                    'part_id' => $ids[$pick['part']],
                    'count' => $pick['count'],
                    'held_by' => $by->id,
                    'held_at' => now(),
                ]);
            }
            $picks === [] || $this->ledger->onUnit($build->unit, 'parts.held', ['place' => $pack, 'picks' => $picks]);
        }
    }

    public function giveBack(string $number, string $pack): void
    {
        $build = Build::released($number);
        HeldPart::release($build, $pack) > 0 ||
            throw new Refusal("Nothing is kept for $build->serial there.", 409);
        $this->ledger->onUnit($build->unit, 'parts.given-back', ['place' => $pack]);
    }
}
