<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Hydraulics\Accumulator;

/**
 * One upshift as the accumulator of its on-coming element lets it happen: the pressure rises while the piston gives way,
 * the torque follows it, takes over from the off-going element and pulls the input down to its new speed.
 *
 * With w the input speed, v the output speed, i and i0 the new and the old ratio, I and J the inertias, Tl the road load and
 * X the torque of the slipping element as seen at the input: while the old gear still holds, T = Te - I dw/dt and the
 * output gets i0 T - (i0 - i) X, until X = T; from there I dw/dt = Te - X and J dv/dt = i X - Tl, until w = i v. Pressure, and
 * with it X, is a parabola over time in each piece of the accumulator's curve, so speeds are cubics and every sum is exact.
 *
 * @phpstan-type Feel array{completes: bool, start_kpa: float, end_kpa: float, line_kpa: float, fills: bool, fill_s?: float, endsInStroke?: bool, takeOver_s?: float, duration_s?: float, torque_nm?: float, energy_j?: float, engineWork_j?: float, meanPower_kw?: float, outputTorque_nm?: array{before: float, peak: float, after: float}, bump?: float, curve: list<array{t: float, pressure_kpa: float, input_rpm: float, output_nm: float}>}
 */
final class ShiftFeel
{
    public const ASSUMPTIONS = [
        'The element is filled to the touching point when its accumulator begins to move; its own piston takes no more oil.',
        'The off-going element lets go at the moment the on-coming one has taken over its torque.',
        'Engine torque is the same all through the shift; the friction coefficient does not change with the slip.',
    ];

    /** Three-point Gauss on [0, 1]: exact up to the fifth power, which is all that occurs. */
    private const GAUSS = [[0.1127016653792583, 5.0 / 18.0], [0.5, 8.0 / 18.0], [0.8872983346207417, 5.0 / 18.0]];

    /** Moments in each piece at which the curve is written down. */
    private const SAMPLES = 12;

    /**
     * @param  float  $share  torque of the on-coming element for an input torque of 1 in the new gear
     * @param  float  $line  kPa of line pressure in the new gear
     * @param  float  $engine  N.m
     * @param  float  $speed  input speed in rad/s before the shift
     * @return Feel|null null where there is no pressure, no torque or no inertia, or pressure does not govern the element
     */
    public static function of(Capacity $capacity, Accumulator $accumulator, float $share, float $drumRpm, float $line, float $engine, float $speed, float $oldRatio, float $newRatio, ShiftSetting $setting): ?array
    {
        $response = $capacity->response($share, $drumRpm);
        $behind = $capacity->circuit($line);
        if ($response === null || $behind <= 0.0 || $engine <= 0.0 || $setting->inertia <= 0.0 || abs($share) < 1e-9) {
            return null;
        }
        // The element's torque as seen at the input for a pressure in its own circuit.
        $perKpa = $response['slope'] / abs($share) * $line / $behind;
        $from = $capacity->circuit($response['from']);
        $fill = $accumulator->fillTime($behind);
        $start = $accumulator->curve[0]['pressure_kpa'];
        $out = ['completes' => false, 'start_kpa' => min($start, $behind), 'end_kpa' => min($accumulator->end()['pressure_kpa'], $behind), 'line_kpa' => $behind, 'fills' => $fill !== null] + ($fill === null ? [] : ['fill_s' => $fill]);
        $motion = new ShiftMotion($engine, $speed, $oldRatio, $newRatio, $setting);
        $piston = true;
        foreach (self::split($accumulator->filling($behind), $behind, [$from, $from + $motion->takeOver / $perKpa]) as $piece) {
            $piston = is_finite($piece['seconds']);
            $motion->run($piece, $behind, $perKpa, $from, self::GAUSS, self::SAMPLES);
            if ($motion->done()) {
                break;
            }
        }
        if (! $motion->done()) {
            return $out + ['curve' => $motion->curve];
        }
        $duration = $motion->time - $motion->tookOver;

        return ['completes' => true] + $out + [
            'endsInStroke' => $piston, 'takeOver_s' => $motion->tookOver, 'duration_s' => $duration, 'torque_nm' => abs($share) * $motion->lastTorque, 'energy_j' => $motion->heat, 'engineWork_j' => $motion->work, 'meanPower_kw' => $motion->heat / max($motion->time, 1e-12) / 1000.0,
            'outputTorque_nm' => ['before' => $oldRatio * $engine, 'peak' => $newRatio * $motion->lastTorque, 'after' => $newRatio * $engine], 'bump' => $motion->lastTorque / $engine, 'curve' => $motion->curve,
        ];
    }

    /**
     * The pieces cut where the pressure passes one of the given ones, so that each has one law.
     *
     * @param  list<array{seconds: float, root: float, rate: float}>  $pieces
     * @param  list<float>  $pressures
     * @return list<array{seconds: float, root: float, rate: float}>
     */
    private static function split(array $pieces, float $line, array $pressures): array
    {
        $out = [];
        foreach ($pieces as $piece) {
            $cuts = [];
            foreach ($pressures as $pressure) {
                $at = $piece['rate'] > 0.0 && $pressure < $line ? ($piece['root'] - sqrt($line - $pressure)) / $piece['rate'] : 0.0;
                $at > 0.0 && $at < $piece['seconds'] && $cuts[] = $at;
            }
            sort($cuts);
            $begun = 0.0;
            foreach ([...$cuts, $piece['seconds']] as $cut) {
                $out[] = ['seconds' => $cut - $begun, 'root' => $piece['root'] - $piece['rate'] * $begun, 'rate' => $piece['rate']];
                $begun = $cut;
            }
        }

        return $out;
    }
}
