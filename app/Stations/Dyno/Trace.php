<?php

namespace App\Stations\Dyno;

use App\Kernel\Refusal;
use App\Stations\Dyno\Models\Run;

/** A recorded run on disk: CSV with a header line, one row a sample (docs/formats/rig.md). */
final class Trace
{
    public const COLUMNS = ['t_s', 'input_rpm', 'turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc'];

    public static function path(Run $run): string
    {
        return config('yard.state')."/app/traces/run-$run->id.csv";
    }

    /**
     * @param  int  $every  keep one row in so many
     * @return array<string, list<float>> channel => values
     */
    public static function read(Run $run, int $every = 1): array
    {
        $file = @fopen(self::path($run), 'r');
        if ($file === false) {
            throw new Refusal('The recording of this run is not there.', 404);
        }
        $header = fgetcsv($file, escape: '') ?: [];
        $out = array_fill_keys(array_diff(self::COLUMNS, ['t_s']), []);
        $keep = array_intersect($header, array_keys($out));
        for ($k = 0; ($row = fgetcsv($file, escape: '')) !== false; $k++) {
            if ($k % $every === 0 && count($row) === count($header)) {
                foreach ($keep as $i => $name) {
                    $out[$name][] = (float) $row[$i];
                }
            }
        }
        fclose($file);

        return $out;
    }
}
