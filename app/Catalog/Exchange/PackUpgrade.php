<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\OperationsOfOld;

/** Brings packs written in an older version of the format to today's, step by step (docs/formats/catalog-pack.md). */
final class PackUpgrade
{
    public const VERSION = 5;

    /** Version 3 gave every station one word and put the installer's duties into the catalog. */
    private const STATION_WORDS = [
        'identify' => 'identification',
        'desk' => 'ordering',
        'bench' => 'assembly',
        'cell' => 'dyno',
    ];

    /** A pack of an unknown version is left as it is: the schema then says what is wrong with it. */
    public static function upgrade(\stdClass $pack): void
    {
        if (($pack->version ?? null) === 2) {
            self::toVersion3($pack);
        }
        if (($pack->version ?? null) === 3) {
            self::toVersion4($pack);
        }
        if (($pack->version ?? null) === 4) {
            self::toVersion5($pack);
        }
    }

    private static function toVersion3(\stdClass $pack): void
    {
        foreach (is_array($pack->jobTypes ?? null) ? $pack->jobTypes : [] as $job) {
            if ($job instanceof \stdClass && is_array($job->route ?? null)) {
                $job->route = array_map(
                    fn (mixed $s): mixed => is_string($s) ? self::STATION_WORDS[$s] ?? $s : $s,
                    $job->route,
                );
            }
        }
        self::addInstallation($pack);
        $pack->version = 3;
    }

    /** Version 4 made steps operations with proofs; what was measured beside the steps became operations. */
    private static function toVersion4(\stdClass $pack): void
    {
        foreach (is_array($pack->families ?? null) ? $pack->families : [] as $family) {
            if ($family instanceof \stdClass) {
                self::stepsAreOperations([...self::listOf($family, 'teardown'), ...self::listOf($family, 'assembly')]);
                self::addMeasured($family);
            }
        }
        $pack->version = 4;
    }

    /** Version 5 brought the tests at the bench: a pack of before has none. */
    private static function toVersion5(\stdClass $pack): void
    {
        foreach (is_array($pack->families ?? null) ? $pack->families : [] as $family) {
            $family instanceof \stdClass && $family->benchTests ??= [];
        }
        $pack->version = 5;
    }

    /** @return list<mixed> */
    private static function listOf(\stdClass $family, string $list): array
    {
        return is_array($family->{$list} ?? null) ? array_values($family->{$list}) : [];
    }

    /** @param  list<mixed>  $entries */
    private static function stepsAreOperations(array $entries): void
    {
        foreach ($entries as $entry) {
            if ($entry instanceof \stdClass && ($entry->body ?? null) instanceof \stdClass) {
                $entry->body = self::asObject(OperationsOfOld::step((array) $entry->body));
            }
        }
    }

    private static function addMeasured(\stdClass $family): void
    {
        $last = is_array($family->assembly ?? null) ? end($family->assembly) : false;
        if (! $last instanceof \stdClass) {
            return;
        }
        $lists = json_decode((string) json_encode(array_intersect_key(
            (array) $family,
            array_flip(['packs', 'endPlays', 'airChecks', 'fasteners']),
        )), true);
        foreach (OperationsOfOld::measured(array_filter($lists, is_array(...))) as $operation) {
            $family->assembly[] = (object) [
                'code' => $operation['code'],
                'name' => $operation['name'],
                'body' => self::asObject(array_diff_key($operation, ['code' => 0, 'name' => 0])),
                'source' => $last->source ?? '',
                'edition' => $last->edition ?? '',
                'confidence' => $last->confidence ?? '',
            ];
        }
    }

    /** @param  array<string, mixed>  $body */
    private static function asObject(array $body): \stdClass
    {
        return json_decode((string) json_encode($body), false, 32, JSON_THROW_ON_ERROR);
    }

    /** Packs without vocabularies are parts of a catalog and get none. */
    private static function addInstallation(\stdClass $pack): void
    {
        $codes = array_column(is_array($pack->vocabularies ?? null) ? $pack->vocabularies : [], 'code');
        if ($codes !== [] && ! in_array('installation', $codes, true)) {
            $pack->vocabularies[] = self::installation();
        }
    }

    /** The vocabulary that version 3 added: what the installer has to do, as it stood in the program before. */
    public static function installation(): \stdClass
    {
        $json = (string) file_get_contents(base_path('database/installation.json'));

        return json_decode($json, false, 8, JSON_THROW_ON_ERROR);
    }
}
