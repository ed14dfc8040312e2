<?php

declare(strict_types=1);

namespace Yard\Core\Fasteners;

/** A bolt in its hole: which of the two gives first, and the torque both take without harm. */
final readonly class JointLimit
{
    /**
     * @param  'hole'|'bolt'  $givesFirst
     * @param  float  $holeN  load at which the thread in the hole strips
     * @param  float  $boltN  load at which the bolt breaks
     * @param  float  $proofN  load the bolt takes without stretching for good
     */
    private function __construct(
        public string $givesFirst,
        public float $holeN,
        public float $boltN,
        public float $proofN,
        public float $torqueNm,
    ) {
    }

    /**
     * @param  float  $engagement  mm of thread that holds
     * @param  float  $shear  MPa the metal of the hole takes
     * @param  float  $k  nut factor
     * @param  array{dMin: float, d2Max: float, d1Max: float, pitchMin: float}|null  $limits  of a tolerance class
     */
    public static function of(
        Thread $thread,
        string $grade,
        float $engagement,
        float $shear,
        float $k,
        ?array $limits = null,
    ): self {
        $hole = (new Stripping($thread, $engagement, $limits))->holeAreaMm2() * $shear;
        $bolt = $thread->stressAreaMm2() * Tightening::tensileMpa($thread, $grade);
        $proof = Tightening::of($thread, $grade, $k, 1.0)->proofLoadN;

        return new self(
            $hole < $bolt ? 'hole' : 'bolt',
            $hole,
            $bolt,
            $proof,
            ($k * $thread->diameterMm * min($hole, $proof)) / 1000.0,
        );
    }
}
