<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\BadInput;

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

    /**
     * @param  list<string>  $channels  what each row must have beside its time
     * @param  float  $rate  samples a second
     * @param  float  $end  seconds the run was to take
     */
    public function __construct(
        private readonly array $channels,
        private readonly float $rate,
        private readonly float $end,
    ) {
    }

    /**
     * @param  mixed  $time  seconds from the start, a number or its text
     * @param  array<string, mixed>  $values  channel => value
     *
     * @throws BadInput for what is no number, lies outside the run or between two samples, or runs backwards
     */
    public function add(mixed $time, array $values): void
    {
        $t = self::number($time, 't_s');
        $n = (int) round($t * $this->rate);
        if ($t < -1.0 / $this->rate || $n > $this->expected() || abs($t * $this->rate - $n) > self::JITTER) {
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
        foreach ($this->channels as $channel) {
            $value = $values[$channel] ?? null;
            // Nearly all are numbers; what is none is named by the slower way.
            $number = is_string($value) && is_numeric($value) ? (float) $value : NAN;
            $this->values[$channel][] = $number - $number === 0.0 ? $number : self::number($value, $channel);
        }
    }

    /** Samples the run was to have, the first and the last among them. */
    public function expected(): int
    {
        return (int) round($this->end * $this->rate) + 1;
    }

    public function lost(): int
    {
        return max(0, $this->expected() - count($this->numbers));
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
        foreach ([...$this->numbers, $this->expected()] as $n) {
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

    private static function number(mixed $value, string $channel): float
    {
        $n = is_string($value) && is_numeric($value) ? (float) $value : $value;
        if ((! is_int($n) && ! is_float($n)) || ! is_finite((float) $n)) {
            $shown = is_string($value) ? '"'.mb_strimwidth($value, 0, 40, '…').'"' : get_debug_type($value);
            throw new BadInput('type', "The channel $channel holds $shown where a number belongs.", "/$channel");
        }

        return (float) $n;
    }
}
