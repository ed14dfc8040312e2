<?php

namespace App\Shop;

/** Who may do what. A viewer may look at everything and change nothing. */
final class Abilities
{
    public const ROLES = ['manager', 'receiver', 'teardown', 'builder', 'cell', 'returns', 'viewer'];

    public const ALL = [
        'receive-core' => ['manager', 'receiver', 'returns'],
        'identify-core' => ['manager', 'receiver', 'teardown'],
        'hold-unit' => ['manager', 'receiver', 'teardown', 'builder', 'cell', 'returns'],
        'lift-hold' => ['manager'],
        'specify-build' => ['manager'],
        'release-build' => ['manager'],
        'tear-down' => ['manager', 'teardown'],
        'assemble' => ['manager', 'builder'],
        'sign-off' => ['manager', 'builder'],
        'run-cell' => ['manager', 'cell'],
        'ship-unit' => ['manager', 'cell'],
        'handle-return' => ['manager', 'returns'],
        'set-house-rules' => ['manager'],
        'edit-catalog' => ['manager'],
        'train' => ['manager', 'receiver', 'teardown', 'builder', 'cell', 'returns'],
    ];

    /** @return list<string> */
    public static function of(string $role): array
    {
        return array_keys(array_filter(self::ALL, fn (array $roles) => in_array($role, $roles, true)));
    }
}
