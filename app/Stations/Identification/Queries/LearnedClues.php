<?php

namespace App\Stations\Identification\Queries;

/** What the house has seen of its own cores: how many of each variant, and how often each clue told the truth. */
final readonly class LearnedClues
{
    /**
     * @param  bool  $on  the house lets its own cores count
     * @param  float  $weight  the catalog's numbers are worth so many cores
     * @param  array<string, int>  $counts  variant => cores confirmed
     * @param  array<string, array{reliability: float, cases: int}>  $reliabilities  clue => what was learned
     */
    public function __construct(
        public bool $on,
        public float $weight,
        public array $counts,
        public array $reliabilities,
    ) {
    }

    /** The prior of a variant: the catalog's share worth so many cores, plus the cores of the house. */
    public function prior(string $variant, float $share): float
    {
        return $this->weight * $share + $this->count($variant);
    }

    public function count(string $variant): int
    {
        return $this->counts[$variant] ?? 0;
    }

    public function reliability(string $clue): ?float
    {
        return $this->reliabilities[$clue]['reliability'] ?? null;
    }
}
