<?php

namespace App\Stations\Dyno;

use App\Kernel\Refusal;
use App\Stations\Dyno\Models\Run;
use Yard\Core\BadInput;
use Yard\Core\Dyno\Samples;

/**
 * A recorded run on disk (docs/formats/rig.md): CSV with a header line, one row a sample; packed with gzip once it is
 * analysed. Beside it lies its pyramid, from which any stretch is drawn at once.
 */
final class Trace
{
    /** What the rig records beside the time. */
    public const CHANNELS = [
        'input_rpm', 'turbine_rpm', 'output_rpm', 'input_nm', 'output_nm', 'line_kpa', 'apply_kpa', 'lockup_kpa',
        'lube_kpa', 'temp_degc', 'cooler_degc', 'cooler_lpm',
    ];

    public static function path(Run $run): string
    {
        return config('yard.state')."/app/traces/run-$run->id.csv";
    }

    public static function exists(Run $run): bool
    {
        return is_file(self::path($run)) || is_file(self::path($run).'.gz');
    }

    /** Of the recording as it was written, packed or not. */
    public static function sha256(Run $run): ?string
    {
        if (! self::exists($run)) {
            return null;
        }
        $hash = hash_init('sha256');
        $file = self::open($run);
        while (! gzeof($file)) {
            hash_update($hash, (string) gzread($file, 1 << 16));
        }
        gzclose($file);

        return hash_final($hash);
    }

    /** Whether the recording is still the one that was analysed. */
    public static function untouched(Run $run): bool
    {
        return $run->trace_sha256 === null || $run->trace_sha256 === self::sha256($run);
    }

    /** Packs the recording; what was there before stays until the packed one is whole. */
    public static function pack(Run $run): void
    {
        $path = self::path($run);
        if (! is_file($path)) {
            return;
        }
        $packed = gzencode((string) file_get_contents($path), 6);
        if ($packed !== false && file_put_contents("$path.gz.new", $packed) === strlen($packed)) {
            rename("$path.gz.new", "$path.gz");
            unlink($path);
        }
    }

    /**
     * The whole recording, each sample at its time.
     *
     * @throws Refusal when the recording is not there
     * @throws BadInput for what is no recording of this run
     */
    public static function samples(Run $run): Samples
    {
        $reading = self::reading($run);
        foreach ($reading as $more);

        return $reading->getReturn();
    }

    /**
     * The same again and again, with one sample more; a line cut off by a crash is left out. Who wants to may make it
     * forget what is done with.
     *
     * @return \Generator<int, Samples, void, Samples>
     */
    public static function reading(Run $run): \Generator
    {
        $file = self::open($run);
        try {
            $header = explode(',', trim((string) gzgets($file)));
            $samples = new Samples($header, (float) $run->program['rate_hz'], (float) $run->program['end']);
            while (($line = gzgets($file)) !== false) {
                $row = explode(',', trim($line));
                if (count($row) === count($header)) {
                    $samples->add($row);
                    yield $samples;
                }
            }
        } finally {
            gzclose($file);
        }

        return $samples;
    }

    /** @return \Generator<int, array<string, list<float>>> so many samples at a time, the last time fewer */
    public static function blocks(Run $run, int $size): \Generator
    {
        $reading = self::reading($run);
        foreach ($reading as $samples) {
            if ($samples->held() > $size) {
                yield array_map(fn (array $values): array => array_slice($values, 0, $size), $samples->channels());
                $samples->forget($size);
            }
        }
        yield $reading->getReturn()->channels();
    }

    /** @return resource */
    public static function open(Run $run)
    {
        $path = self::path($run);
        $file = @gzopen(is_file($path) ? $path : "$path.gz", 'r');

        return $file === false ? throw new Refusal('The recording of this run is not there.', 404) : $file;
    }
}
