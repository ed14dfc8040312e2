<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Closed-form synthetic traces: every expected value follows from the generating formula. */
final class TraceTest extends CoreTestCase
{
    private const I1 = 37 / 15;

    private const I2 = 629 / 420;

    private function analyse(int $fs, array $in, array $out, array $more = []): array
    {
        return $this->calc(
            'trace.analyse',
            [
                'rate_hz' => $fs,
                'channels' => ['input_rpm' => $in, 'output_rpm' => $out] + ($more['channels'] ?? []),
                'ratios' => ['1' => self::I1, '2' => self::I2, '3' => 1.0],
            ] + array_diff_key($more, ['channels' => 0]),
        );
    }

    /** @return array{list<float>, list<float>} */
    private static function sample(int $fs, float $seconds, callable $in, callable $out): array
    {
        $a = $b = [];
        for ($k = 0; $k <= $fs * $seconds; $k++) {
            $b[] = (float) $out($k / $fs);
            $a[] = (float) $in($k / $fs, end($b));
        }

        return [$a, $b];
    }

    private static function ramp(float $u): float
    {
        return min(1.0, max(0.0, $u));
    }

    public function test_linear_ratio_step(): void
    {
        [$in, $out] = self::sample(
            100,
            5,
            fn ($t, $o) => $o * (self::I1 + (self::I2 - self::I1) * self::ramp(($t - 2) / 0.45)),
            fn () => 1200,
        );
        $this->assertEqualsWithDelta(1159685.71429, array_sum($in), 1e-4);
        $r = $this->analyse(100, $in, $out, [
            'commands' => [['t' => 0.0, 'gear' => '1'], ['t' => 1.9, 'gear' => '2']],
        ]);
        $this->assertEqualsWithDelta([self::I1, self::I2], array_column($r['gears'], 'ratioMean'), 1e-6);
        $shift = $r['shifts'][0];
        $this->assertEqualsWithDelta(
            [2.045, 2.405, 0.36, 2.0, 2.45, 0.145],
            [
                $shift['start_s'],
                $shift['end_s'],
                $shift['duration_s'],
                $shift['linearStart_s'],
                $shift['linearEnd_s'],
                $shift['delay_s'],
            ],
            0.001,
        );
        $this->assertEquals([0, false], [$shift['flare_rpm'], $shift['tieUp']]);
        $this->assertSame([], $r['notReached']);
    }

    public function test_smooth_step_with_noise(): void
    {
        $x = 42;
        $noise = function () use (&$x): float {
            $x = (1103515245 * $x + 12345) % 2147483648;

            return 8 * ($x / 2147483648 - 0.5);
        };
        [$in, $out] = self::sample(
            100,
            5,
            fn ($t, $o) => $o *
                (self::I1 + ((self::I2 - self::I1) * (1 - cos(M_PI * self::ramp(($t - 2) / 0.45)))) / 2) +
                $noise(),
            fn () => 1200,
        );
        $this->assertEqualsWithDelta(2960.658461, $in[0], 1e-5);
        $r = $this->analyse(100, $in, $out);
        $this->assertCount(1, $r['shifts']);
        $this->assertEqualsWithDelta(
            [2.092174744, 2.357825256],
            [$r['shifts'][0]['start_s'], $r['shifts'][0]['end_s']],
            0.02,
        );
        $this->assertEqualsWithDelta([self::I1, self::I2], array_column($r['gears'], 'ratioMean'), 0.002);
        $this->assertLessThan(10, $r['shifts'][0]['flare_rpm']);
    }

    public function test_flare_of_known_height(): void
    {
        foreach ([100, 30] as $fs) {
            [$in, $out] = self::sample(
                $fs,
                5,
                fn ($t, $o) => $o * ($t < 3.3 ? self::I2 : self::I2 + (1 - self::I2) * self::ramp(($t - 3.3) / 0.3)) +
                    ($t >= 3 && $t < 3.3 ? 240 * sin((M_PI * ($t - 3)) / 0.3) : 0),
                fn () => 1800,
            );
            $r = $this->analyse($fs, $in, $out);
            $this->assertCount(1, $r['shifts'], 'the flare must not be read as a downshift');
            $this->assertSame(['2', '3'], [$r['shifts'][0]['from'], $r['shifts'][0]['to']]);
            $this->assertEqualsWithDelta(240, $r['shifts'][0]['flare_rpm'], 1.0, "$fs Hz");
            $this->assertEqualsWithDelta(
                [3.15, 3.33, 3.57],
                [$r['shifts'][0]['flarePeak_s'], $r['shifts'][0]['start_s'], $r['shifts'][0]['end_s']],
                0.01,
            );
        }
    }

    public function test_tie_up_dip_is_no_shift(): void
    {
        [$in, $out] = self::sample(
            200,
            5,
            fn ($t, $o) => self::I2 * $o,
            fn ($t) => 1500 - ($t >= 2 && $t <= 2.4 ? 60 * sin((M_PI * ($t - 2)) / 0.4) ** 2 : 0),
        );
        $r = $this->analyse(200, $in, $out);
        $this->assertSame([], $r['shifts']);
        $this->assertEqualsWithDelta(60, $r['tieUps'][0]['depth_rpm'], 0.5);
        $this->assertEqualsWithDelta(4.0, $r['tieUps'][0]['depth_pct'], 0.05);
        $this->assertEqualsWithDelta(2.2, $r['tieUps'][0]['deepest_s'], 0.005);
    }

    public function test_tie_up_during_a_shift(): void
    {
        [$in, $out] = self::sample(
            200,
            5,
            fn ($t, $o) => $o * (self::I1 + (self::I2 - self::I1) * self::ramp(($t - 2) / 0.4)),
            fn ($t) => 1500 - ($t >= 2 && $t <= 2.4 ? 60 * sin((M_PI * ($t - 2)) / 0.4) ** 2 : 0),
        );
        $shift = $this->analyse(200, $in, $out)['shifts'][0];
        $this->assertTrue($shift['tieUp']);
        $this->assertEqualsWithDelta(4.0, $shift['tieUpDepth_pct'], 0.1);
    }

    public function test_downshift_reads_flare_against_the_new_gear(): void
    {
        [$in, $out] = self::sample(
            100,
            5,
            fn ($t, $o) => $o * (self::I2 + (self::I1 - self::I2) * self::ramp(($t - 2) / 0.4)) +
                ($t > 2.4 && $t < 2.7 ? 150 * sin((M_PI * ($t - 2.4)) / 0.3) : 0),
            fn () => 1000,
        );
        $shift = $this->analyse(100, $in, $out)['shifts'][0];
        $this->assertSame(['2', '1'], [$shift['from'], $shift['to']]);
        $this->assertEqualsWithDelta(150, $shift['flare_rpm'], 2);
    }

    public function test_lockup_slip_and_hunting(): void
    {
        $lockup = function (float $f, int $fs, int $n, float $a): array {
            $in = $turbine = [];
            for ($k = 0; $k < $n; $k++) {
                $turbine[] = 1800.0;
                $in[] = 1850 + $a * sin((2 * M_PI * $f * $k) / $fs);
            }

            return $this->analyse($fs, $in, $turbine, ['channels' => ['turbine_rpm' => $turbine]])['lockup'];
        };
        $exact = $lockup(8.0, 100, 1000, 20);
        $this->assertEqualsWithDelta(
            [50, 14.142136, 20, 8.0],
            [$exact['slipMean_rpm'], $exact['slipRms_rpm'], $exact['huntAmplitude_rpm'], $exact['huntFrequency_hz']],
            1e-6,
        );
        $between = $lockup(7.3, 100, 1024, 20);
        $this->assertEqualsWithDelta(7.3, $between['huntFrequency_hz'], 1e-4);
        $this->assertEqualsWithDelta(20, $between['huntAmplitude_rpm'], 0.1);
        $aliased = $lockup(8.0, 10, 100, 20);
        $this->assertEqualsWithDelta([2.0, 5.0], [$aliased['huntFrequency_hz'], $aliased['aliasLimit_hz']], 1e-6);
        $still = $lockup(8.0, 100, 1000, 0);
        $this->assertEquals(0, $still['huntAmplitude_rpm']);
        $this->assertArrayNotHasKey('huntFrequency_hz', $still);
    }

    public function test_dropped_samples_change_nothing(): void
    {
        [$in, $out] = self::sample(
            100,
            5,
            fn ($t, $o) => $o * (self::I1 + (self::I2 - self::I1) * self::ramp(($t - 2) / 0.45)),
            fn () => 1200,
        );
        for ($k = 100; $k < 105; $k++) {
            $in[$k] = 0.0;
        }
        $r = $this->analyse(100, $in, $out);
        $this->assertSame([['input_rpm', 5]], array_map(fn ($d) => [$d['channel'], $d['samples']], $r['dropouts']));
        $this->assertCount(1, $r['shifts']);
        $this->assertEqualsWithDelta(2.045, $r['shifts'][0]['start_s'], 0.01);
    }

    public function test_standing_output_and_gear_that_never_comes(): void
    {
        [$in, $out] = self::sample(100, 6, fn ($t, $o) => $t < 3 ? 800 : $o * 1.25, fn ($t) => $t < 3 ? 0 : 1500);
        $r = $this->analyse(100, $in, $out, ['commands' => [['t' => 3.0, 'gear' => '3']]]);
        $this->assertSame([], $r['gears'], '1.25 is 25 % from gear 3 and 17 % from gear 2');
        $this->assertSame('3', $r['notReached'][0]['gear']);
        $this->assertEqualsWithDelta(1.25, $r['notReached'][0]['ratioMean'], 1e-9);
    }

    public function test_gear_band_of_three_percent(): void
    {
        foreach (['2' => 1.47, '1' => 2.4] as $gear => $ratio) {
            [$in, $out] = self::sample(100, 2, fn ($t, $o) => $o * $ratio, fn () => 1200);
            $this->assertSame((string) $gear, $this->analyse(100, $in, $out)['gears'][0]['gear']);
        }
        $this->assertEqualsWithDelta(-2.702702703, $this->analyse(100, $in, $out)['gears'][0]['ratioErrorPct'], 1e-6);
    }

    public function test_pressure_and_temperature(): void
    {
        [$in, $out] = self::sample(10, 60, fn ($t, $o) => $o, fn () => 1500);
        $temp = array_map(fn (int $k): float => 40 + (0.05 * $k) / 10, array_keys($in));
        $line = array_fill(0, count($in), 900.0);
        $r = $this->analyse(10, $in, $out, ['channels' => ['temp_degc' => $temp, 'line_kpa' => $line]]);
        $this->assertEqualsWithDelta(3.0, $r['temperature']['rise_per_min'], 1e-9);
        $this->assertEquals(900, $r['pressure']['byGear_kpa']['3']);
    }

    public function test_bad_traces(): void
    {
        $trace = [
            'rate_hz' => 10,
            'channels' => ['input_rpm' => [1, 2, 3], 'output_rpm' => [1, 2, 3]],
            'ratios' => ['1' => 2.5],
        ];
        $this->assertRefused('trace.analyse', ['rate_hz' => 0] + $trace, 'range', '/rate_hz');
        $this->assertRefused(
            'trace.analyse',
            ['channels' => ['input_rpm' => [1, 2, 3], 'output_rpm' => [1, 2]]] + $trace,
            'length',
            '/channels/output_rpm',
        );
        $this->assertRefused(
            'trace.analyse',
            ['channels' => ['input_rpm' => [1, 'x', 3], 'output_rpm' => [1, 2, 3]]] + $trace,
            'type',
            '/channels/input_rpm/1',
        );
        $this->assertRefused('trace.analyse', ['ratios' => ['1' => 0]] + $trace, 'range', '/ratios/1');
    }
}
