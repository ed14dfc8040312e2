<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\GearTrain\Train;
use Yard\Core\Input;

/**
 * For each upshift of the chart: which element comes on, which lets go, and the heat the on-coming one takes while it
 * pulls the input down to its new speed. Constant output speed and a straight fall of the slip are assumed: the element
 * carries its share of input torque and inertia torque, energy = torque x half the first slip x time.
 */
final class ShiftEnergy implements Calculator
{
    public const ASSUMPTIONS = [
        'The output keeps its speed during the shift; the vehicle is heavy against the engine.',
        'The input falls evenly over the shift time, so the slip of the on-coming element falls evenly to nothing.',
        'The on-coming element carries its share of the input torque and of the torque that slows the input\'s inertia; engine torque is not cut.',
        'The off-going element has let go: an overlap adds heat in both (tie-up), a gap lets the input run up (flare).',
    ];

    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        $torque = $in->number('inputTorque_nm', min: 0.0);
        $speed = $in->number('inputSpeed_rpm', above: 0.0);
        $inertia = $in->number('inputInertia_kgm2', min: 0.0);
        $time = $in->number('shiftTime_s', above: 0.0);
        $areas = [];
        foreach ($in->optional('faces')?->asMap() ?? [] as $id => $area) {
            isset($train->elements[$id]) || throw $area->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $areas[$id] = $area->asNumber(above: 0.0);
        }
        $before = null;
        $shifts = [];
        foreach ($in->list('gears', 1) as $gear) {
            $applied = [];
            foreach ($gear->list('applied') as $item) {
                isset($train->elements[$item->asString()]) || throw $item->fail('unknown-element', "The element \"{$item->asString()}\" is not in the list of elements.");
                $applied[] = $item->asString();
            }
            $solved = $train->solve($applied);
            if ($solved['ratio'] === null || $solved['ratio'] <= 0.0) {
                continue;
            }
            if ($before !== null && $before['solved']['ratio'] > $solved['ratio']) {
                $drop = $speed * (1.0 - $solved['ratio'] / $before['solved']['ratio']);
                $slowing = $inertia * $drop * M_PI / 30.0 / $time;
                $on = array_values(array_diff($applied, $before['applied']));
                $rows = [];
                foreach ($on as $id) {
                    $share = $solved['elementTorque'][$id] ?? null;
                    $slip = $before['solved']['slip'][$id] ?? null;
                    if ($share !== null && $slip !== null) {
                        $held = abs($share) * ($torque + $slowing);
                        $energy = $held * abs($slip) * $speed * M_PI / 30.0 / 2.0 * $time;
                        $rows[] = ['element' => $id, 'slipBefore_rpm' => $slip * $speed, 'torque_nm' => $held, 'energy_j' => $energy, 'meanPower_kw' => $energy / $time / 1000.0] + (isset($areas[$id]) ? ['perArea_j_mm2' => $energy / $areas[$id]] : []);
                    }
                }
                $shifts[] = ['from' => $before['name'], 'to' => $gear->name('name'), 'on' => $on, 'off' => array_values(array_diff($before['applied'], $applied)), 'inputDrop_rpm' => $drop, 'inertiaTorque_nm' => $slowing, 'elements' => $rows];
            }
            $before = ['name' => $gear->name('name'), 'applied' => $applied, 'solved' => $solved];
        }

        return ['shifts' => $shifts, 'assumptions' => self::ASSUMPTIONS];
    }
}
