<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** What kind of job: limits the route, the checks and the warranty. */
final class JobType extends Model
{
    use KeepsDecodedJson;

    protected $table = 'job_types';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['route' => 'array'];
}
