<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\Train;

/**
 * Gear by gear and element by element: torque to hold (geartrain.solve x input torque x converter ratio) against what
 * the element can hold at the pressure of that gear. Margin = capacity / demand; it falls as one over the input torque,
 * so the largest input torque follows in closed form.
 */
final readonly class MarginReport
{
    /** Below this share of the input speed a shaft stands still. */
    private const NOTHING = 1e-9;

    public function __construct(private TrainDuty $plan, private Hardware $hardware)
    {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $duty = $this->plan->evaluate($this->hardware);
        $released = $this->released();
        $weakest = $duty->weakest();
        $largest = $duty->largest();

        return [
            'gears' => $this->roadSpeeds($duty->gears()),
            'overPressure' => $this->overPressure(),
            'holds' => $duty->holds(),
            'limit' => $this->plan->limit,
            'released' => $released,
            'selfApplying' => array_values(array_filter($released, static fn (array $r): bool => $r['selfApplies'])),
            'memberSpeeds' => $this->memberSpeeds(),
            'unknown' => $duty->unknowns(),
            'overPressed' => self::overPressed($duty->gears()),
        ] +
            ($weakest === null ? [] : ['weakest' => $weakest]) +
            ($largest === null ? [] : ['largestInputTorque_nm' => $largest]) +
            ($duty->byThrottle() === [] ? [] : ['byThrottle' => $duty->byThrottle()]) +
            ($this->plan->shift === null ? [] : $this->upshifts($this->plan->shift)->report());
    }

    /** @return list<array{gear: string, pressure_kpa: float}> gears whose pressure is over the limit of the unit */
    private function overPressure(): array
    {
        $out = [];
        foreach ($this->hardware->pressures as $gear => $kpa) {
            if ($this->plan->pressureLimit !== null && $kpa > $this->plan->pressureLimit) {
                $out[] = ['gear' => (string) $gear, 'pressure_kpa' => $kpa];
            }
        }

        return $out;
    }

    /**
     * @param  list<array<string, mixed>>  $gears
     * @return list<array<string, mixed>> with the road speed at the input speed, where the vehicle is known
     */
    private function roadSpeeds(array $gears): array
    {
        $plan = $this->plan;
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

    /** The upshifts at the shift speed, with what is known of each lining. */
    private function upshifts(ShiftSetting $setting): Upshifts
    {
        $areas = $limits = [];
        foreach ($this->hardware->capacities as $id => $capacity) {
            $areas += $capacity->area() === null ? [] : [$id => $capacity->area()];
            $limits += $capacity->heatLimit === null ? [] : [$id => $capacity->heatLimit];
        }

        return new Upshifts(
            $this->plan->chart,
            $this->plan->engine->torque($this->plan->inputSpeed),
            $this->plan->inputSpeed,
            $setting,
            $areas,
            $limits,
            $this->hardware,
        );
    }

    /**
     * @return list<array{gear: string, element: string, drum: string, drumSpeed_rpm: float, force_n: float,
     *     returnForce_n: float, selfApplies: bool, selfApplyDrumSpeed_rpm?: float,
     *     selfApplyInputSpeed_rpm?: float}> what the oil does to released plate packs at the given input speed
     */
    private function released(): array
    {
        $out = [];
        foreach ($this->plan->chart->solved() as $gear => $solved) {
            foreach ($this->hardware->capacities as $id => $capacity) {
                $node = $capacity->oil['node'] ?? null;
                if ($node === null || in_array((string) $id, $this->plan->carrying((string) $gear), true)) {
                    continue;
                }
                $speed = $node === Train::CASE ? 0.0 : $solved->speeds[$node] ?? null;
                if ($speed !== null) {
                    $out[] = ['gear' => (string) $gear, 'element' => (string) $id, 'drum' => $node] +
                        $this->spun($capacity, $speed);
                }
            }
        }

        return $out;
    }

    /**
     * @param  float  $speed  of the drum for input speed 1
     * @return array{drumSpeed_rpm: float, force_n: float, returnForce_n: float, selfApplies: bool,
     *     selfApplyDrumSpeed_rpm?: float, selfApplyInputSpeed_rpm?: float}
     */
    private function spun(Capacity $capacity, float $speed): array
    {
        $rpm = $speed * $this->plan->inputSpeed;
        $force = $capacity->oil === null ? 0.0 : $capacity->oil['oil']->force($rpm);
        $drumSpeed = $capacity->oil === null ? null : $capacity->oil['oil']->speedFor($capacity->returnForce());

        return [
            'drumSpeed_rpm' => $rpm,
            'force_n' => $force,
            'returnForce_n' => $capacity->returnForce(),
            'selfApplies' => $force > $capacity->returnForce(),
        ] +
            ($drumSpeed === null ? [] : ['selfApplyDrumSpeed_rpm' => $drumSpeed]) +
            ($drumSpeed === null || abs($speed) < self::NOTHING
                ? []
                : ['selfApplyInputSpeed_rpm' => $drumSpeed / abs($speed)]);
    }

    /**
     * @return list<array{node: string, rpm: array<string, float>, highest_rpm: float, gear: string, backwards: bool,
     *     over?: bool, limit_rpm?: float}> fastest member first
     */
    private function memberSpeeds(): array
    {
        $rows = [];
        foreach ($this->plan->chart->solved() as $gear => $solved) {
            foreach ($solved->speeds as $node => $speed) {
                $rows[$node][(string) $gear] = $speed * $this->plan->inputSpeed;
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
            $limit = $this->plan->speedLimits[$node] ?? null;
            $out[] = $limit === null ? $row : $row + ['limit_rpm' => $limit, 'over' => abs($byGear[$gear]) > $limit];
        }
        usort($out, static fn (array $a, array $b): int => abs($b['highest_rpm']) <=> abs($a['highest_rpm']));

        return $out;
    }
}
