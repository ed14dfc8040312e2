<?php

namespace App\Catalog\Models;

use App\Yard\StationName;

/**
 * What kind of job: limits the route, the checks and the warranty.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property array<mixed> $route
 * @property list<string> $scopes  what the job takes on; none: everything
 * @property int $warranty_days
 * @property int $warranty_km
 * @property string $note
 * @property int|null $changed_by
 */
final class JobType extends CatalogRecord
{
    protected $table = 'job_types';

    protected $fillable = [
        'code',
        'name',
        'route',
        'scopes',
        'warranty_days',
        'warranty_km',
        'note',
        'changed_by',
    ];

    protected $casts = ['route' => 'array', 'scopes' => 'array'];

    /** @return list<StationName> the way a unit of this job goes */
    public function stations(): array
    {
        return array_values(array_map(StationName::from(...), $this->route));
    }
}
