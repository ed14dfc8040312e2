<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\Train;
use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;

/** What an option or a trial changes in the hardware. */
final readonly class HardwareChange
{
    /**
     * @param  array<string, Capacity>  $capacities
     * @param  array<string, Accumulator>  $accumulators
     */
    private function __construct(
        public array $capacities,
        public array $accumulators,
        public float $pressureFactor,
        public float $springAdd,
        public float $boostFactor,
        public ?Converter $converter,
    ) {
    }

    /**
     * Reads capacities, accumulators, pressureFactor (all pressures), springAdd_kpa (the regulator spring, in every
     * gear at every throttle) and boostFactor (the boost valve, only what comes with the throttle).
     */
    public static function read(?Input $in, Train $train, ?Converter $converter): self
    {
        $factor = static fn (string $field): float => $in?->has($field) ? $in->number($field, above: 0.0) : 1.0;

        return new self(
            TrainDuty::readCapacities($in?->optional('capacities'), $train),
            TrainDuty::readAccumulators($in?->optional('accumulators'), $train),
            $factor('pressureFactor'),
            $in?->has('springAdd_kpa') ? $in->number('springAdd_kpa', min: 0.0) : 0.0,
            $factor('boostFactor'),
            $converter,
        );
    }
}
