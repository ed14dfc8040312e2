<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Maths\Special;

/**
 * Reference runs of one unit in one cell, reading by reading. The first runs say what is usual; each later one must lie
 * where one more value of the same normal kind would (prediction interval of a single value, Hahn and Meeker,
 * Statistical Intervals, 1991, from memory), wide enough for all readings together to be left by chance in one run of
 * 370, as on a chart of one value at three sigma (Bonferroni's bound). Good runs add to what is usual, up to a number:
 * a cell that creeps does not take its limits along. A spread below what matters to a judgement counts as that.
 *
 * @phpstan-type Reading array{key: string, check: string, where: string, unit: string, value: float|null}
 * @phpstan-type Chart array{key: string, check: string, where: string, unit: string, points: list<float|null>,
 *     centre: float|null, lower: float|null, upper: float|null, out: bool, watch: bool}
 */
final class RigDrift
{
    /** So many runs say what is usual at first, and at most. */
    public const BASELINE = 8;

    public const MOST = 25;

    /** Beyond three sigma on either side. */
    private const CHANCE = 0.0026997960632601866;

    /** From this share of the limit on, two of the last three on one side ask for a look. */
    private const LEANS = 2.0 / 3.0;

    /** A move smaller than this share of the value alters no verdict (a judgement, no source). */
    private const MATTERS = ['Torque out over torque in' => 0.002, 'Line pressure' => 0.004, 'Cooler flow' => 0.01];

    private const MATTERS_ELSE = 0.0005;

    /** @var 'none'|'baseline'|'good'|'watch'|'drift' of the last run */
    public string $state = 'none';

    /** @var list<Chart> as they stood at the last run */
    public array $charts = [];

    /** @var array<string, list<float>> what is usual, by reading */
    private array $usual = [];

    /** @var array<string, list<float>> how far the runs after the first lay off, in limits */
    private array $off = [];

    /** @param  list<list<Reading>>  $runs  oldest first, all of the same program */
    public static function of(array $runs): self
    {
        $drift = new self();
        foreach ($runs as $n => $run) {
            $limits = $drift->limits($run);
            $drift->judge($n, $run, $limits);
            $n === count($runs) - 1 && $drift->draw($runs, $limits);
            $n < self::MOST && $drift->state !== 'drift' && $drift->learn($run);
        }

        return $drift;
    }

    /** @return list<Chart> those whose last value lies outside, or asks to be looked at */
    public function moved(): array
    {
        return array_values(array_filter($this->charts, static fn (array $c): bool => $c['out'] || $c['watch']));
    }

    /**
     * @param  list<Reading>  $run
     * @param  array<string, array{centre: float|null, reach: float|null}>  $limits
     */
    private function judge(int $n, array $run, array $limits): void
    {
        if ($n < self::BASELINE) {
            $this->state = 'baseline';

            return;
        }
        foreach ($run as ['key' => $key, 'value' => $value]) {
            ['centre' => $centre, 'reach' => $reach] = $limits[$key];
            if ($reach !== null) {
                $this->off[$key][] = $value === null ? INF : ($value - $centre) / $reach;
            }
        }
        $this->state = match (true) {
            array_filter($this->off, self::out(...)) !== [] => 'drift',
            array_filter($this->off, self::leans(...)) !== [] => 'watch',
            default => 'good',
        };
    }

    /**
     * @param  non-empty-list<list<Reading>>  $runs
     * @param  array<string, array{centre: float|null, reach: float|null}>  $limits
     */
    private function draw(array $runs, array $limits): void
    {
        foreach ($runs[count($runs) - 1] as $reading) {
            ['centre' => $centre, 'reach' => $reach] = $limits[$reading['key']];
            $off = $this->off[$reading['key']] ?? [];
            $this->charts[] = [
                'key' => $reading['key'],
                'check' => $reading['check'],
                'where' => $reading['where'],
                'unit' => $reading['unit'],
                'points' => self::points($reading['key'], $runs),
                'centre' => $centre,
                'lower' => $reach === null ? null : $centre - $reach,
                'upper' => $reach === null ? null : $centre + $reach,
                'out' => self::out($off),
                'watch' => ! self::out($off) && self::leans($off),
            ];
        }
    }

    /** @param  list<Reading>  $run */
    private function learn(array $run): void
    {
        foreach ($run as $reading) {
            $reading['value'] === null || ($this->usual[$reading['key']][] = $reading['value']);
        }
    }

    /**
     * @param  list<Reading>  $run
     * @return array<string, array{centre: float|null, reach: float|null}> what is usual, and how far a value may lie
     *     from it; null: nothing known yet
     */
    private function limits(array $run): array
    {
        $out = [];
        $chance = self::CHANCE / (2.0 * max(1, count($run)));
        foreach ($run as $reading) {
            $usual = $this->usual[$reading['key']] ?? [];
            $n = count($usual);
            $centre = $n === 0 ? null : array_sum($usual) / $n;
            $squares = array_sum(array_map(static fn (float $v): float => ($v - $centre) ** 2, $usual));
            $least = (self::MATTERS[$reading['check']] ?? self::MATTERS_ELSE) * abs((float) $centre);
            $out[$reading['key']] = [
                'centre' => $centre,
                'reach' => $n < 2
                    ? null
                    : self::student(1.0 - $chance, $n - 1) * max(sqrt($squares / ($n - 1)), $least) *
                        sqrt(1.0 + 1.0 / $n),
            ];
        }

        return $out;
    }

    /** Quantile of Student's distribution above its middle. */
    public static function student(float $p, int $freedom): float
    {
        $share = static fn (float $t): float => $freedom / ($freedom + $t ** 2);
        $cdf = static fn (float $t): float => 1.0 - 0.5 * Special::betaI($share($t), $freedom / 2.0, 0.5);

        return Special::invert($cdf, $p, 0.0, 1e4);
    }

    /**
     * @param  list<list<Reading>>  $runs
     * @return list<float|null>
     */
    private static function points(string $key, array $runs): array
    {
        return array_map(
            static fn (array $run): ?float => array_column($run, 'value', 'key')[$key] ?? null,
            $runs,
        );
    }

    /** @param  list<float>  $off  in limits, the last one last */
    private static function out(array $off): bool
    {
        return $off !== [] && abs($off[count($off) - 1]) > 1.0;
    }

    /** @param  list<float>  $off */
    private static function leans(array $off): bool
    {
        $beyond = static fn (float $sign): int => count(array_filter(
            array_slice($off, -3),
            static fn (float $v): bool => $sign * $v > self::LEANS,
        ));

        return $beyond(1.0) >= 2 || $beyond(-1.0) >= 2;
    }
}
