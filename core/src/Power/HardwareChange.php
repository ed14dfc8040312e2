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
        public PressureChange $pressure,
        public ?Converter $converter,
    ) {
    }

    /** Reads capacities, accumulators and what PressureChange reads. */
    public static function read(?Input $in, Train $train, ?Converter $converter): self
    {
        return new self(
            TrainDuty::readCapacities($in?->optional('capacities'), $train),
            TrainDuty::readAccumulators($in?->optional('accumulators'), $train),
            PressureChange::read($in),
            $converter,
        );
    }
}
