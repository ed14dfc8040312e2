<?php

namespace App\Catalog\Models;

/**
 * A vehicle the catalog knows.
 *
 * @property int $id
 * @property string $code
 * @property string $maker
 * @property string $model
 * @property int $from_year
 * @property int $to_year
 * @property string $engine
 * @property string $drive
 * @property string $wmi
 * @property string $engine_torque_nm
 * @property string $mass_kg
 * @property string $axle_ratio
 * @property string $tyre
 * @property array<mixed> $engine_curve
 * @property string $steering
 * @property string|null $vin_pattern
 * @property string $facts
 * @property int|null $changed_by
 */
final class Vehicle extends CatalogRecord
{
    protected $table = 'vehicles';

    protected $fillable = [
        'code',
        'maker',
        'model',
        'from_year',
        'to_year',
        'engine',
        'drive',
        'wmi',
        'engine_torque_nm',
        'mass_kg',
        'axle_ratio',
        'tyre',
        'engine_curve',
        'steering',
        'vin_pattern',
        'facts',
        'changed_by',
    ];

    protected $casts = ['engine_curve' => 'array'];
}
