<?php

namespace App\Catalog\Exchange;

/** Brings packs written in an older version of the format to today's, step by step (docs/formats/catalog-pack.md). */
final class PackUpgrade
{
    public const VERSION = 3;

    /** Version 3 gave every station one word. */
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
        $pack->version = 3;
    }
}
