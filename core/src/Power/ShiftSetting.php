<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** The two inertias of a shift and how long it takes. */
final readonly class ShiftSetting
{
    private function __construct(
        public float $inertia,
        public float $time,
        public ?VehicleLoad $load,
        private float $roadLoad,
    ) {
    }

    /** Reads inputInertia_kgm2, shiftTime_s, and optionally vehicle and roadLoad_n. */
    public static function read(Input $in): self
    {
        return self::timed($in, $in->number('shiftTime_s', above: 0.0));
    }

    /** The same without a time: the shift takes as long as its pressure lets it. */
    public static function untimed(Input $in): self
    {
        return self::timed($in, 0.0);
    }

    private static function timed(Input $in, float $seconds): self
    {
        $vehicle = $in->optional('vehicle');

        return new self(
            $in->number('inputInertia_kgm2', min: 0.0),
            $seconds,
            $vehicle === null ? null : VehicleLoad::read($vehicle),
            $in->numberOr('roadLoad_n', 0.0, min: 0.0),
        );
    }

    /** Torque the train takes from the input while the slip dies away, N.m; slip in rad/s at the input. */
    public function torqueThrough(float $engine, float $slip, float $ratio): float
    {
        if ($this->inertia === 0.0) {
            return $engine;
        }
        $perOutput = $this->load === null ? 0.0 : 1.0 / $this->load->inertia();

        return ($slip / $this->time + $engine / $this->inertia + $ratio * $this->road() * $perOutput) /
            (1.0 / $this->inertia + $ratio ** 2 * $perOutput);
    }

    /** The road load as a torque at the output, N.m. */
    public function road(): float
    {
        return $this->load === null ? 0.0 : ($this->roadLoad * $this->load->radius) / $this->load->axle;
    }
}
