<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Catalog\Models\Option;
use Illuminate\Support\Collection;
use Yard\Core\Input;
use Yard\Core\Power\HardwareChange;
use Yard\Core\Power\TrainDuty;

/**
 * The shifts of a family whose on-coming element has an accumulator, as the family has it and as each option leaves it.
 */
final class ShiftFeels
{
    /**
     * @return list<array{from: string, to: string, element: string, name: string, timed: bool,
     *     inputInertia_kgm2: float, capacity: array<string, mixed>, builds: list<array<string,
     *     mixed>>}> what shift.feel asks, but for engine and vehicle; timed: the old gear lets go by command,
     *     not by a one-way clutch
     */
    public static function of(Family $family): array
    {
        $power = VariantHardware::of($family->body['power'] ?? ['capacities' => []], $family->train, []);
        if (! isset($power['accumulators'], $power['shift'])) {
            return [];
        }
        $plan = TrainDuty::read(Input::of(['inputTorque_nm' => 1] + $power));
        $options = self::options($family);
        $names = array_column($family->train['elements'], 'name', 'id');
        $out = [];
        foreach (self::upshifts($family) as [$from, $to, $element, $timed]) {
            if (! isset($power['accumulators'][$element], $power['capacities'][$element])) {
                continue;
            }
            $asMade = [
                'name' => 'As made',
                'line_kpa' => $plan->hardware->pressures[$to],
            ] + $power['accumulators'][$element];
            $changed = $options->map(fn (Option $o) => self::changed($o, $plan, $to, $element, $asMade))->filter();
            $out[] = [
                'from' => $from,
                'to' => $to,
                'element' => $element,
                'name' => $names[$element] ?? $element,
                'timed' => $timed,
                'inputInertia_kgm2' => (float) $power['shift']['inputInertia_kgm2'],
                'capacity' => $power['capacities'][$element],
                'builds' => [$asMade, ...array_values($changed->all())],
            ];
        }

        return $out;
    }

    /** @return Collection<int, Option> those with hardware, the ones with an accumulator first */
    private static function options(Family $family): Collection
    {
        return Option::query()
            ->where('family_id', $family->id)
            ->orderBy('id')
            ->get()
            ->filter(fn (Option $o) => isset($o->body['power']))
            ->sortBy(fn (Option $o) => isset($o->body['power']['accumulators']) ? 0 : 1);
    }

    /**
     * @param  array<string, mixed>  $asMade
     * @return array<string, mixed>|null the build with this option; null where it leaves the shift as it is
     */
    private static function changed(Option $option, TrainDuty $plan, string $to, string $element, array $asMade): ?array
    {
        $change = $option->body['power'];
        $hardware = $plan->hardware->with(HardwareChange::read(Input::of($change), $plan->chart->train, null));
        $accumulator = $change['accumulators'][$element] ?? null;
        $own = isset($change['capacities'][$element]) ? ['capacity' => $change['capacities'][$element]] : [];
        $line = $hardware->pressures[$to];
        if ($accumulator === null && $own === [] && $line === $asMade['line_kpa']) {
            return null;
        }

        return ['name' => $option->name, 'line_kpa' => $line] + ($accumulator ?? $asMade) + $own;
    }

    /**
     * @return list<array{string, string, string, bool}> from, to, each element that comes on,
     *     and whether something must let go by command, of forward gears next to each other
     */
    private static function upshifts(Family $family): array
    {
        $chart = $family->chart();
        $forward = array_keys(array_filter($chart->ratios(), static fn (float $ratio): bool => $ratio > 0));
        $out = [];
        foreach (array_slice($forward, 1) as $n => $to) {
            [$from, $to] = [(string) $forward[$n], (string) $to];
            $off = array_diff($chart->applied[$from], $chart->applied[$to]);
            $timed =
                array_filter($off, static fn (string $id): bool => $chart->train->elements[$id]->kind !== 'one-way') !==
                [];
            $coming =
                $chart->ratios()[$from] > $chart->ratios()[$to]
                    ? array_diff($chart->applied[$to], $chart->applied[$from])
                    : [];
            foreach ($coming as $element) {
                $out[] = [$from, $to, $element, $timed];
            }
        }

        return $out;
    }
}
