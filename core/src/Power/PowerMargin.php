<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\GearTrain\Train;
use Yard\Core\Input;

/**
 * Gear by gear and element by element: torque to hold (geartrain.solve x input torque x converter ratio) against what
 * the element can hold at the pressure of that gear. Margin = capacity / demand; it falls as one over the input torque,
 * so the largest input torque follows in closed form.
 */
final class PowerMargin implements Calculator
{
    /** Below this share of the input torque an element carries nothing worth a margin. */
    private const NOTHING = 1e-9;

    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        $plan = TrainDuty::read($in, $train);
        $out = self::report($plan, $plan->hardware);

        return $in->has('changes')
            ? $out + ['changes' => $this->changes($in, $train, $plan, $plan->evaluate($plan->hardware)['largest'])]
            : $out;
    }

    /** @return array<string, mixed> */
    public static function report(TrainDuty $plan, Hardware $hardware): array
    {
        $base = $plan->evaluate($hardware);
        $released = self::released($plan, $hardware->capacities);
        $out = [
            'gears' => self::roadSpeeds($base['gears'], $plan),
            'overPressure' => array_values(
                array_filter(
                    array_map(
                        static fn (float $kpa, string|int $gear): array => [
                            'gear' => (string) $gear,
                            'pressure_kpa' => $kpa,
                        ],
                        $hardware->pressures,
                        array_keys($hardware->pressures),
                    ),
                    static fn (array $g): bool => $plan->pressureLimit !== null &&
                        $g['pressure_kpa'] > $plan->pressureLimit,
                ),
            ),
            'holds' => $base['holds'],
            'limit' => $plan->limit,
            'released' => $released,
            'selfApplying' => array_values(array_filter($released, static fn (array $r): bool => $r['selfApplies'])),
            'memberSpeeds' => self::memberSpeeds($plan),
            'unknown' => $base['unknown'],
            'overPressed' => self::overPressed($base['gears']),
        ];
        foreach (['weakest' => $base['weakest'], 'largestInputTorque_nm' => $base['largest']] as $key => $value) {
            if ($value !== null) {
                $out[$key] = $value;
            }
        }

        $out += $base['byThrottle'] === [] ? [] : ['byThrottle' => $base['byThrottle']];

        return $plan->shift === null ? $out : $out + self::shifts($plan, $plan->shift, $hardware);
    }

    /**
     * @param  list<array<string, mixed>>  $gears
     * @return list<array<string, mixed>> with the road speed at the input speed, where the vehicle is known
     */
    private static function roadSpeeds(array $gears, TrainDuty $plan): array
    {
        $load = $plan->shift?->load;

        return $load === null
            ? $gears
            : array_map(
                static fn (array $g): array => isset($g['ratio']) && is_float($g['ratio']) && $plan->inputSpeed > 0.0
                    ? $g + ['roadSpeed_kmh' => 3.6 * $load->speed($plan->inputSpeed / abs($g['ratio']))]
                    : $g,
                $gears,
            );
    }

    /**
     * @param list<array{name: string, elements: list<array{element: string, liningPressure_kpa?: float,
     *     liningLimit_kpa?: float}>}>  $gears
     * @return list<array{gear: string, element: string, liningPressure_kpa: float,
     *     liningLimit_kpa: float}> packs pressed harder than their lining stands
     */
    private static function overPressed(array $gears): array
    {
        $out = [];
        foreach ($gears as $gear) {
            foreach ($gear['elements'] as $e) {
                if (
                    isset($e['liningLimit_kpa'], $e['liningPressure_kpa']) &&
                    $e['liningPressure_kpa'] > $e['liningLimit_kpa']
                ) {
                    $out[] = [
                        'gear' => $gear['name'],
                        'element' => $e['element'],
                        'liningPressure_kpa' => $e['liningPressure_kpa'],
                        'liningLimit_kpa' => $e['liningLimit_kpa'],
                    ];
                }
            }
        }

        return $out;
    }

    /**
     * @return array{shifts: list<array<string, mixed>>, assumptions: list<string>} as shift.energy reports them,
     *     at the shift speed
     */
    private static function shifts(TrainDuty $plan, ShiftSetting $setting, Hardware $hardware): array
    {
        $gears = [];
        foreach ($plan->solved as $gear => $solved) {
            $gears[] = [
                'name' => (string) $gear,
                'applied' => array_values(array_diff($plan->applied[$gear], [TrainDuty::LOCKUP])),
                'solved' => $solved,
            ];
        }
        $areas = $limits = [];
        foreach ($hardware->capacities as $id => $capacity) {
            $areas += $capacity->area() === null ? [] : [$id => $capacity->area()];
            $limits += $capacity->heatLimit === null ? [] : [$id => $capacity->heatLimit];
        }

        return ShiftEnergy::of(
            $gears,
            $plan->engine->torque($plan->inputSpeed),
            $plan->inputSpeed,
            $setting,
            $areas,
            $limits,
            $hardware,
        );
    }

    /**
     * @param  array<string, Capacity>  $capacities
     * @return list<array{gear: string, element: string, drum: string, drumSpeed_rpm: float, force_n: float,
     *     returnForce_n: float, selfApplies: bool, selfApplyDrumSpeed_rpm?: float,
     *     selfApplyInputSpeed_rpm?: float}> what the oil does to released plate packs at the given input speed
     */
    private static function released(TrainDuty $plan, array $capacities): array
    {
        $out = [];
        foreach ($plan->solved as $gear => $solved) {
            foreach ($capacities as $id => $capacity) {
                if ($capacity->oil === null || in_array((string) $id, $plan->applied[$gear], true)) {
                    continue;
                }
                $speed =
                    $capacity->oil['node'] === Train::CASE ? 0.0 : $solved['speeds'][$capacity->oil['node']] ?? null;
                if ($speed === null) {
                    continue;
                }
                $force = $capacity->oil['oil']->force($speed * $plan->inputSpeed);
                $drumSpeed = $capacity->oil['oil']->speedFor($capacity->returnForce());
                $out[] =
                    [
                        'gear' => (string) $gear,
                        'element' => (string) $id,
                        'drum' => $capacity->oil['node'],
                        'drumSpeed_rpm' => $speed * $plan->inputSpeed,
                        'force_n' => $force,
                        'returnForce_n' => $capacity->returnForce(),
                        'selfApplies' => $force > $capacity->returnForce(),
                    ] +
                    ($drumSpeed === null ? [] : ['selfApplyDrumSpeed_rpm' => $drumSpeed]) +
                    ($drumSpeed === null || abs($speed) < self::NOTHING
                        ? []
                        : ['selfApplyInputSpeed_rpm' => $drumSpeed / abs($speed)]);
            }
        }

        return $out;
    }

    /**
     * @return list<array{node: string, rpm: array<string, float>, highest_rpm: float, gear: string, backwards: bool,
     *     over?: bool, limit_rpm?: float}> fastest member first
     */
    private static function memberSpeeds(TrainDuty $plan): array
    {
        $rows = [];
        foreach ($plan->solved as $gear => $solved) {
            foreach ($solved['speeds'] as $node => $speed) {
                $rows[$node][(string) $gear] = $speed * $plan->inputSpeed;
            }
        }
        $out = [];
        foreach ($rows as $node => $byGear) {
            $gear = (string) array_key_first($byGear);
            foreach ($byGear as $name => $rpm) {
                $gear = abs($rpm) > abs($byGear[$gear]) ? (string) $name : $gear;
            }
            $row = [
                'node' => (string) $node,
                'rpm' => $byGear,
                'highest_rpm' => $byGear[$gear],
                'gear' => $gear,
                'backwards' => min($byGear) < -self::NOTHING,
            ];
            $limit = $plan->speedLimits[$node] ?? null;
            $out[] = $limit === null ? $row : $row + ['limit_rpm' => $limit, 'over' => abs($byGear[$gear]) > $limit];
        }
        usort($out, static fn (array $a, array $b): int => abs($b['highest_rpm']) <=> abs($a['highest_rpm']));

        return $out;
    }

    /** @return list<array<string, mixed>> each single change with the input torque it allows, best first */
    private function changes(Input $in, Train $train, TrainDuty $plan, ?float $before): array
    {
        $out = [];
        foreach ($in->list('changes') as $change) {
            $converter = $change->optional('converter');
            $result = $plan->evaluate(
                $plan->hardware->with(
                    HardwareChange::read($change, $train, $converter === null ? null : Converter::read($converter)),
                ),
            );
            $row = ['name' => $change->name('name'), 'holds' => $result['holds']];
            if ($result['largest'] !== null) {
                $row += [
                    'largestInputTorque_nm' => $result['largest'],
                    'gain_nm' => $result['largest'] - ($before ?? 0.0),
                ];
            }
            $out[] = $result['weakest'] === null ? $row : $row + ['weakest' => $result['weakest']];
        }
        usort(
            $out,
            static fn (array $a, array $b): int => ($b['largestInputTorque_nm'] ?? INF) <=>
                ($a['largestInputTorque_nm'] ?? INF),
        );

        return $out;
    }
}
