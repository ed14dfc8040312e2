<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\SolvedGear;
use Yard\Core\Hydraulics\Accumulator;

/**
 * One upshift as the accumulator of its on-coming element lets it happen: the pressure rises while the piston gives
 * way, the torque follows it, takes over from the off-going element and pulls the input down to its new speed.
 *
 * With w the input speed, v the output speed, i and i0 the new and the old ratio, I and J the inertias, Tl the road
 * load and X the torque of the slipping element as seen at the input: while the old gear still holds, T = Te - I dw/dt
 * and the output gets i0 T - (i0 - i) X, until X = T; from there I dw/dt = Te - X and J dv/dt = i X - Tl, until w = i
 * v. Pressure, and with it X, is a parabola over time in each piece of the accumulator's curve, so speeds are cubics
 * and every sum is exact.
 *
 * @phpstan-type Feel array{completes: bool, start_kpa: float, end_kpa: float, line_kpa: float, fills: bool,
 *     fill_s?: float, endsInStroke?: bool, takeOver_s?: float, duration_s?: float, overlap_s?: float,
 *     flare_rpm?: float, torque_nm?: float, energy_j?: float, engineWork_j?: float, meanPower_kw?: float,
 *     outputTorque_nm?: array{before: float, lowest: float, peak: float, after: float}, bump?: float,
 *     curve: list<array{t: float, pressure_kpa: float, input_rpm: float, output_nm: float}>}
 */
final class ShiftFeel
{
    public const ASSUMPTIONS = [
        'The element is filled to the touching point when its accumulator begins to move; its own piston takes no more '
            .'oil.',
        'The off-going element holds until it lets go, and does so at the moment it carries nothing, unless a time is '
            .'given.',
        'Engine torque is the same all through the shift; the friction coefficient does not change with the slip.',
    ];

    /**
     * @param  string  $element  the on-coming one
     * @param  float  $line  kPa of line pressure in the new gear
     * @param  float  $engine  N.m
     * @param  float  $rpm  of the input before the shift
     * @param  float|null  $letsGo seconds at which the off-going element lets go; null: at the moment it carries
     *     nothing
     * @return Feel|null null where there is no pressure, no torque or no inertia,
     *     or pressure does not govern the element
     */
    public static function of(
        string $element,
        Capacity $capacity,
        Accumulator $accumulator,
        SolvedGear $from,
        SolvedGear $to,
        float $line,
        float $engine,
        float $rpm,
        ShiftSetting $setting,
        ?float $letsGo = null,
    ): ?array {
        $share = $to->elementTorque[$element] ?? 0.0;
        $behind = $capacity->circuit($line);
        $drum = $capacity->oil === null ? 0.0 : ($from->speeds[$capacity->oil['node']] ?? 0.0) * $rpm;
        $response = $capacity->response($share, $drum);
        if (
            $response === null ||
            $behind <= 0.0 ||
            $engine <= 0.0 ||
            $setting->inertia <= 0.0 ||
            abs($share) < 1e-9
        ) {
            return null;
        }
        // The element's torque as seen at the input for a pressure in its own circuit.
        $perKpa = (($response['slope'] / abs($share)) * $line) / $behind;
        $touches = $capacity->circuit($response['from']);
        $fill = $accumulator->fillTime($behind);
        [$start, $end] = [$accumulator->curve[0]['pressure_kpa'], $accumulator->end()['pressure_kpa']];
        $out =
            [
                'completes' => false,
                'start_kpa' => min($start, $behind),
                'end_kpa' => min($end, $behind),
                'line_kpa' => $behind,
                'fills' => $fill !== null,
            ] + ($fill === null ? [] : ['fill_s' => $fill]);
        [$old, $new] = [(float) $from->ratio, (float) $to->ratio];
        $motion = new ShiftMotion($engine, ($rpm * M_PI) / 30.0, $old, $new, $setting, $letsGo);
        $inStroke = true;
        foreach (
            self::split(
                $accumulator->filling($behind),
                $behind,
                [$touches, $touches + $motion->takeOver / $perKpa],
                $letsGo,
            ) as $piece
        ) {
            $inStroke = $piece['root'] > 0.0;
            $motion->run($piece, $behind, $perKpa, $touches);
            if ($motion->done()) {
                break;
            }
        }
        if (! $motion->done() || $motion->tookOver === null) {
            return $out + ['curve' => $motion->curve];
        }
        $free = $letsGo ?? $motion->tookOver;

        return ['completes' => true] +
            $out + [
                'endsInStroke' => $inStroke,
                'takeOver_s' => $motion->tookOver,
                'duration_s' => $motion->time - $free,
                'overlap_s' => $free - $motion->tookOver,
                'flare_rpm' => ($motion->flare * 30.0) / M_PI,
                'torque_nm' => abs($share) * $motion->lastTorque,
                'energy_j' => $motion->heat,
                'engineWork_j' => $motion->work,
                'meanPower_kw' => $motion->heat / max($motion->time, 1e-12) / 1000.0,
                'outputTorque_nm' => [
                    'before' => $old * $engine,
                    'lowest' => $motion->lowestOutput,
                    'peak' => $new * $motion->lastTorque,
                    'after' => $new * $engine,
                ],
                'bump' => $motion->lastTorque / $engine,
                'curve' => $motion->curve,
            ];
    }

    /**
     * The pieces cut where the pressure passes one of the given ones and where the old gear lets go, so that each has
     * one law.
     *
     * @param  list<array{seconds: float, root: float, rate: float}>  $pieces
     * @param  list<float>  $pressures
     * @return list<array{seconds: float, root: float, rate: float}>
     */
    private static function split(array $pieces, float $line, array $pressures, ?float $letsGo): array
    {
        $out = [];
        $passed = 0.0;
        foreach ($pieces as $piece) {
            $cuts = [];
            foreach ($pressures as $pressure) {
                $at =
                    $piece['rate'] > 0.0 && $pressure < $line
                        ? ($piece['root'] - sqrt($line - $pressure)) / $piece['rate']
                        : 0.0;
                $at > 0.0 && $at < $piece['seconds'] && ($cuts[] = $at);
            }
            $letsGo !== null &&
                $letsGo > $passed &&
                $letsGo - $passed < $piece['seconds'] &&
                ($cuts[] = $letsGo - $passed);
            $passed += $piece['seconds'];
            sort($cuts);
            $begun = 0.0;
            foreach ([...$cuts, $piece['seconds']] as $cut) {
                $out[] = [
                    'seconds' => $cut - $begun,
                    'root' => $piece['root'] - $piece['rate'] * $begun,
                    'rate' => $piece['rate'],
                ];
                $begun = $cut;
            }
        }

        return $out;
    }
}
