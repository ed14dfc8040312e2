<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Catalog\Models\Option;
use Yard\Core\Calculators;
use Yard\Core\GearTrain\Train;
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
        $read = static fn (array $fields): Input => Input::fromJson(
            json_encode($fields, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION),
        );
        $asked = $read(['inputTorque_nm' => 1] + $power);
        $train = Train::read($asked);
        $plan = TrainDuty::read($asked, $train);
        $options = Option::query()
            ->where('family_id', $family->id)
            ->orderBy('id')
            ->get()
            ->filter(fn (Option $o) => isset($o->body['power']))
            ->sortBy(fn (Option $o) => isset($o->body['power']['accumulators']) ? 0 : 1);
        $names = array_column($family->train['elements'], 'name', 'id');
        $out = [];
        foreach (self::upshifts($family) as [$from, $to, $element, $timed]) {
            if (! isset($power['accumulators'][$element], $power['capacities'][$element])) {
                continue;
            }
            $builds = [
                ['name' => 'As made', 'line_kpa' => $plan->hardware->pressures[$to]] +
                $power['accumulators'][$element],
            ];
            foreach ($options as $option) {
                $change = $option->body['power'];
                $line = $plan->hardware->with(HardwareChange::read($read($change), $train, null))->pressures[$to];
                $own = isset($change['capacities'][$element]) ? ['capacity' => $change['capacities'][$element]] : [];
                if (
                    isset($change['accumulators'][$element]) ||
                    $own !== [] ||
                    $line !== $plan->hardware->pressures[$to]
                ) {
                    $builds[] =
                        ['name' => $option->name, 'line_kpa' => $line] +
                        ($change['accumulators'][$element] ?? $power['accumulators'][$element]) +
                        $own;
                }
            }
            $out[] = [
                'from' => $from,
                'to' => $to,
                'element' => $element,
                'name' => $names[$element] ?? $element,
                'timed' => $timed,
                'inputInertia_kgm2' => (float) $power['shift']['inputInertia_kgm2'],
                'capacity' => $power['capacities'][$element],
                'builds' => $builds,
            ];
        }

        return $out;
    }

    /**
     * @return list<array{string, string, string, bool}> from, to, each element that comes on,
     *     and whether something must let go by command, of forward gears next to each other
     */
    private static function upshifts(Family $family): array
    {
        $forward = array_values(
            array_filter(
                Calculators::call('geartrain.solve', $family->train)['gears'],
                static fn (array $g): bool => ($g['ratio'] ?? 0) > 0,
            ),
        );
        $applied = array_column($family->train['gears'], 'applied', 'name');
        $out = [];
        foreach (array_slice($forward, 1) as $n => $to) {
            $from = $forward[$n];
            $off = array_diff($applied[$from['name']], $applied[$to['name']]);
            $timed =
                array_filter(
                    $family->train['elements'],
                    static fn (array $e): bool => in_array($e['id'], $off, true) && $e['kind'] !== 'one-way',
                ) !== [];
            $coming = $from['ratio'] > $to['ratio'] ? array_diff($applied[$to['name']], $applied[$from['name']]) : [];
            foreach ($coming as $element) {
                $out[] = [$from['name'], $to['name'], $element, $timed];
            }
        }

        return $out;
    }
}
