<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * Every number one reads off a test run, each with a name of its own that is the same in every run of a program: the
 * shifts one by one, what the line does at each step, how a range comes in, lock-up, cooler, sensors. They are held
 * against what good units of the kind give.
 *
 * @phpstan-type Step array{t: float, gear?: string, throttle?: float, load?: float, lockup?: string, hold?: string,
 *     line?: string}
 * @phpstan-type Shift array{from: string, to: string, start_s: float, duration_s: float, delay_s?: float,
 *     flare_rpm: float, tieUpDepth_pct: float}
 * @phpstan-type Reading array{key: string, check: string, where: string, unit: string, value: float|null, at_s: float}
 */
final class CellReadings
{
    /** A step is read over its last stretch, seconds, and only where it lasts longer than this. */
    public const READ_S = 0.8;

    public const SETTLES_S = 1.8;

    /** A range has come in when the turbine is down to this share of its free speed, the output held. */
    private const ENGAGED = 0.3;

    /** From this throttle on the cooler must be fed. */
    public const FLOWS = 0.3;

    /** Below this slip the converter clutch is in, rev/min. */
    private const LOCKED_RPM = 25.0;

    /** Shudder shows between these frequencies (common practice, no source), Hz. */
    private const SHUDDER_HZ = [4.0, 25.0];

    /** While the drive turns faster than this a sensor that stands still is ill, rev/min. */
    private const TURNS_RPM = 300.0;

    /** @var list<Reading> */
    private array $out = [];

    /**
     * @param  array<string, list<float>>  $channels
     * @param  list<Step>  $steps  in the order of time, as they were done
     * @param  array<string, float>  $ratios
     */
    private function __construct(
        private readonly float $rate,
        private readonly array $channels,
        private readonly array $steps,
        private readonly array $ratios,
    ) {
    }

    /**
     * @param  array<string, list<float>>  $channels  all of one length, at an even rate
     * @param  list<Step>  $steps
     * @param  array<string, float>  $ratios  gear => ratio
     * @param  array<string, mixed>  $analysis  as TraceAnalysis reports it
     * @return list<Reading>
     */
    public static function of(float $rate, array $channels, array $steps, array $ratios, array $analysis): array
    {
        $readings = new self($rate, $channels, $steps, $ratios);
        /** @var array{shifts: list<Shift>} $analysis */
        $readings->shifts($analysis['shifts']);
        $readings->steps();
        $readings->engagements();
        $readings->lockup();
        $readings->sensors();

        return array_map(
            static fn (array $r): array => $r['key'] === 'cooler' ? ['value' => -$r['value']] + $r : $r,
            $readings->out,
        );
    }

    private function add(string $key, string $check, string $where, string $unit, ?float $value, float $at): void
    {
        $this->out[] = [
            'key' => $key, 'check' => $check, 'where' => $where, 'unit' => $unit, 'value' => $value, 'at_s' => $at,
        ];
    }

    /** Keeps the highest of all that is read under this name; what is worse when low is kept as its negative. */
    private function worst(string $key, string $check, string $where, string $unit, float $value, float $at): void
    {
        $before = array_search($key, array_column($this->out, 'key'), true);
        if ($before === false || $value > $this->out[$before]['value']) {
            $this->out = array_values(array_filter($this->out, static fn (array $r): bool => $r['key'] !== $key));
            $this->add($key, $check, $where, $unit, $value, $at);
        }
    }

    /** @param  list<Shift>  $shifts */
    private function shifts(array $shifts): void
    {
        $times = [];
        foreach ($this->changes() as [$at, $from, $to]) {
            $name = "$from-$to";
            $time = $times[$name] = ($times[$name] ?? 0) + 1;
            $found = null;
            foreach ($shifts as $shift) {
                $since = $shift['start_s'] - $at;
                if ($shift['from'] === $from && $shift['to'] === $to && $since > -0.1 && $since < 4.0) {
                    $found = $shift;
                    break;
                }
            }
            $where = $time === 1 ? $name : "$name, time $time";
            $key = "shift:$name#$time";
            $this->add("$key:duration", 'Shift duration', $where, 's', $found['duration_s'] ?? null, $at);
            $this->add("$key:delay", 'Shift delay', $where, 's', $found['delay_s'] ?? null, $at);
            $this->add("$key:flare", 'Flare', $where, 'rev/min', $found['flare_rpm'] ?? null, $at);
            $this->add("$key:tie-up", 'Tie-up', $where, '%', $found['tieUpDepth_pct'] ?? null, $at);
        }
    }

    /** @return list<array{float, string, string}> time, from, to of each change between gears that drive alike */
    private function changes(): array
    {
        $out = [];
        $before = null;
        foreach ($this->steps as $step) {
            if (! isset($step['gear'])) {
                continue;
            }
            $to = $step['gear'];
            $same = isset($this->ratios[$before ?? ''], $this->ratios[$to]) &&
                ($this->ratios[$before] > 0.0) === ($this->ratios[$to] > 0.0);
            if ($same && $before !== $to) {
                $out[] = [$step['t'], (string) $before, $to];
            }
            $before = $to;
        }

        return $out;
    }

    /** What line, cooler and torque are at the end of every step that lasts. */
    private function steps(): void
    {
        $gear = 'N';
        $throttle = 0.0;
        $locked = false;
        $line = 'auto';
        foreach ($this->steps as $n => $step) {
            [$gear, $throttle] = [$step['gear'] ?? $gear, $step['throttle'] ?? $throttle];
            $line = $step['line'] ?? $line;
            $locked = isset($step['lockup']) ? $step['lockup'] === 'on' : $locked;
            $end = $this->steps[$n + 1]['t'] ?? count($this->channels['input_rpm']) / $this->rate;
            if ($end - $step['t'] < self::SETTLES_S) {
                continue;
            }
            $at = $line === 'full' ? 'at full command' : sprintf('at %d %%', round(100.0 * $throttle));
            $where = sprintf('%s %s, step %d', $gear, $at, $n + 1);
            $this->line($n, $where, $end);
            $flow = $throttle < self::FLOWS ? [] : $this->window('cooler_lpm', $end - self::READ_S, $end);
            $flow === [] || $this->worst('cooler', 'Cooler flow', $where, 'L/min', -Signal::mean($flow), $end);
            $locked && isset($this->ratios[$gear]) && $this->efficiency($n, $where, abs($this->ratios[$gear]), $end);
        }
    }

    private function line(int $step, string $where, float $end): void
    {
        $line = $this->window('line_kpa', $end - self::READ_S, $end);
        if ($line === []) {
            return;
        }
        $mean = Signal::mean($line);
        $off = array_map(static fn (float $p): float => abs($p - $mean), $line);
        $this->add("line:$step", 'Line pressure', $where, 'kPa', $mean, $end);
        $this->worst('ripple', 'Line pressure ripple', $where, 'kPa', Signal::mean($off), $end);
        $this->worst('peak', 'Line pressure above its mean', $where, 'kPa', max($line) - $mean, $end);
    }

    /** Torque out over torque in times the ratio: more than 1 is no gearbox, it is a torque cell that lies. */
    private function efficiency(int $n, string $where, float $ratio, float $end): void
    {
        $in = $this->window('input_nm', $end - self::READ_S, $end);
        $out = $this->window('output_nm', $end - self::READ_S, $end);
        if ($in !== [] && $out !== [] && Signal::mean($in) > 10.0) {
            $share = Signal::mean($out) / (Signal::mean($in) * $ratio);
            $this->add("efficiency:$n", 'Torque out over torque in', $where, '', $share, $end);
        }
    }

    /** @return list<float> */
    private function window(string $channel, float $from, float $to): array
    {
        $first = max(0, (int) ceil($from * $this->rate));

        return array_slice($this->channels[$channel] ?? [], $first, max(0, (int) floor($to * $this->rate) - $first));
    }

    /** How long a range takes to come in, the output held. */
    private function engagements(): void
    {
        $held = false;
        foreach ($this->steps as $step) {
            $held = isset($step['hold']) ? $step['hold'] === 'on' : $held;
            $gear = $step['gear'] ?? '';
            if (! $held || ! isset($this->ratios[$gear])) {
                continue;
            }
            $turbine = $this->channels['turbine_rpm'] ?? [];
            $at = (int) round($step['t'] * $this->rate);
            $free = $turbine[max(0, $at - 1)] ?? 0.0;
            $found = null;
            for ($k = $at; $k < count($turbine) && $k < $at + 4.0 * $this->rate && $free > 100.0; $k++) {
                if ($turbine[$k] < self::ENGAGED * $free) {
                    $found = $k / $this->rate - $step['t'];
                    break;
                }
            }
            $this->add("engage:$gear@{$this->count($gear)}", 'Time to engage', "range $gear", 's', $found, $step['t']);
        }
    }

    /** How often this range was read before. */
    private function count(string $gear): int
    {
        $key = "engage:$gear@";

        return count(array_filter($this->out, static fn (array $r): bool => str_starts_with($r['key'], $key)));
    }

    private function lockup(): void
    {
        $from = null;
        foreach ($this->steps as $step) {
            if (($step['lockup'] ?? null) === 'on') {
                $from = $step['t'];
            } elseif (($step['lockup'] ?? null) === 'off' && $from !== null) {
                $this->lockupBetween($from, $step['t']);

                return;
            }
        }
    }

    private function lockupBetween(float $from, float $to): void
    {
        $slip = array_map(
            static fn (float $in, float $turbine): float => $in - $turbine,
            $this->window('input_rpm', $from, $to),
            $this->window('turbine_rpm', $from, $to),
        );
        $in = null;
        foreach ($slip as $k => $s) {
            $near = array_slice($slip, $k, (int) (0.1 * $this->rate));
            if (abs($s) < self::LOCKED_RPM && max([0.0, ...array_map(abs(...), $near)]) < self::LOCKED_RPM) {
                $in = $k / $this->rate;
                break;
            }
        }
        $this->add('lockup:time', 'Lock-up comes', 'lock-up', 's', $in, $from);
        $settled = array_slice($slip, (int) (1.0 * $this->rate));
        if ($settled === [] || count($settled) < $this->rate) {
            return;
        }
        $mean = Signal::mean($settled);
        $this->add('lockup:slip', 'Lock-up slip', 'lock-up', 'rev/min', abs($mean), $from);
        [$amplitudes, $bins] = Signal::spectrum(array_map(static fn (float $s): float => $s - $mean, $settled));
        $power = 0.0;
        foreach ($amplitudes as $k => $a) {
            $hz = ($k * $this->rate) / $bins;
            $power += $hz >= self::SHUDDER_HZ[0] && $hz <= self::SHUDDER_HZ[1] ? $a * $a : 0.0;
        }
        // Parseval: what a band of the spectrum holds of the mean square.
        $rms = sqrt((2.0 * $power) / ($bins * count($settled)));
        $this->add('lockup:shudder', 'Lock-up shudder, 4 to 25 Hz', 'lock-up', 'rev/min', $rms, $from);
    }

    /** The longest stretch over which a sensor does not move at all while the drive turns. */
    private function sensors(): void
    {
        foreach ($this->channels as $name => $values) {
            [$longest, $at, $since] = [0, 0, 0];
            foreach ($values as $k => $value) {
                if ($k > 0 && ($value !== $values[$k - 1] || $this->channels['input_rpm'][$k] < self::TURNS_RPM)) {
                    $since = $k;
                }
                if ($k - $since > $longest) {
                    [$longest, $at] = [$k - $since, $since];
                }
            }
            $still = $longest / $this->rate;
            $this->worst('sensor', 'Sensor stands still', $name, 's', $still, $at / $this->rate);
        }
    }
}
