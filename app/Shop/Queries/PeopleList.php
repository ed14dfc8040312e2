<?php

namespace App\Shop\Queries;

use App\Shop\Door\OpenSessions;
use App\Shop\Door\PinCounters;
use App\Shop\Door\PinRule;
use App\Shop\Models\OpenSession;
use App\Shop\Models\Person;
use App\Shop\Models\PersonSkill;
use App\Shop\Models\PinCounter;
use App\Shop\Models\SignInEntry;

/** Everybody of the shop as the manager sees them, and who tried to come in. */
final class PeopleList
{
    public function __construct(private readonly PinCounters $counters)
    {
    }

    /** @return array<string, mixed> */
    public function all(): array
    {
        $skills = PersonSkill::query()->orderBy('skill')->get()->groupBy('person_id');
        $open = OpenSession::query()->with('tablet')->orderByDesc('seen_at')->get()->groupBy('person_id');
        $waiting = $this->counters->waiting();

        return [
            'people' => Person::query()
                ->orderByDesc('active')
                ->orderBy('name')
                ->get()
                ->map(
                    fn (Person $p) => [
                        'badge' => $p->badge,
                        'name' => $p->name,
                        'role' => $p->role,
                        'active' => $p->active,
                        'version' => $p->version,
                        'pin' => self::pin($p),
                        'shortestPin' => PinRule::shortest($p->role),
                        'skills' => ($skills[$p->id] ?? collect())->pluck('skill')->values(),
                        'lockedUntil' => self::time($waiting->where('badge', $p->badge)->max('locked_until')),
                        'sessions' => ($open[$p->id] ?? collect())->map(self::session(...))->values(),
                    ],
                ),
            'lockedPlaces' => $waiting
                ->where('badge', null)
                ->map(
                    fn (PinCounter $c) => [
                        'place' => $c->source,
                        'wrong' => $c->failures,
                        'until' => self::time($c->locked_until),
                    ],
                )
                ->values(),
        ];
    }

    /** @return array<string, mixed> */
    private static function session(OpenSession $s): array
    {
        return [
            'tablet' => $s->tablet->name,
            'address' => $s->address,
            'since' => self::time($s->since),
            'seenAt' => self::time($s->seen_at),
            'locked' => $s->locked_at !== null,
            'mine' => $s->id === OpenSessions::key(),
        ];
    }

    /** @return array<string, mixed> */
    public function log(?string $badge, ?int $before, int $size): array
    {
        $rows = SignInEntry::query()
            ->when($badge !== null, fn ($q) => $q->where('badge', $badge))
            ->when($before !== null, fn ($q) => $q->where('id', '<', $before))
            ->orderByDesc('id')
            ->limit($size + 1)
            ->get();

        return [
            'entries' => $rows
                ->take($size)
                ->map(
                    fn (SignInEntry $e) => [
                        'id' => $e->id,
                        'at' => self::time($e->at),
                        'badge' => $e->badge,
                        'outcome' => $e->outcome,
                        'address' => $e->address,
                        'tablet' => $e->tablet,
                    ],
                ),
            'before' => $rows->count() > $size ? $rows->get($size - 1)?->id : null,
        ];
    }

    private static function pin(Person $person): string
    {
        return match (true) {
            $person->pin_hash === '' => 'none',
            $person->pinIsLongEnough() => 'set',
            default => 'short',
        };
    }

    private static function time(mixed $at): ?string
    {
        return $at instanceof \DateTimeInterface ? $at->format('Y-m-d\TH:i:s\Z') : null;
    }
}
