<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;

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
final readonly class Upshifts
{
    private const ASSUMPTIONS = [
        'The slip of the on-coming element falls evenly to nothing over the shift time.',
        'The on-coming element carries its share of the input torque and of the torque that slows the input\'s '
            .'inertia; engine torque is not cut.',
        'The off-going element has let go: an overlap adds heat in both (tie-up), a gap lets the input run up (flare).',
    ];

    private const RAD_S_PER_RPM = M_PI / 30.0;

    /** What a feel says of a shift beyond what its row says already. */
    private const SAID_BEFORE = [
        'torque_nm' => 0,
        'energy_j' => 0,
        'engineWork_j' => 0,
        'meanPower_kw' => 0,
        'overlap_s' => 0,
        'flare_rpm' => 0,
        'curve' => 0,
    ];

    /**
     * @param  float  $torque  at the input, N.m
     * @param  float  $rpm  of the input before the shift
     * @param  array<string, float>  $areas  element => rubbing area in mm2, all faces together
     * @param  array<string, float>  $limits  element => J/mm2 its lining takes in one shift
     * @param  Hardware|null  $hardware where an accumulator stands beside the on-coming element, it governs the shift
     *     instead of the assumed time
     */
    public function __construct(
        private ApplyChart $chart,
        private float $torque,
        private float $rpm,
        private ShiftSetting $setting,
        private array $areas,
        private array $limits = [],
        private ?Hardware $hardware = null,
    ) {
    }

    /** @return array{shifts: list<array<string, mixed>>, assumptions: list<string>} */
    public function report(): array
    {
        $shifts = [];
        $before = null;
        foreach ($this->chart->solved() as $gear => $solved) {
            if (! $solved->isForward()) {
                continue;
            }
            if ($before !== null && $this->chart->solved()[$before]->ratio > $solved->ratio) {
                $shifts[] = $this->shift($before, (string) $gear);
            }
            $before = (string) $gear;
        }

        return [
            'shifts' => $shifts,
            'assumptions' => [
                $this->setting->load === null
                    ? 'The output keeps its speed during the shift; the vehicle is heavy against the engine.'
                    : 'The vehicle is one mass behind axle and tyre and gains speed during the shift.',
                ...self::ASSUMPTIONS,
                ...($this->hardware->accumulators ?? []) === [] ? [] : ShiftFeel::ASSUMPTIONS,
            ],
        ];
    }

    /** @return array<string, mixed> */
    private function shift(string $from, string $to): array
    {
        $old = (float) $this->chart->solved()[$from]->ratio;
        $new = (float) $this->chart->solved()[$to]->ratio;
        $slip = $this->rpm * self::RAD_S_PER_RPM * (1.0 - $new / $old);
        $through = $this->setting->torqueThrough($this->torque, $slip, $new);
        $drop =
            $this->setting->inertia > 0.0
                ? (($through - $this->torque) * $this->setting->time) / $this->setting->inertia
                : $slip;
        [$off, $on] = [$this->chart->applied[$from], $this->chart->applied[$to]];
        $coming = array_values(array_diff($on, $off));
        $rows = array_map(fn (string $id): ?array => $this->onComing($id, $from, $to, $through), $coming);

        return [
            'from' => $from,
            'to' => $to,
            'on' => $coming,
            'off' => array_values(array_diff($off, $on)),
            'inputDrop_rpm' => $drop / self::RAD_S_PER_RPM,
            'inertiaTorque_nm' => $through - $this->torque,
            'outputTorque_nm' => [
                'before' => $old * $this->torque,
                'during' => $new * $through,
                'after' => $new * $this->torque,
            ],
            'elements' => array_values(array_filter($rows)),
        ];
    }

    /** @return array<string, mixed>|null null where statics leave its torque or its slip open */
    private function onComing(string $id, string $from, string $to, float $through): ?array
    {
        [$old, $new] = [$this->chart->solved()[$from], $this->chart->solved()[$to]];
        $share = $new->elementTorque[$id] ?? null;
        $first = $old->slip[$id] ?? null;
        if ($share === null || $first === null) {
            return null;
        }
        $feel = $this->feel($id, $to, $old, $new);
        $held = $feel['torque_nm'] ?? abs($share) * $through;
        $slip = abs($first) * $this->rpm * self::RAD_S_PER_RPM;
        $energy = $feel['energy_j'] ?? (($held * $slip) / 2.0) * $this->setting->time;

        return [
            'element' => $id,
            'slipBefore_rpm' => $first * $this->rpm,
            'torque_nm' => $held,
            'energy_j' => $energy,
            'meanPower_kw' => $feel['meanPower_kw'] ?? $energy / $this->setting->time / 1000.0,
        ] +
            ($feel === null ? [] : ['feel' => array_diff_key($feel, self::SAID_BEFORE)]) +
            $this->perArea($id, $energy);
    }

    /** @return array{perArea_j_mm2?: float, limit_j_mm2?: float, over?: bool} */
    private function perArea(string $id, float $energy): array
    {
        if (! isset($this->areas[$id])) {
            return [];
        }
        $perArea = $energy / $this->areas[$id];
        $limit = $this->limits[$id] ?? null;

        return ['perArea_j_mm2' => $perArea] +
            ($limit === null ? [] : ['limit_j_mm2' => $limit, 'over' => $perArea > $limit]);
    }

    /** @return Feel|null null where no accumulator governs the shift */
    private function feel(string $element, string $gear, SolvedGear $from, SolvedGear $to): ?array
    {
        $accumulator = $this->hardware->accumulators[$element] ?? null;
        $capacity = $this->hardware->capacities[$element] ?? null;

        return $this->hardware === null || $accumulator === null || $capacity === null
            ? null
            : ShiftFeel::of(
                $element,
                $capacity,
                $accumulator,
                $from,
                $to,
                $this->hardware->pressures[$gear],
                $this->torque,
                $this->rpm,
                $this->setting,
            );
    }
}
