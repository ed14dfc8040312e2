<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/** One piece of work on a unit, with what must be done before it. */
final readonly class Operation
{
    /**
     * @param  list<string>  $after  all of these come first
     * @param  list<list<string>>  $afterAny  of each group at least one comes first
     * @param  list<string>  $removes  parts that are off the unit once it is done
     * @param  list<string>  $renews  parts that are not used again once it is done
     * @param  float  $hours  at least 0
     * @param  bool  $inVehicle  whether it can be done with the unit in the vehicle
     * @param  bool  $alternative  needed only where a group chooses it
     */
    public function __construct(
        public string $id,
        public array $after,
        public array $afterAny,
        public array $removes,
        public array $renews,
        public float $hours,
        public bool $inVehicle,
        public bool $alternative,
    ) {
    }
}
