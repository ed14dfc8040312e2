<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\Input;

/** Shapes of what works: pistons, bands, one-way clutches, gear sets, pump, converter, what lies below. */
final class Works
{
    private const COILS = 6;

    /**
     * A piston with its seals, and its return springs where it has them.
     *
     * @return list<Shape>
     */
    public static function piston(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $left = $in->choice('side', ['left', 'right']) === 'left';
        $plate = min(6.0, ($x1 - $x0) / 2);
        [$p0, $p1] = $left ? [$x0, $x0 + $plate] : [$x1 - $plate, $x1];
        $push = $left ? [$p1, $x1] : [$x0, $p0];
        $shapes = [
            Shape::box('cut', $p0, $p1, $r0, $r1),
            Shape::box('cut', ...$push, ...[$r1 - 6.0, $r1]),
            Shape::circle('roller', ($p0 + $p1) / 2, $r1, 1.4),
            Shape::circle('roller', ($p0 + $p1) / 2, $r0, 1.4),
        ];
        if ($in->has('springs') && $in->bool('springs')) {
            $from = $left ? $p1 : $p0;
            $to = $left ? $x1 + 6 : $x0 - 6;
            $shapes[] = self::coil($from, $to, $r0 + ($r1 - $r0) * 0.25, 4.0);
        }

        return $shapes;
    }

    /** @return list<Shape> */
    public static function band(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $lining = ($r1 - $r0) * 0.4;

        return [
            Shape::box('friction', $x0, $x1, $r0, $r0 + $lining),
            Shape::box('steel', $x0, $x1, $r0 + $lining, $r1),
            Shape::box('steel', $x0 + ($x1 - $x0) * 0.35, $x0 + ($x1 - $x0) * 0.65, $r1, $r1 + 5),
        ];
    }

    /** @return list<Shape> */
    public static function oneWay(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $race = ($r1 - $r0) * 0.22;
        [$inside, $outside] = [$r0 + $race, $r1 - $race];
        $element = match ($in->choice('style', ['roller', 'sprag', 'diode'])) {
            'roller' => Shape::circle('roller', ($x0 + $x1) / 2, ($r0 + $r1) / 2, ($outside - $inside) / 2),
            'sprag' => Shape::outline('roller', [
                [$x0 + 3, $inside],
                [$x1 - 5, $inside],
                [$x1 - 3, $outside],
                [$x0 + 5, $outside],
            ]),
            default => Shape::outline('roller', [
                [$x0 + 2, $inside],
                [$x1 - 2, $outside - 1],
                [$x1 - 2, $outside],
                [$x0 + 2, $inside + 2],
            ]),
        };

        return [
            Shape::box('cut', $x0, $x1, $r0, $inside),
            Shape::box('cut', $x0, $x1, $outside, $r1),
            $element,
        ];
    }

    /**
     * One simple or double set: sun, pinions on their pin, ring. Radii follow from the teeth.
     *
     * @param  array{sun: int, ring: int, planets: list<int>}  $teeth
     * @return list<Shape>
     */
    public static function gearSet(Input $in, array $teeth): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        $module = $in->number('module', above: 0.0);
        $pitch = static fn (int $z): float => $z * $module / 2;
        [$sun, $ring] = [$pitch($teeth['sun']), $pitch($teeth['ring'])];
        $bore = $in->numberOr('bore', $sun * 0.6, min: 0.0);
        $shapes = [
            Shape::box('cut', $x0 + 2, $x1 - 2, $bore, $sun),
            Shape::box('cut', $x0 + 1, $x1 - 1, $ring, $ring + 6),
        ];
        $at = $sun;
        $room = ($ring - $sun) / array_sum($teeth['planets']);
        foreach ($teeth['planets'] as $z) {
            $high = $room * $z;
            $middle = $at + $high / 2;
            $shapes[] = Shape::box('plain', $x0 + 2, $x1 - 2, $at, $at + $high);
            $shapes[] = Shape::box('steel', $x0 - 1.5, $x1 + 1.5, $middle - $high * 0.14, $middle + $high * 0.14);
            $shapes[] = Shape::line('line', [[$x0 + 2, $at + 1.2], [$x1 - 2, $at + 1.2]]);
            $at += $high;
        }
        $shapes[] = Shape::line('line', [[$x0 + 2, $ring - 1.2], [$x1 - 2, $ring - 1.2]]);

        return $shapes;
    }

    /**
     * Cover, body, gears and a bolt of the pump.
     *
     * @return list<Shape>
     */
    public static function pump(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $face = $x0 + ($x1 - $x0) * 0.45;
        $hub = $r0 + ($r1 - $r0) * 0.12;
        $top = $hub + ($r1 - $r0) * 0.36;
        $pocket = $x0 + ($face - $x0) * 0.35;
        $mesh = $hub + ($top - $hub) * 0.48;

        return [
            Shape::outline('cut', [
                [$x0, $r1],
                [$face, $r1],
                [$face, $top],
                [$pocket, $top],
                [$pocket, $hub],
                [$x0, $hub],
            ]),
            Shape::box('cut', $face, $x1, $r0, $r1 - 4),
            Shape::box('steel', $pocket, $face, $mesh, $top),
            Shape::box('plain', $pocket, $face, $hub, $mesh),
            Shape::line('line', [[$pocket, $mesh - 1.4], [$face, $mesh - 1.4]]),
            Shape::box('plain', $x0 - 4, $x0, $r1 - 16, $r1 - 8),
            Shape::line('line', [[$x0, $r1 - 14], [$x1, $r1 - 14]]),
            Shape::line('line', [[$x0, $r1 - 10], [$x1, $r1 - 10]]),
        ];
    }

    /**
     * Cover, impeller shell and hub, the three wheels with their blades, lock-up plate, stator one-way.
     *
     * @return list<Shape>
     */
    public static function converter(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$r0, $r1] = Geometry::span($in, 'r');
        $torus = new Torus($x0 + ($x1 - $x0) * 0.6, $r0 + ($r1 - $r0) * 0.55, ($x1 - $x0) * 0.32, ($r1 - $r0) * 0.4);
        [$hubX, $hubY] = $torus->at(-72, 1.2);

        return [
            self::cover($x0, $x1, $r0, $r1),
            Shape::outline('cut', [...$torus->arc(62, -72, 1.09), ...$torus->arc(-72, 62, 1.2)]),
            Shape::outline('cut', [
                [$hubX - 4, $hubY + 3],
                [$hubX + 1, $hubY],
                [$hubX + 4, $r0 + 1],
                [$x1 + 10, $r0 + 1],
                [$x1 + 10, $r0 - 3],
                [$hubX - 1, $r0 - 3],
            ]),
            ...$torus->wheel(-62, 82),
            ...$torus->wheel(98, 242),
            ...$torus->wheel(250, 290),
            Shape::outline('cut', [
                [$x0 + 32, 10.2],
                [$x0 + 46, 10.2],
                [$x0 + 46, $r0],
                [$torus->at(236, 1)[0] + 3, $torus->at(236, 1)[1]],
                [$torus->at(230, 1)[0], $torus->at(230, 1)[1] + 2],
                [$x0 + 36, $r0 + 2],
                [$x0 + 32, $r0 - 2],
            ]),
            Shape::box('steel', $x0 + 7, $x0 + 10, $r0 - 4, $r1 - 16),
            Shape::box('friction', $x0 + 4.4, $x0 + 7, $r1 - 30, $r1 - 18),
            Shape::circle('roller', $torus->x, $r0 + ($r1 - $r0) * 0.1, 5.0),
        ];
    }

    private static function cover(float $x0, float $x1, float $r0, float $r1): Shape
    {
        return Shape::outline('cut', [
            [$x0, $r0 + 4],
            [$x0, $r1 - 10],
            [$x0 + 10, $r1],
            [$x1 - 14, $r1],
            [$x1 - 5, $r1 - 8],
            [$x1 - 8, $r1 - 11],
            [$x1 - 16, $r1 - 4],
            [$x0 + 12, $r1 - 4],
            [$x0 + 4, $r1 - 12],
            [$x0 + 4, $r0 + 4],
        ]);
    }

    /**
     * A box below the axis, with what makes it known: bores of a valve body, mesh of a screen, coils, a plug.
     *
     * @return list<Shape>
     */
    public static function below(Input $in): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$y0, $y1] = Geometry::span($in, 'y');
        $body = $in->has('points')
            ? Shape::outline('plain', Geometry::points($in, 'points'))
            : Shape::box('plain', $x0, $x1, $y0, $y1);

        return [$body, ...match ($in->choice('style', ['bores', 'screen', 'coils', 'plug', 'tag', 'plain'])) {
            'bores' => self::bores($x0, $x1, $y0, $y1),
            'screen' => self::mesh($x0, $x1, $y0, $y1),
            'coils' => [self::coil($x0 + 3, $x1 - 3, $y0 + ($y1 - $y0) / 2, ($y1 - $y0) * 0.3)],
            'plug' => [Shape::circle('line', ($x0 + $x1) / 2, ($y0 + $y1) / 2, min($x1 - $x0, $y1 - $y0) * 0.3)],
            'tag' => [Shape::line('line', [[$x0 + 2, ($y0 + $y1) / 2], [$x1 - 2, ($y0 + $y1) / 2]])],
            default => [],
        }];
    }

    private static function coil(float $x0, float $x1, float $y, float $r): Shape
    {
        $points = [];
        for ($n = 0; $n <= 2 * self::COILS; $n++) {
            $points[] = [$x0 + ($x1 - $x0) * $n / (2 * self::COILS), $y + ($n % 2 === 0 ? -$r : $r)];
        }

        return Shape::line('spring', $points);
    }

    /** @return list<Shape> valves in their bores */
    private static function bores(float $x0, float $x1, float $y0, float $y1): array
    {
        $shapes = [];
        $high = ($y1 - $y0) / 7;
        for ($row = 0; $row < 3; $row++) {
            $y = $y0 + $high * (1 + 2 * $row);
            [$from, $to] = [$x0 + 8 + 6 * $row, $x1 - 10 - 9 * ((2 + $row) % 3)];
            $shapes[] = Shape::box('line', $from, $to, $y, $y + $high);
            for ($x = $from + 6; $x < $to - 14; $x += 26) {
                $shapes[] = Shape::box('steel', $x, $x + 12, $y + 0.6, $y + $high - 0.6);
            }
        }

        return $shapes;
    }

    /** @return list<Shape> */
    private static function mesh(float $x0, float $x1, float $y0, float $y1): array
    {
        $shapes = [];
        for ($x = $x0 + 4; $x < $x1; $x += 5) {
            $shapes[] = Shape::line('line', [[$x, $y0], [$x, $y1]]);
        }

        return $shapes;
    }
}
