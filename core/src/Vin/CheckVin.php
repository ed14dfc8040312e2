<?php

declare(strict_types=1);

namespace Yard\Core\Vin;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Vehicle identification number: structure by ISO 3779, check digit and model year by 49 CFR 565.15. The check digit
 * and the year code bind in North America only (first character 1-5); elsewhere they are warnings.
 */
final class CheckVin implements Calculator
{
    private const VALUES = [
        'A' => 1,
        'B' => 2,
        'C' => 3,
        'D' => 4,
        'E' => 5,
        'F' => 6,
        'G' => 7,
        'H' => 8,
        'J' => 1,
        'K' => 2,
        'L' => 3,
        'M' => 4,
        'N' => 5,
        'P' => 7,
        'R' => 9,
        'S' => 2,
        'T' => 3,
        'U' => 4,
        'V' => 5,
        'W' => 6,
        'X' => 7,
        'Y' => 8,
        'Z' => 9,
    ];

    private const WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];

    private const YEAR_CODES = 'ABCDEFGHJKLMNPRSTVWXY123456789';

    public function calculate(Input $in): array
    {
        $vin = mb_strtoupper((string) preg_replace('/[\s\x{00A0}]+/u', '', $in->string('vin')));
        $lightVehicle = $in->has('lightVehicle') ? $in->bool('lightVehicle') : true;
        $length = mb_strlen($vin);
        $illegal = preg_match('/[^A-HJ-NPR-Z0-9]/u', $vin) === 1;
        $problems = array_keys(array_filter(['length' => $length !== 17, 'illegal-character' => $illegal]));
        $warnings = [];
        $out = ['valid' => false, 'normalised' => $vin, 'problems' => $problems];
        if ($length !== 17 || preg_match('/[^ -~]/', $vin) === 1) {
            return $out + ['modelYears' => [], 'warnings' => []];
        }
        $northAmerican = $vin[0] >= '1' && $vin[0] <= '5';
        $out['checkDigit'] = ['found' => $vin[8]];
        if (! $illegal) {
            $expected = self::checkDigit($vin);
            $out['checkDigit']['expected'] = $expected;
            if ($expected !== $vin[8]) {
                $northAmerican ? ($problems[] = 'check-digit') : ($warnings[] = 'check-digit');
            }
        }
        $years = self::modelYears($vin, $northAmerican && $lightVehicle);
        if ($years === [] && ! $illegal) {
            $northAmerican ? ($problems[] = 'year-code') : ($warnings[] = 'year-code');
        }

        return [
            'valid' => $problems === [],
            'problems' => $problems,
            'modelYears' => $years,
            'wmi' => substr($vin, 0, 3),
            'vds' => substr($vin, 3, 6),
            'vis' => substr($vin, 9),
            'warnings' => $warnings,
        ] + $out;
    }

    /** @param  string  $vin 17 legal characters */
    public static function checkDigit(string $vin): string
    {
        $sum = 0;
        foreach (str_split($vin) as $i => $character) {
            $sum += self::WEIGHTS[$i] * (self::VALUES[$character] ?? (int) $character);
        }

        return $sum % 11 === 10 ? 'X' : (string) ($sum % 11);
    }

    /** @return list<int> every year the tenth character can mean, oldest first */
    private static function modelYears(string $vin, bool $narrow): array
    {
        $index = strpos(self::YEAR_CODES, $vin[9]);
        if ($index === false) {
            return [];
        }
        $years = [1980 + $index, 2010 + $index];

        return match (true) {
            ! $narrow => $years,
            ctype_digit($vin[6]) => [$years[0]],
            ctype_upper($vin[6]) => [$years[1]],
            default => $years,
        };
    }
}
