<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * What a run tells of the cell rather than of the unit: the line pressure its gauge shows, step by step, the flow in
 * its cooler circuit, and with the converter clutch in what its torque cells and its speed sensors say of each other.
 *
 * @phpstan-import-type Step from CellReadings
 * @phpstan-import-type Reading from CellReadings
 */
final class RigReadings
{
    /** The readings by name. */
    public const CHECKS = ['Line pressure', 'Torque out over torque in', 'Cooler flow', self::SPEEDS];

    private const SPEEDS = 'Speed in over speed out, against the teeth';

    private const OF_THE_CELL = '/^(line:|efficiency:|cooler$)/';

    /**
     * @param  list<Reading>  $readings  of the run, as CellReadings takes them
     * @param  array<string, list<float>>  $channels
     * @param  array<string, float>  $ratios
     * @return list<array{key: string, check: string, where: string, unit: string, value: float|null}>
     */
    public static function of(float $rate, array $channels, array $readings, array $ratios): array
    {
        $out = [];
        foreach ($readings as $reading) {
            if (preg_match(self::OF_THE_CELL, $reading['key']) !== 1) {
                continue;
            }
            $out[] = ['key' => "$reading[check], $reading[where]"] + $reading;
            if (str_starts_with($reading['key'], 'efficiency:')) {
                $out[] = self::speeds($rate, $channels, $reading, $ratios);
            }
        }

        return $out;
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @param  Reading  $at  read with the converter clutch in: engine, turbine and output turn as the teeth say
     * @param  array<string, float>  $ratios
     * @return array{key: string, check: string, where: string, unit: string, value: float|null}
     */
    private static function speeds(float $rate, array $channels, array $at, array $ratios): array
    {
        $gear = explode(' ', $at['where'])[0];
        $last = (int) floor($at['at_s'] * $rate);
        $mean = static fn (string $channel): float => Signal::mean(
            array_slice($channels[$channel] ?? [], max(0, $last - (int) ceil(CellReadings::READ_S * $rate)), (int) ceil(
                CellReadings::READ_S * $rate,
            )) ?: [0.0],
        );
        $output = $mean('output_rpm');

        return [
            'key' => self::SPEEDS.", $at[where]",
            'check' => self::SPEEDS,
            'where' => $at['where'],
            'unit' => '',
            'value' => $output === 0.0 ? null : $mean('input_rpm') / ($output * abs($ratios[$gear] ?? 1.0)),
        ];
    }
}
