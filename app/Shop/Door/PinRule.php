<?php

namespace App\Shop\Door;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Shop\Role;
use Illuminate\Support\Facades\Hash;

/** What a PIN must be: long enough for what it signs, and none that is tried first. */
final class PinRule
{
    private const LOOKING = 4;

    private const SIGNING = 6;

    private const LONGEST = 12;

    public static function shortest(Role $role): int
    {
        return in_array($role, Role::hands(), true) ? self::SIGNING : self::LOOKING;
    }

    /** @throws Refusal at the PIN */
    public static function set(Person $person, string $pin): void
    {
        $shortest = self::shortest($person->role);
        if (preg_match('/^\d{'.$shortest.','.self::LONGEST.'}$/D', $pin) !== 1) {
            throw Refusal::at('/pin', "A PIN of this role is $shortest to ".self::LONGEST.' digits.');
        }
        $step = ord($pin[1]) - ord($pin[0]);
        $even = array_filter(
            range(1, strlen($pin) - 1),
            fn (int $i) => ord($pin[$i]) - ord($pin[$i - 1]) === $step,
        );
        if ((abs($step) <= 1 && count($even) === strlen($pin) - 1) || str_contains($pin, $person->badge)) {
            throw Refusal::at('/pin', 'A PIN of equal or counted digits, or with the badge in it, is the first tried.');
        }
        $person->update([
            'pin_hash' => Hash::make($pin),
            'pin_digits' => strlen($pin),
            'version' => $person->version + 1,
        ]);
    }
}
