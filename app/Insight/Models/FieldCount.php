<?php

namespace App\Insight\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $variant_id 0: not known
 * @property int $package_id
 * @property int $builder_id 0: not known
 * @property int $shipped
 * @property int $returned
 */
final class FieldCount extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $fillable = ['variant_id', 'package_id', 'builder_id', 'shipped', 'returned'];
}
