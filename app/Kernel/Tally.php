<?php

namespace App\Kernel;

use Illuminate\Support\Facades\DB;

/** How many rows there are of what can be many, kept by the database as rows come and go. */
final class Tally
{
    /** @param  string  $name  units, units:STATION or parts */
    public static function of(string $name): int
    {
        return (int) DB::table('tallies')->where('name', $name)->sum('n');
    }
}
