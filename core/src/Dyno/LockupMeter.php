<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Maths\LinearSystem;

/**
 * Slip of the converter clutch and its oscillation (hunting) over the longest locked stretch of a trace.
 *
 * @phpstan-type Lockup array{from_s: float, to_s: float, slipMean_rpm: float, slipRms_rpm: float,
 *     huntAmplitude_rpm: float, aliasLimit_hz: float, huntFrequency_hz?: float}
 */
final class LockupMeter
{
    /**
     * Without lock-up commands the clutch counts as locked while the slip stays under this share of the input speed.
     */
    public const LOCKED_SHARE = 0.08;

    private const SHORTEST = 1.0;

    private const MOST_SAMPLES = 32768;

    /**
     * @param  Recording  $run  with a turbine speed
     * @param  list<array{float, float}>|null  $windows  commanded lock-up, seconds; null when nothing was commanded
     * @return Lockup|null
     */
    public static function measure(Recording $run, ?array $windows): ?array
    {
        [$input, $turbine, $rate] = [$run->input, $run->turbine ?? $run->input, $run->rate];
        [$from, $to] =
            $windows === null
                ? self::longestLocked($run)
                : self::longestWindow($windows, $run);
        if ($to - $from < max(16, (int) (self::SHORTEST * $rate) - 1)) {
            return null;
        }
        $to = min($to, $from + self::MOST_SAMPLES - 1);
        $slip = [$input[$from] - $turbine[$from]];
        for ($k = $from + 1; $k <= $to; $k++) {
            $slip[] = $input[$k] - $turbine[$k];
        }
        $mean = Signal::mean($slip);
        $rest = array_map(static fn (float $s): float => $s - $mean, $slip);
        $rms = sqrt(array_sum(array_map(static fn (float $r): float => $r * $r, $rest)) / count($rest));
        $out = [
            'from_s' => $from / $rate,
            'to_s' => $to / $rate,
            'slipMean_rpm' => $mean,
            'slipRms_rpm' => $rms,
            'huntAmplitude_rpm' => 0.0,
            'aliasLimit_hz' => $rate / 2.0,
        ];
        if ($rms > 1e-9 * max(1.0, abs($mean))) {
            [$out['huntFrequency_hz'], $out['huntAmplitude_rpm']] = self::hunting($rest, $rate);
        }

        return $out;
    }

    /**
     * The strongest oscillation: spectrum peak, refined between bins, amplitude by least squares (zero to peak).
     *
     * @param  list<float>  $x
     * @return array{float, float} frequency in Hz, amplitude
     */
    private static function hunting(array $x, float $rate): array
    {
        [$spectrum, $n] = Signal::spectrum($x);
        $seconds = count($x) / $rate;
        $first = max(1, (int) ceil(((1.5 / $seconds) * $n) / $rate));
        $bin = $first;
        for ($i = $first; $i < count($spectrum); $i++) {
            $bin = $spectrum[$i] > $spectrum[$bin] ? $i : $bin;
        }
        $explained = static fn (float $f): float => self::fit($x, (2.0 * M_PI * $f) / $rate)[0];
        [$low, $high] = [max(0.0, (($bin - 1) * $rate) / $n), min($rate / 2.0, (($bin + 1) * $rate) / $n)];
        $golden = (sqrt(5.0) - 1.0) / 2.0;
        [$c, $d] = [$high - $golden * ($high - $low), $low + $golden * ($high - $low)];
        [$fc, $fd] = [$explained($c), $explained($d)];
        for ($i = 0; $i < 60 && $high - $low > 1e-9; $i++) {
            if ($fc > $fd) {
                [$high, $d, $fd] = [$d, $c, $fc];
                $c = $high - $golden * ($high - $low);
                $fc = $explained($c);
            } else {
                [$low, $c, $fc] = [$c, $d, $fd];
                $d = $low + $golden * ($high - $low);
                $fd = $explained($d);
            }
        }
        $frequency = 0.5 * ($low + $high);

        return [$frequency, self::fit($x, (2.0 * M_PI * $frequency) / $rate)[1]];
    }

    /**
     * Least-squares fit of m + a cos wk + b sin wk.
     *
     * @param  list<float>  $x
     * @return array{float, float} mean square explained, amplitude
     */
    private static function fit(array $x, float $w): array
    {
        $n = (float) count($x);
        $sums = array_fill(0, 8, 0.0);
        foreach ($x as $k => $v) {
            [$c, $s] = [cos($w * $k), sin($w * $k)];
            foreach ([$c, $s, $c * $c, $c * $s, $s * $s, $v, $v * $c, $v * $s] as $i => $term) {
                $sums[$i] += $term / $n;
            }
        }
        [$c, $s, $cc, $cs, $ss, $v, $vc, $vs] = $sums;
        $fit = new LinearSystem(3, [[1.0, $c, $s, $v], [$c, $cc, $cs, $vc], [$s, $cs, $ss, $vs]]);
        [$m, $a, $b] = [
            $fit->value([0 => 1.0]) ?? 0.0,
            $fit->value([1 => 1.0]) ?? 0.0,
            $fit->value([2 => 1.0]) ?? 0.0,
        ];

        return [$m * $v + $a * $vc + $b * $vs, hypot($a, $b)];
    }

    /** @return array{int, int} */
    private static function longestLocked(Recording $run): array
    {
        $turbine = $run->turbine ?? [];
        $locked = [];
        foreach ($run->input as $k => $n) {
            $close = isset($turbine[$k]) && $n > 300.0 && abs($n - $turbine[$k]) <= self::LOCKED_SHARE * $n;
            if ($close && ! isset($run->missing[$k])) {
                $locked[] = $k;
            }
        }

        return self::longestRun($locked);
    }

    /**
     * @param  list<array{float, float}>  $windows
     * @return array{int, int}
     */
    private static function longestWindow(array $windows, Recording $run): array
    {
        $best = [0, -1];
        foreach ($windows as [$from, $to]) {
            $first = max(0, (int) ceil($from * $run->rate));
            $last = min(count($run->input) - 1, (int) floor($to * $run->rate));
            $measured = $first > $last ? [] : array_diff_key(array_flip(range($first, $last)), $run->missing);
            $window = self::longestRun(array_keys($measured));
            $best = $window[1] - $window[0] > $best[1] - $best[0] ? $window : $best;
        }

        return $best;
    }

    /**
     * @param  list<int>  $samples  rising
     * @return array{int, int} first and last of the longest stretch without a break
     */
    private static function longestRun(array $samples): array
    {
        $best = [0, -1];
        $start = 0;
        foreach ($samples as $i => $k) {
            $start = $i > 0 && $k === $samples[$i - 1] + 1 ? $start : $k;
            $best = $k - $start > $best[1] - $best[0] ? [$start, $k] : $best;
        }

        return $best;
    }
}
