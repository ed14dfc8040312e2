<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

use Yard\Core\Input;

/** One conversion step from a node to another, with its conditions. */
final readonly class Step
{
    /**
     * @param  array<string, string>  $requires  fact => why
     * @param  array<string, string>  $forbids  fact => why
     * @param  array<string, true>  $gives
     * @param  array<string, true>  $takes
     */
    public function __construct(
        public string $id,
        public string $from,
        public string $to,
        public float $cost,
        public float $hours,
        public array $requires,
        public array $forbids,
        public array $gives,
        public array $takes,
    ) {
    }

    public static function read(Input $in): self
    {
        return new self(
            $in->name('id'),
            $in->name('from'),
            $in->name('to'),
            $in->number('cost', min: 0.0),
            $in->numberOr('hours', 0.0, min: 0.0),
            self::conditions($in, 'requires'),
            self::conditions($in, 'forbids'),
            self::facts($in, 'gives'),
            self::facts($in, 'takes'),
        );
    }

    /** Parts, and hours at a rate. */
    public function weight(float $rate): float
    {
        return $this->cost + $this->hours * $rate;
    }

    /** @return array<string, string> */
    private static function conditions(Input $in, string $field): array
    {
        $out = [];
        foreach ($in->optional($field)?->asList() ?? [] as $item) {
            $out[$item->name('fact')] = $item->stringOr('why');
        }

        return $out;
    }

    /** @return array<string, true> */
    private static function facts(Input $in, string $field): array
    {
        $out = [];
        foreach ($in->optional($field)?->asList() ?? [] as $item) {
            $out[$item->asString()] = true;
        }

        return $out;
    }
}
