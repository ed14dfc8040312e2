<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\TestEvidence;
use Yard\Core\Input;

/** What is read off a run, on recordings whose truth is known because they were drawn by hand. */
final class CellReadingsTest extends CoreTestCase
{
    private const RATE = 200.0;

    private const STEPS = [
        ['t' => 0.0, 'gear' => 'N', 'throttle' => 0.0],
        ['t' => 2.0, 'gear' => '1', 'hold' => 'on'],
        ['t' => 5.0, 'throttle' => 0.4, 'hold' => 'off'],
        ['t' => 8.0, 'lockup' => 'on'],
        ['t' => 14.0, 'lockup' => 'off'],
    ];

    /**
     * @param  array<string, callable(float): float>  $altered  channel => what it shows at a time
     * @return array<string, array<string, mixed>> readings by key
     */
    private static function read(array $altered = []): array
    {
        $shown = $altered + [
            'input_rpm' => fn (float $t): float => $t < 8.4 ? 1500.0 + sin(7 * $t) : 1400.0 + sin(7 * $t),
            // Engaged at 2 s it falls to nothing in half a second; locked up from 8.4 s it follows the input.
            'turbine_rpm' => fn (float $t): float => match (true) {
                $t < 2.0 => 800.0 + sin(5 * $t),
                $t < 5.0 => max(0.0, 800.0 * (1.0 - ($t - 2.0) / 0.5)) + 0.01 * sin(90 * $t),
                $t < 8.4 => 1300.0 + sin(3 * $t),
                default => 1400.0 + sin(7 * $t),
            },
            'output_rpm' => fn (float $t): float => $t < 5.0 ? 0.01 * sin(80 * $t) : 650.0 + sin(4 * $t),
            'line_kpa' => fn (float $t): float => ($t < 5.0 ? 450.0 : 700.0) + sin(50 * $t),
            'input_nm' => fn (float $t): float => 100.0 + sin(31 * $t),
            'output_nm' => fn (float $t): float => 196.0 + sin(33 * $t),
            'cooler_lpm' => fn (float $t): float => 6.0 + 0.1 * sin(21 * $t),
        ];
        $channels = [];
        for ($k = 0; $k < 16.0 * self::RATE; $k++) {
            foreach ($shown as $channel => $at) {
                $channels[$channel][] = $at($k / self::RATE);
            }
        }
        $readings = CellReadings::of(self::RATE, $channels, self::STEPS, ['1' => 2.0], ['shifts' => []]);

        return array_column($readings, null, 'key');
    }

    public function test_what_a_run_shows_is_read_at_its_place(): void
    {
        $read = self::read();
        // 30 % of the free 800 rev/min is left after 0.35 s of a straight fall.
        $this->assertEqualsWithDelta(0.35, $read['engage:1@0']['value'], 0.006);
        $this->assertEqualsWithDelta(450.0, $read['line:1']['value'], 0.2);
        $this->assertEqualsWithDelta(700.0, $read['line:2']['value'], 0.2);
        $this->assertEqualsWithDelta(0.4, $read['lockup:time']['value'], 0.006);
        $this->assertEqualsWithDelta(0.0, $read['lockup:slip']['value'], 0.01);
        $this->assertEqualsWithDelta(0.98, $read['efficiency:3']['value'], 0.005, '196 of 100 x 2');
        $this->assertEqualsWithDelta(6.0, $read['cooler']['value'], 0.1);
        // A sine's mean distance from its middle is 2 / pi of its height.
        $this->assertEqualsWithDelta(2.0 / M_PI, $read['ripple']['value'], 0.03);
        $this->assertLessThan(0.05, $read['sensor']['value']);
    }

    /** A sine of height A has a root mean square of A / sqrt(2); outside the band it does not count (Parseval). */
    public function test_shudder_is_what_lies_in_its_band(): void
    {
        $shaken = fn (float $hz): float => self::read([
            'turbine_rpm' => fn (float $t): float => $t < 8.4
                ? 1300.0
                : 1400.0 + sin(7 * $t) + 12.0 * sin(2.0 * M_PI * $hz * $t),
        ])['lockup:shudder']['value'];
        $this->assertEqualsWithDelta(12.0 / M_SQRT2, $shaken(9.0), 0.15);
        $this->assertEqualsWithDelta(12.0 / M_SQRT2, $shaken(20.0), 0.15);
        $this->assertLessThan(0.7, $shaken(1.0), 'that is hunting');
        $this->assertLessThan(0.7, $shaken(60.0), 'that is noise of another kind');
    }

    public function test_a_sensor_that_stands_still_is_named_with_how_long(): void
    {
        $read = self::read(['line_kpa' => fn (float $t): float => $t < 9.0 ? 600.0 + sin(50 * $t) : 612.5]);
        $this->assertSame('line_kpa', $read['sensor']['where']);
        $this->assertEqualsWithDelta(7.0, $read['sensor']['value'], 0.02);
    }

    public function test_what_never_comes_is_no_number(): void
    {
        $read = self::read([
            'turbine_rpm' => fn (float $t): float => 800.0 + sin(5 * $t),
        ]);
        $this->assertNull($read['engage:1@0']['value'], 'the range does not come in');
        $this->assertNull($read['lockup:time']['value'], 'and the converter never locks');
    }

    /** By hand: what fails only where one element comes must be that element, and what all gears share is a sensor. */
    public function test_the_suspect_is_what_the_failures_have_in_common(): void
    {
        $chart = ApplyChart::read(Input::of(TestCell::family('LP6')['train']));
        $gears = array_map(
            fn (string $g): array => ['gear' => $g, 'ratioErrorPct' => 0.01],
            array_map(strval(...), array_keys($chart->ratios())),
        );
        $nothing = ['shifts' => [], 'tieUps' => [], 'slips' => [], 'lockup' => null, 'notReached' => []];
        $analysis = ['gears' => $gears] + $nothing;
        $check = fn (string $where, float $value): array => ['check' => 'Shift delay', 'where' => $where,
            'value' => $value, 'unit' => 's', 'min' => 0.3, 'max' => 0.6, 'pass' => $value <= 0.6];
        // C3 comes in 2-3 and 4-5, and goes in 3-4 and 5-6.
        $checks = [$check('1-2', 0.5), $check('2-3', 0.9), $check('3-4', 0.5), $check('4-5', 0.8), $check('5-6', 0.4)];
        $suspects = (new TestEvidence($chart, $analysis, $checks))->suspects();
        $this->assertSame('C3', $suspects[0]['element']);
        $this->assertSame('Shift 2-3, shift 4-5 failed, and all turn on it.', $suspects[0]['because']);
        $nobody = (new TestEvidence($chart, $analysis, [$check('1-2', 0.5)]))->suspects();
        $this->assertSame([], $nobody, 'nothing failed');
        $off = array_map(fn (array $g): array => ['ratioErrorPct' => 2.1] + $g, $gears);
        $first = (new TestEvidence($chart, ['gears' => $off] + $analysis, $checks))->suspects()[0];
        $this->assertSame('sensor:speed', $first['element']);
    }
}
