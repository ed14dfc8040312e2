<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Calculator\Calculators;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\Samples;
use Yard\Rig\Specimen;

require_once dirname(__DIR__, 2).'/rig/Specimen.php';

/**
 * The whole way from a simulated unit to the verdict: every fault of the rig must be seen, and nothing on a sound unit.
 */
final class JudgeTest extends CoreTestCase
{
    /** @var array<string, array<string, mixed>> analyses by specimen and seed, run once */
    private static array $cache = [];

    /** @return array{array<string, mixed>, array<string, mixed>} analysis, program body of the demo pack */
    private function analyse(string $specimen, string $seed = '1'): array
    {
        $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'), true)[
            'families'
        ][0];
        $program = $pack['testPrograms'][0]['body'];
        if (! isset(self::$cache["$specimen/$seed"])) {
            $ratios = array_column($this->calc('geartrain.solve', $pack['train'])['gears'], 'ratio', 'name');
            $names = ['t', 'input_rpm', 'turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc'];
            $columns = array_fill_keys($names, []);
            foreach (
                (new Specimen($ratios, $program['steps'], $specimen, $seed))->run(
                    $program['rate_hz'],
                    $program['end'],
                ) as $row
            ) {
                foreach ($names as $i => $name) {
                    $columns[$name][] = $row[$i];
                }
            }
            unset($columns['t']);
            $commands = array_map(
                fn (array $s): array => array_intersect_key($s, ['t' => 0, 'gear' => 0, 'lockup' => 0]),
                $program['steps'],
            );
            self::$cache["$specimen/$seed"] = $this->calc('trace.analyse', [
                'rate_hz' => $program['rate_hz'],
                'channels' => $columns,
                'ratios' => $ratios,
                'commands' => $commands,
            ]);
        }

        return [self::$cache["$specimen/$seed"], $program];
    }

    /** @return list<string> failed checks as "check, where" */
    private function failures(string $specimen, string $seed = '1'): array
    {
        [$analysis, $program] = $this->analyse($specimen, $seed);

        return array_values(
            array_map(
                fn (array $c): string => "{$c['check']}, {$c['where']}",
                array_filter(JudgeTrace::judge($analysis, $program['limits']), fn (array $c): bool => ! $c['pass']),
            ),
        );
    }

    public function test_a_sound_unit_passes_every_check_whatever_the_noise(): void
    {
        foreach (range(1, getenv('YARD_LONG') !== false ? 60 : 5) as $seed) {
            $this->assertSame([], $this->failures('sound', "seed $seed"), "seed $seed");
        }
    }

    public static function faults(): array
    {
        return [
            ['flare-2-3', 'Flare, 2-3'],
            ['slip-4', 'Gear comes, gear 4'],
            ['tie-up-1-2', 'Tie-up, 1-2'],
            ['low-line', 'Line pressure, lowest, whole run'],
            ['hunting', 'Hunting, lock-up'],
            ['slow-shifts', 'Shift duration, 1-2'],
        ];
    }

    #[DataProvider('faults')]
    public function test_every_fault_of_the_rig_is_seen(string $specimen, string $expected): void
    {
        $this->assertContains($expected, $this->failures($specimen));
    }

    public function test_measured_faults_have_the_size_that_was_put_in(): void
    {
        [$flare] = $this->analyse('flare-2-3');
        $this->assertEqualsWithDelta(260.0, array_column($flare['shifts'], 'flare_rpm', 'from')['2'], 8.0);
        [$hunt] = $this->analyse('hunting');
        $this->assertEqualsWithDelta(95.0, $hunt['lockup']['huntAmplitude_rpm'], 3.0);
        $this->assertEqualsWithDelta(1.3, $hunt['lockup']['huntFrequency_hz'], 0.01);
        [$slip] = $this->analyse('slip-4');
        $this->assertEqualsWithDelta((1.06 * 74) / 112, $slip['notReached'][0]['ratioMean'], 0.003);
        [$low] = $this->analyse('low-line');
        [$sound] = $this->analyse('sound');
        $this->assertEqualsWithDelta(0.55, $low['pressure']['mean_kpa'] / $sound['pressure']['mean_kpa'], 0.01);
    }

    public function test_shift_times_follow_the_raised_cosine_of_the_rig(): void
    {
        // 10-90 % of a raised cosine of 0.42 s: 0.42 (acos(-0.8) - acos(0.8)) / pi = 0.2479 s; command to 10 % = 0.22 +
        // 0.42 acos(0.8)/pi.
        [$analysis] = $this->analyse('sound');
        foreach ($analysis['shifts'] as $shift) {
            $this->assertEqualsWithDelta(
                (0.42 * (acos(-0.8) - acos(0.8))) / M_PI,
                $shift['duration_s'],
                0.012,
                "{$shift['from']}-{$shift['to']}",
            );
            $this->assertEqualsWithDelta(0.22 + (0.42 * acos(0.8)) / M_PI, $shift['delay_s'], 0.012);
        }
        $this->assertSame(
            ['1-2', '2-3', '3-4', '4-3', '3-2'],
            array_map(fn (array $s): string => "{$s['from']}-{$s['to']}", $analysis['shifts']),
        );
    }

    public function test_the_same_run_gives_the_same_trace(): void
    {
        $first = fn (string $seed): array => iterator_to_array(
            (new Specimen(['1' => 2.5], [['t' => 0.0, 'gear' => '1', 'throttle' => 0.3]], 'sound', $seed))->run(
                50,
                2,
            ),
        );
        $this->assertSame($first('a'), $first('a'));
        $this->assertNotSame($first('a'), $first('b'));
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
        [$analysis, $program] = $this->analyse('sound');
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

    public function test_samples_stand_where_their_time_says(): void
    {
        $samples = new Samples(['input_rpm'], 10.0, 1.0);
        foreach ([0.0, 0.1, 0.2, '0.21', 0.5, 0.8, 0.9, 1.0] as $t) {
            $samples->add($t, ['input_rpm' => 100.0 * (float) $t]);
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

    public function test_an_unknown_specimen_is_refused(): void
    {
        $this->expectExceptionMessage('There is no specimen "broken".');
        new Specimen([], [], 'broken', '1');
    }

    public function test_the_analysis_obeys_its_schema_on_a_full_run(): void
    {
        [$analysis] = $this->analyse('sound');
        $schema = json_decode(Calculators::schema('trace.analyse'));
        $document = json_decode((string) json_encode($analysis));
        $document->pressure->byGear_kpa = (object) (array) $document->pressure->byGear_kpa;
        $this->assertTrue((new \Opis\JsonSchema\Validator())->validate($document, $schema->output)->isValid());
    }
}
