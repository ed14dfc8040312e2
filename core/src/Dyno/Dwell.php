<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * A stretch of a trace spent in one gear; samples first..last lie in its ratio band, steadyFirst..steadyLast on its
 * plateau; the noise is that of the ratio on it.
 */
final class Dwell
{
    public function __construct(
        public readonly string $gear,
        public readonly int $first,
        public readonly int $last,
        public readonly int $steadyFirst,
        public readonly int $steadyLast,
        public readonly float $ratio,
        public readonly float $noise,
    ) {
    }
}
