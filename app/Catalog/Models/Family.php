<?php

namespace App\Catalog\Models;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;

/**
 * A transmission family: gear train, apply chart and what holds for all its variants.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $topology
 * @property array<mixed> $train
 * @property array<mixed> $body
 * @property int|null $changed_by
 */
final class Family extends CatalogRecord
{
    protected $table = 'families';

    protected $fillable = [
        'code',
        'name',
        'topology',
        'train',
        'body',
        'changed_by',
    ];

    protected $casts = ['train' => 'array', 'body' => 'array'];

    public function chart(): ApplyChart
    {
        return ApplyChart::read(Input::of($this->train));
    }
}
