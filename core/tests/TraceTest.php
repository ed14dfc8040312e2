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

    /** @return array{list<float>, list<float>, list<float>} first to second at 2 s, and the time of each sample */
    private static function upshift(int $fs): array
    {
        [$in, $out] = self::sample(
            $fs,
            5,
            fn ($t, $o) => $o * (self::I1 + (self::I2 - self::I1) * self::ramp(($t - 2) / 0.45)),
            fn () => 1200,
        );

        return [$in, $out, array_map(fn (int $k): float => $k / $fs, array_keys($in))];
    }

    private function withTimes(array $in, array $out, array $times, array $more = []): array
    {
        return $this->analyse(100, $in, $out, ['channels' => ['t_s' => $times]] + $more);
    }

    public function test_a_gap_is_listed_and_never_bridged(): void
    {
        $trace = self::upshift(100);
        $whole = $this->withTimes(...$trace);
        $this->assertSame([], $whole['gaps']);
        $without = fn (int $from, int $to): array => array_map(
            fn (array $x): array => [...array_slice($x, 0, $from), ...array_slice($x, $to + 1)],
            $trace,
        );
        // Lost in first gear: the shift is what it was.
        $r = $this->withTimes(...$without(101, 130));
        $this->assertEqualsWithDelta([['from_s' => 1.0, 'to_s' => 1.31, 'missing' => 30]], $r['gaps'], 1e-9);
        $this->assertSame(['1', '1', '2'], array_column($r['gears'], 'gear'));
        $this->assertEqualsWithDelta($whole['shifts'], $r['shifts'], 1e-9);
        $this->assertSame([], $r['unmeasured']);
        // Lost in the shift: nothing between the two gears was seen.
        $r = $this->withTimes(...$without(210, 220));
        $this->assertSame([], $r['shifts']);
        $this->assertSame(['1', '2'], [$r['unmeasured'][0]['from'], $r['unmeasured'][0]['to']]);
        $this->assertStringContainsString('gap', $r['unmeasured'][0]['reason']);
        // Time may be a little off without anything missing.
        mt_srand(1);
        $times = array_map(fn (float $t): float => $t + mt_rand(-20, 20) / 10000, $trace[2]);
        $this->assertSame([], $this->withTimes($trace[0], $trace[1], $times)['gaps']);
    }

    public function test_times_need_not_begin_at_zero(): void
    {
        [$in, $out, $times] = self::upshift(100);
        $late = array_map(fn (float $t): float => $t + 50, $times);
        $commands = ['commands' => [['t' => 51.9, 'gear' => '2']]];
        $r = $this->withTimes($in, $out, $late, $commands);
        $this->assertEqualsWithDelta(
            [52.045, 52.405, 0.36, 0.145],
            array_map(
                fn (string $key): float => $r['shifts'][0][$key],
                ['start_s', 'end_s', 'duration_s', 'delay_s'],
            ),
            0.001,
        );
        $this->assertEqualsWithDelta(55.0, $r['gears'][1]['to_s'], 0.011);
    }

    public function test_a_clock_that_runs_a_little_fast_does_not_move_the_shift(): void
    {
        // Sampled at 101 a second and said to be at 100: what is told are the recording's own times.
        [$in, $out] = self::upshift(101);
        $times = array_map(fn (int $k): float => $k / 101, array_keys($in));
        $r = $this->withTimes($in, $out, $times, ['commands' => [['t' => 1.9, 'gear' => '2']]]);
        $this->assertSame([], $r['gaps']);
        $this->assertEqualsWithDelta(
            [2.045, 2.405, 0.36, 5.0],
            [...array_map(fn ($k) => $r['shifts'][0][$k], ['start_s', 'end_s', 'duration_s']), $r['gears'][1]['to_s']],
            1e-6,
        );
        $this->assertEqualsWithDelta(0.145, $r['shifts'][0]['delay_s'], 0.003);
    }

    public function test_time_that_is_no_time_is_refused_at_its_sample(): void
    {
        [$in, $out, $times] = self::upshift(100);
        $trace = fn (array $t): array => [
            'rate_hz' => 100,
            'channels' => ['input_rpm' => $in, 'output_rpm' => $out, 't_s' => $t],
            'ratios' => ['1' => self::I1],
        ];
        $backward = [7 => 0.055] + $times;
        ksort($backward);
        $this->assertRefused('trace.analyse', $trace($backward), 'time', '/channels/t_s/7');
        $twice = [7 => $times[6]] + $times;
        ksort($twice);
        $this->assertRefused('trace.analyse', $trace($twice), 'time', '/channels/t_s/7');
        $text = [7 => 'x'] + $times;
        ksort($text);
        $this->assertRefused('trace.analyse', $trace($text), 'type', '/channels/t_s/7');
        $this->assertRefused('trace.analyse', $trace(array_slice($times, 1)), 'length', '/channels/input_rpm');
        $far = [500 => 1e7] + $times;
        ksort($far);
        $this->assertRefused('trace.analyse', $trace($far), 'length', '/channels/t_s/500');
    }

    public function test_lock_up_and_averages_leave_a_gap_out(): void
    {
        $n = 1000;
        $out = array_fill(0, $n, 1500.0);
        $turbine = $out;
        $in = array_map(fn (int $k): float => 1500 + 30 + 10 * sin(2 * M_PI * 5 * ($k / 100)), array_keys($out));
        $temperature = array_map(fn (int $k): float => 40 + 0.01 * $k, array_keys($out));
        $keep = [...range(0, 299), ...range(400, 999)];
        $of = fn (array $x): array => array_map(fn (int $k): float => $x[$k], $keep);
        $r = $this->analyse(100, $of($in), $of($out), [
            'channels' => [
                'turbine_rpm' => $of($turbine),
                'temp_degc' => $of($temperature),
                't_s' => array_map(fn (int $k): float => $k / 100, $keep),
            ],
        ]);
        $this->assertSame(100, $r['gaps'][0]['missing']);
        $this->assertEqualsWithDelta([4.0, 9.99], [$r['lockup']['from_s'], $r['lockup']['to_s']], 1e-9);
        $this->assertEqualsWithDelta(
            [30.0, 10.0, 5.0],
            [$r['lockup']['slipMean_rpm'], $r['lockup']['huntAmplitude_rpm'], $r['lockup']['huntFrequency_hz']],
            1e-6,
        );
        $this->assertEqualsWithDelta(60.0, $r['temperature']['rise_per_min'], 1e-9);
    }

    public function test_slip_within_a_gear(): void
    {
        mt_srand(9);
        foreach ([0.0, 2.0] as $sd) {
            foreach ([0.02, 0.1] as $share) {
                foreach ([[2.0, 2.6, true], [2.0, 2.07, false], [4.0, 9.0, true]] as [$from, $to, $found]) {
                    [$in, $out] = self::sample(
                        200,
                        5,
                        fn ($t, $o) => $o * self::I2 * (1 + ($t >= $from && $t <= $to ? $share : 0)) +
                            $sd * self::normal(),
                        fn () => 1500,
                    );
                    $r = $this->analyse(200, $in, $out);
                    $this->assertCount($found ? 1 : 0, $r['slips'], "$sd rpm, $share, $from to $to s");
                    if ($found) {
                        [$slip] = $r['slips'];
                        $this->assertSame('2', $slip['gear']);
                        $this->assertEqualsWithDelta($from, $slip['from_s'], 0.02);
                        $this->assertEqualsWithDelta(min(5.0, $to), $slip['to_s'], 0.02);
                        $this->assertEqualsWithDelta($share * self::I2 * 1500, $slip['slip_rpm'], 4 * $sd + 1e-6);
                        $this->assertEqualsWithDelta(100 * $share, $slip['slip_pct'], 0.2 * $sd + 1e-6);
                    }
                    $this->assertSame([], $r['unmeasured']);
                }
            }
        }
    }

    public function test_a_change_of_gear_that_cannot_be_measured_says_why(): void
    {
        $reasons = function (callable $ratio, callable $speed): array {
            [$in, $out] = self::sample(100, 14, fn ($t, $o) => $o * $ratio($t), $speed);
            $r = $this->analyse(100, $in, $out);
            $this->assertSame([], $r['shifts']);

            return array_column($r['unmeasured'], 'reason');
        };
        $step = self::I2 - self::I1;
        $this->assertStringContainsString(
            'no steady gear',
            $reasons(fn ($t) => self::I1 + $step * self::ramp(($t - 3) / 8), fn () => 1200)[0],
        );
        $this->assertStringContainsString(
            'stands still',
            $reasons(fn ($t) => $t < 6 ? self::I1 : self::I2, fn ($t) => $t > 5 && $t < 7 ? 0 : 1200)[0],
        );
        // Two gears of nearly the same ratio under noise.
        mt_srand(3);
        [$in, $out] = self::sample(
            100,
            5,
            fn ($t, $o) => $o * ($t < 2.5 ? 1.0 : 0.93) + 10 * self::normal(),
            fn () => 1200,
        );
        $r = $this->calc('trace.analyse', [
            'rate_hz' => 100,
            'channels' => ['input_rpm' => $in, 'output_rpm' => $out],
            'ratios' => ['3' => 1.0, '4' => 0.93],
        ]);
        $this->assertSame([], $r['shifts']);
        $this->assertStringContainsString('noisy', $r['unmeasured'][0]['reason']);
    }

    /** A normal deviate (Box and Muller, 1958). */
    private static function normal(): float
    {
        return sqrt(-2 * log((mt_rand() + 1) / (mt_getrandmax() + 2))) * cos(2 * M_PI * (mt_rand() / mt_getrandmax()));
    }

    public function test_a_flare_that_is_over_before_the_ratio_falls_counts_from_the_command(): void
    {
        mt_srand(23);
        foreach ([0.0, 3.0] as $sd) {
            [$in, $out] = self::sample(
                200,
                6,
                fn ($t, $o) => $o * ($t < 3.6 ? self::I2 : self::I2 + (1 - self::I2) * self::ramp(($t - 3.6) / 0.3)) +
                    ($t >= 3.0 && $t < 3.3 ? 150 * sin((M_PI * ($t - 3.0)) / 0.3) : 0) +
                    $sd * self::normal(),
                fn () => 1800,
            );
            $command = ['commands' => [['t' => 0.0, 'gear' => '2'], ['t' => 2.95, 'gear' => '3']]];
            $r = $this->analyse(200, $in, $out, $command);
            [$shift] = $r['shifts'];
            $this->assertSame([], $r['slips'], 'after the command it is the shift that flares');
            $this->assertEqualsWithDelta(150.0, $shift['flare_rpm'], 0.5 + 2 * $sd, "$sd rev/min of noise");
            $this->assertEqualsWithDelta(3.15, $shift['flarePeak_s'], 0.03);
            $this->assertEqualsWithDelta(3.63, $shift['start_s'], 0.01);
            // One that came before the command is none of the shift's.
            $late = ['commands' => [['t' => 0.0, 'gear' => '2'], ['t' => 3.4, 'gear' => '3']]];
            $r = $this->analyse(200, $in, $out, $late);
            [$shift] = $r['shifts'];
            $this->assertEqualsWithDelta(150.0, $r['slips'][0]['slip_rpm'], 4 * $sd + 1.0, 'it is a slip in second');
            $this->assertEqualsWithDelta(0.0, $shift['flare_rpm'], 3 * $sd + 1e-6);
        }
    }

    public function test_the_bounds_hold_what_the_noise_hides(): void
    {
        mt_srand(17);
        $runs = 60;
        $inside = ['flare_rpm' => 0, 'duration_s' => 0];
        $flares = [];
        for ($i = 0; $i < $runs; $i++) {
            [$in, $out] = self::sample(
                200,
                5,
                fn ($t, $o) => $o * ($t < 3.3 ? self::I2 : self::I2 + (1 - self::I2) * self::ramp(($t - 3.3) / 0.4)) +
                    ($t >= 2.9 && $t < 3.3 ? 120 * sin((M_PI * ($t - 2.9)) / 0.4) : 0) +
                    6 * self::normal(),
                fn () => 1800,
            );
            [$shift] = $this->analyse(200, $in, $out)['shifts'];
            $flares[] = $shift['flare_rpm'];
            foreach (['flare_rpm' => 120.0, 'duration_s' => 0.32] as $what => $true) {
                [$low, $high] = $shift['confidence'][$what];
                $this->assertLessThanOrEqual($shift[$what], $low);
                $this->assertGreaterThanOrEqual($shift[$what], $high);
                $inside[$what] += $low <= $true && $true <= $high ? 1 : 0;
            }
        }
        $this->assertEqualsWithDelta(120.0, array_sum($flares) / $runs, 2.0, 'the highest sample would be 12 too high');
        $this->assertGreaterThan(0.8 * $runs, $inside['flare_rpm']);
        $this->assertGreaterThan(0.8 * $runs, $inside['duration_s']);
    }

    public function test_a_long_plateau_is_as_noisy_as_a_short_one_and_its_mean_is_that_of_all(): void
    {
        mt_srand(23);
        $open = [];
        foreach ([6, 120] as $seconds) {
            [$in, $out] = self::sample(
                200,
                $seconds,
                fn ($t, $o) => $o * ($t < $seconds / 2 ? self::I2 : self::I2 + (1 - self::I2) *
                    self::ramp(($t - $seconds / 2) / 0.4)) + 6 * self::normal(),
                fn () => 1800,
            );
            $report = $this->analyse(200, $in, $out);
            [$low, $high] = $report['shifts'][0]['confidence']['duration_s'];
            $open[] = $high - $low;
            // Standard error of the mean of so many readings, each off by 6 of 1800.
            $error = 6 / 1800 / sqrt(100 * $seconds);
            $this->assertEqualsWithDelta(self::I2, $report['gears'][0]['ratioMean'], 4 * $error, "$seconds s");
        }
        $this->assertEqualsWithDelta(1.0, $open[1] / $open[0], 0.1, 'the noise is the same');
    }
}
