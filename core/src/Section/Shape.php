<?php

declare(strict_types=1);

namespace Yard\Core\Section;

/** One closed outline or line of a drawing, in millimetres: x to the right, y upwards. */
final readonly class Shape
{
    /**
     * @param  string  $as  cut (hatched), plain, friction, steel, wave, ring, snap, roller, outside, line, spring
     * @param  list<array{float, float}>  $points  corners, or centre and one point of a circle
     */
    private function __construct(public string $as, public string $form, public array $points)
    {
    }

    public static function box(string $as, float $x0, float $x1, float $y0, float $y1): self
    {
        return new self($as, 'outline', [[$x0, $y0], [$x1, $y0], [$x1, $y1], [$x0, $y1]]);
    }

    /** @param  list<array{float, float}>  $points */
    public static function outline(string $as, array $points): self
    {
        return new self($as, 'outline', $points);
    }

    /** @param  list<array{float, float}>  $points */
    public static function line(string $as, array $points): self
    {
        return new self($as, 'line', $points);
    }

    public static function circle(string $as, float $x, float $y, float $radius): self
    {
        return new self($as, 'circle', [[$x, $y], [$x + $radius, $y]]);
    }

    public function moved(float $x, float $y): self
    {
        return new self($this->as, $this->form, array_map(
            static fn (array $p): array => [$p[0] + $x, $p[1] + $y],
            $this->points,
        ));
    }

    /** @return array{float, float, float, float} x0, y0, x1, y1 */
    public function bounds(): array
    {
        $points = $this->points;
        if ($this->form === 'circle') {
            [$c, $r] = [$points[0], $points[1][0] - $points[0][0]];
            $points = [[$c[0] - $r, $c[1] - $r], [$c[0] + $r, $c[1] + $r]];
        }
        [$x, $y] = [array_column($points, 0), array_column($points, 1)];

        return $x === [] || $y === [] ? [0.0, 0.0, 0.0, 0.0] : [min($x), min($y), max($x), max($y)];
    }

    /** Whether it is material, so that nothing else can be in its place. */
    public function isSolid(): bool
    {
        return $this->form === 'outline' && in_array($this->as, ['cut', 'friction', 'steel', 'wave', 'ring'], true);
    }

    public function isBox(): bool
    {
        [$x0, $y0, $x1, $y1] = $this->bounds();

        return $this->form === 'outline' && $this->points === [[$x0, $y0], [$x1, $y0], [$x1, $y1], [$x0, $y1]];
    }
}
