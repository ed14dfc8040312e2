<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

/** A gear as the train solves it: speeds for input speed 1, torques for input torque 1, loss-free and steady. */
final readonly class SolvedGear
{
    /**
     * @param  'locked'|'neutral'|'held'|'driven'  $state
     * @param  array<string, float>  $speeds  shaft => speed, where it is determined
     * @param  array<string, float|list<float>>  $pinionSpeeds set => planet relative to its carrier; a double set has
     *     two
     * @param  array<string, float>  $elementTorque  applied element => torque, where it is determined
     * @param  array<string, array{sun: float, ring: float, carrier: float}>  $setTorque
     * @param  array<string, float>  $slip  released element => relative speed
     * @param  array<string, bool>  $oneWayConsistent  applied one-way => can it deliver its torque
     * @param  list<string>  $wouldLock  released one-ways that slip the way they refuse
     */
    public function __construct(
        public string $state,
        public ?float $ratio = null,
        public array $speeds = [],
        public array $pinionSpeeds = [],
        public array $elementTorque = [],
        public ?float $outputTorque = null,
        public array $setTorque = [],
        public array $slip = [],
        public array $oneWayConsistent = [],
        public array $wouldLock = [],
    ) {
    }

    public function isForward(): bool
    {
        return $this->ratio !== null && $this->ratio > 0.0;
    }
}
