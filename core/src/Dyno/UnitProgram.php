<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * The test program of a family as one unit runs it: with the limits of its package, the windows of good units that have
 * the hardware it has, and without lock-up where it has none.
 *
 * @phpstan-type Windows array<string, array{min?: float, max?: float}>
 * @phpstan-type Built array{variants: list<string>, options: list<string>, windows: Windows}
 * @phpstan-type Program array{steps: list<array<string, mixed>>, limits: Windows, reference?: Windows,
 *     packageLimits?: array<string, Windows>, references?: list<Built>}
 */
final class UnitProgram
{
    private const OF_LOCKUP = ['lockupSlip_rpm' => 0, 'hunt_rpm' => 0];

    /**
     * @param  array<string, mixed>  $program  of the family
     * @param  list<string>  $options  that are in and change the hardware
     * @return array<string, mixed> `reference` as it is for this hardware, `referenceOf`: `built` when good units of it
     *     are known, else `family`: only what does not hang on hardware has a window
     */
    public static function of(array $program, string $package, string $variant, array $options, bool $lockUp): array
    {
        /** @var Program $program */
        $windows = self::windows($program['references'] ?? [], $variant, $options);
        $limits = array_replace($program['limits'], $program['packageLimits'][$package] ?? []);

        return [
            'limits' => $lockUp ? $limits : array_diff_key($limits, self::OF_LOCKUP),
            'steps' => $lockUp ? $program['steps'] : self::withoutLockUp($program['steps']),
            'reference' => $windows ?? self::ofAny($program['reference'] ?? [], $lockUp),
            'referenceOf' => $windows === null ? 'family' : 'built',
        ] + array_diff_key($program, ['packageLimits' => 0, 'references' => 0]);
    }

    /**
     * Where the house allows less than the program its limit holds; what the program does not limit, for want of a
     * lock-up say, is not limited by the house either.
     *
     * @param  Windows  $limits  of the program
     * @param  array<string, float>  $most  that the house allows, by limit
     * @return array{limits: Windows, house: list<string>} and which of them are the house's
     */
    public static function strictest(array $limits, array $most): array
    {
        $house = [];
        foreach (array_intersect_key($most, $limits) as $limit => $max) {
            if ($max < ($limits[$limit]['max'] ?? INF)) {
                $limits[$limit]['max'] = $max;
                $house[] = $limit;
            }
        }

        return ['limits' => $limits, 'house' => $house];
    }

    /**
     * @param  list<Built>  $references
     * @param  list<string>  $options
     * @return Windows|null
     */
    private static function windows(array $references, string $variant, array $options): ?array
    {
        sort($options);
        foreach ($references as $reference) {
            $with = $reference['options'];
            sort($with);
            if ($with === $options && in_array($variant, $reference['variants'], true)) {
                return $reference['windows'];
            }
        }

        return null;
    }

    /**
     * @param  Windows  $windows
     * @return Windows of what is read alike whatever plates, springs and pressures are in
     */
    private static function ofAny(array $windows, bool $lockUp): array
    {
        // Torque out over torque in is read with the converter locked.
        $kinds = $lockUp ? ['cooler', 'sensor', 'efficiency'] : ['cooler', 'sensor'];

        return array_filter(
            $windows,
            fn (string $key): bool => in_array(explode(':', $key)[0], $kinds, true),
            ARRAY_FILTER_USE_KEY,
        );
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     * @return list<array<string, mixed>>
     */
    private static function withoutLockUp(array $steps): array
    {
        return array_values(array_filter(
            array_map(fn (array $step): array => array_diff_key($step, ['lockup' => 0]), $steps),
            fn (array $step): bool => count($step) > 1,
        ));
    }
}
