<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * The test rig with a unit on it: drive motor, converter with its clutch, train, pump and line, load brake, oil, and
 * the sensors one reads it by. Integrated in steps of a millisecond, sampled 200 times a second.
 *
 * Speeds in rad/s inside, torques in N.m, pressures in kPa.
 */
final class Rig
{
    public const CHANNELS = [
        'input_rpm', 'turbine_rpm', 'output_rpm', 'input_nm', 'output_nm', 'line_kpa', 'apply_kpa', 'lockup_kpa',
        'lube_kpa', 'temp_degc', 'cooler_degc', 'cooler_lpm',
    ];

    public const RATE_HZ = 200;

    private const STEP_S = 0.001;

    private const RPM = 9.549296585513721;

    /** Standard deviation of each sensor, and the step it is read in. */
    private const NOISE = [
        'input_rpm' => [1.2, 0.25], 'turbine_rpm' => [1.2, 0.25], 'output_rpm' => [0.6, 0.25],
        'input_nm' => [0.6, 0.05], 'output_nm' => [1.2, 0.1], 'line_kpa' => [4.0, 0.5], 'apply_kpa' => [4.0, 0.5],
        'lockup_kpa' => [4.0, 0.5], 'lube_kpa' => [1.5, 0.1], 'temp_degc' => [0.05, 0.02],
        'cooler_degc' => [0.05, 0.02], 'cooler_lpm' => [0.04, 0.01],
    ];

    private const IDLE = 78.0;

    private const FASTEST = 330.0;

    private const MOTOR_NM = 270.0;

    private const OUTPUT_INERTIA = 4.5;

    /** The load brake at full. */
    private const BRAKE_NM = 500.0;

    /** How long a downshift may wait for the turbine to come up to the lower gear, seconds. */
    private const RUN_UP_S = 0.6;

    private const EASE_S = 0.8;

    /** What lets go waits no longer for what comes, once that ought to be home, seconds. */
    private const TOO_LATE_S = 0.35;

    public float $time = 0.0;

    /** What was asked last. */
    private bool $parked = false;

    private string $gear = 'N';

    private float $throttle = 0.0;

    private float $load = 0.25;

    private bool $lockup = false;

    private bool $held = false;

    /** The control asks the line for all it has, whatever the throttle says. */
    private bool $full = false;

    public bool $turns = false;

    private readonly Train $train;

    /** @var array<string, Holder> */
    private array $holders = [];

    private float $line = 0.0;

    private float $flow = 0.0;

    private float $lock = 0.0;

    private float $temperature;

    private float $cooler;

    private string $tap = '';

    /** @var array{at: float, from: string, off: list<string>, on: list<string>, up: bool}|null */
    private ?array $shift = null;

    /** Until then the drive gives way, as engines do while a lower gear takes hold. */
    private float $easeUntil = 0.0;

    private float $outputTorque = 0.0;

    private float $inputTorque = 0.0;

    private int $random;

    /** @var array<string, float> last value of a sensor that is stuck */
    private array $stuck = [];

    private int $steps = 0;

    /** @param  float  $level  share of its oil that is in the unit */
    public function __construct(private readonly Built $unit, int $seed, private readonly float $level = 1.0)
    {
        $train = $unit->file['train'];
        $joins = ['LU' => ['imp', $train['input']], 'HB' => [$train['output'], 'case']];
        foreach ($train['elements'] as $element) {
            $joins[$element['id']] = [$element['a'], $element['b']];
        }
        $inertias = ['imp' => 0.28, $train['input'] => 0.13, $train['output'] => self::OUTPUT_INERTIA];
        $this->train = new Train($train['sets'], $joins, $inertias);
        foreach ($unit->holders as $id => $as) {
            $this->holders[$id] = new Holder($as);
        }
        $this->random = ($seed * 2654435761 + 12345) & 0x7FFFFFFF;
        $this->temperature = 58.0 + 4.0 * $this->even();
        $this->cooler = $this->temperature - 6.0;
    }

    /**
     * One order of the desk.
     *
     * @param  array<string, mixed>  $order  gear, range, throttle, load, lockup, hold, line
     *
     * @throws \InvalidArgumentException for what this unit cannot do
     */
    public function order(array $order): void
    {
        $this->turns = true;
        $share = static fn (mixed $asked): float => max(0.0, min(1.0, (float) $asked));
        $this->throttle = $share($order['throttle'] ?? $this->throttle);
        $this->load = $share($order['load'] ?? $this->load);
        $is = static fn (string $what, string $on, bool $now): bool => ($order[$what] ?? ($now ? $on : '')) === $on;
        $this->lockup = $is('lockup', 'on', $this->lockup);
        $this->held = $is('hold', 'on', $this->held);
        $this->full = $is('line', 'full', $this->full);
        $asked = $order['range'] ?? $order['gear'] ?? null;
        $asked === null || $this->select((string) $asked);
    }

    private function select(string $asked): void
    {
        $this->parked = $asked === 'P';
        $gear = match ($asked) {
            'D' => (string) array_key_first($this->unit->ratios),
            'P' => 'N',
            default => $asked,
        };
        isset($this->unit->chart[$gear]) || $gear === 'N'
            || throw new \InvalidArgumentException("The unit has no gear \"$gear\".");
        $this->change($this->unit->valves[$gear] ?? $gear);
    }

    private function change(string $to): void
    {
        $from = $this->gear;
        if ($from === $to) {
            return;
        }
        $friction = fn (string $gear): array => array_values(array_intersect(
            $this->unit->chart[$gear] ?? [],
            array_keys($this->holders),
        ));
        // What an earlier change left undone is done with now.
        $on = array_values(array_diff($friction($to), array_keys(array_filter(
            $this->holders,
            static fn (Holder $h): bool => $h->on,
        ))));
        $off = array_values(array_diff(array_keys(array_filter(
            $this->holders,
            static fn (Holder $h): bool => $h->on,
        )), $friction($to)));
        $ratio = $this->unit->ratios;
        $drives = isset($ratio[$from], $ratio[$to]) && ($ratio[$from] > 0.0) === ($ratio[$to] > 0.0);
        $up = $drives && abs($ratio[$to]) < abs($ratio[$from]);
        $this->shift = ['at' => $this->time, 'from' => $from, 'off' => $off, 'on' => $on, 'up' => $up];
        foreach ($on as $id) {
            $this->holders[$id]->on = true;
            $this->holders[$id]->waits = $drives && ! $up;
            $this->tap = $id;
        }
        $drives || $this->release($off);
        $this->gear = $to;
    }

    /** @param  list<string>  $off */
    private function release(array $off): void
    {
        foreach ($off as $id) {
            $this->holders[$id]->on = false;
            $this->holders[$id]->waits = false;
        }
    }

    /** Lets go, or takes hold, when the change in hand is ripe for it. */
    private function follow(): void
    {
        if ($this->shift === null) {
            return;
        }
        $since = $this->time - $this->shift['at'];
        $late = $this->unit->late["{$this->shift['from']}-$this->gear"] ?? 0.0;
        if ($this->shift['up'] || $late > 0.0) {
            $this->handOver($this->shift['on'], $this->shift['off'], $since, $late);
        } else {
            $this->runUp($this->shift['on'], $this->shift['off'], $since);
        }
    }

    /**
     * Upwards: what goes lets go when what comes can carry.
     *
     * @param  list<string>  $on
     * @param  list<string>  $off
     */
    private function handOver(array $on, array $off, float $since, float $late): void
    {
        $expected = 0.0;
        $ripe = true;
        foreach ($on as $id) {
            $holder = $this->holders[$id];
            $expected = max($expected, $holder->expected($this->line));
            $share = $this->unit->shares[$this->gear][$id] ?? 1.0;
            $needs = $holder->pressureFor($share * max(20.0, 0.9 * $this->inputTorque));
            $ripe = $ripe && $holder->pressure >= $needs;
        }
        $isLate = $late > 0.0 && $since <= $expected + $late;
        if (! $isLate && $since > 0.02 && ($ripe || $since > $expected + self::TOO_LATE_S)) {
            $this->release($off);
            $this->shift = null;
        }
    }

    /**
     * Downwards: what goes lets go, the turbine runs up, and what comes takes hold where it meets the lower gear.
     *
     * @param  list<string>  $on
     * @param  list<string>  $off
     */
    private function runUp(array $on, array $off, float $since): void
    {
        if ($off !== []) {
            // The lower gear's piston is home before the higher gear lets go.
            $home = max([0.0, ...array_map(fn (string $id): float => $this->holders[$id]->expected($this->line), $on)]);
            if ($since >= 0.9 * $home) {
                $this->release($off);
                $this->shift['off'] = [];
            }

            return;
        }
        $ratio = $this->unit->ratios[$this->gear] ?? null;
        $input = $this->train->speed($this->unit->file['train']['input']);
        $output = $this->train->speed($this->unit->file['train']['output']);
        if ($ratio === null || abs($input) >= 0.9 * abs($ratio * $output) || $since > self::RUN_UP_S) {
            foreach ($on as $id) {
                $this->holders[$id]->waits = false;
            }
            $this->easeUntil = $this->time + self::EASE_S;
            $this->shift = null;
        }
    }

    /**
     * Runs on to the next sample and reads it.
     *
     * @return list<float> time and channels
     */
    public function sample(): array
    {
        for ($k = 0; $k < 1000 / self::RATE_HZ; $k++) {
            $this->advance();
        }

        return $this->read();
    }

    private function advance(): void
    {
        $dt = self::STEP_S;
        $this->steps++;
        $this->time = $this->steps * $dt;
        $train = $this->train;
        $in = $this->unit->file['train']['input'];
        $out = $this->unit->file['train']['output'];
        [$impeller, $turbine, $output] = [$train->speed('imp'), $train->speed($in), $train->speed($out)];
        $thin = 0.75 + ($this->temperature - 60.0) / 160.0;
        $this->pump($impeller, $thin);
        $this->follow();
        $flow = 0.0;
        $carry = [];
        foreach ($this->holders as $id => $holder) {
            $flow += $holder->fill($this->line, $dt, $thin);
            $carry[$id] = $holder->carries($train->slip($id));
        }
        $this->flow += ($flow - $this->flow) * $dt / 0.02;
        $carry += $this->unit->oneWays;
        $carry['LU'] = $this->lockUp($dt, $train->slip('LU'));
        $carry['HB'] = $this->held || $this->parked ? [-4000.0, 4000.0] : [0.0, 0.0];
        [$takes, $gives] = self::converter($impeller, $turbine);
        $wanted = self::IDLE + $this->throttle * (self::FASTEST - self::IDLE);
        $most = self::MOTOR_NM * (0.3 + 0.7 * $this->throttle) * $this->eased();
        $motor = $this->turns ? max(-45.0, min($most, 6.0 * ($wanted - $impeller) + 8.0)) : 0.0;
        $drag = 3.0 + 0.004 * $this->line + 0.01 * $impeller;
        $brake = ($this->load * self::BRAKE_NM + 4.0) * tanh($output / 4.0) + 0.06 * $output;
        $train->step($dt, [
            'imp' => $motor - $takes - min($drag, $drag * abs($impeller) / 5.0),
            $in => $gives - 0.012 * $turbine,
            $out => -$brake - 0.01 * $output,
        ], $carry);
        $this->inputTorque = $takes + $train->torque('LU', $dt) * -1.0;
        $after = $train->speed($out);
        $torque = $brake + self::OUTPUT_INERTIA * ($after - $output) / $dt;
        $this->outputTorque += ($torque - $this->outputTorque) * $dt / 0.006;
        $lost = max(0.0, $motor * $impeller - $this->outputTorque * $after);
        $cooling = 120.0 * ($this->temperature - 52.0) * (0.15 + 0.85 * $this->unit->whole['cooler']);
        $this->temperature += $dt * ($lost - max(0.0, $cooling)) / 21_000.0;
        $this->cooler += ($this->temperature - 7.0 * $this->unit->whole['cooler'] - $this->cooler) * $dt / 6.0;
    }

    /** The line as it is, not as its sensor reads it, kPa. */
    public function line(): float
    {
        return $this->line;
    }

    /** Share of its torque the drive gives while a lower gear takes hold: little, then all of it again. */
    private function eased(): float
    {
        return max(0.2, min(1.0, 1.0 - 1.6 * ($this->easeUntil - $this->time) / self::EASE_S));
    }

    private function pump(float $impeller, float $thin): void
    {
        $whole = $this->unit->whole;
        $pressure = $this->unit->file['pressure'];
        $full = (float) ($pressure['full_kpa'][$this->gear] ?? max(array_diff_key($pressure['full_kpa'], ['R' => 0])));
        $boost = $this->full ? 1.0 : min(1.0, 0.12 + 1.1 * $this->throttle);
        $asked = ($pressure['idle_kpa'] + ($full - $pressure['idle_kpa']) * $boost) * $whole['line'];
        // Below nine tenths of its oil the filter begins to draw air, below four it has nothing else.
        $drawn = max(0.0, min(1.0, ($this->level - 0.4) / 0.5));
        $oil = $whole['oilLost_s'] > 0.0 ? max(0.0, min(1.0, ($whole['oilLost_s'] - $this->time) / 15.0 + 1.0)) : 1.0;
        // A gear pump of 20 cm3 a turn against gaps that let through more the thinner the oil is.
        $swept = max(0.0, $impeller) / (2.0 * M_PI) * 20.0;
        $brings = $swept * (1.0 - 0.35 * $whole['air']) * min($drawn, 0.15 + 0.85 * $oil);
        $needs = 55.0 * $thin * sqrt(max(1.0, $asked) / 1000.0) + 30.0 + $this->flow;
        $reached = $brings >= $needs ? $asked : $asked * ($brings / $needs) ** 2;
        if ($whole['spikes'] > 0.0) {
            $reached *= 1.0 + 0.9 * $whole['spikes'] * max(0.0, sin(2.0 * M_PI * 0.9 * $this->time)) ** 12;
        }
        if ($whole['air'] > 0.0) {
            $reached *= 1.0 + 0.28 * $whole['air'] * sin(2.0 * M_PI * 11.0 * $this->time) * $this->even();
        }
        $this->line += ($reached - $this->line) * self::STEP_S / 0.03;
    }

    /** @return array{float, float} */
    private function lockUp(float $dt, float $slip): array
    {
        $whole = $this->unit->whole;
        $drives = isset($this->unit->ratios[$this->gear]) && $this->line > 200.0;
        $applies = $this->lockup && $drives && $this->unit->lockUp > 0.0;
        $this->lock += ((float) $applies - $this->lock) * $dt / 0.14;
        if ($this->lock < 0.01) {
            return [0.0, 0.0];
        }
        // The valve that hunts lets go and takes hold slowly; a lining that shudders loses grip as it slides, in beats.
        $swing = fn (float $hz): float => 0.5 + 0.5 * sin(2.0 * M_PI * $hz * $this->time);
        $hunt = $whole['hunt'] > 0.0 ? 1.0 - 0.96 * $whole['hunt'] * $swing(0.8) : 1.0;
        $mu = $this->unit->lockUpLining->at($slip);
        if ($whole['shudder'] > 0.0) {
            $mu = (0.3 + 0.5 * exp(-abs($slip) / 4.0)) * (1.0 - 0.55 * $whole['shudder'] * $swing(9.0));
            $mu *= 1.0 - 0.5 * $whole['shudder'];
        }
        $most = $this->unit->lockUp * max(0.0, $this->line - 60.0) * $this->lock * $whole['lockup'] * $hunt * $mu;

        return [-$most, $most];
    }

    /**
     * Torque the impeller takes and the turbine gives; capacity and torque ratio over the speed ratio as such curves
     * run.
     *
     * @return array{float, float}
     */
    private static function converter(float $impeller, float $turbine): array
    {
        if ($impeller < 1.0) {
            return [0.0, 0.0];
        }
        $ratio = $turbine / $impeller;
        if ($ratio > 1.0) {
            $takes = -0.0035 * $impeller ** 2 * min(1.0, 6.0 * ($ratio - 1.0));

            return [$takes, $takes];
        }
        $capacity = 0.0058 * (1.0 - max(0.0, $ratio) ** 5 * 0.45) * min(1.0, 7.0 * (1.0 - $ratio));
        $takes = $capacity * $impeller ** 2;

        return [$takes, $takes * ($ratio < 0.86 ? 2.05 - 1.2 * max(0.0, $ratio) : 1.0)];
    }

    /** @return list<float> time and channels as they are now */
    public function read(): array
    {
        $train = $this->unit->file['train'];
        $true = [
            'input_rpm' => $this->train->speed('imp') * self::RPM,
            'turbine_rpm' => $this->train->speed($train['input']) * self::RPM,
            'output_rpm' => $this->train->speed($train['output']) * self::RPM,
            'input_nm' => $this->inputTorque * (1.0 + $this->unit->whole['torqueCell']),
            'output_nm' => $this->outputTorque,
            'line_kpa' => $this->line,
            'apply_kpa' => $this->tap === '' ? 0.0 : $this->holders[$this->tap]->pressure,
            'lockup_kpa' => $this->lock * max(0.0, $this->line - 60.0),
            'lube_kpa' => 30.0 + 0.12 * $this->line,
            'temp_degc' => $this->temperature,
            'cooler_degc' => $this->cooler,
            'cooler_lpm' => $this->unit->whole['cooler'] * 7.5 * sqrt(max(0.0, $this->line - 150.0) / 600.0),
        ];
        $row = [$this->time];
        foreach ($true as $channel => $value) {
            [$sigma, $step] = self::NOISE[$channel];
            $value += $sigma * $this->normal();
            if (isset($this->unit->sensors[$channel])) {
                $value = $this->ill($channel, $value, ...$this->unit->sensors[$channel]);
            }
            $row[] = round(round($value / $step) * $step, 3);
        }

        return $row;
    }

    private function ill(string $channel, float $value, string $how, float $severity): float
    {
        // Sensors fall ill some way into the run.
        if ($this->time < 12.0) {
            return $value;
        }

        return match ($how) {
            'dead-sensor' => 0.0,
            'stuck-sensor' => $this->stuck[$channel] ??= $value,
            default => $value * (1.0 + 0.004 * $severity * ($this->time - 12.0)),
        };
    }

    private function even(): float
    {
        $this->random = (1103515245 * $this->random + 12345) & 0x7FFFFFFF;

        return $this->random / 2147483648.0;
    }

    /** Sum of four even numbers, near enough to a normal one. */
    private function normal(): float
    {
        return ($this->even() + $this->even() + $this->even() + $this->even() - 2.0) * 1.7320508;
    }

    public function gear(): string
    {
        return $this->gear;
    }
}
