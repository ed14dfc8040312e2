<?php

declare(strict_types=1);

namespace Yard\Core\Spc;

/** How well a spread fits between limits: Cp by width, Cpk by the nearer limit. */
final readonly class Capability
{
    public function __construct(
        private float $mean,
        private float $sigma,
        private ?float $lower,
        private ?float $upper,
    ) {
    }

    /** Null with one limit only. */
    public function potential(): ?float
    {
        return $this->lower === null || $this->upper === null
            ? null
            : ($this->upper - $this->lower) / (6.0 * $this->sigma);
    }

    public function below(): ?float
    {
        return $this->lower === null ? null : ($this->mean - $this->lower) / (3.0 * $this->sigma);
    }

    public function above(): ?float
    {
        return $this->upper === null ? null : ($this->upper - $this->mean) / (3.0 * $this->sigma);
    }

    public function actual(): float
    {
        return min($this->below() ?? INF, $this->above() ?? INF);
    }
}
