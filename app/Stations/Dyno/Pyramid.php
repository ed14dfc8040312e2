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

    /** Levels over the samples; the highest draws the longest recording there is in far fewer than the most points. */
    private const LEVELS = 5;

    /** So many samples are one of the highest level. */
    private const BLOCK = self::STEP ** self::LEVELS;

    /** What of each list stays in memory, bytes; the rest waits on the disk. */
    private const WAITING = 'php://temp/maxmemory:16384';

    /** @param  array<string, list<float>>|null  $channels  evenly sampled, all of one length; null: read it again */
    public static function build(Run $run, ?array $channels = null): void
    {
        $blocks = $channels === null ? Trace::blocks($run, self::BLOCK) : self::inBlocks($channels);
        $lists = $points = [];
        foreach ($blocks as $block) {
            foreach (array_keys($block) as $n => $name) {
                foreach (self::levels($block[$name]) as $level => $bounds) {
                    foreach ($bounds as $k => $values) {
                        $lists[$level][$name][$k] ??= self::waiting();
                        fwrite($lists[$level][$name][$k], pack('g*', ...$values));
                    }
                    $points[$level] = ($points[$level] ?? 0) + ($n === 0 ? count($bounds[0]) : 0);
                }
            }
        }
        self::write($run, $lists, $points);
    }

    /**
     * @param  array<int, array<string, array<int, resource>>>  $lists  level => channel => least, and most above it
     * @param  array<int, int>  $points  of each level
     */
    private static function write(Run $run, array $lists, array $points): void
    {
        $head = ['rate_hz' => $run->program['rate_hz'], 'channels' => array_keys($lists[0] ?? []), 'levels' => []];
        $at = 0;
        foreach ($points as $level => $count) {
            $head['levels'][] = ['at' => $at, 'points' => $count];
            $at += 4 * $count * count($head['channels']) * ($level === 0 ? 1 : 2);
            if ($count <= self::MOST_POINTS / self::STEP) {
                break;
            }
        }
        $file = fopen(self::path($run), 'w') ?: throw new \RuntimeException('The pyramid cannot be written.');
        fwrite($file, json_encode($head)."\n");
        foreach (array_slice($lists, 0, count($head['levels'])) as $level) {
            foreach (array_merge(...array_map(array_values(...), array_values($level))) as $list) {
                rewind($list);
                stream_copy_to_stream($list, $file);
            }
        }
        fclose($file);
    }

    /** @return resource */
    private static function waiting()
    {
        return fopen(self::WAITING, 'w+') ?: throw new \RuntimeException('The pyramid cannot be written.');
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @return \Generator<int, array<string, list<float>>>
     */
    private static function inBlocks(array $channels): \Generator
    {
        $length = count(reset($channels) ?: []);
        for ($from = 0; $from < $length; $from += self::BLOCK) {
            yield array_map(fn (array $values): array => array_slice($values, $from, self::BLOCK), $channels);
        }
    }

    /**
     * @param  list<float>  $values  of one block
     * @return list<list<list<float>>> the values, then least and most of each level above
     */
    private static function levels(array $values): array
    {
        $levels = [[$values]];
        [$least, $most] = [$values, $values];
        for ($n = 0; $n < self::LEVELS; $n++) {
            $least = array_map(static fn (array $c): float => min($c), array_chunk($least, self::STEP));
            $most = array_map(static fn (array $c): float => max($c), array_chunk($most, self::STEP));
            $levels[] = [$least, $most];
        }

        return $levels;
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
        is_file(self::path($run)) || self::build($run);
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
