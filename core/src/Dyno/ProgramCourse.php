<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * A program while it runs: which step is due, what it waits for, how late that makes all that follows, and how it was
 * done in the end. A step that waits (`until`: a channel at least or at most so much, within so many seconds) is done
 * once that is so; where it does not come in time the run is over.
 *
 * @phpstan-type Until array{channel: string, atLeast?: float, atMost?: float, within_s: float}
 * @phpstan-type Waiting array{t: float, gear?: string, throttle?: float, load?: float, lockup?: string, hold?: string,
 *     line?: string, until?: Until}
 */
final class ProgramCourse
{
    /** Orders go out so long before they are due, so that they are done on time, seconds. */
    private const AHEAD_S = 2.0;

    /** Step that is ordered next. */
    private int $step = 0;

    private float $late = 0.0;

    private ?string $stopped = null;

    /** @var array<int, float> step => time at which it was done */
    private array $done = [];

    /** @param  list<Waiting>  $steps  in the order of time */
    public function __construct(private readonly array $steps, private readonly float $end)
    {
    }

    /** With every wait as long as it may be, seconds. */
    public function longest(): float
    {
        return $this->end + array_sum(array_map(
            static fn (array $s): float => $s['until']['within_s'] ?? 0.0,
            $this->steps,
        ));
    }

    /** As far as is known now, seconds. */
    public function end(): float
    {
        return $this->end + $this->late;
    }

    /** Whether a step still to come waits for something: until then nobody knows when the run ends. */
    public function waits(): bool
    {
        return array_filter(
            array_slice($this->steps, $this->step),
            static fn (array $s): bool => isset($s['until']),
        ) !== [];
    }

    /** By how much its waits have put off what follows so far, seconds. */
    public function late(): float
    {
        return $this->late;
    }

    /** Step that waits for something now; null: none does. */
    public function waitingAt(float $now): ?int
    {
        $step = $this->steps[$this->step] ?? null;

        return isset($step['until']) && $now >= $step['t'] + $this->late ? $this->step : null;
    }

    /** Why the run cannot go on; null: it can. */
    public function stopped(): ?string
    {
        return $this->stopped;
    }

    public function did(int $step, float $t): void
    {
        $this->done[$step] = $t;
    }

    /** @return list<Waiting> with the times at which they were done */
    public function asDone(): array
    {
        $steps = $this->steps;
        foreach ($this->done as $n => $t) {
            isset($steps[$n]) && ($steps[$n]['t'] = $t);
        }

        return $steps;
    }

    /**
     * @param  array<string, float>  $sample  channel => value, the last one that came
     * @return list<array<string, mixed>> orders that are due: number, time and what is asked for
     */
    public function due(float $now, array $sample): array
    {
        $orders = [];
        while ($this->stopped === null && isset($this->steps[$this->step])) {
            $step = $this->steps[$this->step];
            if (! $this->comes($step, $now, $sample)) {
                break;
            }
            $orders[] = ['n' => $this->step, 'at' => $step['t'] + $this->late] + array_diff_key(
                $step,
                ['t' => 0, 'until' => 0],
            );
            $this->step++;
        }

        return $orders;
    }

    /**
     * @param  Waiting  $step
     * @param  array<string, float>  $sample
     */
    private function comes(array $step, float $now, array $sample): bool
    {
        $at = $step['t'] + $this->late;
        if (! isset($step['until'])) {
            return $at <= $now + self::AHEAD_S;
        }
        if ($now < $at) {
            return false;
        }
        ['channel' => $channel, 'within_s' => $within] = $step['until'];
        $value = $sample[$channel] ?? null;
        $least = $step['until']['atLeast'] ?? -INF;
        $most = $step['until']['atMost'] ?? INF;
        if ($value !== null && $value >= $least && $value <= $most) {
            $this->late += $now - $at;

            return true;
        }
        if ($now > $at + $within) {
            $n = $this->step + 1;
            $wanted = is_finite($least) ? "at least $least" : "at most $most";
            $shown = $value === null ? 'nothing was read' : sprintf('it was %.4g', $value);
            $this->stopped = "Step $n waited $within s for $channel to be $wanted; $shown.";
        }

        return false;
    }
}
