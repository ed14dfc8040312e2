<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Splits a trace into stretches in gear by comparing the speed ratio with the nominal ratios. */
final class GearFinder
{
    /** A ratio belongs to a gear when it lies within this share of the nominal one. */
    public const BAND = 0.03;

    /** Bounds that nothing lies between. */
    private const NOWHERE = [INF, -INF];

    /** Shorter stays in a band are passages, seconds. */
    private const SHORTEST = 0.2;

    /**
     * @param  list<?float>  $ratio  speed ratio a sample, null where the output stands
     * @param  array<string, float>  $nominal
     * @return list<Dwell>
     */
    public static function find(array $ratio, array $nominal, float $rate): array
    {
        $runs = [];
        $open = null;
        foreach (self::gears($ratio, $nominal) as $k => $gear) {
            if ($open !== null && $gear === $open[0]) {
                $open[2] = $k;

                continue;
            }
            if ($open !== null) {
                $runs[] = $open;
            }
            $open = $gear === null ? null : [$gear, $k, $k];
        }
        if ($open !== null) {
            $runs[] = $open;
        }
        $merged = self::merged($ratio, $runs, max(3, (int) ceil(self::SHORTEST * $rate)));

        return array_map(static fn (array $run): Dwell => self::dwell($ratio, ...$run), $merged);
    }

    /**
     * @param  list<?float>  $ratio
     * @param  array<string, float>  $nominal
     * @return \Generator<int, ?string> the gear of each sample, told by the median of five round it
     */
    private static function gears(array $ratio, array $nominal): \Generator
    {
        $gear = null;
        [$low, $high] = self::NOWHERE;
        $inside = 0;
        foreach (array_keys($ratio) as $k) {
            $ahead = $ratio[$k + 2] ?? null;
            $inside = $ahead !== null && $ahead >= $low && $ahead <= $high ? $inside + 1 : 0;
            // Where all five can only be of this gear, so is their median.
            if ($inside < 5) {
                $now = self::gearOf(self::smoothed($ratio, $k), $nominal);
                if ($now !== $gear) {
                    [$low, $high] = $now === null ? self::NOWHERE : self::surely($now, $nominal);
                    [$gear, $inside] = [$now, 0];
                }
            }
            yield $k => $gear;
        }
    }

    /**
     * @param  list<?float>  $ratio
     * @param  list<array{string, int, int}>  $runs  gear, first and last sample
     * @return list<array{string, int, int}> those that last, with what interrupts them for an instant bridged
     */
    private static function merged(array $ratio, array $runs, int $shortest): array
    {
        $merged = [];
        foreach ($runs as $run) {
            if ($shortest > $run[2] - $run[1] + 1) {
                continue;
            }
            $last = count($merged) - 1;
            if (
                $last >= 0 &&
                $merged[$last][0] === $run[0] &&
                ! self::standsBetween($ratio, $merged[$last][2], $run[1])
            ) {
                $merged[$last][2] = $run[2];
            } else {
                $merged[] = $run;
            }
        }

        return $merged;
    }

    /** @param  array<string, float>  $nominal */
    public static function gearOf(?float $ratio, array $nominal): ?string
    {
        $best = null;
        $error = self::BAND;
        foreach ($nominal as $gear => $n) {
            if ($ratio !== null && abs($ratio / $n - 1.0) <= $error) {
                [$best, $error] = [(string) $gear, abs($ratio / $n - 1.0)];
            }
        }

        return $best;
    }

    /**
     * Bounds between which a ratio can be of no other gear: its band, and no further than half way to the next.
     *
     * @param  array<string, float>  $nominal
     * @return array{float, float}
     */
    private static function surely(string $gear, array $nominal): array
    {
        $own = $nominal[$gear];
        $share = self::BAND;
        foreach ($nominal as $other => $n) {
            if ((string) $other !== $gear) {
                $share = min($share, abs($n - $own) / (abs($n) + abs($own)));
            }
        }
        // Just inside, so that rounding at an edge decides nothing.
        $share *= 1.0 - 1e-9;

        return [min($own * (1.0 - $share), $own * (1.0 + $share)), max($own * (1.0 - $share), $own * (1.0 + $share))];
    }

    /** @param  list<?float>  $ratio */
    public static function standsBetween(array $ratio, int $from, int $to): bool
    {
        for ($k = $from; $k <= $to; $k++) {
            if ($ratio[$k] === null) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<?float>  $ratio */
    private static function smoothed(array $ratio, int $k): ?float
    {
        if ($ratio[$k] === null) {
            return null;
        }
        if (isset($ratio[$k - 2], $ratio[$k - 1], $ratio[$k + 1], $ratio[$k + 2])) {
            return Signal::medianOfFive($ratio[$k - 2], $ratio[$k - 1], $ratio[$k], $ratio[$k + 1], $ratio[$k + 2]);
        }
        $near = [];
        for ($i = $k - 2; $i <= $k + 2; $i++) {
            if (isset($ratio[$i])) {
                $near[] = $ratio[$i];
            }
        }

        return $near === [] ? null : Signal::median($near);
    }

    /** @param  list<?float>  $ratio */
    private static function dwell(array $ratio, string $gear, int $first, int $last): Dwell
    {
        $values = [];
        for ($k = $first; $k <= $last; $k++) {
            $values[$k] = $ratio[$k] ?? 0.0;
        }
        $taken = Signal::thinned(array_values($values)) ?: [0.0];
        $median = Signal::median($taken);
        $tolerance = max(5.0 * Signal::noise($taken, $median), 1e-6 * abs($median));
        $steady = static fn (int $k): bool => isset($values[$k]) && abs($values[$k] - $median) <= $tolerance;
        $from = $first;
        while ($from < $last && ! ($steady($from) && $steady($from + 1) && $steady(min($last, $from + 2)))) {
            $from++;
        }
        $to = $last;
        while ($to > $from && ! ($steady($to) && $steady($to - 1) && $steady(max($first, $to - 2)))) {
            $to--;
        }
        [$sum, $count, $steadily] = [0.0, 0, []];
        for ($k = $from; $k <= $to; $k++) {
            $steadily[] = $values[$k];
            if (abs($values[$k] - $median) <= $tolerance) {
                $sum += $values[$k];
                $count++;
            }
        }
        $mean = $count === 0 ? $median : $sum / $count;
        $noise = Signal::noise(Signal::thinned($steadily) ?: [$mean], $mean);

        return new Dwell($gear, $first, $last, $from, $to, $mean, $noise);
    }
}
