<?php

namespace App\Catalog\Exchange;

/** Brings packs written in an older version of the format to today's, step by step (docs/formats/catalog-pack.md). */
final class PackUpgrade
{
    public const VERSION = 3;

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
