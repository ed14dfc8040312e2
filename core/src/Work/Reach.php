<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/** The least work that leads to a part or an operation. */
final readonly class Reach
{
    /**
     * @param  list<int>  $places  in a workable order
     * @param  list<string>  $renews  parts that are not used again, each once
     * @param  list<int>  $because  the jammed operations that bar every way
     */
    private function __construct(
        public bool $possible,
        public array $places,
        public float $hours,
        public bool $inVehicle,
        public array $renews,
        public array $because,
        public float $bound,
        public bool $optimal,
    ) {
    }

    public static function already(): self
    {
        return new self(true, [], 0.0, true, [], [], 0.0, true);
    }

    /** @param  list<int>  $because */
    public static function barred(array $because): self
    {
        return new self(false, [], 0.0, false, [], $because, 0.0, true);
    }

    /** @param  array<int, mixed>  $done */
    public static function by(Cheapest $way, Graph $graph, array $done): self
    {
        $order = $graph->workable($done, array_flip($way->set->places));
        $operations = array_map(static fn (int $n): Operation => $graph->operations[$n], $order);
        $outside = array_filter($operations, static fn (Operation $o): bool => ! $o->inVehicle);
        $renews = array_merge(...array_map(static fn (Operation $o): array => $o->renews, $operations));

        return new self(
            true,
            $order,
            $way->set->hours,
            $outside === [],
            array_values(array_unique($renews)),
            [],
            $way->bound,
            $way->optimal,
        );
    }
}
