<?php

namespace App\Yard\Http;

use App\Kernel\Http\Serialiser;
use App\Yard\Contracts\OfUnit;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\UnitInHand;
use Illuminate\Http\Request;

/** Writes on one unit come one after the other, whatever station they come from. */
final class OneUnitAtATime implements Serialiser
{
    public function __construct(private readonly UnitInHand $inHand)
    {
    }

    public function subjectOf(Request $request): ?int
    {
        foreach ($request->route()?->parameters() ?? [] as $name => $value) {
            if ($value instanceof OfUnit) {
                return $value->unitId();
            }
            if ($name === 'number' && is_string($value)) {
                return Unit::query()->where('core_tag', $value)->value('id') ??
                    Build::query()->where('serial', $value)->value('unit_id');
            }
        }

        return null;
    }

    public function lock(int $subject): void
    {
        $this->inHand->hold(Unit::query()->whereKey($subject)->lockForUpdate()->first());
    }
}
