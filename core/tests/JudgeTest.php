<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Calculator\Calculators;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\Samples;
use Yard\Core\Dyno\UnitProgram;

/**
 * The whole way from a simulated unit to the verdict: every fault of the rig must be seen, and nothing on a sound unit.
 */
final class JudgeTest extends CoreTestCase
{
    /** @var array<string, array<string, mixed>> runs by family and fault, run once */
    private static array $cache = [];

    /**
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return array<string, mixed>
     */
    private static function tested(string $family, array $faults = []): array
    {
        return self::$cache[$family.json_encode($faults)] ??= TestCell::run($family, $faults, 4711);
    }

    /**
     * @param  array<string, mixed>  $run
     * @return list<string> failed checks as "check, where"
     */
    private static function failures(array $run): array
    {
        return array_values(array_map(
            fn (array $c): string => "{$c['check']}, {$c['where']}",
            array_filter($run['checks'], fn (array $c): bool => ! $c['pass']),
        ));
    }

    public function test_a_sound_unit_of_every_family_passes(): void
    {
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $run = self::tested($family);
            $this->assertSame([], self::failures($run), $family);
            $this->assertGreaterThan(60, count($run['readings']));
        }
    }

    public static function faults(): array
    {
        return [
            'worn pack' => [['fault' => 'worn-pack', 'where' => 'C3', 'severity' => 0.6], 'Slip in gear, gear 4'],
            'clearance' => [['fault' => 'wrong-clearance', 'where' => 'C3', 'severity' => 0.8], 'Shift delay, 2-3'],
            'blocked accumulator' => [['fault' => 'blocked-accumulator', 'where' => 'B2'], 'Shift duration, 1-2'],
            'low line' => [['fault' => 'low-pressure', 'severity' => 0.5], 'Line pressure, 1 at 30 %'],
            'dead solenoid' => [['fault' => 'dead-solenoid', 'where' => 'A'], 'Gear comes, gear 4'],
            'hunting' => [['fault' => 'lockup-hunts', 'severity' => 0.8], 'Hunting, lock-up'],
            'mixed parts' => [
                ['fault' => 'wrong-ratio', 'where' => 'PL', 'severity' => 0.5],
                'Ratio against the chart, gear 4',
            ],
            'dead sensor' => [['fault' => 'dead-sensor', 'where' => 'turbine_rpm'], 'Sensor stands still, turbine_rpm'],
            'blocked cooler' => [['fault' => 'blocked-cooler', 'severity' => 0.8], 'Cooler flow,'],
            'torque cell' => [['fault' => 'drifting-torque-cell', 'severity' => 0.8], 'Torque out over torque in,'],
        ];
    }

    /** @param  array{fault: string, where?: string, severity?: float}  $fault */
    #[DataProvider('faults')]
    public function test_every_fault_is_found_by_the_check_made_for_it(array $fault, string $expected): void
    {
        $failures = self::failures(self::tested('RD4', [$fault]));
        $found = array_filter($failures, fn (string $f): bool => str_starts_with($f, $expected));
        $this->assertNotSame([], $found, implode('; ', $failures));
    }

    public function test_what_is_read_has_a_window_and_what_was_not_read_fails(): void
    {
        $readings = [
            ['key' => 'a', 'check' => 'A', 'where' => 'here', 'unit' => 's', 'value' => 1.0],
            ['key' => 'b', 'check' => 'B', 'where' => 'here', 'unit' => 's', 'value' => null],
        ];
        $windows = ['a' => ['min' => 1.0], 'b' => ['max' => 2.0], 'c' => ['max' => 3.0]];
        $checks = JudgeTrace::reference($readings, $windows);
        $this->assertSame([true, false, false], array_column($checks, 'pass'));
        $this->assertSame(['A', 'B', 'Reading of the program'], array_column($checks, 'check'));
    }

    public function test_the_house_may_allow_less_than_the_program_and_never_more(): void
    {
        $of = ['flare_rpm' => ['max' => 80], 'shiftDuration_s' => ['min' => 0.2], 'slip_pct' => ['max' => 1.5]];
        $held = UnitProgram::strictest($of, [
            'flare_rpm' => 40.0, 'shiftDuration_s' => 0.8, 'slip_pct' => 3.0, 'lockupSlip_rpm' => 20.0,
        ]);
        $this->assertSame(['flare_rpm', 'shiftDuration_s'], $held['house']);
        $this->assertSame(['max' => 40.0], $held['limits']['flare_rpm']);
        $this->assertSame(['min' => 0.2, 'max' => 0.8], $held['limits']['shiftDuration_s']);
        $this->assertSame(['max' => 1.5], $held['limits']['slip_pct'], 'the program allows less');
        $this->assertArrayNotHasKey('lockupSlip_rpm', $held['limits'], 'there is no lock-up to limit');
        $shift = ['from' => '1', 'to' => '2', 'duration_s' => 0.5, 'flare_rpm' => 60.0, 'tieUpDepth_pct' => 0.0];
        $analysis = ['gears' => [], 'shifts' => [$shift], 'tieUps' => [], 'lockup' => null, 'notReached' => []];
        $checks = JudgeTrace::judge($analysis, $held['limits'], [], $held['house']);
        $this->assertSame(
            [['Shift duration', 'house', true], ['Flare', 'house', false]],
            array_map(fn (array $c): array => [$c['check'], $c['against'], $c['pass']], $checks),
        );
        $this->assertSame('limits', JudgeTrace::judge($analysis, $of)[1]['against']);
    }

    public function test_limits_decide_at_their_edge_and_missing_limits_are_not_checked(): void
    {
        $analysis = [
            'gears' => [['gear' => '1', 'ratioErrorPct' => -1.5]],
            'shifts' => [
                ['from' => '1', 'to' => '2', 'duration_s' => 0.9, 'flare_rpm' => 80.0, 'tieUpDepth_pct' => 0.0],
            ],
            'tieUps' => [],
            'lockup' => null,
            'notReached' => [],
        ];
        $limits = [
            'ratioErrorPct' => ['max' => 1.5],
            'shiftDuration_s' => ['min' => 0.2, 'max' => 0.9],
            'flare_rpm' => ['max' => 80],
        ];
        $checks = JudgeTrace::judge($analysis, $limits, [['1', '2']]);
        $this->assertSame([true, true, true], array_column($checks, 'pass'));
        $this->assertSame(
            [false, true, false],
            array_column(
                JudgeTrace::judge(
                    $analysis,
                    ['ratioErrorPct' => ['max' => 1.4999], 'flare_rpm' => ['max' => 79.9]] + $limits,
                ),
                'pass',
            ),
        );
        $this->assertSame(
            ['Lock-up slip'],
            array_column(
                array_filter(
                    JudgeTrace::judge($analysis, ['lockupSlip_rpm' => ['max' => 30]]),
                    fn (array $c): bool => ! $c['pass'],
                ),
                'check',
            ),
            'a lock-up that was never measured does not pass',
        );
    }

    public function test_slip_within_a_gear_is_held_against_its_limit(): void
    {
        [$analysis, $program] = [self::tested('RD4')['analysis'], TestCell::program('RD4')];
        $this->assertSame([], $analysis['slips']);
        $this->assertSame([], array_filter(
            $analysis['unmeasured'],
            fn (array $u): bool => ! str_contains($u['reason'], 'stands still'),
        ));
        $limit = $program['limits']['slip_pct']['max'];
        $above = ['Slip in gear, gear 3 from 7.25 s'];
        foreach ([[$limit, []], [$limit + 0.01, $above]] as [$slip, $failures]) {
            $slips = [['gear' => '3', 'from_s' => 7.25, 'slip_pct' => (float) $slip]];
            $checks = JudgeTrace::judge(compact('slips') + $analysis, $program['limits']);
            $failed = array_filter($checks, fn (array $c): bool => ! $c['pass']);
            $this->assertSame(
                $failures,
                array_values(array_map(fn (array $c): string => "{$c['check']}, {$c['where']}", $failed)),
            );
        }
    }

    public function test_what_is_limited_and_was_not_measured_does_not_pass(): void
    {
        $nothing = ['gears' => [], 'shifts' => [], 'tieUps' => [], 'lockup' => null, 'notReached' => []];
        $limits = [
            'shiftDuration_s' => ['max' => 0.9],
            'shiftDelay_s' => ['max' => 0.5],
            'flare_rpm' => ['max' => 80],
            'tieUpDepth_pct' => ['max' => 5],
            'lockupSlip_rpm' => ['max' => 30],
            'hunt_rpm' => ['max' => 40],
            'line_kpa' => ['min' => 400, 'max' => 1700],
            'rise_per_min' => ['max' => 20],
        ];
        $checks = JudgeTrace::judge($nothing, $limits, [['1', '2'], ['2', '3']]);
        $this->assertCount(8 + 5, $checks, 'four of each commanded change, five of the whole run');
        foreach ($checks as $check) {
            $this->assertSame([null, false], [$check['value'], $check['pass']], $check['check']);
        }
        $one = ['from' => '1', 'to' => '2', 'duration_s' => 0.3, 'flare_rpm' => 0.0, 'tieUpDepth_pct' => 0.0];
        $this->assertSame(
            ['Shift delay, 1-2', 'Shift duration, 2-3', 'Shift delay, 2-3', 'Flare, 2-3', 'Tie-up, 2-3'],
            array_values(
                array_map(
                    fn (array $c): string => "{$c['check']}, {$c['where']}",
                    array_filter(
                        JudgeTrace::judge(['shifts' => [$one]] + $nothing, array_slice($limits, 0, 4), [
                            ['1', '2'],
                            ['2', '3'],
                        ]),
                        fn (array $c): bool => ! $c['pass'],
                    ),
                ),
            ),
        );
    }

    public function test_a_shift_that_comes_twice_is_told_apart(): void
    {
        $shift = ['from' => '1', 'to' => '2', 'duration_s' => 0.2, 'flare_rpm' => 0.0, 'tieUpDepth_pct' => 0.0];
        $analysis = ['gears' => [], 'shifts' => [$shift, $shift], 'tieUps' => [], 'lockup' => null, 'notReached' => []];
        $checks = JudgeTrace::judge($analysis, ['shiftDuration_s' => ['max' => 0.9]], [['1', '2'], ['2', '3']]);
        $this->assertSame(['1-2', '1-2, time 2', '2-3'], array_column($checks, 'where'));
        $this->assertSame([true, true, false], array_column($checks, 'pass'));
    }

    public function test_samples_stand_where_their_time_says(): void
    {
        $samples = new Samples(['t_s', 'noise', 'input_rpm'], 10.0, 1.0, ['input_rpm']);
        foreach (['0', '0.1', '0.2', '0.21', '0.5', '0.8', '0.9', '1'] as $t) {
            $samples->add([$t, 'hum', (string) (100.0 * (float) $t)]);
        }
        $this->assertSame([11, 4, 1], [$samples->expected(), $samples->lost(), $samples->doubled()]);
        $this->assertEquals(
            [
                ['from_s' => 0.3, 'to_s' => 0.4, 'samples' => 2],
                ['from_s' => 0.6, 'to_s' => 0.7, 'samples' => 2],
            ],
            $samples->gaps(),
        );
        // bridged by straight lines: a linear signal stays what it was
        $this->assertEqualsWithDelta(
            array_map(fn (int $k): float => 10.0 * $k, range(0, 10)),
            $samples->channels()['input_rpm'],
            1e-9,
        );
        $this->assertSame(
            [false, false],
            array_column(JudgeTrace::completeness($samples), 'pass'),
        );
    }

    public function test_the_analysis_obeys_its_schema_on_a_full_run(): void
    {
        $analysis = self::tested('RD4')['analysis'];
        $schema = json_decode(Calculators::schema('trace.analyse'));
        $document = json_decode((string) json_encode($analysis));
        $document->pressure->byGear_kpa = (object) (array) $document->pressure->byGear_kpa;
        $this->assertTrue((new \Opis\JsonSchema\Validator())->validate($document, $schema->output)->isValid());
    }
}
