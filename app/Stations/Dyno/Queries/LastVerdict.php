<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\Run;
use App\Yard\Models\Build;

/** What the last dyno run means for the bench: which loop it is, and which element was blamed. */
final class LastVerdict
{
    public function loop(Build $build): int
    {
        return 1 + Run::query()->where('build_id', $build->id)->where('verdict', 'fail')->count();
    }

    /** @return array{element: string, at: \Illuminate\Support\Carbon}|null */
    public function failedElement(Build $build): ?array
    {
        $run = Run::query()->where('build_id', $build->id)->where('verdict', 'fail')->latest('id')->first();

        return $run === null || $run->suspect === '' ? null : ['element' => $run->suspect, 'at' => $run->verdict_at];
    }

    public function passed(Build $build): ?Run
    {
        return Run::query()
            ->where('build_id', $build->id)
            ->whereIn('verdict', ['pass', 'conditional'])
            ->latest('id')
            ->first();
    }
}
