<?php

namespace App\Shop\Models;

use Illuminate\Foundation\Auth\User;

/**
 * Somebody with a badge.
 *
 * @property int $id
 * @property string $badge
 * @property string $name
 * @property string $role
 * @property string $pin_hash
 * @property int $failed_pins
 * @property ?\Illuminate\Support\Carbon $locked_until
 */
final class Person extends User
{
    protected $table = 'people';

    protected $guarded = [];

    protected $casts = ['locked_until' => 'datetime', 'active' => 'boolean'];

    public $timestamps = false;

    public function getAuthPassword(): string
    {
        return $this->pin_hash;
    }

    public function getRememberTokenName(): string
    {
        return '';
    }
}
