<?php

declare(strict_types=1);

namespace Yard\Core\Section;

/** A part of the section with its shapes. */
final readonly class DrawnPart
{
    /**
     * @param  string  $turns  input, other, stands
     * @param  list<Shape>  $shapes
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $kind,
        public string $turns,
        public string $of,
        public array $shapes,
    ) {
    }

    /** @return array{float, float, float, float} x0, y0, x1, y1 */
    public function bounds(): array
    {
        $all = array_map(static fn (Shape $s): array => $s->bounds(), $this->shapes);
        if ($all === []) {
            return [0.0, 0.0, 0.0, 0.0];
        }

        return [
            min(array_column($all, 0)),
            min(array_column($all, 1)),
            max(array_column($all, 2)),
            max(array_column($all, 3)),
        ];
    }
}
