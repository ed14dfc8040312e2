<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fasteners\Thread;
use Yard\Core\Fasteners\Tightening;
use Yard\Core\Input;

/** fastener.torque: preload and tightening torque from thread and grade. */
final class FastenerTorque implements Calculator
{
    public function calculate(Input $in): array
    {
        $bolt = Tightening::of(
            Thread::of($in->string('thread'), '/thread'),
            $in->choice('grade', Tightening::grades()),
            $in->number('k', above: 0.0, max: 1.0),
            $in->number('preloadFraction', above: 0.0, max: 1.0),
        );

        return [
            'stressArea_mm2' => $bolt->thread->stressAreaMm2(),
            'proofStress_mpa' => $bolt->proofMpa,
            'proofLoad_n' => $bolt->proofLoadN,
            'preload_n' => $bolt->preloadN,
            'torque_nm' => $bolt->torqueNm,
            'diameter_mm' => $bolt->thread->diameterMm,
            'pitch_mm' => $bolt->thread->pitchMm,
        ];
    }
}
