<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** Road, fluid and losses of a launch; null is not known and taken as usual. */
final readonly class LaunchConditions
{
    /** Rolling resistance of car tyres on a road; fluid of automatic transmissions. Handbook values from memory. */
    private const USUAL = [
        'rollingCoefficient' => 0.012,
        'fluidDensity_kg_l' => 0.85,
        'fluidHeat_kj_kgk' => 2.0,
    ];

    /** @param  float|null  $fluid  litres; without them no rise of temperature is told */
    public function __construct(
        public float $gradePercent = 0.0,
        public ?float $fluid = null,
        public float $efficiency = 1.0,
        private ?float $rollingCoefficient = null,
        private ?float $fluidDensity = null,
        private ?float $fluidHeat = null,
    ) {
    }

    public function rolling(): float
    {
        return $this->rollingCoefficient ?? self::USUAL['rollingCoefficient'];
    }

    /** What the fluid takes up, kJ/K. */
    public function fluidWarmth(): ?float
    {
        $density = $this->fluidDensity ?? self::USUAL['fluidDensity_kg_l'];

        return $this->fluid === null
            ? null
            : $this->fluid * $density * ($this->fluidHeat ?? self::USUAL['fluidHeat_kj_kgk']);
    }

    /** @return array<string, float> what was taken as usual */
    public function assumed(): array
    {
        $given = [
            'rollingCoefficient' => $this->rollingCoefficient,
            'fluidDensity_kg_l' => $this->fluidDensity,
            'fluidHeat_kj_kgk' => $this->fluidHeat,
        ];

        return array_diff_key(self::USUAL, array_filter($given, static fn (?float $v): bool => $v !== null));
    }
}
