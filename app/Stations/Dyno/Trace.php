<?php

namespace App\Stations\Dyno;

use App\Kernel\Refusal;
use App\Stations\Dyno\Models\Run;
use Yard\Core\BadInput;
use Yard\Core\Dyno\Samples;

/** A recorded run on disk: CSV with a header line, one row a sample (docs/formats/rig.md). */
final class Trace
{
    public const COLUMNS = ['t_s', 'input_rpm', 'turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc'];

    public static function path(Run $run): string
    {
        return config('yard.state')."/app/traces/run-$run->id.csv";
    }

    public static function sha256(Run $run): ?string
    {
        return is_file(self::path($run)) ? hash_file('sha256', self::path($run)) ?: null : null;
    }

    /** Whether the recording is still the one that was analysed. */
    public static function untouched(Run $run): bool
    {
        return $run->trace_sha256 === null || $run->trace_sha256 === self::sha256($run);
    }

    /**
     * The whole recording, each sample at its time; a line cut off by a crash is left out.
     *
     * @throws Refusal when the recording is not there
     * @throws BadInput for what is no recording of this run
     */
    public static function samples(Run $run): Samples
    {
        $channels = array_values(array_diff(self::COLUMNS, ['t_s']));
        $samples = new Samples($channels, (float) $run->program['rate_hz'], (float) $run->program['end']);
        foreach (self::rows($run) as $row) {
            $samples->add($row['t_s'] ?? null, $row);
        }

        return $samples;
    }

    /**
     * What is drawn of it.
     *
     * @param  int  $every  keep one row in so many
     * @return array<string, list<float>> channel => values
     */
    public static function read(Run $run, int $every = 1): array
    {
        $out = array_fill_keys(array_diff(self::COLUMNS, ['t_s']), []);
        foreach (self::rows($run) as $k => $row) {
            if ($k % $every === 0) {
                foreach ($out as $name => $values) {
                    $out[$name][] = (float) ($row[$name] ?? 0);
                }
            }
        }

        return $out;
    }

    /** @return \Generator<int, array<string, ?string>> column => text, line by line */
    private static function rows(Run $run): \Generator
    {
        $file = @fopen(self::path($run), 'r');
        if ($file === false) {
            throw new Refusal('The recording of this run is not there.', 404);
        }
        try {
            $header = array_map(strval(...), fgetcsv($file, escape: '') ?: []);
            for ($k = 0; ($row = fgetcsv($file, escape: '')) !== false;) {
                if (count($row) === count($header)) {
                    yield $k++ => array_combine($header, $row);
                }
            }
        } finally {
            fclose($file);
        }
    }
}
