<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** What kind of job: limits the route, the checks and the warranty. */
final class JobType extends Record
{
    protected $table = 'job_types';

    protected $casts = ['route' => 'array'];
}
