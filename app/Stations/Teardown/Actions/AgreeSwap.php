<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\SwapAgreement;
use App\Yard\Models\Unit;

/** The customer lets a hard part of their own unit go: who said so, and how. */
final class AgreeSwap
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function agree(Unit $unit, string $part, string $agreedBy, string $how, Person $by): SwapAgreement
    {
        if ($unit->ownership !== 'customer') {
            throw new Refusal("This unit is the shop's own: nobody has to be asked.", 409);
        }
        $known = FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'finding')
            ->where('code', $part)
            ->exists();
        if (! $known) {
            throw Refusal::at('/part', "There is no part \"$part\" on the inspection list.");
        }
        if (self::exists($unit, $part)) {
            throw new Refusal('This is agreed already.', 409);
        }
        $agreement = SwapAgreement::create([
            'unit_id' => $unit->id,
            'part' => $part,
            'agreed_by' => $agreedBy,
            'how' => $how,
            'recorded_by' => $by->id,
            'recorded_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'swap.agreed', ['part' => $part, 'agreedBy' => $agreedBy, 'how' => $how]);

        return $agreement;
    }

    public static function exists(Unit $unit, string $part): bool
    {
        return SwapAgreement::query()->where('unit_id', $unit->id)->where('part', $part)->exists();
    }
}
