<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Control charts against Montgomery's piston rings and the constants of printed tables. */
final class SpcTest extends CoreTestCase
{
    /** Piston-ring inside diameters, 25 subgroups of 5 (Montgomery, from memory; they give its printed sums). */
    private const RINGS = <<<'DATA'
        74.030 74.002 74.019 73.992 74.008 73.995 73.992 74.001 74.011 74.004 73.988 74.024 74.021 74.005 74.002
        74.002 73.996 73.993 74.015 74.009 73.992 74.007 74.015 73.989 74.014 74.009 73.994 73.997 73.985 73.993
        73.995 74.006 73.994 74.000 74.005 73.985 74.003 73.993 74.015 73.988 74.008 73.995 74.009 74.005 74.004
        73.998 74.000 73.990 74.007 73.995 73.994 73.998 73.994 73.995 73.990 74.004 74.000 74.007 74.000 73.996
        73.983 74.002 73.998 73.997 74.012 74.006 73.967 73.994 74.000 73.984 74.012 74.014 73.998 73.999 74.007
        74.000 73.984 74.005 73.998 73.996 73.994 74.012 73.986 74.005 74.007 74.006 74.010 74.018 74.003 74.000
        73.984 74.002 74.003 74.005 73.997 74.000 74.010 74.013 74.020 74.003 73.982 74.001 74.015 74.005 73.996
        74.004 73.999 73.990 74.006 74.009 74.010 73.989 73.990 74.009 74.014 74.015 74.008 73.993 74.000 74.010
        73.982 73.984 73.995 74.017 74.013
        DATA;

    /** @return list<list<float>> */
    private static function rings(): array
    {
        return array_chunk(array_map(floatval(...), preg_split('/\s+/', trim(self::RINGS)) ?: []), 5);
    }

    public function test_the_piston_rings(): void
    {
        $out = $this->calc('spc.limits', ['chart' => 'xbar-r', 'subgroups' => self::rings()]);
        $this->assertRelative(74.001176, $out['centre'], 1e-9, 'centre');
        $this->assertRelative(0.02324, $out['range']['centre'], 1e-9, 'mean range');
        $this->assertRelative(73.98777072, $out['lower'], 1e-9, 'lower');
        $this->assertRelative(74.01458128, $out['upper'], 1e-9, 'upper');
        $this->assertEquals(0, $out['range']['lower']);
        $this->assertRelative(0.04914096013, $out['range']['upper'], 5e-6, 'upper of ranges');
        $this->assertRelative(0.009991706766, $out['sigma'], 1e-7, 'sigma');
        $this->assertSame([], $out['rangesOutside']);
        $this->assertNotContains(1, array_column($out['signals'], 'rule'), 'no point outside');
        $fit = $this->calc('spc.capability', [
            'chart' => 'xbar-r',
            'subgroups' => self::rings(),
            'lower' => 73.95,
            'upper' => 74.05,
        ]);
        $indices = ['Cp' => 1.66805002, 'Cpk' => 1.628817483, 'Pp' => 1.634166303, 'Ppk' => 1.595730711];
        foreach ($indices as $index => $value) {
            $this->assertRelative($value, $fit[$index], 1e-7, $index);
        }
        $this->assertSame([125, 0, 0], [$fit['n'], $fit['below'], $fit['above']]);
    }

    /** d2 and d3 of the range; exact for two and three values, the rest as tables have them (Montgomery). */
    #[DataProvider('constants')]
    public function test_the_constants(int $n, float $d2, float $d3, float $a2, float $upper): void
    {
        $group = range(1, $n);
        $found = $this->calc('spc.limits', ['chart' => 'xbar-r', 'subgroups' => [$group, $group]])['constants'];
        $this->assertRelative($d2, $found['d2'], 1e-7, 'd2');
        $this->assertRelative($d3, $found['d3'], 5e-6, 'd3');
        $this->assertRelative($a2, $found['A2'], 1e-7, 'A2');
        $this->assertRelative($upper, $found['D4'], 5e-6, 'D4');
    }

    public static function constants(): array
    {
        return [
            [2, 2 / sqrt(M_PI), 0.85250247, 1.8799712, 3.2665319],
            [3, 3 / sqrt(M_PI), 0.888368, 1.0233267, 2.5745913],
            [5, 2.32592895, 0.86408194, 0.57681933, 2.1144991],
            [7, 2.70435675, 0.83320534, 0.41928396, 1.9242923],
            [10, 3.07750546, 0.79705067, 0.30826373, 1.7769773],
        ];
    }

    /** Western Electric, 1956: the rules on sequences of known distance from the centre. */
    #[DataProvider('patterns')]
    public function test_the_rules(array $z, array $expected): void
    {
        $found = \Yard\Core\Spc\WesternElectric::signals(array_map(floatval(...), $z));
        $this->assertSame($expected, array_map(fn (array $s): string => "{$s['rule']}@{$s['index']}", $found));
    }

    public static function patterns(): array
    {
        return [
            [[0.2, -0.4, 3.1, 0.5, -3, -3.2], ['1@3', '1@6', '2@6']],
            [[0.1, 2.2, 0.3, 2.4, -0.2, 2.1, -2.3], ['2@4', '2@6']],
            [[1.2, 0.4, 1.5, 1.1, 1.3, 0.2, -1.4], ['3@5']],
            [[0.3, 0.1, 0.5, 0.9, 0.2, 0.4, 0.6, 0.1, 0.7, -0.2], ['4@8', '4@9']],
            [[-0.1, -0.2, -0.3, -0.4, 0, -0.5, -0.6, -0.7, -0.8], []],
            [[2, 2, 2, 1, -2.5, -2.6], ['2@6']],
            [array_merge(...array_fill(0, 6, [0.5, -0.5])), []],
        ];
    }

    public function test_single_values_by_their_moving_range(): void
    {
        $values = [10.0, 12.0, 11.0, 15.0, 11.0, 12.0];
        $out = $this->calc('spc.limits', ['chart' => 'individuals', 'values' => $values]);
        $this->assertEquals([2, 1, 4, 4, 1], $out['ranges']);
        // mean moving range 2.4, over d2 = 1.128
        $this->assertRelative(71 / 6 + 3 * 2.4 / 1.1283791671, $out['upper'], 1e-7, 'upper');
    }

    /** Textbook definitions. */
    public function test_capability_from_mean_and_sigma(): void
    {
        $of = fn (float $mean, array $limits): array => $this->calc('spc.capability', [
            'chart' => 'summary',
            'mean' => $mean,
            'sigma' => 0.5,
        ] + $limits);
        $both = ['lower' => 8, 'upper' => 12];
        foreach ([[10.0, 4 / 3], [10.6, 14 / 15], [12.4, -4 / 15]] as [$mean, $cpk]) {
            $this->assertRelative(4 / 3, $of($mean, $both)['Cp'], 1e-12, 'Cp');
            $this->assertRelative($cpk, $of($mean, $both)['Cpk'], 1e-12, 'Cpk');
        }
        $one = $of(10.6, ['upper' => 12]);
        $this->assertSame(['Cpk'], array_keys($one));
        $this->assertRelative(14 / 15, $one['Cpk'], 1e-12, 'one limit');
        $this->assertRefused('spc.capability', ['chart' => 'summary', 'mean' => 1, 'sigma' => 1], 'missing', '');
        $none = ['chart' => 'summary', 'mean' => 1, 'sigma' => 1, 'lower' => 2, 'upper' => 2];
        $this->assertRefused('spc.capability', $none, 'range', '/upper');
        $same = ['chart' => 'individuals', 'values' => [2, 2, 2], 'upper' => 3];
        $this->assertRefused('spc.capability', $same, 'range', '');
        $uneven = ['chart' => 'xbar-r', 'subgroups' => [[1, 2], [1]]];
        $this->assertRefused('spc.limits', $uneven, 'range', '/subgroups/1');
    }
}
