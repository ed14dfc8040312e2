<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Interchange\Supersession;

/** interchange.supersession: what replaces a part and what it replaces. */
final class InterchangeSupersession implements Calculator
{
    public function calculate(Input $in): array
    {
        $part = $in->name('part');
        $chains = new Supersession();
        foreach ($in->list('links') as $link) {
            [$old, $new, $bothWays] = [$link->name('old'), $link->name('new'), $link->bool('bothWays')];
            $link->within(static fn () => $chains->supersede($old, $new, $bothWays));
        }

        return [
            'replacedBy' => self::ways($chains->replacing($part)),
            'replaces' => self::ways($chains->replacedBy($part)),
            'interchangeable' => $chains->interchangeable($part),
            'current' => $chains->current($part),
            'cycles' => $chains->cycles(),
        ];
    }

    /**
     * @param  array<string, list<string>>  $ways
     * @return list<array{part: string, way: list<string>}>
     */
    private static function ways(array $ways): array
    {
        return array_map(
            static fn (string $part, array $way): array => ['part' => $part, 'way' => $way],
            array_map(strval(...), array_keys($ways)),
            $ways,
        );
    }
}
