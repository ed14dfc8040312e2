<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Build;

/** The latest reading of everything that was measured on a build. */
interface BuiltNumbers
{
    /**
     * @return list<array{kind: string, code: string, name: string, value: float, unit: string, min: ?float,
     *     max: ?float, inside: bool, by: string, at: string}>
     */
    public function of(Build $build): array;
}
