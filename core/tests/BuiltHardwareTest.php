<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Dyno\BuiltHardware;
use Yard\Core\Dyno\UnitProgram;
use Yard\Rig\Built;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** What variant and options put into a unit stands on the rig, and is held against good units that have the same. */
final class BuiltHardwareTest extends CoreTestCase
{
    private const POWER = [
        'capacities' => ['C1' => ['kind' => 'fixed', 'torque_nm' => 900]],
        'spring_kpa' => 380,
        'pressure_kpa' => ['1' => 1150, '2' => 1000],
        'lockup' => ['2'],
    ];

    public function test_spring_and_boost_valve_change_the_pressures_each_by_its_share(): void
    {
        $built = BuiltHardware::of(self::POWER, ['1', '2'], [['springAdd_kpa' => 170], ['boostFactor' => 1.15]]);
        $this->assertSame(550.0, $built['spring_kpa']);
        // By hand: the spring's 380 + 170 stays, and 1150 - 380 = 770 of boost becomes 1.15 times as much.
        $byHand = [1 => 550.0 + 770.0 * 1.15, 2 => 550.0 + 620.0 * 1.15];
        $this->assertEqualsWithDelta($byHand, $built['pressure_kpa'], 1e-9);
        $again = BuiltHardware::of(self::POWER, ['1', '2'], [['boostFactor' => 1.15], ['springAdd_kpa' => 170]]);
        $this->assertEqualsWithDelta($built['pressure_kpa'], $again['pressure_kpa'], 1e-9, 'in whatever order');
    }

    public function test_parts_of_an_option_stand_in_the_place_of_the_familys(): void
    {
        $stiff = ['C1' => ['kind' => 'fixed', 'torque_nm' => 1400]];
        $built = BuiltHardware::of(
            ['pressure_kpa' => 1000] + self::POWER,
            ['1', 'R'],
            [['capacities' => $stiff], ['accumulators' => ['C1' => ['stroke_mm' => 0]]]],
        );
        $this->assertSame([$stiff, ['C1' => ['stroke_mm' => 0]]], [$built['capacities'], $built['accumulators']]);
        $this->assertSame(['1' => 1000.0, 'R' => 1000.0], $built['pressure_kpa'], 'one pressure stands for every gear');
        $this->assertTrue($built['lockup']);
        $this->assertFalse(BuiltHardware::of(['lockup' => null] + self::POWER, ['1'], [])['lockup']);
    }

    /** Torque of an annulus pressed evenly: mu n F 2/3 (R^3 - r^3) / (R^2 - r^2), as in any machine design text. */
    public function test_the_converter_clutch_on_the_rig_holds_what_its_lining_gives(): void
    {
        $lockUp = fn (string ...$options): float => (new Built(
            TestCell::specimen('RD4', 1, variant: 'RD4-M', options: $options),
        ))->lockUp;
        $force = 1000.0 * M_PI / 4.0 * (0.258 ** 2 - 0.06 ** 2);
        $radius = 2.0 / 3.0 * (0.129 ** 3 - 0.108 ** 3) / (0.129 ** 2 - 0.108 ** 2);
        $this->assertEqualsWithDelta(0.85 * 0.13 * $force * $radius, $lockUp('converter-stock'), 1e-9);
        $this->assertEqualsWithDelta(2.0, $lockUp('converter-heavy') / $lockUp('converter-stock'), 1e-9, 'two faces');
        $plain = TestCell::specimen('OV3', 1, variant: 'OV3-A', options: []);
        $this->assertFalse($plain['lockup']);
        $this->assertSame(0.0, (new Built($plain))->lockUp);
    }

    public function test_a_program_has_the_windows_of_its_hardware_or_says_that_there_are_none(): void
    {
        $program = [
            'steps' => [
                ['t' => 0, 'gear' => '1'],
                ['t' => 5, 'lockup' => 'on'],
                ['t' => 9, 'gear' => '2', 'lockup' => 'off'],
            ],
            'limits' => ['slip_pct' => ['max' => 1.5], 'hunt_rpm' => ['max' => 12]],
            'packageLimits' => ['tow' => ['slip_pct' => ['max' => 1.0]]],
            'reference' => ['line:0' => ['max' => 500], 'cooler' => ['min' => 6], 'efficiency:1' => ['min' => 0.9]],
            'references' => [
                ['variants' => ['A', 'B'], 'options' => ['spring', 'band'], 'windows' => ['line:0' => ['max' => 670]]],
            ],
        ];
        $of = fn (string $variant, array $options, bool $lockUp = true): array => UnitProgram::of(
            $program,
            'tow',
            $variant,
            $options,
            $lockUp,
        );
        $built = $of('B', ['band', 'spring']);
        $this->assertSame(['built', ['line:0' => ['max' => 670]]], [$built['referenceOf'], $built['reference']]);
        $this->assertSame(['max' => 1.0], $built['limits']['slip_pct'], 'the package has its own');
        $this->assertArrayNotHasKey('references', $built);
        $others = [$of('C', ['band', 'spring']), $of('B', ['spring']), $of('B', ['band', 'spring', 'servo'])];
        foreach ($others as $other) {
            $this->assertSame('family', $other['referenceOf']);
            $this->assertSame(['cooler', 'efficiency:1'], array_keys($other['reference']), 'what hangs on no part');
        }
        $plain = $of('A', [], false);
        $this->assertSame([['t' => 0, 'gear' => '1'], ['t' => 9, 'gear' => '2']], $plain['steps']);
        $this->assertSame(['slip_pct'], array_keys($plain['limits']));
        $this->assertSame(['cooler'], array_keys($plain['reference']), 'torque is told with the converter locked');
    }

    /** @return array<string, array{string, string, list<string>}> family, and variant and options furthest from it */
    public static function furthest(): array
    {
        return [
            'RD4' => ['RD4', 'RD4-L', ['acc-short', 'boost-valve', 'converter-high-66', 'high-extra', 'pressure-raised',
                'wide-band']],
            'OV3' => ['OV3', 'OV3-A', ['boost-valve', 'pressure-raised', 'wide-band']],
            'LP6' => ['LP6', 'LP6-28S', ['boost-valve', 'converter-high-65', 'pressure-raised', 'wide-band']],
            'TX6' => ['TX6', 'TX6-H', ['converter-heavy-52', 'pressure-raised', 'wide-band']],
            'GV5' => ['GV5', 'GV5-3', ['boost-valve', 'converter-high', 'pressure-raised', 'wide-band']],
        ];
    }

    /** @param  list<string>  $options */
    #[DataProvider('furthest')]
    public function test_a_sound_unit_of_other_hardware_passes_its_own_program(
        string $family,
        string $variant,
        array $options,
    ): void {
        $program = TestCell::program($family, $variant, $options);
        $this->assertSame('built', $program['referenceOf']);
        $this->assertGreaterThan(70, count($program['reference']));
        $this->passes($family, $variant, $options, 4711);
    }

    /** Units the windows were not taken from: what a trailer package builds; with YARD_LONG three of every hardware. */
    public function test_sound_units_of_every_hardware_pass(): void
    {
        $long = getenv('YARD_LONG') !== false;
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $built = TestCell::program($family)['references'];
            foreach ($long ? $built : [$built[1]] as ['variants' => [$variant], 'options' => $options]) {
                foreach ($long ? [4712, 4713, 4714] : [4712] as $seed) {
                    $this->passes($family, $variant, $options, $seed);
                }
            }
        }
    }

    /** @param  list<string>  $options */
    private function passes(string $family, string $variant, array $options, int $seed): void
    {
        $run = TestCell::run($family, [], $seed, $variant, $options);
        $failed = array_filter($run['checks'], fn (array $c): bool => ! $c['pass']);
        $this->assertSame([], array_column($failed, 'where', 'check'), "$variant with ".implode(', ', $options));
    }

    public function test_a_stock_spring_where_the_order_has_the_strong_one_is_found(): void
    {
        $tow = ['converter-heavy', 'pressure-raised', 'wide-band'];
        $specimen = TestCell::specimen('OV3', 4711, variant: 'OV3-B', options: ['converter-heavy', 'wide-band']);
        $run = TestCell::judged('OV3', $specimen, TestCell::program('OV3', 'OV3-B', $tow), 4711);
        $failed = array_filter($run['checks'], fn (array $c): bool => ! $c['pass']);
        $this->assertContains('Line pressure', array_column($failed, 'check'));
        $this->assertContains('Time to engage', array_column($failed, 'check'));
    }
}
