<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * A simulated transmission on a simulated rig: a large output inertia holds the output speed while the ratio changes,
 * so that shifts, flare, tie-up, slip and hunting show as they do on a real trace. Seeded, so a run can be repeated.
 */
final class Specimen
{
    /** From the command until anything moves, seconds. */
    private const SHIFT_DELAY_S = 0.22;

    /** What is wrong with the specimen => how it shows. */
    public const FAULTS = [
        'sound' => [],
        'flare-2-3' => ['flare' => ['2-3' => 260.0]],
        'slip-4' => ['slip' => ['4' => 1.06]],
        'tie-up-1-2' => ['tieUp' => ['1-2' => 0.06]],
        'low-line' => ['line' => 0.55],
        'hunting' => ['hunt' => 95.0],
        'slow-shifts' => ['slow' => 4.0],
    ];

    private int $random;

    /** @var array<string, mixed> */
    private array $fault;

    private float $output = 0.0;

    private float $turbine = 850.0;

    private float $input = 900.0;

    private float $temperature = 62.0;

    private float $lock = 0.0;

    private string $gear = 'N';

    private ?string $from = null;

    private float $shiftStart = 0.0;

    /**
     * @param  array<string, float>  $ratios
     * @param  list<array{t: float, gear?: string, throttle?: float, lockup?: string}>  $program  in order of time
     */
    public function __construct(
        private readonly array $ratios,
        private readonly array $program,
        string $fault,
        string $seed,
    ) {
        $this->fault =
            self::FAULTS[$fault] ?? throw new \InvalidArgumentException("There is no specimen \"$fault\".");
        $this->random = crc32($seed) & 0x7FFFFFFF;
    }

    /**
     * @return \Generator<int, array{float, float, float, float, float, float}> t, input, turbine, output rev/min,
     *     line kPa, temperature degC
     */
    public function run(float $rate, float $end): \Generator
    {
        $next = 0;
        $throttle = 0.0;
        $lockup = false;
        $dt = 1.0 / $rate;
        for ($k = 0; $k <= (int) round($end * $rate); $k++) {
            $t = $k / $rate;
            while (isset($this->program[$next]) && $this->program[$next]['t'] <= $t + 1e-9) {
                $step = $this->program[$next++];
                $throttle = $step['throttle'] ?? $throttle;
                $lockup = isset($step['lockup']) ? $step['lockup'] === 'on' : $lockup;
                if (isset($step['gear']) && $step['gear'] !== $this->gear) {
                    [$this->from, $this->gear, $this->shiftStart] = [$this->gear, $step['gear'], $t];
                }
            }
            $this->advance($t, $dt, $throttle, $lockup);
            $line = (480.0 + 1050.0 * $throttle) * ($this->fault['line'] ?? 1.0) + $this->noise(12.0);
            yield $k => [
                round($t, 4),
                round($this->input + $this->noise(2.0), 2),
                round($this->turbine + $this->noise(1.5), 2),
                round(max(0.0, $this->output + ($this->output > 1 ? $this->noise(0.8) : 0.0)), 2),
                round($line, 1),
                round($this->temperature, 2),
            ];
        }
    }

    private function advance(float $t, float $dt, float $throttle, bool $lockup): void
    {
        $asked = 900.0 + 2600.0 * $throttle;
        $locks = $lockup && $this->gear !== 'N';
        $this->lock += (((float) $locks - $this->lock) * $dt) / 0.15;
        $this->temperature += $dt * (0.08 + 0.12 * $throttle);
        $done = $this->from === null ? 1.0 : ($t - $this->shiftStart - self::SHIFT_DELAY_S) / $this->shiftSeconds();
        $ratio = $this->ratioOf($this->gear);
        $before = $this->from === null ? null : $this->ratios[$this->from] ?? null;
        match (true) {
            $ratio === null => $this->coast($dt, $asked),
            $before === null && $done < 1.0 => $this->engage($dt, $ratio, $done),
            $before !== null && $done < 1.0 => $this->shift($dt, abs($before), $ratio, $done),
            default => $this->drive($dt, $asked, $ratio),
        };
        $this->followInput($t, $dt, $asked);
    }

    /** The input follows the turbine through the converter or its clutch. */
    private function followInput(float $t, float $dt, float $asked): void
    {
        $hunt = ($this->fault['hunt'] ?? 0.0) * sin(2.0 * M_PI * 1.3 * $t) * $this->lock;
        $open = $this->gear === 'N' ? $asked : max($this->turbine * 1.045, min($asked, $this->turbine + 600.0));
        $target = $this->lock * ($this->turbine + 9.0 + $hunt) + (1.0 - $this->lock) * $open;
        $this->input += ($target - $this->input) * min(1.0, $dt / ($this->lock > 0.9 ? 0.02 : 0.12));
    }

    private function shiftSeconds(): float
    {
        return 0.42 * ($this->fault['slow'] ?? 1.0);
    }

    /** The ratio the gear runs at, slip included; null in neutral. */
    private function ratioOf(string $gear): ?float
    {
        $ratio = $this->ratios[$gear] ?? null;

        return $ratio === null ? null : abs($ratio) * ($this->fault['slip'][$gear] ?? 1.0);
    }

    private function coast(float $dt, float $asked): void
    {
        $this->output = max(0.0, $this->output - ($this->output * $dt) / 1.4 - 4.0 * $dt);
        $this->turbine += ((0.96 * $asked - $this->turbine) * $dt) / 0.3;
    }

    /** From neutral: the turbine is brought down to the standing output. */
    private function engage(float $dt, float $ratio, float $done): void
    {
        if ($done > 0.0) {
            $this->turbine += ($ratio * $this->output - $this->turbine) * min(1.0, $dt / 0.08);
            $this->output += 60.0 * $dt;
        }
    }

    /** @param  float  $done  share of the shift that is over; below 0 while nothing moves yet */
    private function shift(float $dt, float $before, float $ratio, float $done): void
    {
        $name = "$this->from-$this->gear";
        $flare = $this->fault['flare'][$name] ?? 0.0;
        $gap = $flare > 0.0 ? 0.35 : 0.0; // before the next element takes hold
        $taken = max(0.0, min(1.0, ($done - $gap) / (1.0 - $gap)));
        $dip = $this->fault['tieUp'][$name] ?? 0.0;
        if ($done > 0.0) {
            $this->output -= ($this->output * $dip * M_PI * sin(2.0 * M_PI * $done) * $dt) / $this->shiftSeconds();
        }
        $now = $before + (($ratio - $before) * (1.0 - cos(M_PI * $taken))) / 2.0;
        $runsUp = $done > 0.0 && $done < $gap ? $flare * sin((M_PI * $done) / $gap) : 0.0;
        $this->turbine = $now * $this->output + $runsUp;
    }

    private function drive(float $dt, float $asked, float $ratio): void
    {
        $this->from = null;
        $target = ($asked * (1.0 - 0.045 * (1.0 - $this->lock))) / $ratio;
        $this->output += (($target - $this->output) * $dt) / 2.2;
        $this->turbine = $ratio * $this->output;
    }

    /** Uniform noise of the given half width from a linear congruential generator. */
    private function noise(float $width): float
    {
        $this->random = (1103515245 * $this->random + 12345) % 2147483648;

        return 2.0 * $width * ($this->random / 2147483648 - 0.5);
    }
}
