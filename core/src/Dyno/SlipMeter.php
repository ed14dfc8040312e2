<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Slip within a gear: the ratio leaves its plateau by more than the noise and for longer than an instant. */
final readonly class SlipMeter
{
    /** Shorter than this it is a spike of the signal, seconds. */
    private const SHORTEST_S = 0.1;

    /** Standard deviations of the plateau, and at least this share of the ratio. */
    private const DEVIATIONS = 4.0;

    private const SMALLEST = 0.002;

    /** What one sample shows is judged with so many on either side of it. */
    private const NEIGHBOURS = 2;

    /**
     * @param  list<float>  $turbine  speed into the gearbox, rev/min
     * @param  list<float>  $output  rev/min
     * @param  list<?float>  $ratio
     * @param  list<array{t: float, gear: string}>  $commands
     */
    public function __construct(
        private array $turbine,
        private array $output,
        private array $ratio,
        private float $rate,
        private array $commands,
    ) {
    }

    /**
     * @param  list<Dwell>  $dwells
     * @return list<array{gear: string, from_s: float, to_s: float, slip_rpm: float, slip_pct: float}>
     */
    public function slips(array $dwells): array
    {
        $out = [];
        foreach ($dwells as $i => $dwell) {
            $off = $this->off($dwell, $this->lastOf($dwell, isset($dwells[$i + 1])));
            foreach (self::runs($off) as [$from, $to]) {
                if (($to - $from) / $this->rate > self::SHORTEST_S) {
                    $out[] = $this->slip($dwell, $from, $to);
                }
            }
        }

        return $out;
    }

    /**
     * A gear lasts until another one is asked for, what comes then is its shift's; the last one also beyond its
     * plateau, until the output stands or the recording ends.
     */
    private function lastOf(Dwell $dwell, bool $isFollowed): int
    {
        $end = $isFollowed ? $dwell->steadyLast : count($this->ratio) - 1;
        foreach ($this->commands as $command) {
            $at = (int) floor($command['t'] * $this->rate);
            if ($at > $dwell->steadyFirst && $command['gear'] !== $dwell->gear) {
                $end = min($end, $at);
            }
        }
        $last = min($end, $dwell->steadyLast);
        while ($last < $end && $this->ratio[$last + 1] !== null) {
            $last++;
        }

        return $last;
    }

    /** @return list<int> samples whose ratio lies off the plateau */
    private function off(Dwell $dwell, int $last): array
    {
        $tolerance = max(self::DEVIATIONS * $dwell->noise, self::SMALLEST * abs($dwell->ratio));
        [$low, $high] = [$dwell->ratio - $tolerance, $dwell->ratio + $tolerance];
        $off = [];
        $inside = 0;
        for ($k = max(0, $dwell->steadyFirst - self::NEIGHBOURS); $k <= $last; $k++) {
            $ahead = $k + self::NEIGHBOURS <= $last ? $this->ratio[$k + self::NEIGHBOURS] : null;
            $inside = $ahead !== null && $ahead >= $low && $ahead <= $high ? $inside + 1 : 0;
            // Where all near it lie inside, so does their median.
            if ($k < $dwell->steadyFirst || $inside > 2 * self::NEIGHBOURS) {
                continue;
            }
            $middle = $this->middle($k, $last);
            if ($middle !== null && abs($middle - $dwell->ratio) > $tolerance) {
                $off[] = $k;
            }
        }

        return $off;
    }

    /** The median of the ratio round a sample, none after the last; null: nothing was read. */
    private function middle(int $k, int $last): ?float
    {
        $r = $this->ratio;
        if ($k + self::NEIGHBOURS <= $last && isset($r[$k - 2], $r[$k - 1], $r[$k], $r[$k + 1], $r[$k + 2])) {
            return Signal::medianOfFive($r[$k - 2], $r[$k - 1], $r[$k], $r[$k + 1], $r[$k + 2]);
        }
        $near = $this->near($r, $k, $last);

        return $near === [] ? null : Signal::median($near);
    }

    /**
     * @param  list<?float>  $values
     * @return list<float>
     */
    private function near(array $values, int $k, int $last): array
    {
        $from = max(0, $k - self::NEIGHBOURS);
        $count = min($last, $k + self::NEIGHBOURS) - $from + 1;

        return array_values(array_filter(array_slice($values, $from, $count), is_float(...)));
    }

    /**
     * @param  list<int>  $off  samples, rising
     * @return list<array{int, int}> first and last sample of each stretch
     */
    private static function runs(array $off): array
    {
        $runs = [];
        foreach ($off as $k) {
            $last = array_key_last($runs);
            if ($last !== null && $runs[$last][1] === $k - 1) {
                $runs[$last][1] = $k;
            } else {
                $runs[] = [$k, $k];
            }
        }

        return $runs;
    }

    /** @return array{gear: string, from_s: float, to_s: float, slip_rpm: float, slip_pct: float} */
    private function slip(Dwell $dwell, int $from, int $to): array
    {
        $most = $share = 0.0;
        for ($k = $from; $k <= $to; $k++) {
            $synchronous = abs($dwell->ratio * $this->output[$k]);
            $slip = abs(abs($this->turbine[$k]) - $synchronous);
            if ($slip > $most) {
                [$most, $share] = [$slip, $synchronous > 0.0 ? (100.0 * $slip) / $synchronous : 0.0];
            }
        }

        return [
            'gear' => $dwell->gear,
            'from_s' => $from / $this->rate,
            'to_s' => $to / $this->rate,
            'slip_rpm' => $most,
            'slip_pct' => $share,
        ];
    }
}
