<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * Friction of a lining over its slip, straight between points, and the course of heat it gives a shift: the torque
 * follows the friction, the slip falls with the torque, the heat is the product of both.
 */
final readonly class SlipFriction
{
    private const STEPS = 4000;

    /** @param  list<array{float, float}>  $points  slip as a share of that at the start, friction; rising slip */
    private function __construct(private array $points)
    {
    }

    /**
     * Reads friction: [{"slip": 0..1, "mu"}]; null where it is not given.
     *
     * @throws BadInput order, range
     */
    public static function read(Input $in): ?self
    {
        if (! $in->has('friction')) {
            return null;
        }
        $points = [];
        $last = -1.0;
        foreach ($in->list('friction', 2) as $point) {
            $slip = $point->number('slip', min: 0.0, max: 1.0);
            if ($slip <= $last) {
                throw $point->at('slip')->fail('order', 'The points go from the smallest slip to the largest.');
            }
            $points[] = [$last = $slip, $point->number('mu', min: 0.001, max: 2.0)];
        }

        return new self($points);
    }

    public function at(float $slip): float
    {
        $before = $this->points[0];
        foreach ($this->points as $point) {
            if ($slip <= $point[0]) {
                $wide = $point[0] - $before[0];

                return $wide <= 0.0 ? $point[1] : $before[1] + ($point[1] - $before[1]) * ($slip - $before[0]) / $wide;
            }
            $before = $point;
        }

        return $before[1];
    }

    /**
     * The heat of equal parts of the shift, as shares of what an even course would give each; they add up to their
     * number.
     *
     * @return list<float>
     */
    public function course(int $parts): array
    {
        // Time over slip: dt = ds / mu, from full slip down; the heat of a step is its energy, s ds.
        $time = 0.0;
        $steps = [];
        for ($n = self::STEPS; $n > 0; $n--) {
            $slip = ($n - 0.5) / self::STEPS;
            $dt = 1.0 / self::STEPS / $this->at($slip);
            $steps[] = [$time + $dt / 2.0, $slip];
            $time += $dt;
        }
        $heat = array_fill(0, $parts, 0.0);
        foreach ($steps as [$at, $energy]) {
            $heat[min($parts - 1, (int) floor($parts * $at / $time))] += $energy;
        }
        $mean = array_sum($heat) / $parts;

        return array_map(static fn (float $h): float => $h / $mean, array_values($heat));
    }
}
