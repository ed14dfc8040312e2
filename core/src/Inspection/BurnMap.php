<?php

namespace Yard\Core\Inspection;

use Yard\Core\BadInput;

/**
 * How the damage of a pack lies over its plates, from the piston outwards. Which end it grows towards is decided by
 * Kendall's rank correlation (tau-b) of place and damage; a pack whose middle is worse than both ends was soaked in
 * heat.
 */
final readonly class BurnMap
{
    /** Rank correlation from which damage is said to grow towards one end; less is chance in so few plates. */
    private const TREND = 0.6;

    /** Thirds of a pack are taken of at least this many plates. */
    private const LEAST = 3;

    /** @param  list<int>  $damage  of each plate, 0 is healthy, from the piston outwards */
    public function __construct(private array $damage)
    {
        foreach ($damage as $n => $grade) {
            $grade >= 0 || throw new BadInput("/plates/$n", 'A grade of damage is 0 or more.');
        }
    }

    public function worst(): int
    {
        return $this->damage === [] ? 0 : max($this->damage);
    }

    /** Kendall's tau-b of place and damage; 0 where all plates are alike. */
    public function trend(): float
    {
        $n = count($this->damage);
        $score = $tied = 0;
        for ($i = 0; $i < $n; $i++) {
            for ($k = $i + 1; $k < $n; $k++) {
                $score += $this->damage[$k] <=> $this->damage[$i];
                $tied += $this->damage[$k] === $this->damage[$i] ? 1 : 0;
            }
        }
        $pairs = $n * ($n - 1) / 2;

        return $pairs === $tied ? 0.0 : $score / sqrt($pairs * ($pairs - $tied));
    }

    public function pattern(): BurnPattern
    {
        $trend = $this->trend();

        return match (true) {
            count(array_unique($this->damage)) < 2 => BurnPattern::Even,
            $trend >= self::TREND => BurnPattern::AwayFromPiston,
            $trend <= -self::TREND => BurnPattern::AtPiston,
            $this->middleIsWorst() => BurnPattern::Middle,
            default => BurnPattern::Scattered,
        };
    }

    private function middleIsWorst(): bool
    {
        $n = count($this->damage);
        if ($n < self::LEAST) {
            return false;
        }
        $third = max(1, intdiv($n, 3));
        $mean = fn (array $of): float => array_sum($of) / count($of);
        $middle = $mean(array_slice($this->damage, $third, $n - 2 * $third));

        return $middle > $mean(array_slice($this->damage, 0, $third))
            && $middle > $mean(array_slice($this->damage, -$third));
    }
}
