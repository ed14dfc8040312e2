<?php

declare(strict_types=1);

namespace Yard\Core\Vin;

/**
 * Vehicle identification number: structure by ISO 3779, check digit and model year by 49 CFR 565.15. The check digit
 * and the year code bind in North America only (first character 1-5); elsewhere they are warnings.
 */
final readonly class Vin
{
    private const LENGTH = 17;

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

    /**
     * @param  list<string>  $problems  length, illegal-character, check-digit, year-code
     * @param  list<string>  $warnings
     * @param  list<int>  $modelYears  every year the tenth character can mean, oldest first
     * @param  string|null  $foundDigit  null where the text is not long enough to have one
     * @param  string|null  $expectedDigit  null where it cannot be reckoned
     */
    private function __construct(
        public string $normalised,
        public array $problems,
        public array $warnings = [],
        public array $modelYears = [],
        public ?string $foundDigit = null,
        public ?string $expectedDigit = null,
    ) {
    }

    /** @param  bool  $lightVehicle  a North American light vehicle tells its decade by the seventh character */
    public static function read(string $typed, bool $lightVehicle = true): self
    {
        $vin = mb_strtoupper((string) preg_replace('/[\s\x{00A0}]+/u', '', $typed));
        $illegal = preg_match('/[^A-HJ-NPR-Z0-9]/u', $vin) === 1;
        $problems = array_keys(
            array_filter(['length' => mb_strlen($vin) !== self::LENGTH, 'illegal-character' => $illegal]),
        );
        if (mb_strlen($vin) !== self::LENGTH || preg_match('/[^ -~]/', $vin) === 1) {
            return new self($vin, $problems);
        }
        $northAmerican = $vin[0] >= '1' && $vin[0] <= '5';
        $years = self::modelYears($vin, $northAmerican && $lightVehicle);
        if ($illegal) {
            return new self($vin, $problems, [], $years, $vin[8]);
        }
        $expected = self::checkDigit($vin);
        $doubts = array_keys(
            array_filter(['check-digit' => $expected !== $vin[8], 'year-code' => $years === []]),
        );

        return $northAmerican
            ? new self($vin, $doubts, [], $years, $vin[8], $expected)
            : new self($vin, [], $doubts, $years, $vin[8], $expected);
    }

    public function valid(): bool
    {
        return $this->problems === [];
    }

    /** The characters of a VIN, though its check digit or year code may be wrong. */
    public function legible(): bool
    {
        return array_diff($this->problems, ['check-digit', 'year-code']) === [];
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

    /** @return list<int> */
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
