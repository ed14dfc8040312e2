<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Small helpers on evenly sampled signals. */
final class Signal
{
    /** So many samples of a plateau tell its noise to two parts in a hundred; of more, some are taken evenly. */
    private const ENOUGH = 2500;

    /** @param  non-empty-list<float>  $x */
    public static function median(array $x): float
    {
        sort($x);
        $n = count($x);

        return $n % 2 === 1 ? $x[intdiv($n, 2)] : 0.5 * ($x[intdiv($n, 2) - 1] + $x[intdiv($n, 2)]);
    }

    /** The median of five, by six comparisons: it is asked for at every sample of a run. */
    public static function medianOfFive(float $a, float $b, float $c, float $d, float $e): float
    {
        $a > $b && ([$a, $b] = [$b, $a]);
        $d > $e && ([$d, $e] = [$e, $d]);
        $least = $a > $d ? $a : $d;
        $most = $b < $e ? $b : $e;
        // The least of all and the most of all are out: of the three that are left it is the middle one.
        [$low, $high] = $least < $most ? [$least, $most] : [$most, $least];

        return $c < $low ? $low : ($c > $high ? $high : $c);
    }

    /**
     * Evenly taken out of a long plateau, as many as tell its middle and its noise.
     *
     * @template T
     *
     * @param  list<T>  $x
     * @return ($x is non-empty-list<T> ? non-empty-list<T> : list<T>)
     */
    public static function thinned(array $x): array
    {
        $n = count($x);
        if ($n <= self::ENOUGH) {
            return $x;
        }
        $out = [];
        for ($i = 0; $i < self::ENOUGH; $i++) {
            $out[] = $x[intdiv($i * $n, self::ENOUGH)];
        }

        return $out;
    }

    /** @param  non-empty-list<float>  $x */
    public static function mean(array $x): float
    {
        return array_sum($x) / count($x);
    }

    /**
     * Robust scale: 1.4826 x median absolute deviation, the standard deviation of a normal sample.
     *
     * @param  non-empty-list<float>  $x
     */
    public static function noise(array $x, float $median): float
    {
        return 1.4826 * self::median(array_map(static fn (float $v): float => abs($v - $median), $x));
    }

    /**
     * Fills short runs of exact zeros between running speeds by interpolation.
     *
     * @param  non-empty-list<float>  $x
     * @param  int  $longest  samples; a longer run is a standstill
     * @return array{non-empty-list<float>, list<array{int,
     *     int}>} the repaired signal, first and last sample of each dropout
     */
    public static function repairDropouts(array $x, int $longest, float $running): array
    {
        $found = [];
        $n = count($x);
        for ($i = 1; $i < $n; $i++) {
            if ($x[$i] !== 0.0 || $x[$i - 1] < $running) {
                continue;
            }
            $j = $i;
            while ($j < $n && $x[$j] === 0.0) {
                $j++;
            }
            if ($j < $n && $j - $i <= $longest && $x[$j] >= $running) {
                $found[] = [$i, $j - 1];
                [$a, $b] = [$x[$i - 1], $x[$j]];
                for ($k = $i; $k < $j; $k++) {
                    $x[$k] = $a + (($b - $a) * ($k - $i + 1)) / ($j - $i + 1);
                }
            }
            $i = $j;
        }

        return [array_values($x), $found];
    }

    /**
     * The highest point of a parabola through the sample and its neighbours.
     *
     * @param  array<int, float>  $x
     * @return array{float, float} height and position in samples
     */
    public static function peak(array $x, int $k): array
    {
        [$a, $b, $c] = [$x[$k - 1] ?? null, $x[$k], $x[$k + 1] ?? null];
        if ($a === null || $c === null || $a - 2.0 * $b + $c >= 0.0 || $a > $b || $c > $b) {
            return [$b, (float) $k];
        }
        $shift = (0.5 * ($a - $c)) / ($a - 2.0 * $b + $c);

        return [$b - 0.25 * ($a - $c) * $shift, $k + $shift];
    }

    /**
     * Each value replaced by the parabola fitted to it and so many on either side by least squares (A. Savitzky and
     * M. J. E. Golay, Analytical Chemistry 36, 1964); near the ends, fewer.
     *
     * @param  array<int, float>  $x  consecutive keys
     * @return array{array<int, float>, float} the smoothed values, and how much of the noise of one sample is left
     */
    public static function smoothed(array $x, int $half): array
    {
        if ($half < 2) {
            return [$x, 1.0];
        }
        $out = [];
        foreach (array_keys($x) as $k) {
            for ($m = $half; $m > 1 && ! isset($x[$k - $m], $x[$k + $m]); $m--);
            if ($m < 2) {
                $out[$k] = $x[$k];

                continue;
            }
            $sum = 0.0;
            for ($i = -$m; $i <= $m; $i++) {
                $sum += self::weight($i, $m) * $x[$k + $i];
            }
            $out[$k] = $sum;
        }

        return [$out, sqrt(self::weight(0, $half))];
    }

    /** Weight of the sample i places off in the value of the parabola through 2m + 1 samples. */
    private static function weight(int $i, int $m): float
    {
        return (3.0 * (3 * $m * $m + 3 * $m - 1) - 15.0 * $i * $i) / ((2 * $m - 1) * (2 * $m + 1) * (2 * $m + 3));
    }

    /**
     * Amplitude spectrum by radix-2 FFT of the zero-padded signal.
     *
     * @param  list<float>  $x
     * @return array{list<float>, int} magnitudes of bins 0 to N/2, and N
     */
    public static function spectrum(array $x): array
    {
        $n = 1;
        while ($n < count($x)) {
            $n *= 2;
        }
        $re = array_pad($x, $n, 0.0);
        $im = array_fill(0, $n, 0.0);
        for ($i = 1, $j = 0; $i < $n; $i++) {
            for ($bit = $n >> 1; ($j & $bit) !== 0; $bit >>= 1) {
                $j ^= $bit;
            }
            $j ^= $bit;
            if ($i < $j) {
                [$re[$i], $re[$j]] = [$re[$j], $re[$i]];
            }
        }
        for ($length = 2; $length <= $n; $length *= 2) {
            $half = intdiv($length, 2);
            for ($k = 0; $k < $half; $k++) {
                $angle = (-2.0 * M_PI * $k) / $length;
                [$c, $s] = [cos($angle), sin($angle)];
                for ($i = $k; $i < $n; $i += $length) {
                    $j = $i + $half;
                    $tr = $re[$j] * $c - $im[$j] * $s;
                    $ti = $re[$j] * $s + $im[$j] * $c;
                    [$re[$j], $im[$j]] = [$re[$i] - $tr, $im[$i] - $ti];
                    $re[$i] += $tr;
                    $im[$i] += $ti;
                }
            }
        }
        $out = [];
        for ($i = 0; $i <= intdiv($n, 2); $i++) {
            $out[] = hypot($re[$i], $im[$i]);
        }

        return [$out, $n];
    }
}
