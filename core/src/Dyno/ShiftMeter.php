<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Measures the shifts between stretches in gear, and dips of the output speed within a gear (tie-up, bind). */
final class ShiftMeter
{
    /** A dip of the output speed of at least this share is a tie-up. */
    public const TIE_UP_PCT = 1.0;

    /** In gear a smaller dip is noise, rev/min. */
    private const SMALLEST_DIP_RPM = 10.0;

    /** On either side of a dip the output lies higher by this share of its depth. */
    private const COMES_BACK = 0.5;

    /** So long after a command what the output does belongs to the change of gear, seconds. */
    private const CHANGE_S = 1.5;

    /** The course of the output, taken over a while, bends so long before the command already, seconds. */
    private const BEFORE_S = 0.5;

    /** A change of gear that takes longer than this is not one shift, seconds. */
    private const LONGEST = 4.0;

    /** Noise of the ratio as a share of the step, above which 10 % and 90 % of it cannot be told. */
    private const NOISIEST = 0.1;

    /** Times nearer than this are the same, seconds. */
    private const SAME_S = 1e-9;

    /** Below this a signal has no noise, rev/min. */
    private const QUIET_RPM = 1e-6;

    public const STOOD = 'The output stands still in between.';

    /** Of a 95 % interval. */
    private const SIGMAS = 1.96;

    /** Width of the parabola that smooths the peak of a flare, seconds. */
    private const PEAK_S = 0.1;

    /**
     * @param  list<float>  $turbine  speed into the gearbox, rev/min
     * @param  list<float>  $output  rev/min
     * @param  list<?float>  $ratio
     * @param  list<array{t: float, gear: string}>  $commands
     */
    public function __construct(
        private readonly array $turbine,
        private readonly array $output,
        private readonly array $ratio,
        private readonly float $rate,
        private readonly array $commands,
    ) {
    }

    /**
     * Every change of gear: measured, or named with the reason why not.
     *
     * @param  list<Dwell>  $dwells
     * @param  array<int, true>  $missing  samples at which nothing was recorded
     * @return array{list<array<string, mixed>>, list<array{from: string, to: string, from_s: float, to_s: float,
     *     reason: string}>}
     */
    public function shifts(array $dwells, array $missing = []): array
    {
        $shifts = $unmeasured = [];
        for ($i = 1; $i < count($dwells); $i++) {
            [$a, $b] = [$dwells[$i - 1], $dwells[$i]];
            if ($a->gear === $b->gear) {
                continue;
            }
            $reason = $this->barred($a, $b, $missing);
            $shift = $reason === null ? $this->shift($a, $b) : null;
            if ($shift !== null) {
                $shifts[] = $shift;

                continue;
            }
            $unmeasured[] = [
                'from' => $a->gear,
                'to' => $b->gear,
                'from_s' => $a->steadyLast / $this->rate,
                'to_s' => $b->steadyFirst / $this->rate,
                'reason' => $reason ?? 'The signal is too noisy: the ratio never passes between the two.',
            ];
        }

        return [$shifts, $unmeasured];
    }

    /**
     * Why a change of gear cannot be measured; null when it can.
     *
     * @param  array<int, true>  $missing
     */
    private function barred(Dwell $a, Dwell $b, array $missing): ?string
    {
        for ($k = $a->steadyLast; $k <= $b->steadyFirst; $k++) {
            if (isset($missing[$k])) {
                return 'It falls into a gap of the recording.';
            }
        }
        if (GearFinder::standsBetween($this->ratio, $a->steadyLast, $b->steadyFirst)) {
            return self::STOOD;
        }
        if (($b->steadyFirst - $a->steadyLast) / $this->rate > self::LONGEST) {
            return 'There is no steady gear close before or after: it takes more than '.self::LONGEST.' s.';
        }
        $noise = max($a->noise, $b->noise);

        return $noise > self::NOISIEST * abs($b->ratio - $a->ratio)
            ? 'The signal is too noisy for a step of this size.'
            : null;
    }

    /**
     * 95 % bounds of what the noise of the plateaus leaves open: a level is crossed earlier or later by the noise over
     * the slope of the ratio there.
     *
     * @return array{float, float}
     */
    private static function durationBounds(Dwell $a, Dwell $b, float $seconds): array
    {
        $open = hypot($a->noise, $b->noise) / abs($b->ratio - $a->ratio);
        $half = (self::SIGMAS * $open * $seconds) / 0.8;

        return [max(0.0, $seconds - $half), $seconds + $half];
    }

    /**
     * Dips of the output speed while the ratio stays: two elements fight for an instant without a shift.
     *
     * @param  list<Dwell>  $dwells
     * @return list<array<string, mixed>>
     */
    public function tieUpsInGear(array $dwells): array
    {
        $block = max(1, (int) round(0.1 * $this->rate));

        return array_merge(...array_map(fn (Dwell $d): array => $this->dipsOf($d, $block), $dwells), ...[[]]);
    }

    /**
     * @param  int  $block  samples of one median
     * @return list<array<string, mixed>>
     */
    private function dipsOf(Dwell $dwell, int $block): array
    {
        [$baseline, $dips] = $this->belowBaseline($dwell, $block);
        $out = [];
        [$first, $last] = [array_key_first($dips) ?? 0, array_key_last($dips) ?? -1];
        for ($k = $first; $k <= $last; $k++) {
            if ($dips[$k] < max((self::TIE_UP_PCT / 100.0) * $baseline[$k], self::SMALLEST_DIP_RPM)) {
                continue;
            }
            [$start, $deepest, $end] = self::reach($dips, $baseline, $k);
            [$depth, $at] = Signal::peak($dips, $deepest);
            // Slower than this it is the load braking the output, not two elements fighting.
            if (($end - $start) / $this->rate <= 1.5 && $this->isDip($start, $deepest, $end, $depth)) {
                $out[] = [
                    'gear' => $dwell->gear,
                    'from_s' => $start / $this->rate,
                    'to_s' => $end / $this->rate,
                    'deepest_s' => $at / $this->rate,
                    'depth_rpm' => $depth,
                    'depth_pct' => (100.0 * $depth) / $baseline[$deepest],
                ];
            }
            $k = $end;
        }

        return $out;
    }

    /** Whether the output fell into it and rose out of it, and no change of gear was in hand: a bend is no dip. */
    private function isDip(int $start, int $deepest, int $end, float $depth): bool
    {
        foreach ($this->commands as $command) {
            $since = $deepest / $this->rate - $command['t'];
            if ($since > -self::BEFORE_S && $since < self::CHANGE_S) {
                return false;
            }
        }
        $least = $this->output[$deepest] + self::COMES_BACK * $depth;
        $before = array_slice($this->output, $start, $deepest - $start + 1) ?: [0.0];
        $after = array_slice($this->output, $deepest, $end - $deepest + 1) ?: [0.0];

        return max($before) >= $least && max($after) >= $least;
    }

    /**
     * How far the output lies below its own course. The median over a symmetric window follows a steady rise or fall,
     * but not a short dip.
     *
     * @return array{array<int, float>, array<int, float>} baseline and depth below it, by sample
     */
    private function belowBaseline(Dwell $dwell, int $block): array
    {
        $medians = [];
        for ($k = $dwell->first; $k <= $dwell->last; $k += $block) {
            $slice = array_slice($this->output, $k, min($block, $dwell->last - $k + 1));
            $medians[] = $slice === [] ? 0.0 : Signal::median($slice);
        }
        $smooth = [];
        foreach (array_keys($medians) as $i) {
            $half = min(10, $i, count($medians) - 1 - $i);
            $smooth[] = Signal::median(array_slice($medians, $i - $half, 2 * $half + 1) ?: [0.0]);
        }
        $baseline = $dips = [];
        $first = $dwell->first + intdiv($block, 2);
        $last = $first + (count($smooth) - 2) * $block;
        for ($k = $first; $k < $last; $k++) {
            $u = ($k - $first) / $block;
            $i = (int) $u;
            $baseline[$k] = $smooth[$i] + ($smooth[$i + 1] - $smooth[$i]) * ($u - $i);
            $dips[$k] = $baseline[$k] - $this->output[$k];
        }

        return [$baseline, $dips];
    }

    /**
     * Where the dip around a sample begins, is deepest and ends.
     *
     * @param  array<int, float>  $dips
     * @param  array<int, float>  $baseline
     * @return array{int, int, int}
     */
    private static function reach(array $dips, array $baseline, int $k): array
    {
        $isDip = static fn (int $at): bool => isset($dips[$at]) && $dips[$at] > 0.002 * $baseline[$at];
        for ($start = $k; $isDip($start - 1); $start--);
        $deepest = $k;
        for ($end = $k; $isDip($end + 1);) {
            $end++;
            $deepest = $dips[$end] > $dips[$deepest] ? $end : $deepest;
        }

        return [$start, $deepest, $end];
    }

    /** @return array<string, mixed>|null */
    private function shift(Dwell $a, Dwell $b): ?array
    {
        [$i0, $i1] = [$a->steadyLast, $b->steadyFirst];
        $step = $b->ratio - $a->ratio;
        $progress = [];
        for ($k = max(0, $i0 - 1); $k <= $i1; $k++) {
            $progress[$k] = (($this->ratio[$k] ?? $a->ratio) - $a->ratio) / $step;
        }
        $t50 = $this->crossing($progress, 0.5, $i0, $i1, true);
        $t10 = $t50 === null ? null : $this->crossing($progress, 0.1, $i0, (int) ceil($t50), false);
        $t90 = $t50 === null ? null : $this->crossing($progress, 0.9, (int) floor($t50), $i1, true);
        if ($t50 === null || $t10 === null || $t90 === null) {
            return null;
        }
        [$start, $end] = [$t10 / $this->rate, $t90 / $this->rate];
        $delay = $this->delay($b->gear, $start, $a->steadyFirst / $this->rate);
        // A flare may come and go between the command and the change of the ratio.
        $asked = $delay === null ? $i0 : (int) floor(($start - $delay) * $this->rate);
        $from = min($i0, max($a->steadyFirst, $asked));
        [$flare, $flareAt, $flareBounds] = $this->flare($a, $b, $from, (int) floor($t50), $i1);
        $depth = $this->tieUpDepth($i0, $i1);
        $shift = [
            'from' => $a->gear,
            'to' => $b->gear,
            'start_s' => $start,
            'end_s' => $end,
            'duration_s' => $end - $start,
            'linearStart_s' => $start - ($end - $start) / 8.0,
            'linearEnd_s' => $end + ($end - $start) / 8.0,
        ];

        return $shift +
            ($delay === null ? [] : ['delay_s' => $delay]) + ['flare_rpm' => $flare] +
            ($flare > 0.0 ? ['flarePeak_s' => $flareAt / $this->rate] : []) + [
                'tieUp' => $depth >= self::TIE_UP_PCT,
                'tieUpDepth_pct' => $depth,
                'confidence' => [
                    'flare_rpm' => $flareBounds,
                    'duration_s' => self::durationBounds($a, $b, $end - $start),
                ],
            ];
    }

    /**
     * Where the progress rises through a level between two samples, in samples; the first such place, or the last.
     *
     * @param  array<int, float>  $progress
     */
    private function crossing(array $progress, float $level, int $from, int $to, bool $first): ?float
    {
        $found = null;
        for ($k = $from + 1; $k <= $to; $k++) {
            [$p, $q] = [$progress[$k - 1], $progress[$k]];
            if ($p < $level && $q >= $level) {
                $found = $k - 1 + ($level - $p) / ($q - $p);
                if ($first) {
                    return $found;
                }
            }
        }

        return $found;
    }

    /**
     * Highest speed of the input above what the gear asks for: on an upshift the old gear before the fall, on a
     * downshift the new gear after the rise. Smaller than the noise of the plateau reads 0.
     *
     * @return array{float, float, array{float, float}} rev/min, position in samples and 95 % bounds
     */
    private function flare(Dwell $a, Dwell $b, int $i0, int $k50, int $i1): array
    {
        $up = abs($b->ratio) < abs($a->ratio);
        [$from, $to, $gear] = $up ? [$i0, $k50, $a] : [$k50, $i1, $b];
        $over = fn (int $k): float => $this->turbine[$k] - $gear->ratio * $this->output[$k];
        $plateau = array_map($over, Signal::thinned(range($gear->steadyFirst, $gear->steadyLast)));
        $noise = Signal::noise($plateau, Signal::median($plateau));
        $half = $noise > self::QUIET_RPM ? intdiv((int) round(self::PEAK_S * $this->rate), 2) : 0;
        $last = count($this->turbine) - 1;
        $excess = [];
        for ($k = max($a->steadyFirst, $from - 1 - $half); $k <= min($to + 1 + $half, $last); $k++) {
            $excess[$k] = $over($k);
        }
        [$smooth, $share] = Signal::smoothed($excess, $half);
        $top = $from;
        for ($k = $from; $k <= $to; $k++) {
            $top = $smooth[$k] > $smooth[$top] ? $k : $top;
        }
        [$peak, $at] = Signal::peak($smooth, $top);
        $open = self::SIGMAS * $noise * $share;
        $least = max(3.0 * $noise * $share, self::QUIET_RPM);

        return $smooth[$top] <= $least
            ? [0.0, $at, [0.0, max(0.0, $smooth[$top]) + $open]]
            : [$peak, $at, [max(0.0, $peak - $open), $peak + $open]];
    }

    /**
     * Deepest dip of the output speed below its speed before the shift, or below the line to its speed after when the
     * load slows it down anyway, as a percentage of before.
     */
    private function tieUpDepth(int $i0, int $i1): float
    {
        $margin = max(1, (int) round(0.2 * $this->rate));
        $beforeSlice = array_slice($this->output, max(0, $i0 - $margin), min($i0, $margin) + 1);
        $afterSlice = array_slice($this->output, $i1, $margin);
        if ($beforeSlice === [] || $afterSlice === []) {
            return 0.0;
        }
        [$before, $after] = [abs(Signal::mean($beforeSlice)), abs(Signal::mean($afterSlice))];
        [$kBefore, $kAfter] = [$i0 - $margin / 2.0, $i1 + $margin / 2.0];
        $deepest = 0.0;
        $dips = [];
        for ($k = $i0; $k <= $i1; $k++) {
            $line = $before + (($after - $before) * ($k - $kBefore)) / ($kAfter - $kBefore);
            $dips[$k] = min($before, $line) - abs($this->output[$k]);
        }
        foreach ($dips as $k => $dip) {
            if ($dip > $deepest) {
                $deepest = Signal::peak($dips, $k)[0];
            }
        }

        return $before > 0.0 ? max(0.0, (100.0 * $deepest) / $before) : 0.0;
    }

    private function delay(string $gear, float $start, float $after): ?float
    {
        $found = null;
        foreach ($this->commands as $command) {
            $since = $command['t'] - $after;
            if ($command['gear'] === $gear && $command['t'] <= $start && $since >= -self::SAME_S) {
                $found = $start - $command['t'];
            }
        }

        return $found;
    }
}
