<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** Full-load torque of an engine over its speed: straight lines between measured points, held beyond both ends. */
final readonly class Engine
{
    /** @param  non-empty-list<array{float, float}>  $points  rev/min, N.m; speed rises */
    private function __construct(private array $points)
    {
    }

    public static function flat(float $torque): self
    {
        return new self([[0.0, $torque]]);
    }

    /** Reads {"torque_nm"} or {"curve": [{"speed_rpm", "torque_nm"}, ...]}. */
    public static function read(Input $in): self
    {
        if (! $in->has('curve')) {
            return self::flat($in->number('torque_nm', min: 1e-6, max: 1e6));
        }
        $points = [];
        foreach ($in->list('curve', 1) as $point) {
            $speed = $point->number('speed_rpm', min: 0.0, max: 1e6);
            if ($points !== [] && $speed <= $points[count($points) - 1][0]) {
                throw $point
                    ->at('speed_rpm')
                    ->fail('order', 'The speeds of the engine curve must rise from point to point.');
            }
            $points[] = [$speed, $point->number('torque_nm', min: 1e-6, max: 1e6)];
        }
        assert($points !== []);

        return new self($points);
    }

    /** An engine of the same shape with so many times the torque. */
    public function scaled(float $factor): self
    {
        return new self(array_map(static fn (array $p): array => [$p[0], $p[1] * $factor], $this->points));
    }

    public function peak(): float
    {
        return max(array_column($this->points, 1));
    }

    public function torque(float $rpm): float
    {
        [$below, $at] = $this->points[0];
        foreach ($this->points as [$speed, $torque]) {
            if ($rpm <= $speed) {
                return $speed === $below ? $torque : $at + (($torque - $at) * ($rpm - $below)) / ($speed - $below);
            }
            [$below, $at] = [$speed, $torque];
        }

        return $at;
    }

    /** @return list<float> the speeds at which the curve bends, rev/min */
    public function bends(): array
    {
        return array_column($this->points, 0);
    }

    /**
     * @return list<float> the factor K of the load that meets the curve at each bend, rev/min per square root of N.m
     */
    public function bendFactors(): array
    {
        return array_map(static fn (array $p): float => $p[0] / sqrt($p[1]), $this->points);
    }

    /** @return list<array{float, float}> a and b of the pieces that rise or fall: torque = a + b speed */
    public function slopes(): array
    {
        $out = [];
        foreach (array_slice($this->points, 1) as $n => [$speed, $torque]) {
            [$below, $at] = $this->points[$n];
            $b = ($torque - $at) / ($speed - $below);
            $b === 0.0 || ($out[] = [$at - $b * $below, $b]);
        }

        return $out;
    }

    /** Speed of the last point known, rev/min; 0 for a flat torque. */
    public function lastSpeed(): float
    {
        return $this->points[count($this->points) - 1][0];
    }

    /**
     * Where an engine that runs up from below meets a load of (speed/k)^2: the first speed at which the load takes all
     * the torque. Exact on each straight piece.
     *
     * @param  float  $k  capacity factor, rev/min per square root of N.m
     */
    public function meets(float $k): float
    {
        [$below, $at] = $this->points[0];
        if (($below / $k) ** 2 >= $at) {
            return $k * sqrt($at); // below the first point, where the torque is held
        }
        foreach ($this->points as [$speed, $torque]) {
            if (($speed / $k) ** 2 >= $torque) {
                $slope = ($torque - $at) / ($speed - $below);

                return ($k ** 2 / 2.0) * ($slope + sqrt($slope ** 2 + (4.0 * ($at - $slope * $below)) / $k ** 2));
            }
            [$below, $at] = [$speed, $torque];
        }

        return $k * sqrt($at);
    }
}
