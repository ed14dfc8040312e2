<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\BadInput;

use function abs;
use function is_numeric;
use function round;

/**
 * Puts recorded samples where their time says they belong, and names what is not as a recording should be: what was
 * lost, what came twice, what ran backwards. Gaps are bridged by straight lines so that the rest keeps its time; what
 * was not measured never passes (JudgeTrace::completeness).
 */
final class Samples
{
    /** Time may be off its sample by this share of the spacing. */
    private const JITTER = 0.45;

    /** @var array<string, list<float>> channel => values at an even rate, gaps bridged, without what was forgotten */
    private array $values = [];

    /** Samples in each list. */
    private int $held = 0;

    private int $last = -1;

    private int $count = 0;

    private int $twice = 0;

    /** @var list<array{int, int}> first and last sample of each stretch that is missing so far */
    private array $missing = [];

    /** Samples the run was to have, the first and the last among them. */
    private readonly int $expected;

    /** Where a row has its time. */
    private readonly int $time;

    /** @var array<string, int> channel => where a row has it */
    private readonly array $places;

    /**
     * @param  list<string>  $header  what a row holds, its time as t_s
     * @param  float  $rate  samples a second
     * @param  float  $end  seconds the run was to take
     * @param  list<string>|null  $channels  those that are wanted; all of them without
     *
     * @throws BadInput for a header without the time or a channel
     */
    public function __construct(
        array $header,
        private readonly float $rate,
        private readonly float $end,
        ?array $channels = null,
    ) {
        $places = array_flip($header);
        foreach (['t_s', ...$channels ?? []] as $needed) {
            isset($places[$needed]) ||
                throw new BadInput('missing', "The recording has no column \"$needed\".", "/$needed");
        }
        $this->expected = (int) round($end * $rate) + 1;
        $this->time = $places['t_s'];
        $this->places = $channels === null
            ? array_diff_key($places, ['t_s' => 0])
            : array_intersect_key($places, array_flip($channels));
    }

    /**
     * @param  list<string>  $row  texts of the numbers, as the header has them; the time in seconds from the start
     *
     * @throws BadInput for what is no number, lies outside the run or between two samples, or runs backwards
     */
    public function add(array $row): void
    {
        $t = self::number($row[$this->time] ?? '', 't_s');
        $n = (int) round($t * $this->rate);
        if ($t < -1.0 / $this->rate || $n > $this->expected || abs($t * $this->rate - $n) > self::JITTER) {
            throw new BadInput('time', "The sample at $t s belongs to no place of a run of $this->end s.", '/t_s');
        }
        if ($n < $this->last) {
            throw new BadInput('time', "The time runs backwards at $t s.", '/t_s');
        }
        if ($n === $this->last) {
            $this->twice++;

            return;
        }
        $n === $this->last + 1 || $this->bridge($n, $row);
        foreach ($this->places as $channel => $place) {
            $value = $row[$place] ?? '';
            // Nearly all are numbers; what is none is named by the slower way.
            $number = is_numeric($value) ? (float) $value : NAN;
            $this->values[$channel][] = $number - $number === 0.0 ? $number : self::number($value, $channel);
        }
        $this->last = $n;
        $this->count++;
        $this->held++;
    }

    /**
     * A straight line from the last sample to this one; before the first, what it shows.
     *
     * @param  list<string>  $row
     */
    private function bridge(int $n, array $row): void
    {
        $this->missing[] = [$this->last + 1, $n - 1];
        $steps = $n - $this->last;
        foreach ($this->places as $channel => $place) {
            $now = self::number($row[$place] ?? '', $channel);
            $before = $this->values[$channel][$this->held - 1] ?? $now;
            for ($k = 1; $k < $steps; $k++) {
                $share = $k / $steps;
                $this->values[$channel][] = (1.0 - $share) * $before + $share * $now;
            }
        }
        $this->held += $steps - 1;
    }

    public function expected(): int
    {
        return $this->expected;
    }

    public function lost(): int
    {
        return max(0, $this->expected - $this->count);
    }

    public function doubled(): int
    {
        return $this->twice;
    }

    /** @return list<array{from_s: float, to_s: float, samples: int}> stretches that are missing */
    public function gaps(): array
    {
        $missing = $this->missing;
        if ($this->last + 1 < $this->expected) {
            $missing[] = [$this->last + 1, $this->expected - 1];
        }

        return array_map(fn (array $gap): array => [
            'from_s' => $gap[0] / $this->rate,
            'to_s' => $gap[1] / $this->rate,
            'samples' => $gap[1] - $gap[0] + 1,
        ], $missing);
    }

    /** How many samples the channels hold now. */
    public function held(): int
    {
        return $this->held;
    }

    /**
     * @return array<string, list<float>> channel => evenly spaced values; a gap is a straight line between its ends
     *
     * @throws BadInput when nothing was recorded
     */
    public function channels(): array
    {
        $this->last >= 0 || throw new BadInput('empty', 'The recording holds no sample.', '');

        return $this->values;
    }

    /** The first so many are of no use any more; the last one is kept, a gap after it is bridged from there. */
    public function forget(int $count): void
    {
        $count = min($count, $this->held - 1);
        foreach ($this->values as $channel => $values) {
            $this->values[$channel] = array_slice($values, $count);
        }
        $this->held -= $count;
    }

    private static function number(string $value, string $channel): float
    {
        $number = is_numeric($value) ? (float) $value : NAN;
        if (! is_finite($number)) {
            $shown = mb_strimwidth($value, 0, 40, '…');
            throw new BadInput('type', "The channel $channel holds \"$shown\" where a number belongs.", "/$channel");
        }

        return $number;
    }
}
