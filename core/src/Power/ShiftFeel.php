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
        if ($response === null || min($behind, $engine, $setting->inertia) <= 0.0 || abs($share) < 1e-9) {
            return null;
        }
        // The element's torque as seen at the input for a pressure in its own circuit.
        $perKpa = (($response['slope'] / abs($share)) * $line) / $behind;
        $touches = $capacity->circuit($response['from']);
        $motion = new ShiftMotion(
            $engine,
            ($rpm * M_PI) / 30.0,
            (float) $from->ratio,
            (float) $to->ratio,
            $setting,
            $letsGo,
        );
        $takesOver = $touches + $motion->takeOver / $perKpa;
        $pieces = self::split($accumulator->filling($behind), $behind, [$touches, $takesOver], $letsGo);
        $inStroke = true;
        foreach ($pieces as $piece) {
            $inStroke = $piece['root'] > 0.0;
            $motion->run($piece, $behind, $perKpa, $touches);
            if ($motion->done()) {
                break;
            }
        }
        $window = self::window($accumulator, $behind);
        if (! $motion->done() || $motion->tookOver === null) {
            return ['completes' => false] + $window + ['curve' => $motion->curve];
        }

        return ['completes' => true] +
            $window +
            ['endsInStroke' => $inStroke] +
            $motion->felt(abs($share), $letsGo ?? $motion->tookOver, $motion->tookOver);
    }

    /** @return array{start_kpa: float, end_kpa: float, line_kpa: float, fills: bool, fill_s?: float} */
    private static function window(Accumulator $accumulator, float $behind): array
    {
        $fill = $accumulator->fillTime($behind);

        return [
            'start_kpa' => min($accumulator->curve[0]['pressure_kpa'], $behind),
            'end_kpa' => min($accumulator->end()['pressure_kpa'], $behind),
            'line_kpa' => $behind,
            'fills' => $fill !== null,
        ] + ($fill === null ? [] : ['fill_s' => $fill]);
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
