<?php

namespace App\Catalog\Read;

/**
 * What an option changes in a specification: a field takes the place of the old one, named things (fixed plates, slots)
 * are merged by their name, and none of one takes it out.
 */
final class ByOption
{
    private const NAMED = ['fixed', 'slots'];

    /**
     * @param  array<string, mixed>  $body  of a specification
     * @param  array<string, string>  $chosen  option => its name
     * @return array<string, mixed> with the names of the options that changed it under "forOptions"
     */
    public static function apply(array $body, array $chosen): array
    {
        $byOption = array_intersect_key($body['byOption'] ?? [], $chosen);
        unset($body['byOption']);
        foreach ($byOption as $code => $change) {
            foreach ($change as $field => $value) {
                $body[$field] =
                    in_array($field, self::NAMED, true) &&
                    is_array($value) &&
                    count(array_column($value, 'name')) === count($value)
                        ? self::merged($body[$field] ?? [], array_values($value))
                        : $value;
            }
            $body['forOptions'][] = $chosen[$code];
        }

        return $body;
    }

    /**
     * @param  list<array<string, mixed>>  $things
     * @param  list<array<string, mixed>>  $changes
     * @return list<array<string, mixed>>
     */
    private static function merged(array $things, array $changes): array
    {
        $byName = array_column($things, null, 'name');
        foreach ($changes as $change) {
            $byName[$change['name']] = array_replace($byName[$change['name']] ?? [], $change);
        }

        return array_values(array_filter($byName, static fn (array $thing): bool => ($thing['count'] ?? 1) !== 0));
    }
}
