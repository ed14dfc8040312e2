<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/**
 * A unit whose elements wore or leak, or whose pressure is wrong, beside the sound one: from which engine torque each
 * gear slips, and what becomes of each upshift.
 *
 * @phpstan-type Holds array{holds_nm?: float, element?: string}
 */
final readonly class WeakenedUnit
{
    private const NOTHING = 1e-9;

    /** A time or a torque that differs by less than this share is the same. */
    private const ALIKE = 1e-6;

    private Hardware $now;

    public function __construct(private TrainDuty $plan, private Weakening $weakening)
    {
        $this->now = $weakening->of($plan->hardware);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $report = new MarginReport($this->plan, $this->now);
        $told = array_flip(['overPressure', 'overPressed']);

        return [
            'gears' => array_map($this->gear(...), $this->plan->chart->gears()),
            'shifts' => $this->shifts(),
            'lands' => $this->lands(),
            'reaches' => (object) $this->weakening->reaches,
        ] + array_intersect_key($report->toArray(), $told);
    }

    /**
     * The land behind each snap ring in the gear that presses it hardest, beside the sound unit.
     *
     * @return list<array{element: string, gear: string, force_n: float, stress_mpa: float, sound_mpa: float,
     *     limit_mpa: float, over: bool}>
     */
    private function lands(): array
    {
        $out = [];
        foreach ($this->plan->chart->applied as $gear => $applied) {
            foreach ($applied as $element) {
                $land = $this->plan->hardware->capacities[$element]->land ?? null;
                $force = $land === null ? null : $this->clamps($this->now, (string) $gear, $element);
                if ($land === null || $force === null || $force <= ($out[$element]['force_n'] ?? -1.0)) {
                    continue;
                }
                $stress = $land->stress($force);
                $out[$element] = [
                    'element' => $element,
                    'gear' => (string) $gear,
                    'force_n' => $force,
                    'stress_mpa' => $stress,
                    'sound_mpa' => $land->stress((float) $this->clamps($this->plan->hardware, "$gear", $element)),
                    'limit_mpa' => $land->limit,
                    'over' => $stress > $land->limit,
                ];
            }
        }

        return array_values($out);
    }

    private function clamps(Hardware $hardware, string $gear, string $element): ?float
    {
        $capacity = $hardware->capacities[$element];
        $pressure = $hardware->pressures[$gear] ?? null;
        $turns = $capacity->oil === null
            ? 0.0
            : $this->plan->chart->solved()[$gear]->speeds[$capacity->oil['node']] ?? 0.0;

        return $pressure === null ? null : $capacity->clamps($pressure, $turns * $this->plan->inputSpeed);
    }

    /** @return array<string, mixed> */
    private function gear(string $gear): array
    {
        $sound = self::holds($this->plan->evaluate($this->plan->hardware, $gear));
        $now = self::holds($this->plan->evaluate($this->now, $gear));
        $slips = isset($now['holds_nm']) && $now['holds_nm'] < $this->plan->inputTorque;

        return [
            'name' => $gear,
            'pressure_kpa' => $this->now->pressures[$gear],
            'sound' => (object) $sound,
            'now' => (object) $now,
            'slips' => $slips,
            'sentence' => $this->said($gear, $sound, $now, $slips),
        ];
    }

    /** @return Holds empty where nothing that is described carries torque */
    private static function holds(DutyReport $report): array
    {
        $largest = $report->largest();
        $weakest = $report->weakest();

        return $largest === null || $weakest === null
            ? []
            : ['holds_nm' => $largest, 'element' => $weakest['element']];
    }

    /**
     * @param  Holds  $sound
     * @param  Holds  $now
     */
    private function said(string $gear, array $sound, array $now, bool $slips): string
    {
        if (! isset($now['holds_nm'], $now['element'], $sound['holds_nm'])) {
            return "What holds gear $gear is not described.";
        }
        if (abs($now['holds_nm'] - $sound['holds_nm']) <= self::ALIKE * $sound['holds_nm']) {
            return $slips
                ? sprintf('Gear %s slips above %.0f N.m, sound or not: %s.', $gear, $now['holds_nm'], $now['element'])
                : "Gear $gear holds what it held.";
        }

        return $now['holds_nm'] < 1.0
            ? "Gear $gear holds nothing: {$now['element']} slips at once."
            : sprintf(
                'Gear %s %s above %.0f N.m, at %s; sound it held %.0f.',
                $gear,
                $slips ? 'slips' : 'would slip',
                $now['holds_nm'],
                $now['element'],
                $sound['holds_nm'],
            );
    }

    /** @return list<array<string, mixed>> each upshift of forward gears next to each other, by its on-coming element */
    private function shifts(): array
    {
        if ($this->plan->shift === null || $this->plan->inputSpeed <= 0.0) {
            return [];
        }
        $ratios = $this->plan->chart->ratios();
        $forward = array_map(strval(...), array_keys(array_filter($ratios, static fn (float $r): bool => $r > 0.0)));
        $out = [];
        foreach (array_slice($forward, 1) as $n => $to) {
            $coming = array_diff($this->plan->chart->applied[$to], $this->plan->chart->applied[$forward[$n]]);
            foreach ($ratios[$forward[$n]] > $ratios[$to] ? $coming : [] as $element) {
                if (isset($this->plan->hardware->capacities[$element])) {
                    $out[] = $this->shift($forward[$n], $to, $element, $this->plan->shift);
                }
            }
        }

        return array_values(array_filter($out));
    }

    /** @return array<string, mixed>|null null where the element carries nothing in the new gear */
    private function shift(string $from, string $to, string $element, ShiftSetting $setting): ?array
    {
        $share = abs($this->plan->chart->solved()[$to]->elementTorque[$element] ?? 0.0);
        if ($share < self::NOTHING) {
            return null;
        }
        $sound = $this->pullsDown($this->plan->hardware, $from, $to, $element, $setting);
        $now = $this->pullsDown($this->now, $from, $to, $element, $setting);
        $feel = $this->feel($from, $to, $element, $setting);
        $out = compact('from', 'to', 'element') +
            ['sound' => (object) ($sound === null ? [] : ['pullsDown_s' => $sound])] +
            ['now' => (object) ($now === null ? [] : ['pullsDown_s' => $now])] +
            ($feel === null ? [] : ['feel' => $feel]);

        return $out + ['sentence' => ShiftWords::of($element, $sound, $now, $feel)];
    }

    /**
     * The shortest time in which the element, slipping with all it holds, takes the input to its new speed, the output
     * keeping its own: I dw / (X - T). Null where it holds less than the engine gives.
     */
    private function pullsDown(Hardware $hardware, string $from, string $to, string $element, ShiftSetting $set): ?float
    {
        $chart = $this->plan->chart;
        [$before, $after] = [$chart->solved()[$from], $chart->solved()[$to]];
        $torque = $after->elementTorque[$element];
        $capacity = $hardware->capacities[$element];
        $turns = $capacity->oil === null ? 0.0 : $after->speeds[$capacity->oil['node']] ?? 0.0;
        $held = $capacity->at($hardware->pressures[$to], $torque, $turns * $this->plan->inputSpeed)['capacity_nm'];
        $pulls = $held / abs($torque) - $this->plan->inputTorque;
        $falls = $this->plan->inputSpeed * (1.0 - (float) $after->ratio / (float) $before->ratio);

        return $pulls <= 0.0 ? null : ($set->inertia * $falls * M_PI) / 30.0 / $pulls;
    }

    /**
     * With an accumulator the pressure rises in time: the off-going element lets go when it did in the sound unit, and
     * what comes late flares, what comes early ties up.
     *
     * @return array{sound: array<string, mixed>, now: array<string, mixed>}|null
     */
    private function feel(string $from, string $to, string $element, ShiftSetting $setting): ?array
    {
        $accumulator = $this->plan->hardware->accumulators[$element] ?? null;
        if ($accumulator === null) {
            return null;
        }
        $chart = $this->plan->chart;
        $of = fn (Hardware $hardware, ?float $letsGo): ?array => ShiftFeel::of(
            $element,
            $hardware->capacities[$element],
            $hardware->accumulators[$element],
            $chart->solved()[$from],
            $chart->solved()[$to],
            $hardware->pressures[$to],
            $this->plan->inputTorque,
            $this->plan->inputSpeed,
            $setting,
            $letsGo,
        );
        $sound = $of($this->plan->hardware, null);
        $now = $of($this->now, $this->isTimed($from, $to) ? $sound['takeOver_s'] ?? null : null);
        if ($sound === null || $now === null) {
            return null;
        }
        unset($sound['curve'], $now['curve']);

        return compact('sound', 'now');
    }

    /** Whether something lets go by command; a one-way clutch lets go by itself. */
    private function isTimed(string $from, string $to): bool
    {
        $chart = $this->plan->chart;
        foreach (array_diff($chart->applied[$from], $chart->applied[$to]) as $id) {
            if ($chart->train->elements[$id]->kind !== 'one-way') {
                return true;
            }
        }

        return false;
    }
}
