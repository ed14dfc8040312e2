<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Input;
use Yard\Core\Power\Converter;

/** One option of a catalog with its rules, as package.resolve reads it. Money in whole hundredths. */
final readonly class CatalogOption
{
    /**
     * @param  list<string>  $requires
     * @param  list<list<string>>  $requiresAny
     * @param  list<string>  $excludes
     * @param  list<string>  $omits  parts left out of the bill of materials
     * @param  list<array{part: string, count: int}>  $adds
     * @param  list<string>  $operations  work it brings
     * @param  string|null  $notHere  why it cannot stand in this unit or duty
     * @param  bool  $otherUnit  it is made for another unit, whatever the order says
     * @param  list<string>  $checks  checks it asks for at the bench
     * @param  list<string>  $finalChecks  checks it asks for before the unit leaves
     */
    private function __construct(
        public string $code,
        public string $name,
        public string $why,
        public int $price,
        public float $hours,
        public float $fluid,
        public array $requires,
        public array $requiresAny,
        public array $excludes,
        public array $omits,
        public string $omitWhy,
        public array $adds,
        public array $operations,
        public array $checks,
        public array $finalChecks,
        public ?string $notHere,
        public bool $otherUnit,
        public ?Input $power,
        public ?Converter $converter,
    ) {
    }

    public static function read(Input $in, OrderContext $here): self
    {
        $name = $in->has('name') ? $in->name('name') : $in->name('code');
        $converter = $in->has('converter') ? Converter::read($in->at('converter')) : null;
        $refused = $here->refuses($in, $name, $in->strings('omits'), $converter);

        return new self(
            $in->name('code'),
            $name,
            $in->stringOr('why'),
            (int) round(100.0 * $in->number('price', min: 0.0, max: 1e9)),
            $in->numberOr('hours', 0.0, min: 0.0),
            $in->numberOr('fluid_l', 0.0),
            $in->strings('requires'),
            array_map(static fn (Input $l): array => $l->asStrings(), $in->optional('requiresAny')?->asList() ?? []),
            $in->strings('excludes'),
            $in->strings('omits'),
            $in->stringOr('omitWhy'),
            array_map(
                static fn (Input $p): array => [
                    'part' => $p->name('part'),
                    'count' => $p->has('count') ? $p->integer('count', min: 1) : 1,
                ],
                $in->optional('adds')?->asList() ?? [],
            ),
            $in->strings('operations'),
            $in->strings('checks'),
            $in->strings('finalChecks'),
            $refused['sentence'] ?? null,
            $refused['otherUnit'] ?? false,
            $in->optional('power'),
            $converter,
        );
    }
}
