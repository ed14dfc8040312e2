<?php

namespace App\Stations\Assembly\Queries;

use App\Work\Queries\BenchWork;
use WeakMap;

/** What the bench has written of a build, read once for all who look at the same work. */
final class AssemblyRecords
{
    /** @var WeakMap<BenchWork, AssemblyRecord> */
    private WeakMap $records;

    public function __construct()
    {
        $this->records = new WeakMap();
    }

    public function of(BenchWork $work): AssemblyRecord
    {
        return $this->records[$work] ??= AssemblyRecord::of(
            $work->build() ?? throw new \LogicException('There is no build to read the record of.'),
        );
    }
}
