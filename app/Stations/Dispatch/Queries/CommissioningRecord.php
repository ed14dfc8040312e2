<?php

namespace App\Stations\Dispatch\Queries;

use App\Stations\Dispatch\Models\Commissioning;
use App\Yard\Contracts\InstallationRecord;
use App\Yard\Models\Build;

final class CommissioningRecord implements InstallationRecord
{
    public function converterSeated(Build $build): ?bool
    {
        $report = Commissioning::query()->where('build_id', $build->id)->first();

        return $report === null ? null : (bool) ($report->depth['seated'] ?? false);
    }
}
