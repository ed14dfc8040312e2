<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/** Operations that are to be done together, and what they take. */
final readonly class WorkSet
{
    private const SAME_HOURS = 1e-9;

    /** @param  list<int>  $places  in the order of the list of operations */
    private function __construct(public array $places, public float $hours)
    {
    }

    public static function none(): self
    {
        return new self([], 0.0);
    }

    /** @param  array<int, mixed>  $places  keys */
    public static function of(Graph $graph, array $places): self
    {
        ksort($places);
        $hours = 0.0;
        foreach ($places as $place => $_) {
            $hours += $graph->operations[$place]->hours;
        }

        return new self(array_keys($places), $hours);
    }

    /** Fewer hours first, then fewer operations, then those that stand earlier in the list. */
    public function isBetterThan(self $other): bool
    {
        if (abs($this->hours - $other->hours) > self::SAME_HOURS) {
            return $this->hours < $other->hours;
        }

        return [count($this->places), $this->places] < [count($other->places), $other->places];
    }

    /** Whether nothing that takes at least so much can be better. */
    public function beats(float $hours, int $operations): bool
    {
        return $hours > $this->hours + self::SAME_HOURS ||
            ($hours > $this->hours - self::SAME_HOURS && $operations > count($this->places));
    }
}
