<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\Input;

/** Holds a drawing against the train, and its parts against each other. */
final class SectionCheck
{
    /** Parts may touch and bed into each other by so much. */
    private const BED_MM = 0.6;

    /** @return list<array{part: string, detail: string}> */
    public static function faults(Section $section, Input $train): array
    {
        return [...self::absent($section, $train), ...self::overlapping($section)];
    }

    /** @return list<array{part: string, detail: string}> every element and set of the train must be drawn */
    private static function absent(Section $section, Input $train): array
    {
        $itself = array_filter(
            $section->parts,
            static fn (DrawnPart $p): bool => in_array($p->kind, ['pack', 'band', 'one-way', 'set'], true),
        );
        $drawn = array_map(static fn (DrawnPart $p): string => $p->of, array_values($itself));
        $faults = [];
        foreach (['sets' => 'gear set', 'elements' => 'element'] as $list => $what) {
            foreach ($train->list($list) as $entry) {
                $id = $entry->name('id');
                if (! in_array($id, $drawn, true)) {
                    $faults[] = ['part' => '', 'detail' => "The $what \"$id\" of the train is not drawn."];
                }
            }
        }

        return $faults;
    }

    /** @return list<array{part: string, detail: string}> */
    private static function overlapping(Section $section): array
    {
        $faults = [];
        $parts = array_values($section->parts);
        $pieces = array_map(self::pieces(...), $parts);
        foreach ($parts as $n => $a) {
            for ($m = $n + 1; $m < count($parts); $m++) {
                $b = $parts[$m];
                if (self::overlap($a->bounds(), $b->bounds()) && self::meet($pieces[$n], $pieces[$m])) {
                    $faults[] = ['part' => $b->code, 'detail' => "\"$b->name\" lies in the place of \"$a->name\"."];
                }
            }
        }

        return $faults;
    }

    /**
     * @param  list<array{float, float, float, float}>  $a
     * @param  list<array{float, float, float, float}>  $b
     */
    private static function meet(array $a, array $b): bool
    {
        foreach ($a as $one) {
            foreach ($b as $other) {
                if (self::overlap($one, $other)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * @param  array{float, float, float, float}  $one
     * @param  array{float, float, float, float}  $other
     */
    private static function overlap(array $one, array $other): bool
    {
        return min($one[2], $other[2]) - max($one[0], $other[0]) > self::BED_MM &&
            min($one[3], $other[3]) - max($one[1], $other[1]) > self::BED_MM;
    }

    /**
     * The solid boxes of a part. An outline is taken apart into those boxes of its edges' grid that lie in it.
     *
     * @return list<array{float, float, float, float}>
     */
    private static function pieces(DrawnPart $part): array
    {
        $pieces = [];
        foreach ($part->shapes as $shape) {
            if (! $shape->isSolid()) {
                continue;
            }
            $shape->isBox() ? $pieces[] = $shape->bounds() : array_push($pieces, ...self::grid($shape->points));
        }

        return $pieces;
    }

    /**
     * @param  list<array{float, float}>  $outline
     * @return list<array{float, float, float, float}>
     */
    private static function grid(array $outline): array
    {
        [$xs, $ys] = [array_unique(array_column($outline, 0)), array_unique(array_column($outline, 1))];
        sort($xs);
        sort($ys);
        $boxes = [];
        for ($i = 1; $i < count($xs); $i++) {
            for ($j = 1; $j < count($ys); $j++) {
                $corners = [[0.05, 0.05], [0.95, 0.05], [0.05, 0.95], [0.95, 0.95]];
                $inside = array_filter($corners, static fn (array $c): bool => self::isInside(
                    $xs[$i - 1] + $c[0] * ($xs[$i] - $xs[$i - 1]),
                    $ys[$j - 1] + $c[1] * ($ys[$j] - $ys[$j - 1]),
                    $outline,
                ));
                count($inside) === 4 && $boxes[] = [$xs[$i - 1], $ys[$j - 1], $xs[$i], $ys[$j]];
            }
        }

        return $boxes;
    }

    /** @param  list<array{float, float}>  $outline */
    private static function isInside(float $x, float $y, array $outline): bool
    {
        $inside = false;
        $before = $outline[count($outline) - 1];
        foreach ($outline as $corner) {
            [[$x0, $y0], [$x1, $y1]] = [$before, $corner];
            if (($y0 > $y) !== ($y1 > $y) && $x < $x0 + ($y - $y0) / ($y1 - $y0) * ($x1 - $x0)) {
                $inside = ! $inside;
            }
            $before = $corner;
        }

        return $inside;
    }
}
