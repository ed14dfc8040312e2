<?php

namespace App\Shop\Http;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\Transaction;
use App\Shop\Abilities;
use App\Shop\Models\Person;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;

/** Badge and PIN: quick to switch on a shared tablet, slow to guess. */
final class SessionController
{
    public function show(Request $request): JsonResponse
    {
        $person = $request->user();

        return response()->json(['person' => $person instanceof Person ? self::person($person) : null]);
    }

    public function signIn(Request $request, Ledger $ledger): JsonResponse
    {
        $in = $request->validate(['badge' => 'required|string|max:20', 'pin' => 'required|string|max:20']);
        $refused = Transaction::run(function () use ($in, $ledger): ?Refusal {
            $person = Person::query()->where('badge', $in['badge'])->where('active', true)->lockForUpdate()->first();
            if ($person === null) {
                Hash::check($in['pin'], '$2y$12$'.str_repeat('a', 53)); // the same time for an unknown badge

                return Refusal::at('/pin', 'Badge and PIN do not go together.');
            }
            if ($person->locked_until !== null && $person->locked_until->isFuture()) {
                return Refusal::at(
                    '/pin',
                    'This badge is locked after too many wrong PINs. Try again after '.
                        max(1, (int) ceil(now()->diffInMinutes($person->locked_until))).
                        ' min, or ask the manager.',
                );
            }
            if (! Hash::check($in['pin'], $person->pin_hash)) {
                $tries = $person->failed_pins + 1;
                $locked = $tries >= config('yard.pin_tries');
                $person->update([
                    'failed_pins' => $locked ? 0 : $tries,
                    'locked_until' => $locked ? now()->addMinutes(config('yard.pin_lock_minutes')) : null,
                ]);
                if ($locked) {
                    $ledger->record('shop', 'badge.locked', ['badge' => $person->badge]);
                }

                return Refusal::at(
                    '/pin',
                    $locked
                        ? 'Too many wrong PINs: this badge is locked for '.
                            config('yard.pin_lock_minutes').
                            ' minutes.'
                        : 'Badge and PIN do not go together.',
                );
            }
            $person->update(['failed_pins' => 0, 'locked_until' => null]);
            Auth::login($person);

            return null;
        });
        if ($refused !== null) {
            throw $refused;
        }
        $request->session()->regenerate();

        return response()->json(['person' => self::signedIn()]);
    }

    public function signOut(Request $request): JsonResponse
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->json(['person' => null]);
    }

    /** @return array<string, mixed> */
    private static function person(Person $person): array
    {
        return [
            'badge' => $person->badge,
            'name' => $person->name,
            'role' => $person->role,
            'abilities' => Abilities::of($person->role),
        ];
    }

    /** @return array<string, mixed>|null */
    private static function signedIn(): ?array
    {
        $person = Auth::user();

        return $person instanceof Person ? self::person($person) : null;
    }
}
