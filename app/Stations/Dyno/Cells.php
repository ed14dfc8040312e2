<?php

namespace App\Stations\Dyno;

use App\Kernel\Refusal;

/** The test cells of the house, each a rig of its own. */
final class Cells
{
    /** @return array<string, int> name => port of its rig on this machine */
    public static function all(): array
    {
        return config('yard.cells');
    }

    /** The cell asked for; where there is one only, nobody has to say which. */
    public static function named(?string $cell): string
    {
        $names = array_keys(self::all());
        if ($cell === null && count($names) === 1) {
            return $names[0];
        }
        if (! in_array($cell, $names, true)) {
            throw Refusal::at('/cell', 'Say on which cell the unit stands: '.implode(' or ', $names).'.');
        }

        return $cell;
    }
}
