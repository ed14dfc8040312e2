<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Holds the analysis of a test run against the limits of the family, altered by the package. */
final class JudgeTrace
{
    /**
     * @param  array<string, mixed>  $analysis  result of trace.analyse
     * @param  array<string, array{min?: float, max?: float}>  $limits
     * @return list<array{check: string, value: float|null, unit: string, min: float|null, max: float|null, pass: bool,
     *     where: string}>
     */
    public static function judge(array $analysis, array $limits): array
    {
        /**
         * @var array{gears: list<array{gear: string, ratioErrorPct: float}>, shifts: list<array{from: string,
         *     to: string, duration_s: float, delay_s?: float, flare_rpm: float, tieUpDepth_pct: float}>,
         *     tieUps: list<array{gear: string, depth_pct: float}>, lockup: array{slipMean_rpm: float,
         *     huntAmplitude_rpm: float}|null, notReached: list<array{gear: string, ratioMean?: float}>,
         *     pressure?: array{min_kpa: float, max_kpa: float}, temperature?: array{rise_per_min: float}} $analysis
         */
        $checks = [];
        $add = static function (string $check, ?float $value, string $unit, string $where, string $limit) use (
            &$checks,
            $limits,
        ): void {
            $window = $limits[$limit] ?? null;
            if ($window === null) {
                return;
            }
            [$min, $max] = [$window['min'] ?? null, $window['max'] ?? null];
            $checks[] = [
                'check' => $check,
                'value' => $value,
                'unit' => $unit,
                'min' => $min,
                'max' => $max,
                'pass' => $value !== null && ($min === null || $value >= $min) && ($max === null || $value <= $max),
                'where' => $where,
            ];
        };
        foreach ($analysis['notReached'] as $missing) {
            $checks[] = [
                'check' => 'Gear comes',
                'value' => $missing['ratioMean'] ?? null,
                'unit' => 'ratio',
                'min' => null,
                'max' => null,
                'pass' => false,
                'where' => "gear {$missing['gear']}",
            ];
        }
        $worst = [];
        foreach ($analysis['gears'] as $gear) {
            $error = abs($gear['ratioErrorPct']);
            $worst[$gear['gear']] = max($worst[$gear['gear']] ?? 0.0, $error);
        }
        foreach ($worst as $gear => $error) {
            $add('Ratio against the chart', $error, '%', "gear $gear", 'ratioErrorPct');
        }
        foreach ($analysis['shifts'] as $shift) {
            $where = "{$shift['from']}-{$shift['to']}";
            $add('Shift duration', $shift['duration_s'], 's', $where, 'shiftDuration_s');
            if (isset($shift['delay_s'])) {
                $add('Shift delay', $shift['delay_s'], 's', $where, 'shiftDelay_s');
            }
            $add('Flare', $shift['flare_rpm'], 'rev/min', $where, 'flare_rpm');
            $add('Tie-up', $shift['tieUpDepth_pct'], '%', $where, 'tieUpDepth_pct');
        }
        foreach ($analysis['tieUps'] as $tieUp) {
            $add('Tie-up in gear', $tieUp['depth_pct'], '%', "gear {$tieUp['gear']}", 'tieUpDepth_pct');
        }
        $add(
            'Lock-up slip',
            isset($analysis['lockup']) ? abs($analysis['lockup']['slipMean_rpm']) : null,
            'rev/min',
            'lock-up',
            'lockupSlip_rpm',
        );
        if (isset($analysis['lockup'])) {
            $add('Hunting', $analysis['lockup']['huntAmplitude_rpm'], 'rev/min', 'lock-up', 'hunt_rpm');
        }
        if (isset($analysis['pressure'])) {
            $add('Line pressure, lowest', $analysis['pressure']['min_kpa'], 'kPa', 'whole run', 'line_kpa');
            $add('Line pressure, highest', $analysis['pressure']['max_kpa'], 'kPa', 'whole run', 'line_kpa');
        }
        if (isset($analysis['temperature'])) {
            $add('Temperature rise', $analysis['temperature']['rise_per_min'], 'K/min', 'whole run', 'rise_per_min');
        }

        return $checks;
    }
}
