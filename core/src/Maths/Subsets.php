<?php

declare(strict_types=1);

namespace Yard\Core\Maths;

/** Every subset of a short list. */
final class Subsets
{
    /**
     * @param  list<string>  $items  not many: there are 2^n subsets
     * @return list<list<string>> the smallest first
     */
    public static function of(array $items): array
    {
        $out = [[]];
        foreach ($items as $item) {
            foreach ($out as $subset) {
                $out[] = [...$subset, $item];
            }
        }
        usort($out, static fn (array $a, array $b): int => count($a) <=> count($b));

        return $out;
    }
}
