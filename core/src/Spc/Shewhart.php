<?php

declare(strict_types=1);

namespace Yard\Core\Spc;

use Yard\Core\Maths\Special;

/**
 * Constants of control charts from the distribution of the range of n normal values, by Simpson's rule: d2 = E(R), d3
 * its standard deviation (formulas as in Montgomery, Introduction to Statistical Quality Control; ASTM MNL 7 prints
 * them rounded).
 */
final class Shewhart
{
    public const LARGEST = 25;

    private const REACH = 8.0;

    /** Grid of both integrals; a range beyond 12 sigma does not occur. */
    private const STEP = 0.025;

    private const ACROSS = 640;

    private const RANGES = 480;

    /** @var array<int, self> */
    private static array $known = [];

    private function __construct(private readonly int $n, public readonly float $d2, public readonly float $d3)
    {
    }

    /** @param  int  $n  2 to 25 */
    public static function of(int $n): self
    {
        return self::$known[$n] ??= self::reckoned($n);
    }

    /** Of the limits of means, from the mean range. */
    public function a2(): float
    {
        return 3.0 / ($this->d2 * sqrt($this->n));
    }

    /** Of the lower limit of ranges. */
    public function lowerRange(): float
    {
        return max(0.0, 1.0 - (3.0 * $this->d3) / $this->d2);
    }

    /** Of the upper limit of ranges. */
    public function upperRange(): float
    {
        return 1.0 + (3.0 * $this->d3) / $this->d2;
    }

    /** E(R) and E(R2) from P(R <= r) = n int f(x) [F(x + r) - F(x)]^(n - 1) dx. */
    private static function reckoned(int $n): self
    {
        $below = [];
        for ($i = 0; $i <= self::ACROSS + self::RANGES; $i++) {
            $below[] = Special::normalCdf(-self::REACH + $i * self::STEP);
        }
        $mean = $square = 0.0;
        for ($k = 0; $k <= self::RANGES; $k++) {
            $beyond = 1.0 - self::within($k, $n, $below);
            $weight = self::weight($k, self::RANGES);
            $mean += $weight * $beyond;
            $square += $weight * 2.0 * $k * self::STEP * $beyond;
        }
        $third = self::STEP / 3.0;

        return new self($n, $mean * $third, sqrt($square * $third - ($mean * $third) ** 2));
    }

    /** @param  list<float>  $below  normal distribution function on the grid */
    private static function within(int $k, int $n, array $below): float
    {
        $sum = 0.0;
        for ($i = 0; $i <= self::ACROSS; $i++) {
            $x = -self::REACH + $i * self::STEP;
            $sum += self::weight($i, self::ACROSS) * exp(-0.5 * $x * $x) * ($below[$i + $k] - $below[$i]) ** ($n - 1);
        }

        return ($n * $sum * self::STEP) / (3.0 * sqrt(2.0 * M_PI));
    }

    /** Simpson's rule. */
    private static function weight(int $i, int $last): float
    {
        return $i === 0 || $i === $last ? 1.0 : ($i % 2 === 1 ? 4.0 : 2.0);
    }
}
