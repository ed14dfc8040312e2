<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Faults\ControlMap as Map;
use Yard\Core\Input;

/** control.map: the gears one gets when a solenoid is stuck, and which one explains what was driven. */
final class ControlMap implements Calculator
{
    /** How often what is said of a gear is so. */
    private const RELIABILITY = 0.95;

    private const MOST = 40;

    public function calculate(Input $in): array
    {
        $solenoids = [];
        foreach ($in->list('solenoids', 1) as $item) {
            $id = $item->name('id');
            if (in_array($id, $solenoids, true)) {
                throw $item->at('id')->fail('duplicate', "The solenoid \"$id\" is listed twice.");
            }
            $solenoids[] = $id;
        }
        count($solenoids) <= self::MOST || throw $in->at('solenoids')->fail('too-many', 'No more than 40 solenoids.');
        $states = self::states($in, $solenoids);
        $limp = $in->has('limp') ? self::gear($in->at('limp'), $states, false) : null;

        return (new Map($solenoids, $states, $limp))->given(
            self::observed($in->optional('observed'), $states),
            $in->numberOr('reliability', self::RELIABILITY, above: 0.0, max: 1.0),
            self::effort($in->optional('effort'), $solenoids),
        ) + ($in->has('reliability') ? [] : ['assumed' => ['reliability' => self::RELIABILITY]]);
    }

    /**
     * @param  array<string, list<string>>  $states
     * @return array<string, string> commanded gear => the gear obtained
     */
    private static function observed(?Input $in, array $states): array
    {
        $out = [];
        foreach ($in?->asMap() ?? [] as $gear => $obtained) {
            isset($states[$gear]) || throw $obtained->fail('unknown-gear', "There is no state of gear \"$gear\".");
            $out[(string) $gear] = self::gear($obtained, $states, true);
        }

        return $out;
    }

    /**
     * @param  list<string>  $solenoids
     * @return array<string, list<string>> gear => solenoids that are on
     */
    private static function states(Input $in, array $solenoids): array
    {
        $states = $keys = [];
        foreach ($in->list('states', 1) as $state) {
            $gear = $state->name('gear');
            $gear !== Map::NONE || throw $state->at('gear')->fail('reserved', 'No gear can be called "none".');
            isset($states[$gear]) && throw $state->at('gear')->fail('duplicate', "The gear \"$gear\" has two states.");
            $on = self::on($state, $solenoids);
            $key = Map::key($on);
            if (isset($keys[$key])) {
                throw $state
                    ->at('on')
                    ->fail('duplicate', "Gears \"$keys[$key]\" and \"$gear\" have the same solenoids on.");
            }
            $keys[$key] = $gear;
            $states[$gear] = $on;
        }
        count($states) <= self::MOST || throw $in->at('states')->fail('too-many', 'No more than 40 states.');

        return $states;
    }

    /**
     * @param  list<string>  $solenoids
     * @return list<string>
     */
    private static function on(Input $state, array $solenoids): array
    {
        $on = [];
        foreach ($state->list('on') as $item) {
            $id = self::solenoid($item->asString(), $item, $solenoids);
            in_array($id, $on, true) && throw $item->fail('duplicate', "The solenoid \"$id\" is on twice.");
            $on[] = $id;
        }

        return $on;
    }

    /** @param  list<string>  $solenoids */
    private static function solenoid(string $id, Input $at, array $solenoids): string
    {
        return in_array($id, $solenoids, true)
            ? $id
            : throw $at->fail('unknown-solenoid', "There is no solenoid \"$id\".");
    }

    /** @param  array<string, list<string>>  $states */
    private static function gear(Input $in, array $states, bool $orNone): string
    {
        $gear = $in->asString();
        if (! isset($states[$gear]) && ! ($orNone && $gear === Map::NONE)) {
            throw $in->fail('unknown-gear', "There is no state of gear \"$gear\".");
        }

        return $gear;
    }

    /**
     * @param  list<string>  $solenoids
     * @return array<string, float>
     */
    private static function effort(?Input $in, array $solenoids): array
    {
        $out = [];
        foreach ($in?->asMap() ?? [] as $id => $effort) {
            $out[self::solenoid((string) $id, $effort, $solenoids)] = $effort->asNumber(above: 0.0);
        }

        return $out;
    }
}
