<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;

/**
 * Pulling away at full load through a slipping converter, from rest until its last speed ratio: does it move, how long,
 * how far, and how much heat goes into the fluid. Integrated over the road speed, so that the energy closes whatever
 * the curves are; the engine follows the converter without inertia.
 */
final readonly class Launch
{
    private const ASSUMPTIONS = [
        'Full throttle from rest; the engine follows the converter at once, its own inertia is left out.',
        'All of the converter\'s loss stays in the fluid: the cooler takes nothing in these seconds.',
        'Tyres do not slip; air drag is left out below coupling speed.',
    ];

    private const STEPS = 150;

    /** Two-point Gauss: exact where a step is a cubic, and never at its ends. */
    private const GAUSS = [0.21132486540518712, 0.7886751345948129];

    private float $resistance;

    public function __construct(
        private Engine $engine,
        private Converter $converter,
        private VehicleLoad $load,
        private float $ratio,
        private LaunchConditions $conditions,
    ) {
        $this->resistance = $load->resistance($conditions->rolling(), $conditions->gradePercent);
    }

    /** @return array<string, mixed> as vehicle.launch answers */
    public function report(): array
    {
        $stall = $this->converter->behind($this->engine, 0.0);
        $pull = $this->pull($stall['turbineTorque_nm']);
        $known = [
            'pull_n' => $pull,
            'resistance_n' => $this->resistance,
            'gradeLimit_pct' => $this->steepest($pull),
            'stallHeat_kw' => $stall['heat_kw'],
            'assumptions' => self::ASSUMPTIONS,
            'assumed' => (object) $this->conditions->assumed(),
        ];
        $last = $this->converter->lastSpeedRatio();
        $last > 0.0 ||
            throw new BadInput(
                'missing',
                'The launch needs the converter\'s points up to coupling, not stall alone.',
                '/converter',
            );
        $turbine = $this->converter->behind($this->engine, $last)['turbine_rpm'];

        return $this->pulledAway($this->load->speed($turbine / $this->ratio)) + $known;
    }

    /**
     * Integrates from rest to the road speed at which the converter couples.
     *
     * @param  float  $top  m/s
     * @return array<string, mixed> what it took, or where it hangs
     */
    private function pulledAway(float $top): array
    {
        $time = $heat = $distance = $work = 0.0;
        $step = $top / self::STEPS;
        $start = $this->at(0.0);
        if ($start['a'] <= 0.0) {
            return self::hangs($start);
        }
        for ($n = 0; $n < self::STEPS; $n++) {
            foreach (self::GAUSS as $share) {
                $now = $this->at(($n + $share) * $step);
                if ($now['a'] <= 0.0) {
                    return self::hangs($now);
                }
                $dt = $step / $now['a'] / 2.0;
                $time += $dt;
                $heat += $now['heat'] * $dt;
                $work += $now['power'] * $dt;
                $distance += $now['v'] * $dt;
            }
        }
        $warmth = $this->conditions->fluidWarmth();

        return [
            'reaches' => true,
            'time_s' => $time,
            'distance_m' => $distance,
            'speed_kmh' => 3.6 * $top,
            'heat_kj' => $heat,
            'engineWork_kj' => $work,
        ] + ($warmth === null ? [] : ['fluidRise_k' => $heat / $warmth]);
    }

    /** @return array{heat: float, power: float, a: float, v: float, speedRatio: float} at a road speed in m/s */
    private function at(float $speed): array
    {
        $state = $this->converter->turning($this->engine, $this->load->outputRpm($speed) * $this->ratio);

        return [
            'heat' => $state['heat_kw'],
            'power' => ($state['engineTorque_nm'] * $state['engine_rpm'] * M_PI) / 30000.0,
            'a' => ($this->pull($state['turbineTorque_nm']) - $this->resistance) / $this->load->mass,
            'v' => $speed,
            'speedRatio' => $state['speedRatio'],
        ];
    }

    /**
     * @param  array{heat: float, v: float, speedRatio: float}  $at
     * @return array<string, mixed>
     */
    private static function hangs(array $at): array
    {
        return [
            'reaches' => false,
            'hangs' => [
                'speedRatio' => $at['speedRatio'],
                'speed_kmh' => 3.6 * $at['v'],
                'heat_kw' => $at['heat'],
            ],
        ];
    }

    /** Force at the tyres in N from a torque at the turbine in N.m. */
    private function pull(float $turbine): float
    {
        return $this->load->force($turbine * $this->ratio * $this->conditions->efficiency);
    }

    /** The grade in percent on which the pull at stall just holds the mass; 100 where it holds on any wall. */
    private function steepest(float $pull): float
    {
        // pull/mg = rolling cos + sin = R sin(angle + phase)
        $rolling = $this->conditions->rolling();
        $share = $pull / ($this->load->mass * VehicleLoad::GRAVITY) / sqrt(1.0 + $rolling ** 2);

        return $share >= sin(M_PI / 4.0 + atan($rolling)) ? 100.0 : 100.0 * tan(asin($share) - atan($rolling));
    }
}
