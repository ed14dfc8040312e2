<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

/** Hypotheses in the order of what was seen, and what to look at next. */
final readonly class Ranking
{
    /**
     * @param  non-empty-list<RankedHypothesis>  $hypotheses  the most probable first
     * @param  list<NextLook>  $next  best gain for its effort first
     * @param  list<array{code: string, hypothesis: string, feature: string, message: string}>  $warnings
     */
    public function __construct(
        public array $hypotheses,
        public float $entropyBits,
        public array $next,
        public array $warnings,
    ) {
    }

    /** @param  list<string>  $looked  features that were looked at and told nothing: nobody is sent there again */
    public function without(array $looked): self
    {
        $left = array_filter($this->next, static fn (NextLook $n): bool => ! in_array($n->feature, $looked, true));

        return new self($this->hypotheses, $this->entropyBits, array_values($left), $this->warnings);
    }

    /** The leader explains most, and yet something seen speaks against it. */
    public function mixed(): bool
    {
        return $this->hypotheses[0]->posterior >= 0.5 && $this->hypotheses[0]->contradicts !== [];
    }
}
