<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Input;

/** What every build of the unit takes, whatever is ordered. Money in whole hundredths. */
final readonly class BaseBuild
{
    /** @param  array<string, int>  $parts  part => count */
    public function __construct(
        public int $price = 0,
        public float $hours = 0.0,
        public float $fluid = 0.0,
        public array $parts = [],
    ) {
    }

    public static function read(?Input $in): self
    {
        $number = static fn (string $field): float => $in?->has($field) ? $in->number($field, min: 0.0) : 0.0;
        $parts = [];
        foreach ($in?->optional('parts')?->asList() ?? [] as $part) {
            $name = $part->name('part');
            $parts[$name] = ($parts[$name] ?? 0) + ($part->has('count') ? $part->integer('count', min: 1) : 1);
        }

        return new self((int) round(100.0 * $number('price')), $number('hours'), $number('fluid_l'), $parts);
    }
}
