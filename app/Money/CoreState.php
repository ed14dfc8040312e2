<?php

namespace App\Money;

use App\Catalog\Models\Variant;
use App\Yard\Models\Unit;

/** What grade and credit of a core depend on. */
final readonly class CoreState
{
    /**
     * @param  list<array{part: string, count?: int}>  $missing  part numbers
     * @param  list<array{part: string}>  $failedHard
     * @param  list<string>  $flags  of GradeProposal::FLAGS
     */
    public function __construct(
        public ?Variant $variant,
        public ?int $familyId,
        public array $missing = [],
        public array $failedHard = [],
        public float $repairHours = 0.0,
        public array $flags = [],
    ) {
    }

    public static function ofUnit(Unit $unit): self
    {
        return new self(
            $unit->variant,
            $unit->family_id,
            $unit->missing(),
            $unit->failedHard(),
            (float) $unit->repair_hours,
            $unit->flags,
        );
    }

    public function as(Variant $variant): self
    {
        return new self(
            $variant,
            $this->familyId,
            $this->missing,
            $this->failedHard,
            $this->repairHours,
            $this->flags,
        );
    }

    /** @param  list<string>  $parts  found ruined at teardown */
    public function without(array $parts): self
    {
        $failed = array_values(array_unique([...array_column($this->failedHard, 'part'), ...$parts]));

        return new self(
            $this->variant,
            $this->familyId,
            $this->missing,
            array_map(fn (string $part) => ['part' => $part], $failed),
            $this->repairHours,
            $this->flags,
        );
    }
}
