<?php

namespace App\Shop\Models;

use App\Kernel\Ledger\Author;
use App\Shop\Role;
use Illuminate\Foundation\Auth\User;
use Illuminate\Support\Carbon;

/**
 * Somebody with a badge.
 *
 * @property int $id
 * @property string $badge
 * @property string $name
 * @property Role $role
 * @property string $pin_hash
 * @property int $failed_pins
 * @property Carbon|null $locked_until
 * @property bool $active
 */
final class Person extends User implements Author
{
    protected $table = 'people';

    protected $fillable = [
        'badge',
        'name',
        'role',
        'pin_hash',
        'failed_pins',
        'locked_until',
        'active',
    ];

    protected $casts = ['locked_until' => 'datetime', 'active' => 'boolean', 'role' => Role::class];

    public $timestamps = false;

    public function badge(): string
    {
        return $this->badge;
    }

    public function getAuthPassword(): string
    {
        return $this->pin_hash;
    }

    public function getRememberTokenName(): string
    {
        return '';
    }
}
