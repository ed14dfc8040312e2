<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * A test program gone through without a unit: every step with what will be in force while it lasts, which shifts come
 * and how often, what is read and what is not, and what a program of the trade has that this one lacks. What cannot be
 * run at all is refused with its place.
 *
 * @phpstan-import-type Step from CellReadings
 *
 * @phpstan-type Planned array{t: float, seconds: float, gear: string, throttle: float, load: float, lockup: bool,
 *     held: bool, full: bool, read: bool, waits: array{for: string, within_s: float}|null}
 * @phpstan-type Shift array{from: string, to: string, loads: list<float>}
 */
final readonly class ProgramPlan
{
    private const LONGEST_S = 3600.0;

    private const MOST_STEPS = 300;

    /** Ranges of the lever beside the gears of the chart. */
    private const RANGES = ['P', 'N', 'R', 'D'];

    /** As long as a stall may last where nobody reckoned what it heats (common practice, no source), seconds. */
    private const STALL_S = 5.0;

    /** Every shift comes at so many loads. */
    private const LOADS = 2;

    /**
     * @param  list<Planned>  $steps
     * @param  array<string, float>  $ratios  gear => ratio
     * @param  list<string>  $windows  readings that have a window
     */
    private function __construct(
        private array $steps,
        private array $ratios,
        private array $windows,
        private ?float $stall,
    ) {
    }

    /**
     * @param  array<string, float>  $ratios  gear => ratio
     * @param  float|null  $stall  seconds the converter may be held before something in it is too hot (launch.hold)
     *
     * @throws BadInput for a program no rig can run
     */
    public static function read(Input $in, array $ratios, ?float $stall = null): self
    {
        $end = $in->number('end', above: 0.0, max: self::LONGEST_S);
        $steps = $in->list('steps', 1);
        count($steps) <= self::MOST_STEPS ||
            throw $in->at('steps')->fail('length', 'A program has '.self::MOST_STEPS.' steps at most.');
        $planned = [];
        foreach ($steps as $step) {
            $before = $planned === [] ? null : $planned[count($planned) - 1];
            $planned[] = self::step($step, $before, $ratios, $end);
        }
        foreach ($planned as $n => $step) {
            $seconds = ($planned[$n + 1]['t'] ?? $end) - $step['t'];
            $planned[$n]['seconds'] = $seconds;
            $planned[$n]['read'] = $seconds >= CellReadings::SETTLES_S;
        }

        $windows = array_keys($in->optional('reference')?->asMap() ?? []);

        return new self($planned, $ratios, array_map(strval(...), $windows), $stall);
    }

    /**
     * @param  Planned|null  $before
     * @param  array<string, float>  $ratios
     * @return Planned
     */
    private static function step(Input $in, ?array $before, array $ratios, float $end): array
    {
        $t = $in->number('t', min: 0.0);
        self::mustFollow($in, $t, $before['t'] ?? -1.0, $end);
        $gears = array_values(array_unique([...self::RANGES, ...array_map(strval(...), array_keys($ratios))]));

        return [
            't' => $t,
            'seconds' => 0.0,
            'gear' => $in->has('gear') ? $in->choice('gear', $gears) : $before['gear'] ?? 'P',
            'throttle' => $in->numberOr('throttle', $before['throttle'] ?? 0.0, min: 0.0, max: 1.0),
            'load' => $in->numberOr('load', $before['load'] ?? 0.0, min: 0.0, max: 1.0),
            'lockup' => self::isAsked($in, 'lockup', ['on', 'off'], $before['lockup'] ?? false),
            'held' => self::isAsked($in, 'hold', ['on', 'off'], $before['held'] ?? false),
            'full' => self::isAsked($in, 'line', ['full', 'auto'], $before['full'] ?? false),
            'read' => false,
            'waits' => $in->has('until') ? self::until($in->at('until')) : null,
        ];
    }

    /** @return array{for: string, within_s: float} */
    private static function until(Input $in): array
    {
        $channel = $in->choice('channel', array_keys(ForeignCsv::CHANNELS));
        [$least, $most] = [$in->numberIf('atLeast'), $in->numberIf('atMost')];
        if (($least === null) === ($most === null)) {
            throw $in->fail('wait', 'A step waits for a channel to be at least so much, or at most: say one of them.');
        }

        return [
            'for' => $least === null ? "$channel at most $most" : "$channel at least $least",
            'within_s' => $in->number('within_s', above: 0.0, max: self::LONGEST_S),
        ];
    }

    private static function mustFollow(Input $in, float $t, float $before, float $end): void
    {
        $t < $end || throw $in->at('t')->fail('time', "The step at $t s comes after the end of the program, $end s.");
        $t > $before || throw $in->at('t')->fail('time', "The step at $t s comes no later than the one before it.");
    }

    /** @param  array{string, string}  $words  what asks for it, and what lets go of it */
    private static function isAsked(Input $in, string $field, array $words, bool $else): bool
    {
        return $in->has($field) ? $in->choice($field, $words) === $words[0] : $else;
    }

    /**
     * @return array{seconds: float, waits_s: float, steps: list<Planned>, shifts: list<Shift>, missing: list<string>,
     *     cautions: list<string>, windowsWithout: list<string>}
     */
    public function report(): array
    {
        $last = $this->steps[count($this->steps) - 1];

        return [
            'seconds' => $last['t'] + $last['seconds'],
            'waits_s' => array_sum(array_map(fn (array $s): float => $s['waits']['within_s'] ?? 0.0, $this->steps)),
            'steps' => $this->steps,
            'shifts' => $this->shifts(),
            'missing' => [...$this->shiftsMissing(), ...$this->lineMissing(), ...$this->readingsMissing()],
            'cautions' => $this->stalls(),
            'windowsWithout' => array_values(array_filter($this->windows, fn (string $w): bool => ! $this->reads($w))),
        ];
    }

    /** @return list<Shift> changes between gears that drive alike */
    private function shifts(): array
    {
        $shifts = [];
        foreach ($this->steps as $n => $step) {
            $from = $this->steps[$n - 1]['gear'] ?? '';
            $to = $step['gear'];
            $alike = isset($this->ratios[$from], $this->ratios[$to]) &&
                ($this->ratios[$from] > 0.0) === ($this->ratios[$to] > 0.0);
            if ($alike && $from !== $to) {
                $shifts["$from-$to"] ??= ['from' => $from, 'to' => $to, 'loads' => []];
                $shifts["$from-$to"]['loads'][] = $step['throttle'];
            }
        }

        return array_values($shifts);
    }

    /** @return list<string> */
    private function shiftsMissing(): array
    {
        $loads = [];
        foreach ($this->shifts() as $shift) {
            $loads["$shift[from]-$shift[to]"] = count(array_unique($shift['loads']));
        }
        $ahead = array_filter($this->ratios, static fn (float $r): bool => $r > 0.0);
        $forward = array_map(strval(...), array_keys($ahead));
        $missing = [];
        foreach (array_slice($forward, 1) as $n => $upper) {
            foreach (["$forward[$n]-$upper", "$upper-$forward[$n]"] as $shift) {
                $found = $loads[$shift] ?? 0;
                $found >= self::LOADS || $missing[] = $found === 0
                    ? "The shift $shift never comes."
                    : "The shift $shift comes at one load only.";
            }
        }

        return $missing;
    }

    /** @return list<string> the line is read in park, reverse, neutral and drive, at idle and at full command */
    private function lineMissing(): array
    {
        $driving = array_diff(array_map(strval(...), array_keys($this->ratios)), ['R']);
        $ranges = ['park' => ['P'], 'reverse' => ['R'], 'neutral' => ['N'], 'drive' => ['D', ...$driving]];
        $missing = [];
        foreach ($ranges as $range => $gears) {
            foreach (['at idle' => false, 'at full command' => true] as $at => $full) {
                $read = array_filter($this->steps, static fn (array $s): bool => $s['read'] && $s['full'] === $full &&
                    $s['throttle'] === 0.0 && in_array($s['gear'], $gears, true));
                $read === [] && $missing[] = "The line is never read in $range $at.";
            }
        }

        return $missing;
    }

    /** @return list<string> what programs of the trade have (handbook of the shop; common practice, no source) */
    private function readingsMissing(): array
    {
        $has = fn (callable $does): bool => array_filter($this->steps, $does) !== [];
        $forward = array_diff(array_map(strval(...), array_keys($this->ratios)), ['R']);
        $drives = fn (array $s): bool => in_array($s['gear'], $forward, true);
        $waits = array_map(static fn (array $s): string => $s['waits']['for'] ?? '', $this->steps);
        $wanted = [
            'No step waits until the oil is warm.' => preg_grep('/^temp_degc at least/', $waits) !== [],
            'Reverse is never engaged with the output held, so its time is not taken.' => $has(
                fn (array $s) => $s['held'] && $s['gear'] === 'R',
            ),
            'No forward gear is engaged with the output held, so its time is not taken.' => $has(
                fn (array $s) => $s['held'] && $drives($s),
            ),
            'Reverse never drives.' => $has(
                fn (array $s) => ! $s['held'] && $s['gear'] === 'R' && $s['throttle'] > 0.0,
            ),
            'The lock-up is never on for long enough to be read.' => $has(fn (array $s) => $s['lockup'] && $s['read']),
            'The unit never coasts in gear.' => $has(
                fn (array $s) => $drives($s) && ! $s['held'] && $s['throttle'] === 0.0 && $s['t'] > 0.0,
            ),
            'The cooler is never read.' => $has(fn (array $s) => $s['read'] && $s['throttle'] >= CellReadings::FLOWS),
        ];

        return array_keys(array_filter($wanted, fn (bool $there): bool => ! $there));
    }

    /** @return list<string> */
    private function stalls(): array
    {
        $most = $this->stall ?? self::STALL_S;
        $why = $this->stall === null ? 'as is usual' : 'by its heat, behind the hardest engine';
        $cautions = [];
        foreach ($this->steps as $n => $step) {
            if ($step['held'] && isset($this->ratios[$step['gear']]) && $step['throttle'] > 0.0) {
                $cautions[] = sprintf(
                    'Step %d stalls the converter for %.1f s%s; %.1f s are allowed, %s.',
                    $n + 1,
                    $step['seconds'],
                    $step['seconds'] > $most ? ', and it takes harm' : '',
                    $most,
                    $why,
                );
            }
        }

        return $cautions;
    }

    /** Whether this program makes the reading a window is for: shifts by their name and time, steps by their number. */
    private function reads(string $window): bool
    {
        if (preg_match('/^shift:(.+)#(\d+):/', $window, $m) === 1) {
            foreach ($this->shifts() as $shift) {
                if ("$shift[from]-$shift[to]" === $m[1]) {
                    return count($shift['loads']) >= (int) $m[2];
                }
            }

            return false;
        }
        if (preg_match('/^(line|efficiency):(\d+)$/', $window, $m) === 1) {
            return $this->steps[(int) $m[2]]['read'] ?? false;
        }

        return true;
    }
}
