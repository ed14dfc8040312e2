<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * Friction of a lining in oil over its slip: less by a share while it hardly slides, as a modified oil makes it, the
 * stated friction as it begins to slide, and less again with each metre a second, as the faces run hot and ride on oil.
 */
final readonly class Friction
{
    /** Sliding speed over which it comes from rest to its friction in sliding, m/s. */
    private const BREAKS_AWAY = 0.2;

    /** What is left of it however fast it slides. */
    private const LEAST = 0.4;

    /**
     * @param  float  $mu  friction as it begins to slide
     * @param  float  $radius  mean radius of the faces, m
     * @param  float  $static  friction at rest over friction in sliding; above 1 it grabs
     * @param  float  $fall  share lost with each m/s of sliding, s/m
     */
    public function __construct(public float $mu, private float $radius, private float $static, private float $fall)
    {
    }

    /** At so much slip in rad/s. */
    public function at(float $slip): float
    {
        $sliding = abs($slip) * $this->radius;
        $rest = 1.0 - (1.0 - $this->static) * exp(-$sliding / self::BREAKS_AWAY);

        return $this->mu * $rest * max(self::LEAST, 1.0 - $this->fall * $sliding);
    }
}
