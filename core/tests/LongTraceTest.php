<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\LongTrace;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\TraceAnalysis;

/** A recording read stretch by stretch says what the same recording says when it is read whole. */
final class LongTraceTest extends CoreTestCase
{
    private const RATE = 100.0;

    private const RATIOS = ['1' => 2.84, '2' => 1.55, '3' => 1.0, '4' => 0.7, 'R' => -2.1];

    /** @return array<string, array{int}> */
    public static function seeds(): array
    {
        return array_combine(array_map(fn (int $s): string => "seed $s", range(1, 12)), array_map(
            fn (int $s): array => [$s],
            range(1, 12),
        ));
    }

    /**
     * Stays of 2 to 70 s in one gear after the other, standing now and then, with slip in some of them.
     *
     * @return array{array<string, list<float>>, list<array{t: float, gear: string, lockup?: string}>}
     */
    private static function drive(int $seed, float $noise, float $seconds): array
    {
        mt_srand($seed);
        $uniform = fn (float $a, float $b): float => $a + ($b - $a) * mt_rand() / mt_getrandmax();
        $bell = fn (): float => $uniform(-1, 1) + $uniform(-1, 1) + $uniform(-1, 1);
        $channels = ['input_rpm' => [], 'turbine_rpm' => [], 'output_rpm' => [], 'line_kpa' => [], 'temp_degc' => []];
        $steps = [];
        $ratio = self::RATIOS['1'];
        $gears = ['1', '2', '3', '4'];
        while (count($channels['input_rpm']) < $seconds * self::RATE) {
            $at = count($channels['input_rpm']) / self::RATE;
            $stands = mt_rand(0, 5) === 0;
            $gear = $gears[mt_rand(0, 3)];
            $length = (int) (self::RATE * ($stands ? $uniform(1, 40) : $uniform(2, 70)));
            $slips = ! $stands && $length > 12 * self::RATE && mt_rand(0, 2) === 0;
            $steps[] = ['t' => $at, 'gear' => $stands ? 'N' : $gear];
            for ($k = 0; $k < $length; $k++) {
                $into = min(1.0, max(0.0, ($k / self::RATE - 0.3) / 0.4));
                $now = $ratio + (self::RATIOS[$gear] - $ratio) * $into;
                $slip = $slips && $k > 6 * self::RATE && $k < 8 * self::RATE ? 1.02 : 1.0;
                $output = $stands ? 0.0 : 800.0 + $noise * $bell();
                $channels['output_rpm'][] = $output;
                $channels['turbine_rpm'][] = $stands ? 600.0 : 800.0 * $now * $slip + $noise * $bell();
                $channels['input_rpm'][] = $channels['turbine_rpm'][count($channels['output_rpm']) - 1] + 5.0;
                $channels['line_kpa'][] = 600.0 + 20.0 * $bell();
                $channels['temp_degc'][] = 60.0 + 0.002 * count($channels['output_rpm']) + 0.1 * $bell();
            }
            $ratio = $stands ? $ratio : self::RATIOS[$gear];
        }

        return [$channels, $steps];
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @param  list<array{t: float, gear: string}>  $steps
     * @return array{array<string, mixed>, int} report, and the most samples that were held
     */
    private static function byStretches(array $channels, array $steps, int $stretch): array
    {
        $all = count($channels['input_rpm']);
        $trace = new LongTrace(self::RATE, self::RATIOS, Commands::of($steps, $all / self::RATE));
        $held = array_map(fn (): array => [], $channels);
        $most = 0;
        for ($k = 0; $k < $all; $k++) {
            foreach ($channels as $name => $values) {
                $held[$name][] = $values[$k];
            }
            $most = max($most, count($held['input_rpm']));
            if (count($held['input_rpm']) >= $stretch) {
                $done = $trace->take($held);
                $held = array_map(fn (array $values): array => array_slice($values, $done), $held);
            }
        }

        return [$trace->report($held), $most];
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @param  list<array{t: float, gear: string}>  $steps
     * @return array<string, mixed>
     */
    private static function whole(array $channels, array $steps): array
    {
        $run = Recording::of(self::RATE, $channels);

        return (new TraceAnalysis($run, self::RATIOS, Commands::of($steps, $run->seconds())))->report();
    }

    /**
     * @param  array<string, mixed>  $event
     * @return array<string, mixed>
     */
    private static function words(array $event): array
    {
        return array_intersect_key($event, ['gear' => 0, 'from' => 0, 'to' => 0, 'reason' => 0]);
    }

    #[DataProvider('seeds')]
    public function test_it_says_the_same_as_the_whole(int $seed): void
    {
        [$channels, $steps] = self::drive($seed, $seed % 3 === 0 ? 0.0 : 0.5, 900.0);
        $whole = self::whole($channels, $steps);
        [$parts, $most] = self::byStretches($channels, $steps, 9_000);
        $this->assertLessThanOrEqual(9_000, $most, 'no more is held than a stretch');
        $this->assertGreaterThan(12, count($whole['gears']));
        foreach (['gears', 'shifts', 'unmeasured', 'slips', 'tieUps', 'notReached', 'dropouts'] as $kind) {
            $this->assertSame(array_map(self::words(...), $whole[$kind]), array_map(self::words(...), $parts[$kind]));
            foreach ($whole[$kind] as $i => $event) {
                foreach (array_filter($event, is_float(...)) as $field => $value) {
                    // Noise is told from another part of the plateau: what hangs on it moves a little.
                    $near = match (true) {
                        str_ends_with($field, '_s') => 0.1,
                        $field === 'flare_rpm' => 3.0,
                        default => 0.1 + 0.03 * abs($value),
                    };
                    $this->assertEqualsWithDelta($value, $parts[$kind][$i][$field], $near, "$kind $i $field");
                }
            }
        }
        $this->assertEqualsWithDelta($whole['temperature'], $parts['temperature'], 1e-9);
        $this->assertEqualsWithDelta((array) $whole['pressure'], (array) $parts['pressure'], 0.05);
    }

    public function test_a_shift_is_read_to_the_last_digit_whichever_stretch_it_falls_into(): void
    {
        [$channels, $steps] = self::drive(3, 0.0, 600.0);
        $time = fn (array $shift): array => [$shift['start_s'], $shift['duration_s']];
        $times = fn (array $report): array => array_map($time, $report['shifts']);
        $whole = $times(self::whole($channels, $steps));
        $this->assertNotSame([], $whole);
        $this->assertEqualsWithDelta($whole, $times(self::byStretches($channels, $steps, 8_000)[0]), 1e-9);
    }

    public function test_what_never_settles_is_cut_and_does_not_fill_the_memory(): void
    {
        $channels = ['input_rpm' => [], 'output_rpm' => []];
        for ($k = 0; $k < 60_000; $k++) {
            $channels['input_rpm'][] = 1500.0 + 700.0 * sin($k / 37.0);
            $channels['output_rpm'][] = 800.0;
        }
        [$report, $most] = self::byStretches($channels, [], 5_000);
        $this->assertLessThanOrEqual(5_000, $most);
        $this->assertNull($report['lockup']);
    }

    public function test_a_cut_where_no_gear_stood_is_said(): void
    {
        // Between the ratios of 1 and 2 all the time: nothing to cut on.
        $channels = ['input_rpm' => array_fill(0, 12_000, 1_920.0), 'output_rpm' => array_fill(0, 12_000, 800.0)];
        [$report, $most] = self::byStretches($channels, [], 5_000);
        $this->assertLessThanOrEqual(5_000, $most);
        $this->assertContains('cut', array_column($report['warnings'], 'code'));
        [$channels, $steps] = self::drive(1, 0.5, 300.0);
        $quiet = self::byStretches($channels, $steps, 9_000)[0]['warnings'];
        $this->assertNotContains('cut', array_column($quiet, 'code'));
    }
}
