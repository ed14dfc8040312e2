<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Tables of values, weights and year codes: 49 CFR 565.15. */
final class VinTest extends CoreTestCase
{
    /**
     * The first is the worked example of the check-digit table in 49 CFR 565; the others are synthetic (own
     * arithmetic).
     */
    public static function valid(): array
    {
        return [
            ['1G4AH59H45G118341', '4', [2005]],
            ['11111111111111111', '1', [2001]],
            ['9ZZAB14C7KT001234', '7', [1989, 2019]],
            ['9ZZAB1C44KT001234', '4', [1989, 2019]],
            ['3XYRN25D9A8654321', '9', [1980]],
            ['3XYRN2D56A8654321', '6', [2010]],
            ['2UVWXYZZ2Y9999999', '2', [2030]],
            ['4JKLMNPR3M5800000', '3', [2021]],
            [' 3xyrn25d 9a8654321 ', '9', [1980]],
        ];
    }

    #[DataProvider('valid')]
    public function test_valid_numbers(string $vin, string $digit, array $years): void
    {
        $out = $this->calc('vin.check', ['vin' => $vin]);
        $this->assertTrue($out['valid']);
        $this->assertSame(['found' => $digit, 'expected' => $digit], $out['checkDigit']);
        $this->assertSame($years, $out['modelYears']);
        $this->assertSame([], $out['problems']);
    }

    public static function invalid(): array
    {
        return [
            ['3XYRN25D8A8654321', ['check-digit']],
            ['3XYRN25D9A865432', ['length']],
            ['3XYRN25D9A8654O21', ['illegal-character']],
            ['Q1111111111111111', ['illegal-character']],
            ['3XYRN25D9A86543211', ['length']],
            ['3XYRN25DHA8654321', ['check-digit']],
            ['3XYRN25O9A865432', ['length', 'illegal-character']],
            ['', ['length']],
        ];
    }

    #[DataProvider('invalid')]
    public function test_invalid_numbers(string $vin, array $problems): void
    {
        $out = $this->calc('vin.check', ['vin' => $vin]);
        $this->assertFalse($out['valid']);
        $this->assertSame($problems, $out['problems']);
    }

    public function test_year_code_and_check_digit_only_warn_outside_north_america(): void
    {
        $out = $this->calc('vin.check', ['vin' => '9ZZAB1C40UT001234']);
        $this->assertTrue($out['valid']);
        $this->assertContains('year-code', $out['warnings']);
        $this->assertSame(['check-digit'], $this->calc('vin.check', ['vin' => '9ZZAB14C8KT001234'])['warnings']);
    }

    public function test_position_seven_decides_the_year_only_for_light_vehicles(): void
    {
        $this->assertSame(
            [1980, 2010],
            $this->calc('vin.check', ['vin' => '3XYRN25D9A8654321', 'lightVehicle' => false])['modelYears'],
        );
    }

    public function test_every_single_wrong_value_is_detected(): void
    {
        // All weights but position 9's are prime to 11, so any change of value changes the remainder.
        $values = array_combine(str_split('ABCDEFGHJKLMNPRSTUVWXYZ0123456789'), [
            1,
            2,
            3,
            4,
            5,
            6,
            7,
            8,
            1,
            2,
            3,
            4,
            5,
            7,
            9,
            2,
            3,
            4,
            5,
            6,
            7,
            8,
            9,
            0,
            1,
            2,
            3,
            4,
            5,
            6,
            7,
            8,
            9,
        ]);
        $vin = '3XYRN25D9A8654321';
        foreach (array_diff(range(0, 16), [8]) as $i) {
            foreach ($values as $c => $v) {
                if ($v !== $values[$vin[$i]]) {
                    $wrong = substr_replace($vin, (string) $c, $i, 1);
                    $this->assertNotSame(
                        '9',
                        $this->calc('vin.check', ['vin' => $wrong])['checkDigit']['expected'],
                        $wrong,
                    );
                }
            }
        }
    }
}
