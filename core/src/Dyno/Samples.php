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

    /** @var list<int> numbers of the samples, in their order */
    private array $numbers = [];

    /** @var array<string, list<float>> channel => values, one a number */
    private array $values = [];

    private int $last = -1;

    private int $twice = 0;

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
        $this->last = $this->numbers[] = $n;
        foreach ($this->places as $channel => $place) {
            $value = $row[$place] ?? '';
            // Nearly all are numbers; what is none is named by the slower way.
            $number = is_numeric($value) ? (float) $value : NAN;
            $this->values[$channel][] = $number - $number === 0.0 ? $number : self::number($value, $channel);
        }
    }

    public function expected(): int
    {
        return $this->expected;
    }

    public function lost(): int
    {
        return max(0, $this->expected - count($this->numbers));
    }

    public function doubled(): int
    {
        return $this->twice;
    }

    /** @return list<array{from_s: float, to_s: float, samples: int}> stretches that are missing */
    public function gaps(): array
    {
        $gaps = [];
        $before = -1;
        foreach ([...$this->numbers, $this->expected] as $n) {
            if ($n > $before + 1) {
                $gaps[] = [
                    'from_s' => ($before + 1) / $this->rate,
                    'to_s' => ($n - 1) / $this->rate,
                    'samples' => $n - $before - 1,
                ];
            }
            $before = $n;
        }

        return $gaps;
    }

    /**
     * @return array<string, list<float>> channel => evenly spaced values; a gap is a straight line between its ends
     *
     * @throws BadInput when nothing was recorded
     */
    public function channels(): array
    {
        $numbers = $this->numbers;
        $numbers !== [] || throw new BadInput('empty', 'The recording holds no sample.', '');
        if ($this->last === count($numbers) - 1) {
            return $this->values;
        }
        $out = [];
        foreach ($this->values as $channel => $read) {
            $values = array_fill(0, $numbers[0], $read[0]);
            foreach ($numbers as $i => $n) {
                $values[] = $read[$i];
                $next = $numbers[$i + 1] ?? $n + 1;
                for ($k = $n + 1; $k < $next; $k++) {
                    $share = ($k - $n) / ($next - $n);
                    $values[] = (1.0 - $share) * $read[$i] + $share * $read[$i + 1];
                }
            }
            $out[$channel] = $values;
        }

        return $out;
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
