<?php

namespace App\Catalog\Exchange;

/** Which solenoids are on in which gear: solenoids and gears that are there, no two gears commanded alike. */
final class CheckControl
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $control = $family->body->control ?? null;
        if ($control === null) {
            return [];
        }
        $known = array_column($control->solenoids, 'id');
        $gears = array_column($family->train->gears ?? [], 'name');
        $errors = $like = [];
        foreach ($control->states as $n => $state) {
            $pointer = "$at/body/control/states/$n";
            if (! in_array($state->gear, $gears, true)) {
                $errors[] = ['pointer' => "$pointer/gear", 'detail' => "The train has no gear \"$state->gear\"."];
            }
            foreach (array_diff($state->on, $known) as $k => $solenoid) {
                $errors[] = ['pointer' => "$pointer/on/$k", 'detail' => "There is no solenoid \"$solenoid\"."];
            }
            $on = $state->on;
            sort($on);
            $key = implode(' ', $on);
            if (isset($like[$key])) {
                $detail = "Gears \"$like[$key]\" and \"$state->gear\" are commanded alike.";
                $errors[] = ['pointer' => "$pointer/on", 'detail' => $detail];
            }
            $like[$key] = $state->gear;
        }
        if (isset($control->limp) && ! in_array($control->limp, array_column($control->states, 'gear'), true)) {
            $detail = "No state commands the gear \"$control->limp\".";
            $errors[] = ['pointer' => "$at/body/control/limp", 'detail' => $detail];
        }

        return $errors;
    }
}
