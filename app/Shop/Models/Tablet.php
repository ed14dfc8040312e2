<?php

namespace App\Shop\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * A tablet on which somebody of the shop has signed in once: wrong PINs are counted for it alone.
 *
 * @property string $id SHA-256 of the cookie it keeps
 * @property string $name six letters to tell tablets apart in a list
 * @property Carbon $known_since
 * @property int $known_by
 */
final class Tablet extends Model
{
    protected $keyType = 'string';

    public $incrementing = false;

    public $timestamps = false;

    protected $fillable = ['id', 'name', 'known_since', 'known_by'];

    protected $casts = ['known_since' => 'datetime'];
}
