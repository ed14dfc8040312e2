<?php

namespace App\Yard;

use App\Yard\Models\Unit;
use Illuminate\Http\Request;

/** The unit a write is about, as it was when its row was locked: whoever asks for it first need not read it again. */
final class UnitInHand
{
    private ?Unit $unit = null;

    private ?Request $of = null;

    public function hold(?Unit $unit): void
    {
        [$this->unit, $this->of] = [$unit, request()];
    }

    public function take(string $number): ?Unit
    {
        $unit = $this->of === request() && $this->unit?->core_tag === $number ? $this->unit : null;
        [$this->unit, $this->of] = [null, null];

        return $unit;
    }
}
