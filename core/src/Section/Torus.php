<?php

declare(strict_types=1);

namespace Yard\Core\Section;

/** The circuit of a converter: an ellipse, its core at a share of its size, and what lies along it. */
final readonly class Torus
{
    private const CORE = 0.42;

    private const STEPS = 14;

    private const BLADE_DEGREES = 18.0;

    public function __construct(public float $x, public float $y, private float $wide, private float $high)
    {
    }

    /** @return array{float, float} at an angle from the right, at a share of its size */
    public function at(float $degrees, float $share): array
    {
        return [
            $this->x + $this->wide * $share * cos(deg2rad($degrees)),
            $this->y + $this->high * $share * sin(deg2rad($degrees)),
        ];
    }

    /** @return list<array{float, float}> */
    public function arc(float $from, float $to, float $share): array
    {
        return array_map(
            fn (int $n): array => $this->at($from + ($to - $from) * $n / self::STEPS, $share),
            range(0, self::STEPS),
        );
    }

    /** @return list<Shape> a wheel between two angles, with its blades */
    public function wheel(float $from, float $to): array
    {
        $shapes = [
            Shape::outline('plain', [...$this->arc($from, $to, 1.0), ...$this->arc($to, $from, self::CORE)]),
        ];
        for ($at = $from + self::BLADE_DEGREES; $at < $to - 4; $at += self::BLADE_DEGREES) {
            $shapes[] = Shape::line('line', [$this->at($at, self::CORE), $this->at($at + 6, 1.0)]);
        }

        return $shapes;
    }
}
