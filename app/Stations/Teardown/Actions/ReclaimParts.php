<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Stations\Teardown\Models\Finding;
use App\Stock\Models\Lot;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;

/** Hard parts that go to the shelf become stock of their own, with the core they came out of. */
final class ReclaimParts
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  Collection<int, Finding>  $findings  of the teardown that ends */
    public function reclaim(Unit $unit, Collection $findings): void
    {
        $numbers = array_column(FamilySpec::bodies((int) $unit->family_id, 'finding'), 'part', 'code');
        $shelf = $findings->where('disposition', 'shelf')->map(fn (Finding $f) => $numbers[$f->part] ?? '');
        foreach (Part::query()->whereIn('number', $shelf->unique()->all())->orderBy('number')->get() as $part) {
            $lot = Lot::create([
                'part_id' => $part->id,
                'lot' => "$unit->core_tag/$part->number",
                'supplier' => 'reclaimed',
                'quantity' => 1,
                'place' => '',
                'received_on' => now()->format('Y-m-d'),
                'origin_unit_id' => $unit->id,
            ]);
            $this->ledger->onUnit($unit, 'part.reclaimed', ['part' => $part->number, 'lot' => $lot->lot]);
        }
    }
}
