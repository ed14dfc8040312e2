<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

/** What looking at a feature promises. */
final readonly class NextLook
{
    /** @param  list<float>|null  $binEdges  of a measured feature: its equally probable bins */
    public function __construct(
        public string $feature,
        public float $gainBits,
        public float $gainPerEffort,
        public ?array $binEdges = null,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'feature' => $this->feature,
            'gainBits' => $this->gainBits,
            'gainPerEffort' => $this->gainPerEffort,
        ] + ($this->binEdges === null ? [] : ['binEdges' => $this->binEdges]);
    }
}
