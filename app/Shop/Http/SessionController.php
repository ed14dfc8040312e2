<?php

namespace App\Shop\Http;

use App\Kernel\Ledger\Ledger;
use App\Shop\Abilities;
use App\Shop\Door\Caller;
use App\Shop\Door\OpenSessions;
use App\Shop\Door\PinRule;
use App\Shop\Door\SignIn;
use App\Shop\HouseRules;
use App\Shop\Models\OpenSession;
use App\Shop\Models\Person;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;

/** Who holds the tablet: in, locked while nobody touches it, out. */
final class SessionController
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    public function show(): JsonResponse
    {
        return $this->said();
    }

    public function signIn(Request $request, SignIn $signIn): JsonResponse
    {
        $in = $request->validate(['badge' => 'required|string|max:20', 'pin' => 'required|string|max:20']);
        $caller = Caller::of($request);
        $person = $signIn->check($in['badge'], $in['pin'], $caller);
        OpenSession::query()->whereKey(OpenSessions::key())->delete();
        Auth::login($person);
        $request->session()->regenerate();
        OpenSessions::open($person, $caller);

        return $this->said();
    }

    /** Nobody touched the tablet for a while: the same badge goes on with its PIN, and nothing typed is lost. */
    public function lock(Request $request): JsonResponse
    {
        $open = OpenSessions::current();
        if ($open !== null && $open->locked_at === null) {
            $open->update(['locked_at' => now()]);
            OpenSessions::log($open->person->badge, 'idle', Caller::of($request));
            Auth::forgetUser();
        }

        return $this->said();
    }

    public function changePin(OwnPinRequest $request, SignIn $signIn, Ledger $ledger): JsonResponse
    {
        $in = $request->validated();
        $person = $request->person();
        $signIn->check($person->badge, $in['old'], Caller::of($request));
        PinRule::set($person, $in['pin']);
        OpenSessions::end($person, OpenSessions::key());
        $ledger->record('shop', 'pin.changed', ['badge' => $person->badge]);

        return $this->said();
    }

    public function signOut(Request $request): JsonResponse
    {
        $open = OpenSessions::current();
        if ($open !== null) {
            OpenSessions::log($open->person->badge, 'out', Caller::of($request));
            $open->delete();
        }
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return $this->said();
    }

    private function said(): JsonResponse
    {
        $person = Auth::user();
        $locked = $person === null ? OpenSessions::current() : null;

        return response()->json([
            'person' => $person instanceof Person ? self::person($person) : null,
            'locked' => $locked?->locked_at === null
                ? null
                : ['badge' => $locked->person->badge, 'name' => $locked->person->name],
            'idleMinutes' => $this->rules->number('idle-lock'),
        ]);
    }

    /** @return array<string, mixed> */
    private static function person(Person $person): array
    {
        return [
            'badge' => $person->badge,
            'name' => $person->name,
            'role' => $person->role,
            'abilities' => $person->pinIsLongEnough() ? Abilities::of($person->role) : [],
            'shortestPin' => $person->pinIsLongEnough() ? null : PinRule::shortest($person->role),
        ];
    }
}
