<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\ReferenceProgram;
use Yard\Core\Dyno\RigDrift;
use Yard\Core\Dyno\RigReadings;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Input;
use Yard\Rig\Once;
use Yard\Rig\Rig;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** The cell told from the unit: reference runs, what is usual of them, and when a cell has moved. */
final class RigDriftTest extends CoreTestCase
{
    /**
     * @param  array<string, float|null>  $values
     * @return list<array{key: string, check: string, where: string, unit: string, value: float|null}>
     */
    private static function readings(array $values, string $check = 'Something'): array
    {
        return array_map(
            fn (string $key, ?float $value): array => [
                'key' => $key, 'check' => $check, 'where' => '', 'unit' => '', 'value' => $value,
            ],
            array_keys($values),
            $values,
        );
    }

    private static function normal(): float
    {
        $radius = sqrt(-2.0 * log((mt_rand() + 1.0) / (mt_getrandmax() + 2.0)));

        return $radius * cos(2.0 * M_PI * mt_rand() / mt_getrandmax());
    }

    public function test_quantiles_are_those_of_students_table(): void
    {
        // Student's table as statistics books print it, from memory.
        foreach ([[0.975, 7, 2.3646], [0.995, 7, 3.4995], [0.975, 24, 2.0639], [0.95, 1, 6.3138]] as [$p, $n, $t]) {
            $this->assertEqualsWithDelta($t, RigDrift::student($p, $n), 5e-5, "$p, $n");
        }
        foreach ($this->r('c(qt(0.99991, 7), qt(0.9999, 24), qt(0.999, 2))') as $i => $expected) {
            [$p, $n] = [[0.99991, 7], [0.9999, 24], [0.999, 2]][$i];
            $this->assertRelative($expected, RigDrift::student($p, $n), 1e-9);
        }
    }

    public function test_the_limit_is_the_prediction_interval_of_one_more_value(): void
    {
        $usual = [10.1, 9.8, 10.0, 10.3, 9.9, 10.2, 9.7, 10.0];
        $drift = RigDrift::of(array_map(fn (float $v): array => self::readings(['a' => $v]), [...$usual, 10.0]));
        [$lower, $upper] = $this->r(
            'predict(lm(y ~ 1, data.frame(y = c('.implode(',', $usual).'))), data.frame(1), '.
                'interval = "prediction", level = 2 * pnorm(3) - 1)[2:3]',
        );
        $this->assertRelative($lower, (float) $drift->charts[0]['lower'], 1e-9);
        $this->assertRelative($upper, (float) $drift->charts[0]['upper'], 1e-9);
    }

    public function test_a_cell_that_stands_still_is_seldom_called_drifting(): void
    {
        mt_srand(7);
        $called = 0;
        for ($trial = 0; $trial < 1500; $trial++) {
            $runs = [];
            for ($run = 0; $run < 9; $run++) {
                $runs[] = self::readings(array_map(
                    fn (int $k): float => 100.0 + 5.0 * self::normal(),
                    array_fill_keys(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i', 'j'], 0),
                ));
            }
            $called += RigDrift::of($runs)->state === 'drift' ? 1 : 0;
        }
        // One in 370 of 1,500 is four; more than twelve would come by chance once in 2,500 times.
        $this->assertGreaterThan(0, $called);
        $this->assertLessThan(13, $called);
    }

    /** @return array<string, array{list<float|null>, string}> values after eight usual ones of 100 */
    public static function after(): array
    {
        return [
            'as before' => [[100.02], 'good'],
            'a jump' => [[101.5], 'drift'],
            'less than matters to anybody' => [[100.03], 'good'],
            'not read any more' => [[null], 'drift'],
            'twice near the limit on one side' => [[100.21, 100.0, 100.23], 'watch'],
            'near both limits' => [[100.2, 100.0, 99.8], 'good'],
            'back again' => [[101.5, 100.0, 100.0], 'good'],
        ];
    }

    /** @param  list<float|null>  $after */
    #[DataProvider('after')]
    public function test_the_last_run_decides(array $after, string $state): void
    {
        $before = [100.01, 99.99, 100.0, 100.02, 99.98, 100.0, 100.01, 99.99];
        $runs = array_map(fn (?float $v): array => self::readings(['a' => $v]), [...$before, ...$after]);
        $this->assertSame($state, RigDrift::of($runs)->state);
        $this->assertSame('baseline', RigDrift::of(array_slice($runs, 0, 8))->state);
        $this->assertSame('none', RigDrift::of([])->state);
    }

    public function test_a_cell_that_creeps_does_not_take_its_limits_along(): void
    {
        mt_srand(3);
        $runs = [];
        for ($n = 0; $n < 80; $n++) {
            $runs[] = self::readings(['a' => 100.0 + 0.3 * self::normal() + ($n > 25 ? 0.06 * ($n - 25) : 0.0)]);
        }
        $this->assertSame('drift', RigDrift::of($runs)->state);
    }

    public function test_the_short_program_ends_where_the_clutch_of_the_converter_lets_go(): void
    {
        $steps = TestCell::program('RD4')['steps'];
        $short = ReferenceProgram::of($steps, 95.5);
        $this->assertSame([51.5, 'on'], [$short['end'], end($short['steps'])['lockup']]);
        $this->assertSame([['t' => 0.0, 'gear' => '1']], ReferenceProgram::of([
            ['t' => 0.0, 'gear' => '1'],
            ['t' => 30.0, 'gear' => '2'],
        ], 40.0)['steps']);
    }

    /**
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return list<array{key: string, check: string, where: string, unit: string, value: float|null}>
     */
    private static function onTheRig(array $faults, int $seed): array
    {
        $short = ReferenceProgram::of(TestCell::program('RD4')['steps'], 95.5);
        $channels = [];
        foreach (Once::run(TestCell::specimen('RD4', 5), $faults, $short['steps'], $short['end'], $seed) as $row) {
            foreach (Rig::CHANNELS as $n => $channel) {
                $channels[$channel][] = $row[$n + 1];
            }
        }
        $ratios = ApplyChart::read(Input::of(TestCell::family('RD4')['train']))->ratios();
        $recording = Recording::of(200.0, $channels);
        $commands = Commands::of($short['steps'], $recording->seconds());
        $analysis = (new TraceAnalysis($recording, $ratios, $commands))->report();
        $readings = CellReadings::of(200.0, $channels, $short['steps'], $ratios, $analysis);

        return RigReadings::of(200.0, $channels, $readings, $ratios);
    }

    public function test_a_torque_cell_and_a_gauge_that_drift_are_told_from_a_cell_that_does_not(): void
    {
        $good = array_map(fn (int $seed): array => self::onTheRig([], $seed), range(1, 8));
        $state = fn (array $faults): RigDrift => RigDrift::of([...$good, self::onTheRig($faults, 20)]);
        $this->assertSame('good', $state([])->state);
        foreach (
            [
                'Torque out over torque in' => ['fault' => 'drifting-torque-cell', 'severity' => 0.3],
                'Line pressure' => ['fault' => 'drifting-sensor', 'where' => 'line_kpa', 'severity' => 0.5],
                'Speed in over speed out, against the teeth' => [
                    'fault' => 'drifting-sensor', 'where' => 'output_rpm', 'severity' => 0.5,
                ],
            ] as $check => $fault
        ) {
            $drift = $state([$fault]);
            $this->assertSame('drift', $drift->state, $check);
            $this->assertContains($check, array_column($drift->moved(), 'check'));
        }
    }
}
