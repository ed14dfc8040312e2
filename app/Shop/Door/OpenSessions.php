<?php

namespace App\Shop\Door;

use App\Shop\Models\OpenSession;
use App\Shop\Models\Person;
use App\Shop\Models\SignInEntry;
use Illuminate\Auth\EloquentUserProvider;
use Illuminate\Contracts\Auth\Authenticatable;
use Illuminate\Support\Facades\Session;

/**
 * Who a session belongs to, asked anew with each request: a person who left, whose PIN or role changed, or whose
 * session was ended or locked is nobody from that moment.
 */
final class OpenSessions extends EloquentUserProvider
{
    private const TOUCHED_SECONDS = 60;

    /** @param  mixed  $identifier */
    public function retrieveById($identifier): ?Authenticatable
    {
        // One query: it stands before every request.
        $person = Person::query()
            ->join('open_sessions AS o', 'o.person_id', '=', 'people.id')
            ->where('o.id', self::key())
            ->whereNull('o.locked_at')
            ->where('people.id', $identifier)
            ->where('people.active', true)
            ->first(['people.*', 'o.seen_at']);
        $seen = $person?->getAttribute('seen_at');
        $person?->offsetUnset('seen_at');
        if (is_string($seen) && now()->subSeconds(self::TOUCHED_SECONDS)->greaterThan($seen)) {
            OpenSession::query()->whereKey(self::key())->update(['seen_at' => now()]);
        }

        return $person?->syncOriginal();
    }

    /** The session of this request, locked or not. */
    public static function current(): ?OpenSession
    {
        return OpenSession::query()->with('person')->find(self::key());
    }

    public static function open(Person $person, Caller $caller): void
    {
        $lifetime = (int) config('session.lifetime');
        OpenSession::query()->where('seen_at', '<', now()->subMinutes($lifetime))->delete();
        OpenSession::query()->create([
            'id' => self::key(),
            'person_id' => $person->id,
            'tablet_id' => $caller->becomesKnown($person->id)->id,
            'address' => $caller->address,
            'since' => now(),
            'seen_at' => now(),
        ]);
        self::log($person->badge, 'in', $caller);
    }

    /** Ends sessions of somebody, all but the one that is kept. */
    public static function end(Person $person, ?string $keep = null): int
    {
        return OpenSession::query()
            ->where('person_id', $person->id)
            ->when($keep !== null, fn ($q) => $q->where('id', '!=', $keep))
            ->delete();
    }

    public static function log(string $badge, string $outcome, Caller $caller): void
    {
        SignInEntry::query()->create([
            'at' => now(),
            'badge' => $badge,
            'outcome' => $outcome,
            'address' => $caller->address,
            'tablet' => $caller->tablet?->name,
        ]);
    }

    public static function key(): string
    {
        return hash('sha256', Session::getId());
    }
}
