<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

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
        $proof = Tightening::of($thread, $grade, $k, 1.0);
        $engagement = $in->number('engagement_mm', above: 0.0);
        $strip = new Stripping($thread, $engagement, self::limits($in->optional('limits')));
        $hole = $strip->holeAreaMm2() * $in->number('holeShear_mpa', above: 0.0);
        $break = $thread->stressAreaMm2() * Tightening::tensileMpa($thread, $grade);
        $limit = ($k * $thread->diameterMm * min($hole, $proof->proofLoadN)) / 1000.0;

        return [
            'holeArea_mm2' => $strip->holeAreaMm2(),
            'boltThreadArea_mm2' => $strip->boltAreaMm2(),
            'holeStripLoad_n' => $hole,
            'boltBreakLoad_n' => $break,
            'proofLoad_n' => $proof->proofLoadN,
            'failsFirst' => $hole < $break ? 'hole' : 'bolt',
            'equalEngagement_mm' => ($engagement * $break) / $hole,
            'torqueLimit_nm' => $limit,
        ] + ($in->has('torque_nm') ? ['within' => $in->number('torque_nm', above: 0.0) <= $limit] : []);
    }

    /** @return array{dMin: float, d2Max: float, d1Max: float, pitchMin: float}|null */
    private static function limits(?Input $in): ?array
    {
        return $in === null
            ? null
            : array_map(static fn (string $field): float => $in->number($field, above: 0.0), self::LIMITS);
    }
}
