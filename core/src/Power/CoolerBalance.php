<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * A loaded vehicle at a steady speed on a grade: what gearing and converter turn into heat, and where the oil settles
 * with a cooler, the whole fill and the metal around it as one lump. Road load m g (sin + f cos) + rho cd A v^2 / 2
 * (e.g. Gillespie, Fundamentals of Vehicle Dynamics, from memory).
 */
final readonly class CoolerBalance
{
    private const GRAVITY = 9.80665;

    private const AIR = 1.2;

    /** Share of the weight a tyre takes to roll: common practice, no source. */
    private const ROLLING = 0.012;

    /**
     * @param  float  $road  W at the wheels
     * @param  float  $in  W at the engine
     */
    private function __construct(public float $road, public float $in, public float $gearing, public float $converter)
    {
    }

    /**
     * Reads mass_kg, grade_pct, speed_kmh, rolling, cdA_m2, efficiency (gearing, teeth and drag) and speedRatio of the
     * converter (1: locked).
     *
     * @throws BadInput
     */
    public static function read(Input $in): self
    {
        $slope = atan($in->number('grade_pct', min: 0.0, max: 60.0) / 100.0);
        $speed = $in->number('speed_kmh', above: 0.0, max: 500.0) / 3.6;
        $weight = $in->number('mass_kg', above: 0.0, max: 1e6) * self::GRAVITY;
        $rolls = $in->numberOr('rolling', self::ROLLING, min: 0.0, max: 0.5);
        $drag = $in->numberOr('cdA_m2', 1.0, min: 0.0, max: 50.0) * self::AIR / 2.0 * $speed ** 2;
        $road = ($weight * (sin($slope) + $rolls * cos($slope)) + $drag) * $speed;
        $turbine = $road / $in->number('efficiency', above: 0.0, max: 1.0);
        // At coupling the torque ratio is 1: what the turbine lacks in speed is heat.
        $engine = $turbine / $in->numberOr('speedRatio', 1.0, above: 0.0, max: 1.0);

        return new self($road, $engine, $turbine - $road, $engine - $turbine);
    }

    public function heat(): float
    {
        return $this->gearing + $this->converter;
    }
}
