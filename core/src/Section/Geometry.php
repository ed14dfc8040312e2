<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** Reads sizes of a drawing. */
final class Geometry
{
    private const LARGEST_MM = 2000.0;

    /**
     * @return array{float, float} rising
     *
     * @throws BadInput
     */
    public static function span(Input $in, string $field): array
    {
        $ends = $in->numbers($field);
        if (count($ends) !== 2) {
            throw new BadInput('span', "\"$field\" must have two numbers, from and to.", "$in->path/$field");
        }
        [$from, $to] = $ends;
        if (max(abs($from), abs($to)) > self::LARGEST_MM) {
            throw new BadInput('span', "\"$field\" is larger than any unit.", "$in->path/$field");
        }
        if ($to <= $from) {
            throw new BadInput('span', "\"$field\" must rise from the first number to the second.", "$in->path/$field");
        }

        return [$from, $to];
    }

    /**
     * @return list<array{float, float}>
     *
     * @throws BadInput
     */
    public static function points(Input $in, string $field): array
    {
        return array_map(static function (Input $point) use ($in, $field): array {
            $both = array_map(self::size(...), $point->asList());
            if (count($both) !== 2) {
                throw new BadInput('point', 'A point has two numbers.', "$in->path/$field");
            }

            return [$both[0], $both[1]];
        }, $in->list($field));
    }

    private static function size(Input $in): float
    {
        return $in->asNumber(-self::LARGEST_MM, self::LARGEST_MM);
    }
}
