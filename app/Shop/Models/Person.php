<?php

namespace App\Shop\Models;

use App\Kernel\Ledger\Author;
use App\Shop\Door\PinRule;
use App\Shop\Role;
use Illuminate\Foundation\Auth\User;

/**
 * Somebody with a badge.
 *
 * @property int $id
 * @property string $badge
 * @property string $name
 * @property Role $role
 * @property string $pin_hash
 * @property int|null $pin_digits null: not seen since it was set
 * @property bool $active
 * @property int $version
 */
final class Person extends User implements Author
{
    protected $table = 'people';

    protected $fillable = [
        'badge',
        'name',
        'role',
        'pin_hash',
        'pin_digits',
        'active',
        'version',
    ];

    protected $attributes = ['version' => 1];

    protected $casts = ['active' => 'boolean', 'role' => Role::class];

    public $timestamps = false;

    /** A PIN from before the rule was made signs nothing until it is changed. */
    public function pinIsLongEnough(): bool
    {
        return $this->pin_digits === null || $this->pin_digits >= PinRule::shortest($this->role);
    }

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
