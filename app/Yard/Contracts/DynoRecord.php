<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Build;
use Illuminate\Support\Carbon;

/** What the dyno has on record of a build, for the stations before and after it. */
interface DynoRecord
{
    /** Which time round the build is at the bench: 1 and one more for each failed run. */
    public function loop(Build $build): int;

    /** @return array{element: string, at: Carbon}|null the element the last failed run blamed */
    public function failedElement(Build $build): ?array;

    /**
     * What the last judged run of a build showed, if it failed, in the words of the diagnosis: evidence for whoever
     * opens the unit.
     *
     * @return array{run: int, on: string, observed: array<string, string>}|null null: none failed since
     */
    public function showed(Build $build): ?array;

    /** @return array<string, mixed>|null the road test that let the build go on where there was no cell for it */
    public function onTheRoad(Build $build): ?array;

    /** @return array<string, mixed>|null the run that let the build pass, as papers show it */
    public function passed(Build $build): ?array;
}
