<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Generator;
use Yard\Core\BadInput;
use Yard\Core\Quantity\Unit;

/**
 * A recording some other rig or logger made, read line by line, so that its size does not matter: columns mapped to
 * the channels of the house, units turned into theirs, samples put on an even grid. Between samples values go straight;
 * where the file has more than the grid takes, those of one place are averaged. What is missing for longer stays so.
 *
 * Delimiter (comma, semicolon, tab) and decimal sign are told by the header line, which may stand below a few lines of
 * preamble; lines of units below it are passed over.
 *
 * @phpstan-type Column array{column: string, unit: string}
 */
final class ForeignCsv
{
    /** What the house records, and in which unit. */
    public const CHANNELS = [
        'input_rpm' => 'rpm', 'turbine_rpm' => 'rpm', 'output_rpm' => 'rpm', 'input_nm' => 'N.m', 'output_nm' => 'N.m',
        'line_kpa' => 'kPa', 'apply_kpa' => 'kPa', 'lockup_kpa' => 'kPa', 'lube_kpa' => 'kPa', 'temp_degc' => 'degC',
        'cooler_degc' => 'degC', 'cooler_lpm' => 'L/min',
    ];

    /** Units of time, and of flow, which the table of units does not hold: in seconds, in litres a minute. */
    private const TIMES = ['s' => 1.0, 'ms' => 0.001, 'min' => 60.0];

    private const FLOWS = ['L/min' => 1.0, 'US gal/min' => 3.785411784];

    /** The grid is never finer. */
    private const FINEST_HZ = 200.0;

    private const LONGEST_LINE = 100_000;

    private const PREAMBLE = 40;

    /** The rate is told by the spacing of so many samples. */
    private const LOOKED_AT = 2000;

    /** Missing for longer than so many places of the grid is a gap. */
    private const BRIDGED = 3.0;

    private string $delimiter = ',';

    private int $line = 0;

    /** @var array<string, int> channel => column; the time is t_s */
    private array $at = [];

    /**
     * @param  Column|null  $time  null: the file has no time, its rate is known
     * @param  array<string, Column>  $channels  by channel of the house
     * @param  float|null  $rate_hz  of a file without a time
     *
     * @throws BadInput for a channel or a unit that is none
     */
    public function __construct(
        private readonly ?array $time,
        private readonly array $channels,
        private readonly ?float $rate_hz,
    ) {
        foreach ($channels as $channel => ['unit' => $unit]) {
            isset(self::CHANNELS[$channel]) || throw new BadInput(
                'channel',
                "There is no channel \"$channel\"; there are ".implode(', ', array_keys(self::CHANNELS)).'.',
                "/channels/$channel",
            );
            self::turned(1.0, $unit, self::CHANNELS[$channel], "/channels/$channel/unit");
        }
        isset($channels['input_rpm'], $channels['output_rpm']) || throw new BadInput(
            'missing',
            'Say which columns are the speeds in and out; nothing can be told without them.',
            '/channels',
        );
        $time === null || isset(self::TIMES[$time['unit']]) || throw new BadInput(
            'unknown-unit',
            "Time is in s, ms or min, not in \"{$time['unit']}\".",
            '/time/unit',
        );
        ($time === null) === ($rate_hz !== null) || throw new BadInput(
            'time',
            'Say which column is the time, or how many samples a second there are.',
            '/rate_hz',
        );
    }

    /**
     * @param  resource  $file  that can be read from its beginning again
     * @return float samples a second the grid has
     *
     * @throws BadInput for what is no recording
     */
    public function rate($file): float
    {
        if ($this->rate_hz !== null) {
            return min($this->rate_hz, self::FINEST_HZ);
        }
        $steps = [];
        $before = null;
        foreach ($this->samples($file) as [$t]) {
            $before !== null && $t > $before && ($steps[] = $t - $before);
            $before = $t;
            if (count($steps) >= self::LOOKED_AT) {
                break;
            }
        }
        $steps !== [] || throw new BadInput('empty', 'The file holds fewer than two samples.', '');
        sort($steps);
        $median = $steps[intdiv(count($steps), 2)];
        $usual = array_filter($steps, static fn (float $step): bool => abs($step - $median) < 0.5 * $median);

        return min(round(count($usual) / array_sum($usual), 3), self::FINEST_HZ);
    }

    /**
     * @param  resource  $file
     * @param  float  $rate  of the grid
     * @param  float  $longest  seconds; what comes after is left out
     * @return Generator<int, list<float>> time from the first sample on, s, and the channels in the order given
     *
     * @throws BadInput with the line and the column of what is wrong
     */
    public function rows($file, float $rate, float $longest): Generator
    {
        $start = null;
        $before = null;
        $n = 0;
        /** @var list<list<float>> $bin what lies nearest to place $n */
        $bin = [];
        foreach ($this->samples($file) as $sample) {
            $start ??= $sample[0];
            $sample[0] -= $start;
            if ($sample[0] > $longest) {
                break;
            }
            if ($before !== null && $sample[0] < $before[0]) {
                throw new BadInput('time', "Line $this->line: the time runs backwards.", '/file');
            }
            $place = (int) round($sample[0] * $rate);
            if ($place > $n) {
                yield from $this->placed($bin, $n, $place, $before, $sample, $rate);
                [$n, $bin] = [$place, []];
            }
            $bin[] = $sample;
            $before = $sample;
        }
        if ($bin !== []) {
            yield [$n / $rate, ...self::mean($bin)];
        }
    }

    /**
     * The place just left, and those up to the next sample where it comes soon enough.
     *
     * @param  list<list<float>>  $bin
     * @param  list<float>|null  $before
     * @param  list<float>  $next
     * @return Generator<int, list<float>>
     */
    private function placed(array $bin, int $n, int $place, ?array $before, array $next, float $rate): Generator
    {
        if ($bin !== []) {
            yield [$n / $rate, ...self::mean($bin)];
        }
        if ($before === null || ($next[0] - $before[0]) * $rate > self::BRIDGED) {
            return;
        }
        for ($k = $n + 1; $k < $place; $k++) {
            $share = ($k / $rate - $before[0]) / ($next[0] - $before[0]);
            $row = [$k / $rate];
            foreach ($next as $i => $value) {
                $i === 0 || ($row[] = (1.0 - $share) * $before[$i] + $share * $value);
            }
            yield $row;
        }
    }

    /**
     * @param  non-empty-list<list<float>>  $bin
     * @return list<float> without the time
     */
    private static function mean(array $bin): array
    {
        $out = [];
        for ($i = 1; $i < count($bin[0]); $i++) {
            $out[] = array_sum(array_column($bin, $i)) / count($bin);
        }

        return $out;
    }

    /**
     * @param  resource  $file
     * @return Generator<int, list<float>> time in s and channels in the units of the house
     */
    private function samples($file): Generator
    {
        rewind($file);
        $this->line = 0;
        $this->head($file);
        $begun = false;
        $first = current($this->at);
        for ($k = 0; ($cells = $this->next($file)) !== null;) {
            $begun = $begun || $this->isNumber($cells[$first] ?? '');
            if (! $begun || $cells === ['']) {
                continue; // units below the header, or an empty line
            }
            $row = [$this->time === null ? $k / (float) $this->rate_hz : $this->time($cells)];
            foreach ($this->channels as $channel => $as) {
                $value = $this->number($cells, $channel, $as['column']);
                $row[] = self::turned($value, $as['unit'], self::CHANNELS[$channel], '/file');
            }
            yield $k++ => $row;
        }
    }

    /** @param  list<string>  $cells */
    private function time(array $cells): float
    {
        $as = $this->time ?? throw new \LogicException('The file has no time.');

        return $this->number($cells, 't_s', $as['column']) * self::TIMES[$as['unit']];
    }

    /**
     * Finds the line that names every column asked for.
     *
     * @param  resource  $file
     */
    private function head($file): void
    {
        $wanted = array_map(fn (array $as): string => $as['column'], $this->channels);
        $this->time === null || ($wanted = ['t_s' => $this->time['column']] + $wanted);
        while ($this->line < self::PREAMBLE && ($text = $this->text($file)) !== null) {
            foreach ([',', ';', "\t"] as $delimiter) {
                $cells = str_getcsv(self::withoutMark($text), $delimiter, escape: '');
                $places = array_flip(array_map(static fn (?string $name): string => trim((string) $name), $cells));
                if (array_diff($wanted, array_keys($places)) === []) {
                    $this->at = array_map(static fn (string $name): int => $places[$name], $wanted);
                    $this->delimiter = $delimiter;

                    return;
                }
            }
        }
        throw new BadInput(
            'header',
            'No line at the beginning of the file names all of these columns: '.implode(', ', $wanted).'.',
            '/file',
        );
    }

    /**
     * @param  resource  $file
     * @return list<string>|null
     */
    private function next($file): ?array
    {
        $text = $this->text($file);

        return $text === null ? null : array_map(strval(...), str_getcsv($text, $this->delimiter, escape: ''));
    }

    /** @param  resource  $file */
    private function text($file): ?string
    {
        $text = fgets($file, self::LONGEST_LINE);
        if ($text === false) {
            return null;
        }
        $this->line++;
        if (strlen($text) >= self::LONGEST_LINE - 1) {
            throw new BadInput('line', "Line $this->line is longer than any line of a recording.", '/file');
        }

        return rtrim($text, "\r\n");
    }

    private static function withoutMark(string $text): string
    {
        return str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
    }

    private function isNumber(string $cell): bool
    {
        return is_numeric($this->plain($cell));
    }

    private function plain(string $cell): string
    {
        return $this->delimiter === ',' ? trim($cell) : str_replace(',', '.', trim($cell));
    }

    /** @param  list<string>  $cells */
    private function number(array $cells, string $channel, string $column): float
    {
        $cell = $this->plain($cells[$this->at[$channel]] ?? '');
        $number = is_numeric($cell) ? (float) $cell : NAN;
        if (! is_finite($number)) {
            $shown = $cell === '' ? 'nothing' : '"'.mb_strimwidth($cell, 0, 40, '…').'"';
            throw new BadInput('type', "Line $this->line: column $column holds $shown, not a number.", '/file');
        }

        return $number;
    }

    private static function turned(float $value, string $from, string $to, string $path): float
    {
        if ($to !== 'L/min') {
            return Unit::of($from, $path)->convert($value, Unit::of($to), $path);
        }
        $factor = self::FLOWS[$from] ??
            throw new BadInput('unknown-unit', "A flow is in L/min or US gal/min, not in \"$from\".", $path);

        return $value * $factor;
    }
}
