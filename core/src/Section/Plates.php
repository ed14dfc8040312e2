<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\Input;

/** A pack plate by plate, its piston and springs, as wide as it is given room. */
final class Plates
{
    /** Share of the room between the plates that is left free, so that they can be told apart. */
    private const AIR = 0.12;

    private const BACKING = 2.2;

    private const STEEL = 0.8;

    /** How far the teeth of a plate reach beyond the lining. */
    private const TEETH = 4.0;

    /**
     * @param  int  $frictions  friction plates of the pack
     * @return list<Shape>
     */
    public static function draw(Input $in, int $frictions): array
    {
        [$x0, $x1] = Geometry::span($in, 'x');
        [$inner, $outer] = Geometry::span($in, 'r');
        $left = $in->choice('piston', ['left', 'right']) === 'left';
        $order = self::order($in, $frictions);
        $units = array_sum(array_map(self::width(...), $order)) + self::AIR * (count($order) - 1);
        $unit = ($x1 - $x0) / $units;
        $shapes = [];
        $at = $left ? $x0 : $x1;
        foreach ($order as $plate) {
            $wide = self::width($plate) * $unit * ($left ? 1 : -1);
            [$from, $to] = [min($at, $at + $wide), max($at, $at + $wide)];
            $shapes[] = self::plate($plate, $from, $to, $inner, $outer, $in->has('solid') && $in->bool('solid'));
            $at += $wide + self::AIR * $unit * ($left ? 1 : -1);
        }

        return $shapes;
    }

    /** @return list<string> from the piston to the snap ring */
    private static function order(Input $in, int $frictions): array
    {
        $order = $in->has('wave') && $in->bool('wave') ? ['wave'] : [];
        for ($n = 0; $n < $frictions; $n++) {
            array_push($order, 'steel', 'friction');
        }

        return [...$order, 'backing', 'snap'];
    }

    private static function width(string $plate): float
    {
        return match ($plate) {
            'backing' => self::BACKING,
            'steel' => self::STEEL,
            'snap' => 0.7,
            default => 1.0,
        };
    }

    private static function plate(string $plate, float $x0, float $x1, float $in, float $out, bool $turned): Shape
    {
        // Frictions are splined to the hub inside, steels to the drum outside, unless the pack is turned round.
        $inside = ($plate === 'friction') !== $turned;
        [$r0, $r1] = $plate === 'friction' || $turned && $plate !== 'snap'
            ? [$in - ($inside ? self::TEETH : 0), $out + ($inside ? 0 : self::TEETH)]
            : [$in, $out + self::TEETH];
        $as = ['friction' => 'friction', 'wave' => 'wave', 'snap' => 'snap'][$plate] ?? 'steel';

        return match ($plate) {
            'snap' => Shape::box($as, $x0, $x1, $out - 1, $out + self::TEETH + 1.5),
            'wave' => Shape::outline($as, self::waved($x0, $x1, $in, $out + self::TEETH)),
            default => Shape::box($as, $x0, $x1, $r0, $r1),
        };
    }

    /** @return list<array{float, float}> */
    private static function waved(float $x0, float $x1, float $r0, float $r1): array
    {
        $third = ($x1 - $x0) / 3;
        $middle = ($r0 + $r1) / 2;

        return [
            [$x0, $r0],
            [$x0 + $third, $r0],
            [$x1, $middle],
            [$x0 + $third, $r1],
            [$x0, $r1],
            [$x0 + 2 * $third, $middle],
        ];
    }
}
