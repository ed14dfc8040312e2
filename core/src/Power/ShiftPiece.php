<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** A stretch of a shift in which the pressure is line - (root - rate t)^2 and the element's torque follows it. */
final readonly class ShiftPiece
{
    /**
     * @param  float  $middleTorque  N.m at the input in the middle of the piece
     * @param  array{float, float, float}  $torque  N.m at the input as a polynomial over t in s
     */
    private function __construct(
        public float $seconds,
        private float $line,
        private float $root,
        private float $rate,
        public bool $presses,
        public float $middleTorque,
        private array $torque,
    ) {
    }

    /**
     * @param  array{seconds: float, root: float, rate: float}  $piece
     * @param  float  $perKpa  torque at the input for each kPa above $from, at which the plates touch
     */
    public static function of(array $piece, float $line, float $perKpa, float $from): self
    {
        ['seconds' => $seconds, 'root' => $root, 'rate' => $rate] = $piece;
        // Which side of the mark a piece lies on is the same all along it: asked in its middle.
        $middle = $line - ($root - $rate * (is_finite($seconds) ? $seconds / 2.0 : 0.0)) ** 2;
        $presses = $middle > $from;

        return new self($seconds, $line, $root, $rate, $presses, $perKpa * ($middle - $from), $presses
            ? [$perKpa * ($line - $root ** 2 - $from), 2.0 * $perKpa * $root * $rate, -$perKpa * $rate ** 2]
            : [0.0, 0.0, 0.0]);
    }

    /** @return float kPa */
    public function pressure(float $t): float
    {
        return $this->line - ($this->root - $this->rate * $t) ** 2;
    }

    /** @return float N.m at the input */
    public function torque(float $t): float
    {
        [$a, $b, $c] = $this->torque;

        return $a + ($b + $c * $t) * $t;
    }

    /** @return float the torque summed from the start of the piece, N.m s */
    public function impulse(float $t): float
    {
        [$a, $b, $c] = $this->torque;

        return ($a + ($b / 2.0 + ($c / 3.0) * $t) * $t) * $t;
    }
}
