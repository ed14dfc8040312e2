<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * Holds the analysis of a test run against the limits of the family, altered by the package. What is limited and could
 * not be measured is a check without a value, and does not pass.
 *
 * @phpstan-type Check array{check: string, value: float|null, unit: string, min: float|null, max: float|null,
 *     pass: bool, where: string, against: 'limits'|'house'|'good units'}
 * @phpstan-type Analysis array{gears: list<array{gear: string, ratioErrorPct: float}>, shifts: list<array{from: string,
 *     to: string, duration_s: float, delay_s?: float, flare_rpm: float, tieUpDepth_pct: float}>,
 *     tieUps: list<array{gear: string, depth_pct: float}>,
 *     slips?: list<array{gear: string, from_s: float, slip_pct: float}>, lockup: array{slipMean_rpm: float,
 *     huntAmplitude_rpm: float}|null, notReached: list<array{gear: string, ratioMean?: float}>,
 *     pressure?: array{min_kpa: float, max_kpa: float}, temperature?: array{rise_per_min: float}}
 */
final class JudgeTrace
{
    /** @var list<Check> */
    private array $checks = [];

    /**
     * @param  array<string, array{min?: float, max?: float}>  $limits
     * @param  list<string>  $house  limits that are the house's
     * @param  'limits'|'good units'  $against  whose the others are
     */
    private function __construct(
        private readonly array $limits,
        private readonly array $house = [],
        private readonly string $against = 'limits',
    ) {
    }

    /**
     * @param  array<string, mixed>  $analysis  as TraceAnalysis reports it
     * @param  array<string, array{min?: float, max?: float}>  $limits
     * @param  list<array{string, string}>  $changes  from and to of each commanded change: it must have been measured
     * @param  list<string>  $house  limits that are the house's, where it allows less than the program
     * @return list<Check>
     */
    public static function judge(array $analysis, array $limits, array $changes = [], array $house = []): array
    {
        /** @var Analysis $analysis */
        $judge = new self($limits, $house);
        $judge->gears($analysis);
        $judge->shifts($analysis, $changes);
        $judge->lockup($analysis['lockup'] ?? null);
        $judge->whole($analysis);

        return $judge->checks;
    }

    /**
     * Every sample the run was to have is there, once.
     *
     * @return list<Check>
     */
    public static function completeness(Samples $samples): array
    {
        $judge = new self(['lost' => ['max' => 0.0]]);
        $first = $samples->gaps()[0] ?? null;
        $where = $first === null ? 'whole run' : sprintf('from %.2f s', $first['from_s']);
        $judge->add('Samples lost', (float) $samples->lost(), 'samples', $where, 'lost');
        if ($samples->doubled() > 0) {
            $judge->add('Samples that came twice', (float) $samples->doubled(), 'samples', 'whole run', 'lost');
        }

        return $judge->checks;
    }

    /**
     * What good units of the kind give: every number that has a window must be there and lie in it.
     *
     * @param  list<array{key: string, check: string, where: string, unit: string, value: float|null}>  $readings
     * @param  array<string, array{min?: float, max?: float}>  $reference  by key of a reading
     * @return list<Check>
     */
    public static function reference(array $readings, array $reference): array
    {
        $judge = new self($reference, against: 'good units');
        $read = array_column($readings, null, 'key');
        foreach (array_keys($reference) as $key) {
            $nothing = ['check' => 'Reading of the program', 'where' => $key, 'unit' => '', 'value' => null];
            $reading = $read[$key] ?? $nothing;
            $judge->add($reading['check'], $reading['value'], $reading['unit'], $reading['where'], $key);
        }

        return $judge->checks;
    }

    /** @param  Analysis  $analysis */
    private function gears(array $analysis): void
    {
        foreach ($analysis['notReached'] as $missing) {
            $this->checks[] = [
                'check' => 'Gear comes',
                'value' => $missing['ratioMean'] ?? null,
                'unit' => 'ratio',
                'min' => null,
                'max' => null,
                'pass' => false,
                'where' => "gear {$missing['gear']}",
                'against' => 'limits',
            ];
        }
        $worst = [];
        foreach ($analysis['gears'] as $gear) {
            $worst[$gear['gear']] = max($worst[$gear['gear']] ?? 0.0, abs($gear['ratioErrorPct']));
        }
        foreach ($worst as $gear => $error) {
            $this->add('Ratio against the chart', $error, '%', "gear $gear", 'ratioErrorPct');
        }
    }

    /**
     * @param  Analysis  $analysis
     * @param  list<array{string, string}>  $commanded
     */
    private function shifts(array $analysis, array $commanded): void
    {
        $measured = $times = [];
        foreach ($analysis['shifts'] as $shift) {
            $measured[] = [$shift['from'], $shift['to']];
            $name = "{$shift['from']}-{$shift['to']}";
            $times[$name] = ($times[$name] ?? 0) + 1;
            $this->shift($times[$name] > 1 ? "$name, time $times[$name]" : $name, $shift);
        }
        foreach ($commanded as [$from, $to]) {
            in_array([$from, $to], $measured, true) || $this->shift("$from-$to", null);
        }
        foreach ($analysis['tieUps'] as $tieUp) {
            $this->add('Tie-up in gear', $tieUp['depth_pct'], '%', "gear {$tieUp['gear']}", 'tieUpDepth_pct');
        }
        foreach ($analysis['slips'] ?? [] as $slip) {
            $where = sprintf('gear %s from %.2f s', $slip['gear'], $slip['from_s']);
            $this->add('Slip in gear', $slip['slip_pct'], '%', $where, 'slip_pct');
        }
    }

    /** @param  array{duration_s: float, delay_s?: float, flare_rpm: float, tieUpDepth_pct: float}|null  $shift */
    private function shift(string $where, ?array $shift): void
    {
        $this->add('Shift duration', $shift['duration_s'] ?? null, 's', $where, 'shiftDuration_s');
        $this->add('Shift delay', $shift['delay_s'] ?? null, 's', $where, 'shiftDelay_s');
        $this->add('Flare', $shift['flare_rpm'] ?? null, 'rev/min', $where, 'flare_rpm');
        $this->add('Tie-up', $shift['tieUpDepth_pct'] ?? null, '%', $where, 'tieUpDepth_pct');
    }

    /** @param  array{slipMean_rpm: float, huntAmplitude_rpm: float}|null  $lockup */
    private function lockup(?array $lockup): void
    {
        $slip = $lockup === null ? null : abs($lockup['slipMean_rpm']);
        $this->add('Lock-up slip', $slip, 'rev/min', 'lock-up', 'lockupSlip_rpm');
        $this->add('Hunting', $lockup['huntAmplitude_rpm'] ?? null, 'rev/min', 'lock-up', 'hunt_rpm');
    }

    /** @param  Analysis  $analysis */
    private function whole(array $analysis): void
    {
        $pressure = $analysis['pressure'] ?? null;
        $rise = $analysis['temperature']['rise_per_min'] ?? null;
        $this->add('Line pressure, lowest', $pressure['min_kpa'] ?? null, 'kPa', 'whole run', 'line_kpa');
        $this->add('Line pressure, highest', $pressure['max_kpa'] ?? null, 'kPa', 'whole run', 'line_kpa');
        $this->add('Temperature rise', $rise, 'K/min', 'whole run', 'rise_per_min');
    }

    private function add(string $check, ?float $value, string $unit, string $where, string $limit): void
    {
        $window = $this->limits[$limit] ?? null;
        if ($window === null) {
            return;
        }
        [$min, $max] = [$window['min'] ?? null, $window['max'] ?? null];
        $this->checks[] = [
            'check' => $check,
            'value' => $value,
            'unit' => $unit,
            'min' => $min,
            'max' => $max,
            'pass' => $value !== null && ($min === null || $value >= $min) && ($max === null || $value <= $max),
            'where' => $where,
            'against' => in_array($limit, $this->house, true) ? 'house' : $this->against,
        ];
    }
}
