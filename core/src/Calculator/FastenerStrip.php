<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fasteners\JointLimit;
use Yard\Core\Fasteners\Stripping;
use Yard\Core\Fasteners\Thread;
use Yard\Core\Fasteners\Tightening;
use Yard\Core\Input;

/** fastener.strip: which gives first, the thread in the hole or the bolt, and how far it may be tightened. */
final class FastenerStrip implements Calculator
{
    private const LIMITS = [
        'dMin' => 'boltMajorMin_mm',
        'd2Max' => 'holePitchMax_mm',
        'd1Max' => 'holeMinorMax_mm',
        'pitchMin' => 'boltPitchMin_mm',
    ];

    public function calculate(Input $in): array
    {
        $thread = Thread::of($in->string('thread'), '/thread');
        $grade = $in->choice('grade', Tightening::grades());
        $k = $in->number('k', above: 0.0, max: 1.0);
        $engagement = $in->number('engagement_mm', above: 0.0);
        $limits = self::limits($in->optional('limits'));
        $strip = new Stripping($thread, $engagement, $limits);
        $shear = $in->number('holeShear_mpa', above: 0.0);
        $joint = JointLimit::of($thread, $grade, $engagement, $shear, $k, $limits);

        return [
            'holeArea_mm2' => $strip->holeAreaMm2(),
            'boltThreadArea_mm2' => $strip->boltAreaMm2(),
            'holeStripLoad_n' => $joint->holeN,
            'boltBreakLoad_n' => $joint->boltN,
            'proofLoad_n' => $joint->proofN,
            'failsFirst' => $joint->givesFirst,
            'equalEngagement_mm' => ($engagement * $joint->boltN) / $joint->holeN,
            'torqueLimit_nm' => $joint->torqueNm,
        ] + ($in->has('torque_nm') ? ['within' => $in->number('torque_nm', above: 0.0) <= $joint->torqueNm] : []);
    }

    /** @return array{dMin: float, d2Max: float, d1Max: float, pitchMin: float}|null */
    private static function limits(?Input $in): ?array
    {
        return $in === null
            ? null
            : array_map(static fn (string $field): float => $in->number($field, above: 0.0), self::LIMITS);
    }
}
