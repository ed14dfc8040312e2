<?php

namespace App\Shop\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * One line of the sign-in log.
 *
 * @property int $id
 * @property Carbon $at
 * @property string $badge as typed
 * @property string $outcome in, out, wrong, locked, idle, ended
 * @property string $address
 * @property string|null $tablet
 */
final class SignInEntry extends Model
{
    protected $table = 'sign_ins';

    public $timestamps = false;

    protected $fillable = ['at', 'badge', 'outcome', 'address', 'tablet'];

    protected $casts = ['at' => 'datetime'];
}
