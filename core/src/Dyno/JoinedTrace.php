<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * The stretches of a run put together. Each is read with some of the one before it; what begins in its own part is its
 * own, a gear that goes on across a cut is one gear.
 *
 * @phpstan-import-type Lockup from LockupMeter
 * @phpstan-import-type Gear from TracePiece
 * @phpstan-import-type Event from TracePiece
 * @phpstan-import-type Line from TracePiece
 * @phpstan-import-type Warmth from TracePiece
 */
final class JoinedTrace
{
    private const KINDS = ['shifts' => 'start_s', 'unmeasured' => 'to_s', 'slips' => 'from_s', 'tieUps' => 'from_s',
        'dropouts' => 'from_s'];

    /** What is a time of the run. */
    private const TIMES = ['from_s', 'to_s', 'start_s', 'end_s', 'linearStart_s', 'linearEnd_s', 'flarePeak_s',
        'deepest_s'];

    /** @var list<Gear> */
    private array $gears = [];

    /** @var array<string, list<Event>> */
    private array $events = ['shifts' => [], 'unmeasured' => [], 'slips' => [], 'tieUps' => [], 'dropouts' => []];

    /** @var list<array{string, float, float}> */
    private array $stays = [];

    /** @var array<int, ?float> */
    private array $tails = [];

    /** @var Lockup|null */
    private ?array $lockup = null;

    /** @var list<array{code: string, message: string}> */
    private array $warnings = [];

    /** @var list<array{code: string, message: string}> */
    private array $cuts = [];

    /** @var Line|null */
    private ?array $line = null;

    /** @var Warmth|null */
    private ?array $temperature = null;

    /** @param  float  $rate  samples a second */
    public function __construct(private readonly float $rate, private readonly Commands $commands)
    {
    }

    /**
     * @param  float  $offset  where the stretch begins, seconds of the run
     * @param  int  $samples  the same in samples
     * @param  float  $since  its own part begins after this, seconds of the run; -INF: it is the first
     */
    public function add(TracePiece $piece, float $offset, int $samples, float $since): void
    {
        foreach (self::KINDS as $kind => $begins) {
            $this->events($kind, $begins, $piece, $offset, $since);
        }
        $this->gears($piece->gears, $offset, $since);
        foreach ($piece->stays as [$gear, $from, $to]) {
            $this->stays[] = [$gear, $from + $offset, $to + $offset];
        }
        foreach ($piece->tails as $i => $tail) {
            if (($this->commands->gears[$i + 1]['t'] ?? INF) > $since) {
                $this->tails[$i] = $tail;
            }
        }
        $this->lockup = self::longer($this->lockup, $piece->lockup, $offset);
        $this->warnings = $piece->warnings;
        $this->line = $piece->line === null ? null : self::summed($this->line, $piece->line);
        $warmth = $piece->temperature;
        $this->temperature = $warmth === null
            ? null
            : self::fitted($this->temperature, ['middle' => $warmth['middle'] + $samples] + $warmth);
    }

    /** Nothing was quiet enough to cut on: what happened there may be missing. */
    public function cutAnywhere(float $at): void
    {
        $this->cuts[] = [
            'code' => 'cut',
            'message' => sprintf('Cut at %.1f s, where no gear stood: a shift there may be missing.', $at),
        ];
    }

    /** What begins after the cut is known better by the stretch that follows it. */
    private function events(string $kind, string $begins, TracePiece $piece, float $offset, float $since): void
    {
        $this->events[$kind] = array_values(
            array_filter($this->events[$kind], static fn (array $e): bool => $e[$begins] <= $since),
        );
        foreach ($piece->events[$kind] as $event) {
            $event = self::later($event, $offset);
            $event[$begins] > $since ? $this->events[$kind][] = $event : $this->goesOn($kind, $event, $since);
        }
    }

    /**
     * @param  Lockup|null  $a
     * @param  Lockup|null  $b
     * @return Lockup|null the one that was read over the longer time
     */
    private static function longer(?array $a, ?array $b, float $offset): ?array
    {
        if ($b === null || ($a !== null && $a['to_s'] - $a['from_s'] >= $b['to_s'] - $b['from_s'])) {
            return $a;
        }

        return ['from_s' => $b['from_s'] + $offset, 'to_s' => $b['to_s'] + $offset] + $b;
    }

    /**
     * @param  list<Gear>  $new  of the next stretch
     */
    private function gears(array $new, float $offset, float $since): void
    {
        $this->gears = array_values(array_filter($this->gears, static fn (array $g): bool => $g['from_s'] <= $since));
        foreach ($new as $gear) {
            $gear['from_s'] += $offset;
            $gear['to_s'] += $offset;
            $last = count($this->gears) - 1;
            $open = $this->gears[$last] ?? null;
            if ($gear['from_s'] > $since || $open === null) {
                $this->stood($open, $gear, $since);
                $this->gears[] = $gear;
            } elseif ($gear['to_s'] > $since && $open['gear'] === $gear['gear'] && $open['to_s'] >= $since) {
                [$before, $after] = [$since - $open['from_s'], $gear['to_s'] - $since];
                foreach (['ratioMean', 'ratioErrorPct'] as $mean) {
                    $open[$mean] = ($before * $open[$mean] + $after * $gear[$mean]) / ($before + $after);
                }
                $this->gears[$last] = ['to_s' => $gear['to_s']] + $open;
            }
        }
    }

    /**
     * A change of gear across a cut where the output stands cannot be measured, like any other.
     *
     * @param  Gear|null  $before
     * @param  Gear  $after
     */
    private function stood(?array $before, array $after, float $since): void
    {
        if ($before !== null && $before['to_s'] <= $since && $before['gear'] !== $after['gear']) {
            $this->events['unmeasured'][] = [
                'from' => $before['gear'],
                'to' => $after['gear'],
                'from_s' => $before['to_s'],
                'to_s' => $after['from_s'],
                'reason' => ShiftMeter::STOOD,
            ];
        }
    }

    /**
     * What began before the cut and goes on after it ends where the next stretch sees it end.
     *
     * @param  Event  $event
     */
    private function goesOn(string $kind, array $event, float $since): void
    {
        $last = count($this->events[$kind]) - 1;
        $open = $this->events[$kind][$last] ?? null;
        if ($kind === 'slips' && $open !== null && $event['to_s'] > $since && $open['gear'] === $event['gear'] &&
            $open['to_s'] >= $event['from_s']) {
            $more = $event['slip_rpm'] > $open['slip_rpm'] ? $event : $open;
            $this->events[$kind][$last] = [
                'to_s' => max($open['to_s'], $event['to_s']),
                'slip_rpm' => $more['slip_rpm'],
                'slip_pct' => $more['slip_pct'],
            ] + $open;
        }
    }

    /**
     * @param  Event  $event
     * @return Event its times those of the run
     */
    private static function later(array $event, float $offset): array
    {
        foreach (self::TIMES as $time) {
            if (isset($event[$time]) && is_float($event[$time])) {
                $event[$time] += $offset;
            }
        }

        return $event;
    }

    /**
     * @param  Line|null  $a
     * @param  Line  $b
     * @return Line
     */
    private static function summed(?array $a, array $b): array
    {
        if ($a === null) {
            return $b;
        }
        $gears = $a['gears'];
        foreach ($b['gears'] as $gear => [$sum, $count]) {
            [$before, $many] = $gears[$gear] ?? [0.0, 0];
            $gears[$gear] = [$before + $sum, $many + $count];
        }

        return [
            'min' => min($a['min'], $b['min']),
            'max' => max($a['max'], $b['max']),
            'sum' => $a['sum'] + $b['sum'],
            'count' => $a['count'] + $b['count'],
            'gears' => $gears,
        ];
    }

    /**
     * Sums of squares of two stretches about their common mean (T. F. Chan, G. H. Golub and R. J. LeVeque, 1979).
     *
     * @param  Warmth|null  $a
     * @param  Warmth  $b
     * @return Warmth
     */
    private static function fitted(?array $a, array $b): array
    {
        if ($a === null || $b['count'] === 0) {
            return $a === null ? $b : ['end' => $b['end'], 'max' => max($a['max'], $b['max'])] + $a;
        }
        $count = $a['count'] + $b['count'];
        $weight = ($a['count'] * $b['count']) / $count;
        [$along, $up] = [$b['middle'] - $a['middle'], $b['mean'] - $a['mean']];

        return [
            'start' => $a['start'],
            'end' => $b['end'],
            'max' => max($a['max'], $b['max']),
            'count' => $count,
            'middle' => $a['middle'] + ($along * $b['count']) / $count,
            'mean' => $a['mean'] + ($up * $b['count']) / $count,
            'sxx' => $a['sxx'] + $b['sxx'] + $along * $along * $weight,
            'sxy' => $a['sxy'] + $b['sxy'] + $along * $up * $weight,
        ];
    }

    /** @return array<string, mixed> as trace.analyse answers */
    public function report(): array
    {
        ['shifts' => $shifts, 'unmeasured' => $unmeasured, 'slips' => $slips, 'tieUps' => $tieUps] = $this->events;
        usort($unmeasured, static fn (array $a, array $b): int => $a['from_s'] <=> $b['from_s']);

        return [
            'gears' => $this->gears,
            'shifts' => $shifts,
            'unmeasured' => $unmeasured,
            'slips' => $slips,
            'tieUps' => $tieUps,
            'lockup' => $this->lockup,
            'notReached' => $this->notReached(),
            'dropouts' => $this->events['dropouts'],
            'warnings' => [...$this->warnings, ...$this->cuts],
        ] +
            ($this->line === null ? [] : ['pressure' => self::pressure($this->line)]) +
            ($this->temperature === null ? [] : ['temperature' => $this->warmed($this->temperature)]);
    }

    /**
     * Commanded gears the unit never settled in, with the ratio it ran at instead.
     *
     * @return list<array<string, mixed>>
     */
    private function notReached(): array
    {
        $out = [];
        foreach ($this->commands->gears as $i => ['t' => $t, 'gear' => $gear]) {
            $end = $this->commands->gears[$i + 1]['t'] ?? INF;
            foreach ($this->stays as [$stay, $from, $to]) {
                if ($stay === $gear && $to > $t && $from < $end) {
                    continue 2;
                }
            }
            if ($gear !== 'N' && $gear !== 'P' && ! in_array($t, $this->commands->held, true)) {
                $tail = $this->tails[$i] ?? null;
                $out[] = ['gear' => $gear, 't' => $t] + ($tail === null ? [] : ['ratioMean' => $tail]);
            }
        }

        return $out;
    }

    /**
     * @param  Line  $line
     * @return array<string, mixed>
     */
    private static function pressure(array $line): array
    {
        return [
            'min_kpa' => $line['min'],
            'max_kpa' => $line['max'],
            'mean_kpa' => $line['sum'] / $line['count'],
            'byGear_kpa' => (object) array_map(static fn (array $s): float => $s[0] / max(1, $s[1]), $line['gears']),
        ];
    }

    /**
     * @param  Warmth  $warmth
     * @return array<string, float>
     */
    private function warmed(array $warmth): array
    {
        return [
            'start_degc' => $warmth['start'],
            'end_degc' => $warmth['end'],
            'max_degc' => $warmth['max'],
            'rise_per_min' => ($warmth['sxy'] / $warmth['sxx']) * $this->rate * 60.0,
        ];
    }
}
