<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\Coast;
use Yard\Core\Drivetrain\Element;
use Yard\Core\Input;

/** geartrain.coast: which gears hold the vehicle back, and which elements work on the overrun only. */
final class GeartrainCoast implements Calculator
{
    /** One-ways of one gear; every combination of them is tried. */
    private const MOST_ONE_WAYS = 8;

    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in, 1);
        $gears = $onCoast = $inDrive = [];
        foreach (array_values($chart->applied) as $n => $applied) {
            $kinds = array_map(static fn (string $id): string => $chart->train->elements[$id]->kind, $applied);
            if (count(array_keys($kinds, 'one-way', true)) > self::MOST_ONE_WAYS) {
                $most = self::MOST_ONE_WAYS;
                throw $in->at('gears')->at((string) $n)->fail('too-many', "No more than $most one-ways in one gear.");
            }
        }
        foreach ($chart->applied as $name => $applied) {
            $coast = Coast::of($chart->train, $applied);
            $gears[] = [
                'name' => (string) $name,
                'engineBraking' => $coast->engineBraking,
                'overruns' => $coast->overruns,
                'elementTorque' => (object) $coast->elementTorque,
            ];
            array_push($onCoast, ...$coast->carrying);
            array_push($inDrive, ...Coast::carryingInDrive($chart->train, $applied));
        }
        $only = array_diff($onCoast, $inDrive);
        $elements = array_map(static fn (Element $e): string => $e->id, array_values($chart->train->elements));

        return ['gears' => $gears, 'coastOnly' => array_values(array_intersect($elements, $only))];
    }
}
