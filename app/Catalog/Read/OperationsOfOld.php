<?php

namespace App\Catalog\Read;

/**
 * Steps and places as they were written before operations had proofs, read in today's form: a step that counted proves
 * its count, and what was measured beside the steps is an operation of its own. Used for packs, catalogs and frozen
 * specifications of that time.
 */
final class OperationsOfOld
{
    /**
     * @param  array<string, mixed>  $spec  frozen specification
     * @return list<array<string, mixed>>
     */
    public static function frozen(array $spec): array
    {
        /** @var list<array<string, mixed>> $steps */
        $steps = array_values($spec['assembly'] ?? []);

        return self::isOld($steps)
            ? [...array_map(self::step(...), $steps), ...self::measured($spec)]
            : $steps;
    }

    /**
     * @param  array<string, mixed>  $step  with `needs` and perhaps `counts`
     * @return array<string, mixed>
     */
    public static function step(array $step): array
    {
        $counts = (array) ($step['counts'] ?? []);

        return array_diff_key($step, ['needs' => 0, 'counts' => 0]) +
            ['after' => $step['needs'] ?? []] +
            ($counts === [] ? [] : ['proofs' => [['kind' => 'count', 'counts' => $counts]]]);
    }

    /**
     * @param  array<string, mixed>  $lists  packs, endPlays, airChecks, fasteners: each with code and name
     * @return list<array<string, mixed>>
     */
    public static function measured(array $lists): array
    {
        $operations = [];
        foreach (['packs' => 'pack', 'endPlays' => 'end-play'] as $list => $kind) {
            foreach ($lists[$list] ?? [] as $place) {
                $of = "$kind:{$place['code']}";
                $operations[] = self::operation($of, $place['name'], [
                    ['kind' => 'fit', 'of' => $of],
                    ['kind' => 'reading', 'of' => $of],
                ]);
            }
        }
        foreach (['airChecks' => 'air', 'fasteners' => 'torque'] as $list => $kind) {
            foreach ($lists[$list] ?? [] as $place) {
                $operations[] = self::operation(
                    "$kind:{$place['code']}",
                    $place['name'],
                    [['kind' => $kind, 'of' => $place['code']]],
                );
            }
        }

        return $operations;
    }

    /** @param  list<array<string, mixed>>  $steps */
    private static function isOld(array $steps): bool
    {
        return array_filter($steps, fn (array $s): bool => array_key_exists('needs', $s)) !== [];
    }

    /**
     * @param  list<array<string, mixed>>  $proofs
     * @return array<string, mixed>
     */
    private static function operation(string $of, string $name, array $proofs): array
    {
        return ['code' => str_replace(':', '-', "measure:$of"), 'name' => $name, 'after' => [], 'proofs' => $proofs];
    }
}
