<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\GearTrain\Train;
use Yard\Core\Input;

/**
 * For each upshift of the chart: which element comes on, which lets go, and the heat the on-coming one takes while it
 * pulls the input down to its new speed. Two inertias, input and vehicle, joined by the slipping element; the slip
 * falls evenly, so energy = torque x half the first slip x time. Without a vehicle the output keeps its speed.
 *
 * With w the input speed, v the output speed, i the new ratio, I and J the inertias and Tl the road load: I dw/dt = Te
 * - T and J dv/dt = i T - Tl; the slip seen at the input, w - i v, falls from d to 0 in the shift time t, so T = (d/t +
 * Te/I + i Tl/J) / (1/I + i^2/J).
 *
 * @phpstan-import-type Feel from ShiftFeel
 */
final class ShiftEnergy implements Calculator
{
    private const ASSUMPTIONS = [
        'The slip of the on-coming element falls evenly to nothing over the shift time.',
        'The on-coming element carries its share of the input torque and of the torque that slows the input\'s '
            .'inertia; engine torque is not cut.',
        'The off-going element has let go: an overlap adds heat in both (tie-up), a gap lets the input run up (flare).',
    ];

    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        $areas = [];
        foreach ($in->optional('faces')?->asMap() ?? [] as $id => $area) {
            isset($train->elements[$id]) ||
                throw $area->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $areas[$id] = $area->asNumber(above: 0.0);
        }
        $gears = [];
        foreach ($in->list('gears', 1) as $gear) {
            $applied = [];
            foreach ($gear->list('applied') as $item) {
                isset($train->elements[$item->asString()]) ||
                    throw $item->fail(
                        'unknown-element',
                        "The element \"{$item->asString()}\" is not in the list of elements.",
                    );
                $applied[] = $item->asString();
            }
            $gears[] = ['name' => $gear->name('name'), 'applied' => $applied, 'solved' => $train->solve($applied)];
        }

        return self::of(
            $gears,
            $in->number('inputTorque_nm', min: 0.0),
            $in->number('inputSpeed_rpm', above: 0.0),
            ShiftSetting::read($in),
            $areas,
        );
    }

    /**
     * @param list<array{name: string, applied: list<string>, solved: array{ratio: ?float, speeds: array<string,
     *     float>, elementTorque: array<string, float>, slip: array<string, float>}}>  $gears in the order of the chart
     * @param  array<string, float>  $areas  element => rubbing area in mm2, all faces together
     * @param  array<string, float>  $limits  element => J/mm2 its lining takes in one shift
     * @param  Hardware|null  $hardware where an accumulator stands beside the on-coming element, it governs the shift
     *     instead of the assumed time
     * @return array{shifts: list<array<string, mixed>>, assumptions: list<string>}
     */
    public static function of(
        array $gears,
        float $torque,
        float $rpm,
        ShiftSetting $setting,
        array $areas,
        array $limits = [],
        ?Hardware $hardware = null,
    ): array {
        $speed = ($rpm * M_PI) / 30.0;
        $before = null;
        $shifts = [];
        foreach ($gears as $gear) {
            $solved = $gear['solved'];
            if ($solved['ratio'] === null || $solved['ratio'] <= 0.0) {
                continue;
            }
            if ($before !== null && $before['solved']['ratio'] > $solved['ratio']) {
                $slip = $speed * (1.0 - $solved['ratio'] / $before['solved']['ratio']);
                $through = $setting->torqueThrough($torque, $slip, $solved['ratio']);
                $drop = $setting->inertia > 0.0 ? (($through - $torque) * $setting->time) / $setting->inertia : $slip;
                $on = array_values(array_diff($gear['applied'], $before['applied']));
                $rows = [];
                foreach ($on as $id) {
                    $share = $solved['elementTorque'][$id] ?? null;
                    $first = $before['solved']['slip'][$id] ?? null;
                    if ($share !== null && $first !== null) {
                        $feel = self::feel($hardware, $id, $gear, $before['solved'], $torque, $rpm, $setting);
                        $held = $feel['torque_nm'] ?? abs($share) * $through;
                        $energy = $feel['energy_j'] ?? (($held * abs($first) * $speed) / 2.0) * $setting->time;
                        $row =
                            [
                                'element' => $id,
                                'slipBefore_rpm' => $first * $rpm,
                                'torque_nm' => $held,
                                'energy_j' => $energy,
                                'meanPower_kw' => $feel['meanPower_kw'] ?? $energy / $setting->time / 1000.0,
                            ] +
                            ($feel === null
                                ? []
                                : [
                                    'feel' => array_diff_key($feel, [
                                        'torque_nm' => 0,
                                        'energy_j' => 0,
                                        'engineWork_j' => 0,
                                        'meanPower_kw' => 0,
                                        'overlap_s' => 0,
                                        'flare_rpm' => 0,
                                        'curve' => 0,
                                    ]),
                                ]);
                        if (isset($areas[$id])) {
                            $row['perArea_j_mm2'] = $energy / $areas[$id];
                            $row += isset($limits[$id])
                                ? ['limit_j_mm2' => $limits[$id], 'over' => $row['perArea_j_mm2'] > $limits[$id]]
                                : [];
                        }
                        $rows[] = $row;
                    }
                }
                $shifts[] = [
                    'from' => $before['name'],
                    'to' => $gear['name'],
                    'on' => $on,
                    'off' => array_values(array_diff($before['applied'], $gear['applied'])),
                    'inputDrop_rpm' => ($drop * 30.0) / M_PI,
                    'inertiaTorque_nm' => $through - $torque,
                    'outputTorque_nm' => [
                        'before' => $before['solved']['ratio'] * $torque,
                        'during' => $solved['ratio'] * $through,
                        'after' => $solved['ratio'] * $torque,
                    ],
                    'elements' => $rows,
                ];
            }
            $before = $gear;
        }

        return [
            'shifts' => $shifts,
            'assumptions' => [
                $setting->load === null
                    ? 'The output keeps its speed during the shift; the vehicle is heavy against the engine.'
                    : 'The vehicle is one mass behind axle and tyre and gains speed during the shift.',
                ...self::ASSUMPTIONS,
                ...$hardware === null || $hardware->accumulators === [] ? [] : ShiftFeel::ASSUMPTIONS,
            ],
        ];
    }

    /**
     * @param array{name: string, applied: list<string>, solved: array{ratio: ?float, speeds: array<string, float>,
     *     elementTorque: array<string, float>, slip: array<string, float>}}  $gear
     * @param array{ratio: ?float, speeds: array<string, float>, elementTorque: array<string, float>,
     *     slip: array<string, float>}  $from
     * @return Feel|null null where no accumulator governs the element
     */
    private static function feel(
        ?Hardware $hardware,
        string $element,
        array $gear,
        array $from,
        float $torque,
        float $rpm,
        ShiftSetting $setting,
    ): ?array {
        $accumulator = $hardware->accumulators[$element] ?? null;
        $capacity = $hardware->capacities[$element] ?? null;

        return $hardware === null || $accumulator === null || $capacity === null
            ? null
            : ShiftFeel::of(
                $element,
                $capacity,
                $accumulator,
                $from,
                $gear['solved'],
                $hardware->pressures[$gear['name']],
                $torque,
                $rpm,
                $setting,
            );
    }
}
