<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Build;

/** What the installer reported of a build. */
interface InstallationRecord
{
    /** Whether the converter sat as it must; null when nothing is on file. */
    public function converterSeated(Build $build): ?bool;
}
