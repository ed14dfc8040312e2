<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\Input;

/** Shapes of the plain machine parts: shafts, drums, hubs, bearings, wheels, covers. Radii count from the axis. */
final class Solids
{
    private const WALL = 4.0;

    /** @return list<Shape> */
    public static function shaft(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$bore, $r] = [$in->numberOr('bore', 0.0, min: 0.0), $in->number('r', above: 0.0)];
        $shapes = [Shape::box('cut', $x0, $x1, $bore, $r)];
        foreach (array_chunk($in->has('splines') ? $in->numbers('splines') : [], 2) as [$from, $to]) {
            for ($y = $r - 2.5; $y < $r; $y += 1.2) {
                $shapes[] = Shape::line('line', [[$from, $y], [$to, $y]]);
            }
        }

        return $shapes;
    }

    /**
     * A drum: wall, web on one side, and a hub on the axis where the web ends.
     *
     * @return list<Shape>
     */
    public static function drum(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$inner, $outer] = Geometry::span($in, 'r');
        $wall = $in->numberOr('wall', self::WALL, above: 0.0);
        $left = $in->choice('web', ['left', 'right']) === 'left';
        $hub = $in->numberOr('hub', 0.0, above: 0.0);
        [$w0, $w1] = $left ? [$x0, $x0 + $wall] : [$x1 - $wall, $x1];
        // one outline, so that it reads as one piece of metal
        $points = $left
            ? [[$x0, $inner], [$x0, $outer], [$x1, $outer], [$x1, $outer - $wall], [$w1, $outer - $wall]]
            : [[$x1, $inner], [$x1, $outer], [$x0, $outer], [$x0, $outer - $wall], [$w0, $outer - $wall]];
        $end = $left ? $w1 : $w0;
        $hubEnd = $left ? $w1 + $hub : $w0 - $hub;
        $tail = $hub > 0
            ? [[$end, $inner + $wall], [$hubEnd, $inner + $wall], [$hubEnd, $inner]]
            : [[$end, $inner]];

        return [Shape::outline('cut', [...$points, ...$tail])];
    }

    /** @return list<Shape> */
    public static function block(Input $in): array
    {
        return $in->has('points')
            ? [Shape::outline('cut', Geometry::points($in, 'points'))]
            : [Shape::box('cut', ...Geometry::span($in, 'x'), ...Geometry::span($in, 'r'))];
    }

    /**
     * The case: its inner contour, and a wall outside of it.
     *
     * @return list<Shape>
     */
    public static function housing(Input $in): array
    {
        $inside = Geometry::points($in, 'points');
        $wall = $in->numberOr('wall', 7.0, above: 0.0);

        $outside = self::outside($inside, $wall);
        $below = array_map(static fn (array $p): array => [$p[0], -$p[1]], $outside);
        $closed = [[$outside[0][0], 0.0], ...$below, [$outside[count($outside) - 1][0], 0.0]];

        return [Shape::outline('outside', $closed), Shape::outline('cut', [...$inside, ...array_reverse($outside)])];
    }

    /**
     * @param  list<array{float, float}>  $line  from left to right
     * @return list<array{float, float}> the same line, moved up by the wall square to each piece
     */
    public static function outside(array $line, float $wall): array
    {
        $out = [];
        foreach ($line as $n => $p) {
            $before = $n > 0 ? self::normal($line[$n - 1], $p) : null;
            $after = $n + 1 < count($line) ? self::normal($p, $line[$n + 1]) : $before ?? [0.0, 1.0];
            $before ??= $after;
            [$nx, $ny] = [($before[0] + $after[0]) / 2, ($before[1] + $after[1]) / 2];
            $length = max(0.5, $nx * $nx + $ny * $ny);
            $out[] = [$p[0] + $wall * $nx / $length, $p[1] + $wall * $ny / $length];
        }

        return $out;
    }

    /**
     * @param  array{float, float}  $from
     * @param  array{float, float}  $to
     * @return array{float, float} of length 1, to the left of the way
     */
    private static function normal(array $from, array $to): array
    {
        [$dx, $dy] = [$to[0] - $from[0], $to[1] - $from[1]];
        $length = hypot($dx, $dy) ?: 1.0;

        return [-$dy / $length, $dx / $length];
    }

    /** @return list<Shape> */
    public static function bearing(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $style = $in->choice('style', ['needle', 'bush', 'washer', 'ball']);
        if ($style === 'bush' || $style === 'washer') {
            return [Shape::box('ring', $x0, $x1, $r0, $r1)];
        }
        $race = min($x1 - $x0, $r1 - $r0) * 0.22;
        $axial = $x1 - $x0 < $r1 - $r0; // a thrust bearing stands upright, its races left and right
        $races = $axial
            ? [[$x0, $x0 + $race, $r0, $r1], [$x1 - $race, $x1, $r0, $r1]]
            : [[$x0, $x1, $r0, $r0 + $race], [$x0, $x1, $r1 - $race, $r1]];
        $shapes = array_map(static fn (array $b): Shape => Shape::box('ring', ...$b), $races);
        [$cx, $cy] = [($x0 + $x1) / 2, ($r0 + $r1) / 2];
        if ($style === 'ball') {
            $shapes[] = Shape::circle('roller', $cx, $cy, min($x1 - $x0, $r1 - $r0) / 2 - $race);

            return $shapes;
        }
        $shapes[] = $axial
            ? Shape::box('roller', $x0 + $race, $x1 - $race, $r0 + 1.5, $r1 - 1.5)
            : Shape::box('roller', $x0 + 1.5, $x1 - 1.5, $r0 + $race, $r1 - $race);

        return $shapes;
    }

    /**
     * A wheel with teeth outside: parking gear, speed wheel, final drive.
     *
     * @return list<Shape>
     */
    public static function wheel(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $tooth = min(4.0, ($r1 - $r0) / 4);

        return [
            Shape::box('cut', $x0, $x1, $r0, $r1 - $tooth),
            Shape::box('plain', $x0, $x1, $r1 - $tooth, $r1),
            Shape::line('line', [[$x0, $r1 - $tooth / 2], [$x1, $r1 - $tooth / 2]]),
        ];
    }

    /**
     * Sealing rings in their grooves.
     *
     * @return list<Shape>
     */
    public static function rings(Input $in): array
    {
        [$r0, $r1] = Geometry::span($in, 'r');

        return array_map(
            static fn (float $x): Shape => Shape::box('ring', $x - 1.1, $x + 1.1, $r0, $r1),
            $in->numbers('at'),
        );
    }

    /**
     * A lip seal: its shell and the lip on the shaft.
     *
     * @return list<Shape>
     */
    public static function seal(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $third = ($r1 - $r0) / 3;

        return [
            Shape::outline('ring', [
                [$x0, $r1],
                [$x1, $r1],
                [$x1, $r1 - $third],
                [$x0 + 2, $r1 - $third],
                [($x0 + $x1) / 2, $r0],
                [$x0, $r0 + $third],
            ]),
        ];
    }
}
