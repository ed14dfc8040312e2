<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/**
 * A hydrodynamic torque converter by its two curves over the speed ratio turbine/impeller: torque ratio, and capacity
 * factor K = engine speed / sqrt(engine torque) in rev/min per sqrt(N.m). Both are straight between the points given
 * (the usual form of converter test data; definition of K as in SAE J643, from memory).
 */
final readonly class Converter
{
    /** @param  non-empty-list<array{float, float, float}>  $points  speed ratio from 0 on, torque ratio, K */
    private function __construct(public array $points)
    {
    }

    /**
     * Reads {"kFactor", "stallTorqueRatio"} for stall alone, or {"points": [{"speedRatio", "torqueRatio", "kFactor"},
     * ...]}.
     */
    public static function read(Input $in): self
    {
        if (! $in->has('points')) {
            return new self([
                [
                    0.0,
                    $in->number('stallTorqueRatio', min: 1.0, max: 10.0),
                    $in->number('kFactor', min: 0.001, max: 1e6),
                ],
            ]);
        }
        $points = [];
        foreach ($in->list('points', 1) as $n => $point) {
            $ratio = $point->number('speedRatio', min: 0.0, below: 1.0);
            if ($n === 0 ? $ratio !== 0.0 : $ratio <= $points[$n - 1][0]) {
                throw $point
                    ->at('speedRatio')
                    ->fail('order', 'The speed ratios of a converter start at 0 and rise from point to point.');
            }
            $torque = $point->number('torqueRatio', min: 0.001, max: 10.0);
            if ($torque * $ratio > 1.0) {
                throw $point
                    ->at('torqueRatio')
                    ->fail('efficiency', 'This torque ratio would give out more power than goes in.');
            }
            $points[] = [$ratio, $torque, $point->number('kFactor', min: 0.001, max: 1e6)];
        }
        assert($points !== []);

        return new self($points);
    }

    public function lastSpeedRatio(): float
    {
        return $this->points[count($this->points) - 1][0];
    }

    /**
     * The state at a speed ratio behind an engine at full load.
     *
     * @return array{speedRatio: float, torqueRatio: float, engine_rpm: float, engineTorque_nm: float,
     *     turbine_rpm: float, turbineTorque_nm: float, efficiency: float, heat_kw: float}
     */
    public function behind(Engine $engine, float $ratio): array
    {
        return $this->state($engine, $engine->meets($this->at($ratio)[1]), $ratio);
    }

    /**
     * The state at a turbine speed behind an engine at full load that runs up from below. Load and torque are compared
     * at every bend of the two curves; between bends the load is convex and the torque straight, so the first bend at
     * which the load wins brackets the one crossing, and Newton's method from that side cannot miss it.
     *
     * @param  float  $turbine  rev/min, below coupling: under the last speed ratio times the engine's speed there
     * @return array{speedRatio: float, torqueRatio: float, engine_rpm: float, engineTorque_nm: float,
     *     turbine_rpm: float, turbineTorque_nm: float, efficiency: float, heat_kw: float}
     */
    public function turning(Engine $engine, float $turbine): array
    {
        if ($turbine <= 0.0) {
            return $this->behind($engine, 0.0);
        }
        $slowest = $turbine / $this->lastSpeedRatio();
        $load = fn (float $speed): float => ($speed / $this->at($turbine / $speed)[1]) ** 2;
        $bends = array_filter(
            [
                ...$engine->bends(),
                ...array_map(static fn (array $p): float => $p[0] > 0.0 ? $turbine / $p[0] : 0.0, $this->points),
            ],
            static fn (float $b): bool => $b > $slowest,
        );
        sort($bends);
        $high = ($bends === [] ? $slowest : max($bends)) * 2.0 + 1.0;
        while ($load($high) < $engine->torque($high)) {
            $high *= 2.0;
        }
        $speed = $high;
        foreach ($bends as $bend) {
            if ($load($bend) >= $engine->torque($bend)) {
                $speed = $bend;
                break;
            }
        }
        for ($n = 0; $n < 60; $n++) {
            $small = $speed * 1e-7;
            $over = $load($speed) - $engine->torque($speed);
            $slope = ($over - ($load($speed - $small) - $engine->torque($speed - $small))) / $small;
            $step = $slope > 0.0 ? $over / $slope : 0.0;
            $speed -= $step;
            if (abs($step) < 1e-9 * $speed) {
                break;
            }
        }

        return $this->state($engine, max($speed, $slowest), $turbine / max($speed, $slowest));
    }

    /**
     * @return array{speedRatio: float, torqueRatio: float, engine_rpm: float, engineTorque_nm: float,
     *     turbine_rpm: float, turbineTorque_nm: float, efficiency: float, heat_kw: float}
     */
    private function state(Engine $engine, float $speed, float $ratio): array
    {
        $torqueRatio = $this->at($ratio)[0];
        $torque = $engine->torque($speed);

        return [
            'speedRatio' => $ratio,
            'torqueRatio' => $torqueRatio,
            'engine_rpm' => $speed,
            'engineTorque_nm' => $torque,
            'turbine_rpm' => $ratio * $speed,
            'turbineTorque_nm' => $torqueRatio * $torque,
            'efficiency' => $ratio * $torqueRatio,
            'heat_kw' => ((1.0 - $ratio * $torqueRatio) * $torque * $speed * M_PI) / 30000.0,
        ];
    }

    /**
     * The most torque the turbine gives: at stall, unless the engine gains more with speed than the converter loses.
     * Looked for at every point of the converter, at every bend of the engine curve, and where the product turns
     * between them.
     *
     * Between points the torque ratio is p + q K; on a straight piece of the engine curve the torque is u = a + b N
     * with N = K sqrt(u), so the turbine torque p u + q N sqrt(u) turns where 3 q s^2 + 2 p b s - q a = 0, s = sqrt(u).
     */
    public function highestTurbineTorque(Engine $engine): float
    {
        $ratios = array_column($this->points, 0);
        foreach (array_slice($this->points, 1) as $n => [$end, $endTorque, $endK]) {
            [$start, $startTorque, $startK] = $this->points[$n];
            if ($startK === $endK) {
                continue; // the engine keeps its speed here, so the torque is straight
            }
            $q = ($endTorque - $startTorque) / ($endK - $startK);
            $p = $startTorque - $q * $startK;
            // Where the load passes a bend the engine may run on to a far higher speed: just past it counts as well.
            $factors = [
                ...$engine->bendFactors(),
                ...array_map(static fn (float $k): float => $k * (1.0 + 1e-9), $engine->bendFactors()),
            ];
            foreach ($q === 0.0 ? [] : $engine->slopes() as [$a, $b]) {
                $root = ($p * $b) ** 2 + 3.0 * $q ** 2 * $a;
                foreach ($root < 0.0 ? [] : [sqrt($root), -sqrt($root)] as $signed) {
                    $s = ($signed - $p * $b) / (3.0 * $q);
                    $s > 0.0 && ($factors[] = ($s ** 2 - $a) / ($b * $s));
                }
            }
            foreach ($factors as $k) {
                $share = ($k - $startK) / ($endK - $startK);
                $share > 0.0 && $share < 1.0 && ($ratios[] = $start + $share * ($end - $start));
            }
        }

        return max(array_map(fn (float $ratio): float => $this->behind($engine, $ratio)['turbineTorque_nm'], $ratios));
    }

    /** @return array{float, float} torque ratio, K */
    private function at(float $ratio): array
    {
        [$below, $torque, $k] = $this->points[0];
        foreach ($this->points as [$next, $torqueThere, $kThere]) {
            if ($ratio <= $next) {
                $share = $next === $below ? 1.0 : ($ratio - $below) / ($next - $below);

                return [$torque + ($torqueThere - $torque) * $share, $k + ($kThere - $k) * $share];
            }
            [$below, $torque, $k] = [$next, $torqueThere, $kThere];
        }

        return [$torque, $k];
    }
}
