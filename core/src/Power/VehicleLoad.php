<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** What the output shaft moves: all the mass with its trailer, through the axle and the tyre. */
final readonly class VehicleLoad
{
    public const GRAVITY = 9.80665;

    private function __construct(public float $mass, public float $axle, public float $radius)
    {
    }

    /** Reads {"mass_kg", "axleRatio", "tyreRadius_mm"}. */
    public static function read(Input $in): self
    {
        return new self(
            $in->number('mass_kg', min: 0.001, max: 1e9),
            $in->number('axleRatio', min: 0.001, max: 1e4),
            $in->number('tyreRadius_mm', min: 0.001, max: 1e6) / 1000.0,
        );
    }

    /** The mass as an inertia at the output shaft, kg.m2: m (r/axle)^2. */
    public function inertia(): float
    {
        return $this->mass * ($this->radius / $this->axle) ** 2;
    }

    /** Road speed in m/s at an output speed in rev/min. */
    public function speed(float $outputRpm): float
    {
        return (($outputRpm * M_PI) / 30.0 / $this->axle) * $this->radius;
    }

    /** Output speed in rev/min at a road speed in m/s. */
    public function outputRpm(float $speed): float
    {
        return (($speed / $this->radius) * $this->axle * 30.0) / M_PI;
    }

    /** Force at the tyres in N from a torque at the output in N.m. */
    public function force(float $outputTorque): float
    {
        return ($outputTorque * $this->axle) / $this->radius;
    }

    /** Resistance in N: rolling and grade (percent = 100 tan). */
    public function resistance(float $rolling, float $gradePercent): float
    {
        $angle = atan($gradePercent / 100.0);

        return $this->mass * self::GRAVITY * ($rolling * cos($angle) + sin($angle));
    }
}
