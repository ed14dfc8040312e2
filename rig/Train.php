<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * Shafts and gear sets of a unit as masses on constraints. Every step the impulses of clutches, brakes and one-way
 * clutches are found that stop what they can stop within what they can carry (time stepping on velocities after
 * J. J. Moreau; projected Gauss-Seidel, each step begun with the impulses of the last one).
 *
 * Speeds in rad/s, torques in N.m, inertias in kg.m2.
 */
final class Train
{
    /** Rounds of the impulses a step. */
    private const ROUNDS = 12;

    /** Impulses closer than this are the same, N.m.s: a hundredth of a newton metre over a millisecond. */
    private const CLOSE = 1e-5;

    /** @var array<string, int> node => place; the case has none */
    public readonly array $at;

    /** @var list<list<float>> node speed = sum over free speeds */
    private array $free = [];

    /** @var list<list<float>> free speed a unit of torque on a node brings in a second */
    private array $answer = [];

    /** @var array<string, list<float>> element => share of each free speed in its slip */
    private array $slips = [];

    /** @var array<string, list<float>> element => change of the free speeds for a unit of impulse */
    private array $pushes = [];

    /** @var array<string, float> element => change of its own slip for a unit of impulse */
    private array $own = [];

    /** @var array<string, float> impulses of the last step, N.m.s */
    private array $impulses = [];

    /** @var list<float> free speeds */
    public array $speeds;

    /**
     * @param  list<array<string, mixed>>  $sets  gear sets with their teeth
     * @param  array<string, array{string, string}>  $elements  element => the two nodes it joins
     * @param  array<string, float>  $inertias  by node
     */
    public function __construct(array $sets, array $elements, array $inertias)
    {
        $at = $this->at = self::nodes($sets, $elements, array_keys($inertias));
        $this->free = self::freeSpeeds(self::constraints($sets, $at), count($at));
        $mass = array_fill(0, count($at), 0.012);
        foreach ($inertias as $node => $inertia) {
            $mass[$at[$node]] = $inertia;
        }
        $inverse = self::inverse(self::reduced($this->free, $mass));
        $this->speeds = array_fill(0, count($inverse), 0.0);
        foreach ($this->free as $shares) {
            $this->answer[] = self::times($inverse, $shares);
        }
        foreach ($elements as $name => [$a, $b]) {
            $slip = array_fill(0, count($inverse), 0.0);
            foreach ([[$a, 1.0], [$b, -1.0]] as [$node, $sign]) {
                foreach ($node === 'case' ? [] : $this->free[$at[$node]] as $k => $share) {
                    $slip[$k] += $sign * $share;
                }
            }
            $this->slips[$name] = $slip;
            $this->pushes[$name] = self::times($inverse, $slip);
            $this->own[$name] = max(1e-9, self::dot($slip, $this->pushes[$name]));
            $this->impulses[$name] = 0.0;
        }
    }

    /**
     * @param  list<array<string, mixed>>  $sets
     * @param  array<string, array{string, string}>  $elements
     * @param  list<string>  $first
     * @return array<string, int>
     */
    private static function nodes(array $sets, array $elements, array $first): array
    {
        $names = [...$first, ...array_merge(...array_values($elements))];
        foreach ($sets as $set) {
            array_push($names, $set['sun'], $set['ring'], $set['carrier']);
        }

        return array_flip(array_values(array_diff(array_unique($names), ['case'])));
    }

    public function speed(string $node): float
    {
        return self::dot($this->free[$this->at[$node]], $this->speeds);
    }

    public function slip(string $element): float
    {
        return self::dot($this->slips[$element], $this->speeds);
    }

    /** Torque an element carried in the last step, N.m; positive speeds its first node up. */
    public function torque(string $element, float $seconds): float
    {
        return $this->impulses[$element] / $seconds;
    }

    /**
     * @param  array<string, float>  $torques  on nodes from outside, N.m
     * @param  array<string, array{float, float}>  $carry  element => least and most torque it can put on its first node
     */
    public function step(float $seconds, array $torques, array $carry): void
    {
        $v = $this->speeds;
        foreach ($torques as $node => $torque) {
            foreach ($this->answer[$this->at[$node]] as $k => $a) {
                $v[$k] += $seconds * $torque * $a;
            }
        }
        $impulses = [];
        foreach ($carry as $name => [$least, $most]) {
            if ($most - $least > 0.0) {
                $impulses[$name] = max($seconds * $least, min($seconds * $most, $this->impulses[$name]));
                foreach ($this->pushes[$name] as $k => $push) {
                    $v[$k] += $impulses[$name] * $push;
                }
            } else {
                $this->impulses[$name] = 0.0;
            }
        }
        $this->impulses = $this->balanced($seconds, $v, $carry, $impulses) + $this->impulses;
        $this->speeds = $v;
    }

    /**
     * @param  list<float>  $v  free speeds, which the impulses change
     * @param  array<string, array{float, float}>  $carry
     * @param  array<string, float>  $impulses  to begin with
     * @return array<string, float>
     */
    private function balanced(float $seconds, array &$v, array $carry, array $impulses): array
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $moved = false;
            foreach ($impulses as $name => $before) {
                $slip = 0.0;
                foreach ($this->slips[$name] as $k => $share) {
                    $slip += $share * $v[$k];
                }
                [$least, $most] = $carry[$name];
                $now = $before - $slip / $this->own[$name];
                $now = $now < $seconds * $least ? $seconds * $least : $now;
                $now = $now > $seconds * $most ? $seconds * $most : $now;
                if (abs($now - $before) > self::CLOSE) {
                    $moved = true;
                    foreach ($this->pushes[$name] as $k => $push) {
                        $v[$k] += ($now - $before) * $push;
                    }
                    $impulses[$name] = $now;
                }
            }
            if (! $moved) {
                break;
            }
        }

        return $impulses;
    }

    /**
     * What stands still in itself: with unit torque on a node and these elements locked, what each carries and what
     * the other node must take; null where it does not hold.
     *
     * @param  list<string>  $locked
     * @return array{elements: array<string, float>, output: float}|null
     */
    public function holds(array $locked, string $on, string $output): ?array
    {
        $columns = array_map(fn (string $name): array => $this->slips[$name], $locked);
        $columns[] = $this->free[$this->at[$output]];
        $x = self::leastSquares($columns, array_map(static fn (float $s): float => -$s, $this->free[$this->at[$on]]));
        if ($x === null) {
            return null;
        }
        $out = array_pop($x);

        return ['elements' => array_combine($locked, $x), 'output' => $out];
    }

    /**
     * @param  list<array<string, mixed>>  $sets
     * @param  array<string, int>  $at
     * @return list<list<float>>
     */
    private static function constraints(array $sets, array $at): array
    {
        $rows = [];
        foreach ($sets as $set) {
            $row = array_fill(0, count($at), 0.0);
            // Through one pinion ring and sun turn against each other on the carrier, through two the same way.
            $ring = $set['kind'] === 'double' ? -(float) $set['ringTeeth'] : (float) $set['ringTeeth'];
            $sun = (float) $set['sunTeeth'];
            foreach (['sun' => $sun, 'ring' => $ring, 'carrier' => -($sun + $ring)] as $of => $factor) {
                $set[$of] === 'case' || ($row[$at[$set[$of]]] += $factor);
            }
            $rows[] = $row;
        }

        return $rows;
    }

    /**
     * @param  list<list<float>>  $rows  each: sum of factor x speed is zero
     * @return list<list<float>> every speed as a sum of those that stay free
     */
    private static function freeSpeeds(array $rows, int $n): array
    {
        $pivots = [];
        foreach ($rows as $r => $_) {
            $at = null;
            // The nodes named first (motor, turbine, output) stay free where they can.
            for ($c = $n - 1; $c >= 0; $c--) {
                if (abs($rows[$r][$c]) > 1e-9 && ($at === null || abs($rows[$r][$c]) > 1.5 * abs($rows[$r][$at]))) {
                    $at = $c;
                }
            }
            if ($at === null) {
                continue;
            }
            $pivots[$at] = $r;
            $p = $rows[$r][$at];
            $rows[$r] = array_map(static fn (float $x): float => $x / $p, $rows[$r]);
            foreach ($rows as $o => $other) {
                if ($o !== $r && $other[$at] !== 0.0) {
                    foreach ($other as $c => $x) {
                        $rows[$o][$c] = $x - $other[$at] * $rows[$r][$c];
                    }
                }
            }
        }
        $free = array_values(array_diff(range(0, $n - 1), array_keys($pivots)));
        $out = [];
        for ($c = 0; $c < $n; $c++) {
            $out[] = array_map(
                static fn (int $f): float => isset($pivots[$c]) ? -$rows[$pivots[$c]][$f] : (float) ($f === $c),
                $free,
            );
        }

        return $out;
    }

    /**
     * @param  list<list<float>>  $free
     * @param  list<float>  $mass
     * @return list<list<float>>
     */
    private static function reduced(array $free, array $mass): array
    {
        $n = count($free[0]);
        $out = array_fill(0, $n, array_fill(0, $n, 0.0));
        foreach ($free as $node => $shares) {
            for ($i = 0; $i < $n; $i++) {
                for ($j = 0; $j < $n; $j++) {
                    $out[$i][$j] += $mass[$node] * $shares[$i] * $shares[$j];
                }
            }
        }

        return $out;
    }

    /**
     * @param  list<list<float>>  $m  symmetric, positive
     * @return list<list<float>>
     */
    private static function inverse(array $m): array
    {
        $n = count($m);
        foreach ($m as $i => $row) {
            for ($j = 0; $j < $n; $j++) {
                $m[$i][] = (float) ($i === $j);
            }
        }
        for ($p = 0; $p < $n; $p++) {
            $d = $m[$p][$p];
            $m[$p] = array_map(static fn (float $x): float => $x / $d, $m[$p]);
            for ($i = 0; $i < $n; $i++) {
                $f = $m[$i][$p];
                if ($i !== $p && $f !== 0.0) {
                    foreach ($m[$p] as $j => $x) {
                        $m[$i][$j] -= $f * $x;
                    }
                }
            }
        }

        return array_map(static fn (array $row): array => array_slice($row, $n), $m);
    }

    /**
     * @param  list<list<float>>  $columns
     * @param  list<float>  $right
     * @return list<float>|null null where no combination comes close
     */
    private static function leastSquares(array $columns, array $right): ?array
    {
        $n = count($columns);
        $normal = [];
        $side = [];
        for ($i = 0; $i < $n; $i++) {
            for ($j = 0; $j < $n; $j++) {
                $normal[$i][$j] = self::dot($columns[$i], $columns[$j]) + ($i === $j ? 1e-9 : 0.0);
            }
            $side[$i] = self::dot($columns[$i], $right);
        }
        $x = self::times(self::inverse($normal), $side);
        $left = $right;
        foreach ($columns as $i => $column) {
            foreach ($column as $k => $c) {
                $left[$k] -= $x[$i] * $c;
            }
        }

        return self::dot($left, $left) < 1e-6 ? $x : null;
    }

    /**
     * @param  list<list<float>>  $m
     * @param  list<float>  $x
     * @return list<float>
     */
    private static function times(array $m, array $x): array
    {
        return array_map(static fn (array $row): float => self::dot($row, $x), $m);
    }

    /**
     * @param  list<float>  $a
     * @param  list<float>  $b
     */
    private static function dot(array $a, array $b): float
    {
        $sum = 0.0;
        foreach ($a as $k => $x) {
            $sum += $x * $b[$k];
        }

        return $sum;
    }
}
