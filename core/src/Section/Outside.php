<?php

declare(strict_types=1);

namespace Yard\Core\Section;

/** The unit as it stands on the floor, from its side: silhouettes of what the section drawing cuts open. */
final class Outside
{
    /**
     * @return list<array{float, float}> closed outline in millimetres, y upwards; empty where nothing of the part is
     *     between `from` and `to`
     */
    public static function of(DrawnPart $part, float $from = -INF, float $to = INF): array
    {
        $outside = array_filter($part->shapes, static fn (Shape $s): bool => $s->as === 'outside');
        $half = array_values($outside)[0] ?? null;
        $points = $half === null ? $part->shapes[0]->points : self::mirrored($half->points);

        return self::cut(self::cut($points, $from, 1.0), $to, -1.0);
    }

    /**
     * Both halves of a body that was turned about the axis.
     *
     * @param  list<array{float, float}>  $half  begins and ends on the axis
     * @return list<array{float, float}>
     */
    private static function mirrored(array $half): array
    {
        $other = array_map(static fn (array $p): array => [$p[0], -$p[1]], array_slice($half, 1, -1));

        return [...array_slice($half, 1, -1), ...array_reverse($other)];
    }

    /**
     * What lies on one side of an upright line (Sutherland and Hodgman 1974).
     *
     * @param  list<array{float, float}>  $points
     * @param  float  $side  1: what is right of it stays; -1: what is left
     * @return list<array{float, float}>
     */
    private static function cut(array $points, float $x, float $side): array
    {
        $kept = [];
        foreach ($points as $n => $point) {
            $before = $points[$n === 0 ? count($points) - 1 : $n - 1];
            [$in, $was] = [($point[0] - $x) * $side >= 0.0, ($before[0] - $x) * $side >= 0.0];
            if ($in !== $was) {
                $share = ($x - $before[0]) / ($point[0] - $before[0]);
                $kept[] = [$x, $before[1] + $share * ($point[1] - $before[1])];
            }
            if ($in) {
                $kept[] = $point;
            }
        }

        return $kept;
    }
}
