<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * The short program a reference unit runs at the start of a shift: that of its family up to where the converter clutch
 * has been in, or its first half.
 *
 * @phpstan-import-type Step from CellReadings
 */
final class ReferenceProgram
{
    /**
     * @param  list<Step>  $steps  in the order of time
     * @return array{steps: list<Step>, end: float}
     */
    public static function of(array $steps, float $end): array
    {
        $cut = $end / 2.0;
        $locked = false;
        foreach ($steps as $step) {
            $locked = $locked || ($step['lockup'] ?? '') === 'on';
            if ($locked && ($step['lockup'] ?? '') === 'off') {
                $cut = (float) $step['t'];
                break;
            }
        }

        return [
            'steps' => array_values(array_filter($steps, static fn (array $s): bool => $s['t'] < $cut)),
            'end' => $cut,
        ];
    }
}
