<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Input;

/** One option of a catalog with its rules, as package.resolve reads it. Money in whole hundredths. */
final readonly class Choice
{
    /**
     * @param  list<string>  $requires
     * @param  list<list<string>>  $requiresAny
     * @param  list<string>  $excludes
     * @param  list<string>  $omits  parts left out of the bill of materials
     * @param  list<array{part: string, count: int}>  $adds
     * @param  list<string>  $operations
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
        public ?string $notHere,
        public ?Input $power,
    ) {
    }

    /** @param  array{variant: ?string, duty: ?string, inputTorque: ?float, inputSpeed: ?float}  $here */
    public static function read(Input $in, array $here): self
    {
        $strings = static fn (string $field): array => array_map(static fn (Input $i): string => $i->asString(), $in->optional($field)?->asList() ?? []);
        $name = $in->has('name') ? $in->name('name') : $in->name('code');

        return new self(
            $in->name('code'), $name, $in->has('why') ? $in->string('why') : '', (int) round(100.0 * $in->number('price', min: 0.0, max: 1e9)), $in->has('hours') ? $in->number('hours', min: 0.0) : 0.0, $in->has('fluid_l') ? $in->number('fluid_l') : 0.0,
            $strings('requires'), array_map(static fn (Input $l): array => array_map(static fn (Input $i): string => $i->asString(), $l->asList()), $in->optional('requiresAny')?->asList() ?? []), $strings('excludes'), $strings('omits'), $in->has('omitWhy') ? $in->string('omitWhy') : '',
            array_map(static fn (Input $p): array => ['part' => $p->name('part'), 'count' => $p->has('count') ? $p->integer('count', min: 1) : 1], $in->optional('adds')?->asList() ?? []), $strings('operations'), self::notHere($in, $name, $here), $in->optional('power'),
        );
    }

    /** @param  array{variant: ?string, duty: ?string, inputTorque: ?float, inputSpeed: ?float}  $here */
    private static function notHere(Input $in, string $name, array $here): ?string
    {
        foreach (['variantOnly' => 'variant', 'dutyOnly' => 'duty'] as $rule => $what) {
            $allowed = array_map(static fn (Input $i): string => $i->asString(), $in->optional($rule)?->asList() ?? []);
            if ($allowed !== [] && ! in_array($here[$what], $allowed, true)) {
                return "\"$name\" exists only for the $what ".implode(' or ', $allowed).', not for '.($here[$what] ?? 'none').'.';
            }
        }
        $limit = $in->optional('limit');
        foreach (['inputTorque_nm' => ['inputTorque', 'N.m input torque'], 'inputSpeed_rpm' => ['inputSpeed', 'rev/min shift speed']] as $field => [$what, $words]) {
            $most = $limit?->optional($field)?->asNumber(above: 0.0);
            if ($most !== null && $here[$what] !== null && $here[$what] > $most) {
                return "\"$name\" is good for ".Input::show($most)." $words, and this order has ".Input::show($here[$what]).'.';
            }
        }

        return null;
    }
}
