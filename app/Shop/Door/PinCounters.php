<?php

namespace App\Shop\Door;

use App\Shop\Models\PinCounter;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;

/**
 * Wrong PINs, counted by badge and by where they come from. A tablet of the shop has counters of its own, so that
 * nobody outside can lock it; every further wrong PIN doubles the wait.
 */
final class PinCounters
{
    /** Wrong PINs of one badge from one place before it must wait. */
    private const BADGE = 5;

    /** Wrong PINs from one place, whatever the badge: tries spread over many badges stop here. */
    private const PLACE = 30;

    private const LONGEST_MINUTES = 60;

    /** What nobody got wrong for so long is forgotten. */
    private const FORGOTTEN_HOURS = 24;

    /** Until when this badge must wait here; null when it need not. */
    public function waits(string $badge, Caller $caller): ?Carbon
    {
        $until = PinCounter::query()
            ->whereIn('source', array_keys(self::sources($badge, $caller)))
            ->where('locked_until', '>', now())
            ->max('locked_until');

        return $until === null ? null : Carbon::parse($until);
    }

    /** One more wrong PIN. Must run inside a transaction. */
    public function wrong(string $badge, Caller $caller): ?Carbon
    {
        $until = null;
        foreach (self::sources($badge, $caller) as $source => $limit) {
            PinCounter::query()->upsert(
                ['source' => $source, 'failures' => 0, 'failed_at' => now()],
                ['source'],
                ['source'],
            );
            $counter = PinCounter::query()->whereKey($source)->lockForUpdate()->sole();
            $old = $counter->failed_at->lessThan(now()->subHours(self::FORGOTTEN_HOURS));
            $failures = ($old ? 0 : $counter->failures) + 1;
            $locked = $failures < $limit ? null : now()->addMinutes(self::minutes($failures - $limit));
            $counter->update(['failures' => $failures, 'failed_at' => now(), 'locked_until' => $locked]);
            $until = $locked === null || ($until !== null && $until > $locked) ? $until : $locked;
        }

        return $until;
    }

    /** The right PIN came: the badge starts anew here; the place does not, or one badge would open the way to all. */
    public function right(string $badge, Caller $caller): void
    {
        PinCounter::query()->whereKey(self::badge($badge, $caller))->delete();
        PinCounter::query()->where('failed_at', '<', now()->subHours(self::FORGOTTEN_HOURS))->delete();
    }

    /** A manager lifts every wait of a badge, on whatever tablet. */
    public function lift(string $badge): int
    {
        return PinCounter::query()
            ->whereIn('source', $this->waiting()->where('badge', $badge)->pluck('source'))
            ->delete();
    }

    /** A manager lifts the wait of an address or of a tablet. */
    public function liftPlace(string $source): int
    {
        return PinCounter::query()->whereKey($source)->whereNotLike('source', 'badge:%')->delete();
    }

    /** @return Collection<int, PinCounter> everything that waits now, `badge` null where it is a place */
    public function waiting(): Collection
    {
        return PinCounter::query()
            ->where('locked_until', '>', now())
            ->orderBy('source')
            ->get()
            ->each(
                fn (PinCounter $c) => $c->setAttribute(
                    'badge',
                    preg_match('/^badge:(.*)@[^@]*$/', $c->source, $m) === 1 ? $m[1] : null,
                ),
            );
    }

    private static function minutes(int $beyond): int
    {
        return min(self::LONGEST_MINUTES, 2 ** min($beyond, 10));
    }

    private static function badge(string $badge, Caller $caller): string
    {
        return "badge:$badge@".($caller->tablet->name ?? 'unknown');
    }

    /** @return array<string, int> source => wrong PINs it may have */
    private static function sources(string $badge, Caller $caller): array
    {
        return [
            self::badge($badge, $caller) => self::BADGE,
            $caller->tablet === null
                ? "address:$caller->address"
                : "tablet:{$caller->tablet->name}" => self::PLACE,
        ];
    }
}
