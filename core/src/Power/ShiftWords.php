<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** What a weakened element makes of its shift, in a sentence. */
final class ShiftWords
{
    /** Below a hundredth of a second nobody feels a difference (common practice, no source). */
    private const FELT_S = 0.01;

    /**
     * @param  float|null  $sound  seconds in which the sound element pulls the input down; null where it cannot
     * @param  array{sound: array<string, mixed>, now: array<string, mixed>}|null  $feel
     */
    public static function of(string $element, ?float $sound, ?float $now, ?array $feel): string
    {
        if ($now === null) {
            return $sound === null
                ? "$element does not hold this torque, sound or not."
                : "$element does not hold this torque: the engine runs up and the gear does not come.";
        }
        $timed = $feel === null ? null : self::timed($element, $feel['sound'], $feel['now']);

        $slower = $sound === null ? 0.0 : $now - $sound;

        return $timed ?? match (true) {
            $slower > self::FELT_S => sprintf(
                '%s takes at least %.2f s to pull the input down, %.2f s when sound.',
                $element,
                $now,
                $sound,
            ),
            $slower < -self::FELT_S => "$element grips harder than it should.",
            default => 'As it should be.',
        };
    }

    /**
     * @param  array<string, mixed>  $sound
     * @param  array<string, mixed>  $now
     */
    private static function timed(string $element, array $sound, array $now): ?string
    {
        $number = static fn (array $of, string $field): float => is_float($of[$field] ?? null) ? $of[$field] : 0.0;
        if ($now['completes'] === false) {
            return $sound['completes'] === true ? "The shift never ends: $element gives way as it fills." : null;
        }
        $overlap = $number($now, 'overlap_s');
        if ($overlap < -self::FELT_S) {
            return sprintf(
                'Flares by %.0f rev/min: %s takes over %.2f s too late.',
                $number($now, 'flare_rpm'),
                $element,
                -$overlap,
            );
        }
        if ($overlap > self::FELT_S) {
            return sprintf('Ties up for %.2f s: %s comes before the old gear lets go.', $overlap, $element);
        }
        $longer = $number($now, 'duration_s') - $number($sound, 'duration_s');

        return abs($longer) <= self::FELT_S ? null : sprintf(
            '%s: takes %.2f s, %.2f s when sound; the jolt is ×%.2f, ×%.2f when sound.',
            $longer > 0.0 ? 'Softer' : 'Harder',
            $number($now, 'duration_s'),
            $number($sound, 'duration_s'),
            $number($now, 'bump'),
            $number($sound, 'bump'),
        );
    }
}
