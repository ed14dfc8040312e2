<?php

namespace App\Shop;

use App\Yard\Rooms;

/** Who may do what, gathered from the rooms. A viewer may look at everything and change nothing. */
final class Abilities
{
    /** @return array<string, list<Role>> */
    public static function all(): array
    {
        return array_merge(...array_map(fn (string $room) => $room::abilities(), Rooms::all()));
    }

    /** @return list<string> */
    public static function of(Role $role): array
    {
        return array_keys(array_filter(self::all(), fn (array $roles) => in_array($role, $roles, true)));
    }
}
