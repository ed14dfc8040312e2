<?php

namespace App\Shop\Door;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\Transaction;
use App\Shop\Models\Person;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Hash;

/** Badge and PIN: quick to switch on a shared tablet, slow to guess. */
final class SignIn
{
    private const NOBODY = '$2y$12$aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa';

    public function __construct(private readonly PinCounters $counters, private readonly Ledger $ledger)
    {
    }

    /** @throws Refusal at the PIN; what was counted stays */
    public function check(string $badge, string $pin, Caller $caller): Person
    {
        $until = $this->counters->waits($badge, $caller);
        if ($until !== null) {
            throw self::wait($until);
        }
        $person = Person::query()->where('badge', $badge)->where('active', true)->first();
        // The same time for a badge that is not there.
        $right = Hash::check($pin, $person !== null && $person->pin_hash !== '' ? $person->pin_hash : self::NOBODY);
        if ($person === null || ! $right) {
            throw $this->wrong($badge, $caller);
        }
        $this->counters->right($badge, $caller);
        if ($person->pin_digits === null) {
            $person->update(['pin_digits' => strlen($pin)]);
        }

        return $person;
    }

    private function wrong(string $badge, Caller $caller): Refusal
    {
        $until = Transaction::run(function () use ($badge, $caller): ?Carbon {
            $until = $this->counters->wrong($badge, $caller);
            OpenSessions::log($badge, $until === null ? 'wrong' : 'locked', $caller);
            if ($until !== null) {
                $this->ledger->record('shop', 'badge.locked', [
                    'badge' => $badge,
                    'from' => $caller->tablet->name ?? $caller->address,
                ]);
            }

            return $until;
        });

        return $until === null ? Refusal::at('/pin', 'Badge and PIN do not go together.') : self::wait($until);
    }

    private static function wait(Carbon $until): Refusal
    {
        $minutes = max(1, (int) ceil(now()->diffInMinutes($until)));

        return Refusal::at(
            '/pin',
            "Too many wrong PINs here: try again in $minutes min, or ask the manager to lift the lock. Tablets the ".
                'shop already knows are not touched by this.',
        );
    }
}
