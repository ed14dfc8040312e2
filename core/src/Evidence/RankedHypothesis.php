<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

/** A hypothesis after what was seen. */
final readonly class RankedHypothesis
{
    /**
     * @param  list<string>  $contradicts  features seen that speak against it
     * @param  list<string>  $supports
     * @param  array<string, float>  $weightBits  feature => log2 of likelihood over neutral
     */
    public function __construct(
        public string $id,
        public float $posterior,
        public array $contradicts,
        public array $supports,
        public array $weightBits,
    ) {
    }
}
