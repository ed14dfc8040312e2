<?php

declare(strict_types=1);

namespace Yard\Core\GearTrain;

use Yard\Core\Calculator;
use Yard\Core\Input;

/** Ratio, member and planet speeds, element torques and released slips of every gear of an apply chart. */
final class SolveGearTrain implements Calculator
{
    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        $warnings = array_merge(
            ...array_map(static fn (PlanetarySet $s): array => $s->warnings(), $train->sets),
            ...[[]],
        );
        $gears = [];
        $forward = [];
        $names = [];
        foreach ($in->list('gears') as $gearIn) {
            $name = $gearIn->name('name');
            if (isset($names[$name])) {
                throw $gearIn->at('name')->fail('duplicate', "The gear \"$name\" is listed twice.");
            }
            $names[$name] = true;
            $solved = $train->solve(self::applied($gearIn, $train));
            foreach ($solved['wouldLock'] as $id) {
                $warnings[] = [
                    'code' => 'one-way-would-lock',
                    'gear' => $name,
                    'element' => $id,
                    'message' => "Gear $name: the one-way clutch $id would lock, because its slip is in the direction "
                        .'it refuses.',
                ];
            }
            if ($solved['ratio'] !== null && $solved['ratio'] > 0.0) {
                $forward[] = $solved['ratio'];
            }
            $gear = ['name' => $name, 'state' => $solved['state'], 'ratio' => $solved['ratio']];
            foreach (['speeds', 'pinionSpeeds', 'elementTorque', 'setTorque', 'slip'] as $key) {
                $gear[$key] = (object) $solved[$key];
            }
            if ($solved['outputTorque'] !== null) {
                $gear['outputTorque'] = $solved['outputTorque'];
            }
            if ($solved['oneWayConsistent'] !== []) {
                $gear['oneWayConsistent'] = (object) $solved['oneWayConsistent'];
            }
            $gears[] = $gear;
        }
        $out = ['gears' => $gears, 'step' => [], 'warnings' => $warnings];
        for ($i = 1; $i < count($forward); $i++) {
            $out['step'][] = $forward[$i - 1] / $forward[$i];
        }
        if ($forward !== []) {
            $out['spread'] = max($forward) / min($forward);
        }

        return $out;
    }

    /** @return list<string> */
    private static function applied(Input $gear, Train $train): array
    {
        $applied = [];
        foreach ($gear->list('applied') as $item) {
            $id = $item->asString();
            if (! isset($train->elements[$id])) {
                throw $item->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            }
            if (in_array($id, $applied, true)) {
                throw $item->fail('duplicate', "The element \"$id\" is applied twice in this gear.");
            }
            $applied[] = $id;
        }

        return $applied;
    }
}
