<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

final class UnitsTest extends CoreTestCase
{
    /** Exact factors and worked conversions: NIST SP 811 (2008), appendix B. */
    public static function conversions(): array
    {
        return [
            [1, 'lbf.ft', 'N.m', 1.3558179483314004],
            [1, 'lbf.in', 'N.m', 0.1129848290276167],
            [1, 'psi', 'kPa', 6.8947572931683613],
            [1, 'lbf', 'N', 4.4482216152605],
            [1, 'lb', 'kg', 0.45359237],
            [1, 'kgf', 'N', 9.80665],
            [1, 'kgf.m', 'N.m', 9.80665],
            [1, 'in', 'm', 0.0254],
            [1, 'thou', 'mm', 0.0254],
            [1, 'US qt', 'mL', 946.352946],
            [1, 'US gal', 'L', 3.785411784],
            [1, 'hp', 'kW', 0.74569987158227022],
            [1, 'bar', 'kPa', 100],
            [1, 'mi', 'km', 1.609344],
            [1, 'rpm', 'rad/s', 0.1047197551196598],
            [35, 'lbf.ft', 'N.m', 47.453628191599],
            [10, 'N.m', 'lbf.in', 88.5074579132716],
            [250, 'psi', 'kPa', 1723.68932329209],
            [0.005, 'in', 'mm', 0.127],
            [0.3, 'mm', 'thou', 11.8110236220472],
            [11.5, 'US qt', 'L', 10.883058879],
            [9, 'L', 'US qt', 9.51019388488601],
            [200, 'degF', 'degC', 93.3333333333333],
            [-40, 'degF', 'degC', -40],
            [95, 'degC', 'degF', 203],
            [25, 'degC', 'K', 298.15],
            [300, 'hp', 'kW', 223.709961474681],
            [1, 'mph', 'km/h', 1.609344],
            [5, 'cSt', 'mm2/s', 5],
            [1, 'MPa', 'bar', 10],
            [1, 'um', 'mm', 0.001],
        ];
    }

    #[DataProvider('conversions')]
    public function test_conversions_follow_sp_811(float $value, string $from, string $to, float $expected): void
    {
        $out = $this->calc('units.convert', ['value' => $value, 'from' => $from, 'to' => $to]);
        $this->assertRelative($expected, $out['value'], 1e-12);
        $this->assertSame($to, $out['unit']);
    }

    public function test_every_unit_agrees_with_the_units_program(): void
    {
        if (trim((string) shell_exec('command -v units')) === '') {
            $this->markTestSkipped('The Debian package "units" is not installed.');
        }
        // GNU units as a second opinion; its own names for our symbols.
        foreach (
            [
                'lbf.ft' => ['N.m', 'lbf ft', 'N m'],
                'psi' => ['kPa', 'psi', 'kPa'],
                'US qt' => ['L', 'usquart', 'liter'],
                'hp' => ['kW', 'horsepower', 'kW'],
                'mph' => ['km/h', 'mph', 'km/hour'],
                'kgf.m' => ['lbf.in', 'kgf m', 'lbf in'],
            ] as $from => [$to, $a, $b]
        ) {
            $theirs = (float) shell_exec('units -t -o %.15g '.escapeshellarg($a).' '.escapeshellarg($b));
            $this->assertRelative(
                $theirs,
                $this->calc('units.convert', ['value' => 1, 'from' => $from, 'to' => $to])['value'],
                1e-12,
                "$a in $b",
            );
        }
    }

    public function test_incompatible_kinds_are_refused(): void
    {
        $this->assertRefused(
            'units.convert',
            ['value' => 1, 'from' => 'lb', 'to' => 'lbf'],
            'incompatible-units',
            '/to',
        );
        $this->assertRefused(
            'units.convert',
            ['value' => 1, 'from' => 'furlong', 'to' => 'm'],
            'unknown-unit',
            '/from',
        );
        $this->assertRefused('units.convert', ['value' => -300, 'from' => 'degC', 'to' => 'K'], 'range', '/value');
    }

    public static function typed(): array
    {
        return [
            ['.024', 'length', 'in', 0.024, 'in', 0.0006096],
            ['24 thou', 'length', null, 0.024, 'in', 0.0006096],
            ['0.61mm', 'length', 'in', 0.61, 'mm', 0.00061],
            ['1 5/8 in', 'length', null, 1.625, 'in', 0.041275],
            ['1-1/4"', 'length', null, 1.25, 'in', 0.03175],
            ['5/16', 'length', 'in', 0.3125, 'in', 0.0079375],
            ['½ in', 'length', null, 0.5, 'in', 0.0127],
            ['18 ft-lb', 'torque', null, 18.0, 'lbf.ft', 24.4047230699652],
            ['18 lb·ft', 'torque', null, 18.0, 'lbf.ft', 24.4047230699652],
            ['10Nm', 'torque', null, 10.0, 'N.m', 10.0],
            ['10 N·m', 'torque', null, 10.0, 'N.m', 10.0],
            ['43 psi', 'pressure', null, 43.0, 'psi', 296474.56360624],
            ['-0.5 mm', 'length', null, -0.5, 'mm', -0.0005],
            ['250 °F', 'temperature', null, 250.0, 'degF', 394.261111111111],
            ['1500 rpm', 'rotation', null, 1500.0, 'rpm', 157.07963267949],
            ['250 µm', 'length', null, 250.0, 'um', 0.00025],
            ['2.5 quarts', 'volume', null, 2.5, 'US qt', 0.002365882365],
        ];
    }

    #[DataProvider('typed')]
    public function test_understands_what_people_type(
        string $text,
        string $kind,
        ?string $default,
        float $value,
        string $unit,
        float $si,
    ): void {
        $out = $this->calc(
            'units.parse',
            ['text' => $text, 'kind' => $kind] + ($default === null ? [] : ['default' => $default]),
        );
        $this->assertRelative($value, $out['value'], 1e-15);
        $this->assertSame($unit, $out['unit']);
        $this->assertRelative($si, $out['si'], 1e-12);
    }

    public static function mistyped(): array
    {
        return [
            ['0,61 mm', 'length', 'in', 'decimal-comma'],
            ['', 'length', 'in', 'blank'],
            ['12', 'length', null, 'no-unit'],
            ['18 lb', 'torque', 'N.m', 'unit-kind'],
            ['abc', 'length', 'in', 'not-a-quantity'],
            ['12 parsec', 'length', 'in', 'unknown-unit'],
            ['1/0 in', 'length', 'in', 'not-a-quantity'],
            ['10 Nm', 'length', 'in', 'unit-kind'],
            // digits of other scripts look right and would count as 0
            ['１２ mm', 'length', 'in', 'not-a-quantity'],
            ['٢٤ thou', 'length', 'in', 'not-a-quantity'],
            ['0.0２4 in', 'length', 'in', 'unknown-unit'],
        ];
    }

    #[DataProvider('mistyped')]
    public function test_says_what_is_wrong_with_a_typed_value(
        string $text,
        string $kind,
        ?string $default,
        string $code,
    ): void {
        $this->assertRefused(
            'units.parse',
            ['text' => $text, 'kind' => $kind] + ($default === null ? [] : ['default' => $default]),
            $code,
            '/text',
        );
    }
}
