<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\Maths\Special;

/**
 * The share still in service over time (Kaplan & Meier, JASA 53, 1958, 457) with the error of Greenwood (Reports on
 * Public Health 33, 1926).
 *
 * @phpstan-type Point array{time: float, survival: float, stdErr?: float, lower?: float, upper?: float}
 */
final readonly class SurvivalCurve
{
    /** @param  list<array{time: float, atRisk: int, events: int, survival: float, hazard: float}>  $steps */
    private function __construct(private array $steps, private float $end, private string $interval, private float $z)
    {
    }

    /** @param  'log'|'log-log'|'plain'  $interval  scale on which the bounds are symmetric */
    public static function of(Lives $lives, string $interval, float $confidence): self
    {
        $survival = 1.0;
        $hazard = 0.0; // Greenwood's sum
        $steps = [];
        foreach ($lives->table() as $row) {
            ['atRisk' => $n, 'events' => $d] = $row;
            $survival *= ($n - $d) / $n;
            $hazard += $n > $d ? $d / ($n * ($n - $d)) : 0.0;
            $steps[] = $row + ['survival' => $survival, 'hazard' => $hazard];
        }
        $z = Special::invert(Special::normalCdf(...), (1.0 + $confidence) / 2.0, 0.0, 9.0);

        return new self($steps, $lives->longest(), $interval, $z);
    }

    /**
     * @return list<array{time: float, atRisk: int, events: int, survival: float, stdErr?: float, lower?: float,
     *     upper?: float}>
     */
    public function curve(): array
    {
        return array_map(
            fn (array $s): array => [
                'time' => $s['time'],
                'atRisk' => $s['atRisk'],
                'events' => $s['events'],
                'survival' => $s['survival'],
            ] + $this->bounds($s['survival'], $s['hazard']),
            $this->steps,
        );
    }

    /** @return Point the share in service just after a time */
    public function at(float $time): array
    {
        [$survival, $hazard] = [1.0, 0.0];
        foreach ($this->steps as $step) {
            if ($step['time'] <= $time) {
                [$survival, $hazard] = [$step['survival'], $step['hazard']];
            }
        }

        return ['time' => $time, 'survival' => $survival] + $this->bounds($survival, $hazard);
    }

    /** @return array{stdErr?: float, lower?: float, upper?: float} nothing where nobody is left */
    private function bounds(float $survival, float $hazard): array
    {
        if ($survival <= 0.0) {
            return [];
        }
        $root = sqrt($hazard);
        $reach = $this->z * $root;
        [$lower, $upper] = match (true) {
            $survival >= 1.0 => [1.0, 1.0],
            $this->interval === 'plain' => [$survival * (1.0 - $reach), $survival * (1.0 + $reach)],
            $this->interval === 'log' => [$survival * exp(-$reach), $survival * exp($reach)],
            default => [
                $survival ** exp($reach / -log($survival)),
                $survival ** exp(-$reach / -log($survival)),
            ],
        };

        return ['stdErr' => $survival * $root, 'lower' => max(0.0, $lower), 'upper' => min(1.0, $upper)];
    }

    /** The first time by which half have failed; the middle of the stretch where it is just half. */
    public function median(): ?float
    {
        foreach ($this->steps as $i => $step) {
            if (abs($step['survival'] - 0.5) < 1e-12 && isset($this->steps[$i + 1])) {
                return ($step['time'] + $this->steps[$i + 1]['time']) / 2.0;
            }
            if ($step['survival'] <= 0.5 + 1e-12) {
                return $step['time'];
            }
        }

        return null;
    }

    /** The mean up to the longest time watched: the area under the curve. */
    public function restrictedMean(): float
    {
        $area = $from = 0.0;
        $survival = 1.0;
        foreach ($this->steps as $step) {
            $area += $survival * ($step['time'] - $from);
            [$from, $survival] = [$step['time'], $step['survival']];
        }

        return $area + $survival * ($this->end - $from);
    }
}
