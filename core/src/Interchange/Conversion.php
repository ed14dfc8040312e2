<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

/** The cheapest way from a start to a goal; without a goal, what stands in the way. */
final readonly class Conversion
{
    /**
     * @param  list<Step>  $steps
     * @param  float  $total  parts, and hours at the rate
     * @param list<array{step: string, rule: 'requires'|'forbids', fact: string,
     *     why: string}>  $blockedBy  conditions that stop the way that would be cheapest without conditions
     */
    public function __construct(
        public string $from,
        public ?string $to,
        public array $steps,
        public float $total,
        public array $blockedBy = [],
    ) {
    }

    public function found(): bool
    {
        return $this->to !== null;
    }

    /** @return list<string> */
    public function stepIds(): array
    {
        return array_map(static fn (Step $s): string => $s->id, $this->steps);
    }

    public function cost(): float
    {
        return array_sum(array_map(static fn (Step $s): float => $s->cost, $this->steps));
    }

    public function hours(): float
    {
        return array_sum(array_map(static fn (Step $s): float => $s->hours, $this->steps));
    }
}
