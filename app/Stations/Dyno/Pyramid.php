<?php

namespace App\Stations\Dyno;

use App\Stations\Dyno\Models\Run;

/**
 * Least and most of every channel over ever longer stretches of a recording, as single-precision numbers one after the
 * other: from it any part of a run of any length is drawn without reading the recording. It can be made again at any
 * time.
 */
final class Pyramid
{
    /** Each level covers so many of the stretches below it. */
    private const STEP = 8;

    private const MOST_POINTS = 4000;

    /** @param  array<string, list<float>>  $channels  evenly sampled, all of one length */
    public static function build(Run $run, array $channels): void
    {
        $levels = [array_map(static fn (array $values): array => [$values, $values], $channels)];
        $length = count(reset($channels) ?: []);
        while ($length > self::MOST_POINTS / self::STEP) {
            $levels[] = array_map(self::above(...), $levels[count($levels) - 1]);
            $length = (int) ceil($length / self::STEP);
        }
        $head = ['rate_hz' => $run->program['rate_hz'], 'channels' => array_keys($channels), 'levels' => []];
        $body = '';
        foreach ($levels as $n => $level) {
            $head['levels'][] = ['at' => strlen($body), 'points' => count(current($level)[0] ?? [])];
            foreach ($level as [$least, $most]) {
                $body .= pack('g*', ...$least).($n === 0 ? '' : pack('g*', ...$most));
            }
        }
        file_put_contents(self::path($run), json_encode($head)."\n".$body);
    }

    /**
     * @param  array{list<float>, list<float>}  $below  least and most
     * @return array{list<float>, list<float>}
     */
    private static function above(array $below): array
    {
        return [
            array_map(static fn (array $c): float => min($c), array_chunk($below[0], self::STEP)),
            array_map(static fn (array $c): float => max($c), array_chunk($below[1], self::STEP)),
        ];
    }

    private static function path(Run $run): string
    {
        return dirname(Trace::path($run))."/run-$run->id.pyramid";
    }

    /**
     * A stretch of a run in not more points than asked for: least and most of each, one after the other.
     *
     * @return array{from_s: float, every_s: float, channels: array<string, list<float>>}
     */
    public static function read(Run $run, float $from, float $to, int $points): array
    {
        is_file(self::path($run)) || self::build($run, Trace::samples($run)->channels());
        $file = fopen(self::path($run), 'r') ?: throw new \RuntimeException('The pyramid cannot be read.');
        $line = (string) fgets($file);
        /** @var array{rate_hz: float, channels: list<string>, levels: non-empty-list<array<string, int>>} $head */
        $head = json_decode($line, true);
        $level = 0;
        $samples = ($to - $from) * $head['rate_hz'];
        while (isset($head['levels'][$level + 1]) && $samples / self::STEP ** $level > $points) {
            $level++;
        }
        $every = (float) (self::STEP ** $level / $head['rate_hz']);
        ['at' => $at, 'points' => $all] = $head['levels'][$level] ?? $head['levels'][0];
        $first = max(0, min($all - 1, (int) floor($from / $every)));
        $count = max(1, (int) min($all, ceil($to / $every)) - $first);
        $channels = [];
        foreach ($head['channels'] as $n => $channel) {
            $start = strlen($line) + $at + 4 * $all * ($level === 0 ? 1 : 2) * $n;
            $least = self::numbers($file, $start + 4 * $first, $count);
            $most = $level === 0 ? null : self::numbers($file, $start + 4 * ($all + $first), $count);
            $channels[$channel] = $most === null ? $least : self::inTurn($least, $most);
        }
        fclose($file);

        return [
            'from_s' => $first * $every,
            'every_s' => $level === 0 ? $every : $every / 2.0,
            'channels' => $channels,
        ];
    }

    /**
     * @param  list<float>  $least
     * @param  list<float>  $most
     * @return list<float>
     */
    private static function inTurn(array $least, array $most): array
    {
        $out = [];
        foreach ($least as $k => $value) {
            array_push($out, $value, $most[$k] ?? $value);
        }

        return $out;
    }

    /**
     * @param  resource  $file
     * @return list<float>
     */
    private static function numbers($file, int $at, int $count): array
    {
        fseek($file, $at);
        $numbers = unpack('g*', (string) fread($file, max(4, 4 * $count))) ?: [];

        return array_values(array_map(static fn (mixed $v): float => round((float) $v, 3), $numbers));
    }
}
