<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** Input and output while an upshift goes on, moved forward piece by piece; see ShiftFeel for the equations. */
final class ShiftMotion
{
    /** Three-point Gauss on [0, 1], nodes and weights: exact up to the fifth power, which is all that occurs. */
    private const GAUSS = [[0.1127016653792583, 5.0 / 18.0], [0.5, 8.0 / 18.0], [0.8872983346207417, 5.0 / 18.0]];

    /** Moments in each piece at which the curve is written down. */
    private const SAMPLES = 12;

    /** Torque at the input at which the on-coming element has taken over. */
    public readonly float $takeOver;

    public float $time = 0.0;

    /** Seconds until the on-coming element carries all; null while it does not. */
    public ?float $tookOver = null;

    /** N.m; it turns only where a piece begins or ends. */
    public float $lowestOutput = INF;

    /** The most the input ran up above the old gear, rad/s. */
    public float $flare = 0.0;

    public float $heat = 0.0;

    /** What the engine gave, J: without a road load it is the heat and what the speeds gained. */
    public float $work = 0.0;

    public float $lastTorque = 0.0;

    /** @var list<array{t: float, pressure_kpa: float, input_rpm: float, output_nm: float}> */
    public array $curve = [];

    private float $output;

    /** The old gear has let go. */
    private bool $free = false;

    private bool $finished = false;

    /**
     * @param  float|null  $letsGo seconds at which the off-going element lets go; null: at the moment it carries
     *     nothing
     */
    public function __construct(
        private readonly float $engine,
        private float $input,
        private readonly float $old,
        private readonly float $new,
        private readonly ShiftSetting $setting,
        private readonly ?float $letsGo,
    ) {
        $this->output = $input / $old;
        [$i, $j] = [$setting->inertia, $setting->load?->inertia()];
        $this->takeOver =
            $j === null ? $engine : ($engine * $j + $i * $old * $setting->road()) / ($j + $i * $old * $new);
    }

    public function done(): bool
    {
        return $this->finished;
    }

    /**
     * @param  array{seconds: float, root: float, rate: float}  $piece  pressure = line - (root - rate t)^2, kPa
     * @param  float  $perKpa  torque at the input for each kPa above $from
     */
    public function run(array $piece, float $line, float $perKpa, float $from): void
    {
        $law = ShiftPiece::of($piece, $line, $perKpa, $from);
        if ($this->tookOver === null && $law->presses && $law->middleTorque >= $this->takeOver) {
            $this->tookOver = $this->time;
        }
        $before = $this->free;
        $this->free = $this->hasLetGo();
        $speeds = new ShiftSpeeds($this->input, $this->output, $this->new, $this->rates(), $law);
        $meets = $this->free ? self::firstZero($speeds->slip(...), $law->seconds, $speeds->slipRate()) : null;
        $this->finished = $meets !== null;
        $seconds = $meets ?? $law->seconds;
        if (! is_finite($seconds)) {
            return; // at line pressure it neither takes over nor pulls the input down
        }
        foreach (self::GAUSS as [$node, $weight]) {
            $t = $node * $seconds;
            $this->heat += $weight * $seconds * $law->torque($t) * $speeds->slip($t);
            $this->work += $weight * $seconds * $this->engine * $speeds->input($t);
        }
        $this->write($law, $speeds, $seconds, $this->free === $before);
        $this->input = $speeds->input($seconds);
        $this->output = $speeds->output($seconds);
        $this->lastTorque = $law->torque($seconds);
        // The input stops running up where the element carries all of the engine, and a piece ends there.
        $this->flare = max($this->flare, $this->input - $this->old * $this->output);
        $this->time += $seconds;
    }

    private function hasLetGo(): bool
    {
        return $this->letsGo === null
            ? $this->tookOver !== null
            : $this->time >= $this->letsGo * (1.0 - 1e-9) - 1e-12;
    }

    /** Writes the curve of one piece, and the lowest torque at the output in it. */
    private function write(ShiftPiece $law, ShiftSpeeds $speeds, float $seconds, bool $sameGear): void
    {
        // The end of the piece before is not written twice, unless the pressure leaps there or the old gear lets go.
        $last = end($this->curve);
        $goesOn = $last !== false && $sameGear && abs($last['pressure_kpa'] - $law->pressure(0.0)) < 1e-6;
        for ($n = $goesOn ? 1 : 0; $n <= self::SAMPLES; $n++) {
            $t = ($seconds * $n) / self::SAMPLES;
            $torque = $law->torque($t);
            $output = $this->free
                ? $this->new * $torque
                : $this->old * ($this->engine - $this->setting->inertia * $speeds->inputRate($t)) -
                    ($this->old - $this->new) * $torque;
            $this->lowestOutput = min($this->lowestOutput, $output);
            $this->curve[] = [
                't' => $this->time + $t,
                'pressure_kpa' => $law->pressure($t),
                'input_rpm' => ($speeds->input($t) * 30.0) / M_PI,
                'output_nm' => $output,
            ];
        }
    }

    /**
     * What a finished shift was like.
     *
     * @param  float  $share  torque of the element for an input torque of 1
     * @param  float  $free  s at which the old gear let go
     * @param  float  $tookOver  s at which the element carried all
     * @return array{takeOver_s: float, duration_s: float, overlap_s: float, flare_rpm: float, torque_nm: float,
     *     energy_j: float, engineWork_j: float, meanPower_kw: float,
     *     outputTorque_nm: array{before: float, lowest: float, peak: float, after: float}, bump: float,
     *     curve: list<array{t: float, pressure_kpa: float, input_rpm: float, output_nm: float}>}
     */
    public function felt(float $share, float $free, float $tookOver): array
    {
        return [
            'takeOver_s' => $tookOver,
            'duration_s' => $this->time - $free,
            'overlap_s' => $free - $tookOver,
            'flare_rpm' => ($this->flare * 30.0) / M_PI,
            'torque_nm' => $share * $this->lastTorque,
            'energy_j' => $this->heat,
            'engineWork_j' => $this->work,
            'meanPower_kw' => $this->heat / max($this->time, 1e-12) / 1000.0,
            'outputTorque_nm' => [
                'before' => $this->old * $this->engine,
                'lowest' => $this->lowestOutput,
                'peak' => $this->new * $this->lastTorque,
                'after' => $this->new * $this->engine,
            ],
            'bump' => $this->lastTorque / $this->engine,
            'curve' => $this->curve,
        ];
    }

    /**
     * @return array{array{float, float}, array{float, float}} dw/dt and dv/dt,
     *     each as a constant and a factor of the element's torque
     */
    private function rates(): array
    {
        $i = $this->setting->inertia;
        $j = $this->setting->load?->inertia();
        $road = $this->setting->road();
        if ($this->free) {
            return [[$this->engine / $i, -1.0 / $i], $j === null ? [0.0, 0.0] : [-$road / $j, $this->new / $j]];
        }
        if ($j === null) {
            return [[0.0, 0.0], [0.0, 0.0]];
        }
        $v = [
            ($this->old * $this->engine - $road) / ($j + $i * $this->old ** 2),
            -($this->old - $this->new) / ($j + $i * $this->old ** 2),
        ];

        return [[$this->old * $v[0], $this->old * $v[1]], $v];
    }

    /**
     * The slip bends downwards all along, since the torque only grows: it falls through nothing once, or not in this
     * piece.
     *
     * @param  \Closure(float): float  $slip  above nothing at the start
     * @param  float  $slope  at the start; all along where the piece has no end
     */
    private static function firstZero(\Closure $slip, float $seconds, float $slope): ?float
    {
        if (! is_finite($seconds)) {
            return $slope < 0.0 ? max(0.0, $slip(0.0)) / -$slope : null;
        }
        if ($slip($seconds) > 0.0) {
            return null;
        }
        [$low, $high] = [0.0, $seconds];
        for ($n = 0; $n < 300 && $high - $low > 1e-15 * $high; $n++) {
            $middle = ($low + $high) / 2.0;
            $slip($middle) > 0.0 ? ($low = $middle) : ($high = $middle);
        }

        return $high;
    }
}
