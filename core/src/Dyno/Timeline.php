<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\BadInput;

/** The samples' own times: where each belongs on an even grid, and what is missing between them. */
final readonly class Timeline
{
    /** Further apart than this many periods, something is missing. */
    private const GAP = 1.5;

    /** A recording with more missing than this is no recording. */
    private const MOST = 1_000_000;

    /** Keys of a report that are points of time. */
    private const TIMES = [
        'from_s',
        'to_s',
        'start_s',
        'end_s',
        'linearStart_s',
        'linearEnd_s',
        'flarePeak_s',
        'deepest_s',
        't',
    ];

    /**
     * @param  non-empty-list<float>  $times  of each sample, seconds
     * @param  non-empty-list<int>  $places  of each sample on the grid
     * @param  list<array{from_s: float, to_s: float, missing: int}>  $gaps  from the sample before to the one after
     */
    private function __construct(
        private array $times,
        private float $rate,
        private array $places,
        public array $gaps,
    ) {
    }

    /**
     * @param  non-empty-list<float>  $times  seconds
     * @param  float  $rate  samples a second
     *
     * @throws BadInput at /channels/t_s/N for time that runs backwards or comes twice
     */
    public static function of(array $times, float $rate): self
    {
        $places = [0];
        $gaps = [];
        for ($n = 1; $n < count($times); $n++) {
            $apart = ($times[$n] - $times[$n - 1]) * $rate;
            if ($apart <= 0.0) {
                $how = $apart < 0.0 ? 'runs backwards' : 'comes twice';
                throw new BadInput('time', "The time $how at sample $n ($times[$n] s).", "/channels/t_s/$n");
            }
            $missing = $apart > self::GAP ? max(1, (int) round(min($apart, 1e9)) - 1) : 0;
            $places[] = $places[$n - 1] + $missing + 1;
            if ($places[$n] > self::MOST) {
                throw new BadInput('length', "Too much is missing before sample $n.", "/channels/t_s/$n");
            }
            if ($missing > 0) {
                $gaps[] = ['from_s' => $times[$n - 1], 'to_s' => $times[$n], 'missing' => $missing];
            }
        }

        return new self($times, $rate, $places, $gaps);
    }

    /** @return array<int, true> places at which nothing was recorded */
    public function missing(): array
    {
        $missing = [];
        foreach ($this->places as $n => $place) {
            for ($k = $place - 1; $n > 0 && $k > $this->places[$n - 1]; $k--) {
                $missing[$k] = true;
            }
        }

        return $missing;
    }

    /**
     * The samples at their places. What is missing holds the value before, so that the list is whole; it is never read
     * as measured.
     *
     * @param  list<float>  $values
     * @return list<float>
     */
    public function spread(array $values): array
    {
        $out = [];
        foreach ($values as $n => $value) {
            while ($n > 0 && count($out) < $this->places[$n]) {
                $out[] = $values[$n - 1];
            }
            $out[] = $value;
        }

        return $out;
    }

    /** Seconds on the grid, counted from the first sample, at which a time of the recording lies. */
    public function onGrid(float $time): float
    {
        return self::between($time, $this->times, $this->places, $this->rate) / $this->rate;
    }

    /** The recording's own time of a point on the grid. */
    private function recorded(float $seconds): float
    {
        return self::between($seconds * $this->rate, $this->places, $this->times, 1.0 / $this->rate);
    }

    /**
     * Where y stands when x does: on the straight line between two neighbours, beyond the ends with the slope given.
     *
     * @param  non-empty-list<float|int>  $xs  rising
     * @param  non-empty-list<float|int>  $ys
     */
    private static function between(float $x, array $xs, array $ys, float $slope): float
    {
        $last = count($xs) - 1;
        if ($x <= $xs[0] || $x >= $xs[$last]) {
            $end = $x <= $xs[0] ? 0 : $last;

            return $ys[$end] + ($x - $xs[$end]) * $slope;
        }
        [$low, $high] = [0, $last];
        while ($high - $low > 1) {
            $middle = intdiv($low + $high, 2);
            $x < $xs[$middle] ? ($high = $middle) : ($low = $middle);
        }

        return $ys[$low] + (($ys[$high] - $ys[$low]) * ($x - $xs[$low])) / ($xs[$high] - $xs[$low]);
    }

    /**
     * A report whose times count from the first sample, in the times of the recording.
     *
     * @template K of array-key
     *
     * @param  array<K, mixed>  $report
     * @return array<K, mixed>
     */
    public function moved(array $report): array
    {
        foreach ($report as $key => $value) {
            if (is_array($value)) {
                $report[$key] = $this->moved($value);
            } elseif (is_float($value) && in_array($key, self::TIMES, true)) {
                $report[$key] = $this->recorded($value);
            }
        }
        [$start, $end] = [$report['start_s'] ?? null, $report['end_s'] ?? null];
        if (isset($report['duration_s']) && is_float($start) && is_float($end)) {
            $report['duration_s'] = $end - $start;
        }

        return $report;
    }
}
