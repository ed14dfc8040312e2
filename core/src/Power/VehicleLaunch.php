<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Pulling away at full load through a slipping converter, from rest until its last speed ratio: does it move, how long,
 * how far, and how much heat goes into the fluid. Integrated over the road speed, so that the energy closes whatever
 * the curves are; the engine follows the converter without inertia.
 */
final class VehicleLaunch implements Calculator
{
    private const ASSUMPTIONS = [
        'Full throttle from rest; the engine follows the converter at once, its own inertia is left out.',
        'All of the converter\'s loss stays in the fluid: the cooler takes nothing in these seconds.',
        'Tyres do not slip; air drag is left out below coupling speed.',
    ];

    private const STEPS = 150;

    /** Two-point Gauss: exact where a step is a cubic, and never at its ends. */
    private const GAUSS = [0.21132486540518712, 0.7886751345948129];

    /**
     * What counts where the input does not say: rolling resistance of car tyres on a road; fluid of automatic
     * transmissions. Handbook values from memory.
     */
    private const ASSUMED = [
        'rollingCoefficient' => 0.012,
        'fluidDensity_kg_l' => 0.85,
        'fluidHeat_kj_kgk' => 2.0,
    ];

    public function calculate(Input $in): array
    {
        $engine = Engine::read($in->at('engine'));
        $converter = Converter::read($in->at('converter'));
        $load = VehicleLoad::read($in->at('vehicle'));
        $ratio = $in->number('ratio', min: 0.001, max: 1e4);
        $efficiency = $in->has('efficiency') ? $in->number('efficiency', min: 0.001, max: 1.0) : 1.0;
        $rolling = $in->has('rollingCoefficient')
            ? $in->number('rollingCoefficient', min: 0.0, max: 1.0)
            : self::ASSUMED['rollingCoefficient'];
        $grade = $in->has('grade_pct') ? $in->number('grade_pct', min: -100.0, max: 100.0) : 0.0;
        $fluid = $in->has('fluid_l') ? $in->number('fluid_l', min: 0.001, max: 1e6) : null;
        $warmth = self::fluidWarmth($in);
        $resistance = $load->resistance($rolling, $grade);
        $pull = static fn (float $turbine): float => $load->force($turbine * $ratio * $efficiency);
        $stall = $converter->behind($engine, 0.0);
        $out = [
            'reaches' => false,
            'pull_n' => $pull($stall['turbineTorque_nm']),
            'resistance_n' => $resistance,
            'gradeLimit_pct' => $this->steepest($load, $pull($stall['turbineTorque_nm']), $rolling),
            'stallHeat_kw' => $stall['heat_kw'],
            'assumptions' => self::ASSUMPTIONS,
            'assumed' => (object) array_filter(
                self::ASSUMED,
                static fn (string $key): bool => ! $in->has($key),
                ARRAY_FILTER_USE_KEY,
            ),
        ];
        $last = $converter->lastSpeedRatio();
        $last > 0.0 ||
            throw $in
                ->at('converter')
                ->fail('missing', 'The launch needs the converter\'s points up to coupling, not stall alone.');
        $at = function (float $speed) use ($converter, $engine, $load, $ratio, $resistance, $pull): array {
            $state = $converter->turning($engine, $load->outputRpm($speed) * $ratio);

            return [
                'heat' => $state['heat_kw'],
                'power' => ($state['engineTorque_nm'] * $state['engine_rpm'] * M_PI) / 30000.0,
                'a' => ($pull($state['turbineTorque_nm']) - $resistance) / $load->mass,
                'v' => $speed,
                'speedRatio' => $state['speedRatio'],
            ];
        };
        $top = $load->speed($converter->behind($engine, $last)['turbine_rpm'] / $ratio);
        $time = $heat = $distance = $work = 0.0;
        $step = $top / self::STEPS;
        $hangs = $at(0.0)['a'] <= 0.0 ? $at(0.0) : null;
        for ($n = 0; $n < self::STEPS && $hangs === null; $n++) {
            foreach (self::GAUSS as $share) {
                $now = $at(($n + $share) * $step);
                if ($now['a'] <= 0.0) {
                    $hangs = $now;
                    break;
                }
                $dt = $step / $now['a'] / 2.0;
                $time += $dt;
                $heat += $now['heat'] * $dt;
                $work += $now['power'] * $dt;
                $distance += $now['v'] * $dt;
            }
        }
        if ($hangs !== null) {
            return $out + [
                'hangs' => [
                    'speedRatio' => $hangs['speedRatio'],
                    'speed_kmh' => 3.6 * $hangs['v'],
                    'heat_kw' => $hangs['heat'],
                ],
            ];
        }

        return [
            'reaches' => true,
            'time_s' => $time,
            'distance_m' => $distance,
            'speed_kmh' => 3.6 * $top,
            'heat_kj' => $heat,
            'engineWork_kj' => $work,
        ] +
            $out +
            ($fluid === null ? [] : ['fluidRise_k' => $heat / ($fluid * $warmth)]);
    }

    /** What a litre of fluid takes up, kJ/K. */
    private static function fluidWarmth(Input $in): float
    {
        $density = $in->has('fluidDensity_kg_l')
            ? $in->number('fluidDensity_kg_l', min: 0.1, max: 5.0)
            : self::ASSUMED['fluidDensity_kg_l'];
        $heat = $in->has('fluidHeat_kj_kgk')
            ? $in->number('fluidHeat_kj_kgk', min: 0.1, max: 10.0)
            : self::ASSUMED['fluidHeat_kj_kgk'];

        return $density * $heat;
    }

    /** The grade in percent on which the pull at stall just holds the mass; 100 where it holds on any wall. */
    private function steepest(VehicleLoad $load, float $pull, float $rolling): float
    {
        // pull/mg = rolling cos + sin = R sin(angle + phase)
        $share = $pull / ($load->mass * VehicleLoad::GRAVITY) / sqrt(1.0 + $rolling ** 2);

        return $share >= sin(M_PI / 4.0 + atan($rolling)) ? 100.0 : 100.0 * tan(asin($share) - atan($rolling));
    }
}
