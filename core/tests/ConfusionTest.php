<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\TestEvidence;
use Yard\Core\Input;
use Yard\Core\Life\FailureRate;

/**
 * Units with and without a fault, as a stranger sets them at the rig's console: how many faults the judge catches, how
 * often it cries wolf, and how often it names the right element. The judge sees the recording and the windows only.
 * Forty in every test run, five hundred with YARD_LONG; the list is fixed here, before it is run.
 */
final class ConfusionTest extends CoreTestCase
{
    private const SHARE_GOOD = 0.4;

    /** Fault => the places it is put in one family and what may be named first for it; severities go round. */
    private const FAULTS = [
        ['RD4', 'worn-pack', 'C3', [0.55, 0.7, 0.85], ['C3']],
        ['RD4', 'wrong-clearance', 'C3', [0.6, 0.8, 1.0], ['C3']],
        ['LP6', 'worn-pack', 'C3', [0.55, 0.7, 0.85], ['C3']],
        ['LP6', 'lockup-hunts', '', [0.6, 0.8, 1.0], ['converter']],
        ['TX6', 'low-pressure', '', [0.3, 0.5, 0.7], ['line-pressure']],
        ['GV5', 'blocked-accumulator', 'C3', [0.9, 1.0], ['C3']],
        ['OV3', 'slow-accumulator', 'B1', [0.85, 0.95], ['B1']],
        ['RD4', 'dead-solenoid', 'A', [1.0], ['control']],
        ['TX6', 'wrong-ratio', 'P2', [0.5, 1.0], ['set:P2', 'set:P1']],
        ['LP6', 'leaking-piston', 'B1', [0.7, 0.9], ['B1']],
        ['GV5', 'dead-sensor', 'turbine_rpm', [1.0], ['sensor:turbine_rpm']],
        ['OV3', 'missing-wave-plate', 'C2', [0.8, 1.0], ['C2']],
        ['RD4', 'spiking-pressure', '', [0.5, 0.8], ['line-pressure']],
        ['TX6', 'tie-up', '3-4', [0.8, 1.0], ['C2', 'C3', 'control']],
        ['GV5', 'lockup-slips', '', [0.85, 0.95], ['converter']],
        ['LP6', 'stuck-valve', '3', [1.0], ['control']],
        ['RD4', 'oil-leak', '', [0.9, 1.0], ['line-pressure']],
        ['OV3', 'drifting-sensor', 'output_rpm', [0.6, 1.0], ['sensor:speed', 'sensor:output_rpm']],
        ['TX6', 'blocked-cooler', '', [0.5, 0.9], ['cooler']],
        ['LP6', 'high-pressure', '', [0.4, 0.7], ['line-pressure']],
        ['GV5', 'aerated-oil', '', [0.6, 0.9], ['line-pressure']],
        ['OV3', 'stuck-sensor', 'line_kpa', [1.0], ['sensor:line_kpa']],
        ['RD4', 'lockup-shudders', '', [0.7, 1.0], ['converter']],
        ['TX6', 'drifting-torque-cell', '', [0.6, 1.0], ['torque-cell']],
    ];

    private const FAMILIES = ['RD4', 'OV3', 'LP6', 'TX6', 'GV5'];

    public function test_bad_units_are_caught_good_ones_pass_and_the_right_element_is_named(): void
    {
        $units = getenv('YARD_LONG') === false ? 40 : 500;
        $good = (int) round(self::SHARE_GOOD * $units);
        $alarms = $caught = $named = 0;
        $missed = [];
        for ($n = 0; $n < $good; $n++) {
            $failed = self::judged(self::FAMILIES[$n % 5], [], 20_000 + $n)[0];
            $alarms += $failed === [] ? 0 : 1;
            $failed === [] || $missed[] = "good, seed $n: $failed[0]";
        }
        for ($n = 0; $n < $units - $good; $n++) {
            [$family, $fault, $where, $severities, $right] = self::FAULTS[$n % count(self::FAULTS)];
            $severity = $severities[intdiv($n, count(self::FAULTS)) % count($severities)];
            $set = ['fault' => $fault, 'where' => $where, 'severity' => $severity];
            [$failed, $first] = self::judged($family, [$set], 30_000 + $n);
            $caught += $failed === [] ? 0 : 1;
            $isRight = $failed !== [] && in_array($first, $right, true);
            $named += $isRight ? 1 : 0;
            $how = $failed === [] ? 'not caught' : "named $first";
            $isRight || $missed[] = "$family $fault $where $severity: $how";
        }
        $bad = $units - $good;
        $told = sprintf(
            "%d of %d faults caught %s, %d named first %s, %d of %d good ones refused %s\n%s\n",
            $caught,
            $bad,
            self::interval($caught, $bad),
            $named,
            self::interval($named, $bad),
            $alarms,
            $good,
            self::interval($alarms, $good),
            implode("\n", $missed),
        );
        getenv('YARD_LONG') === false || fwrite(STDERR, $told);
        $this->assertGreaterThanOrEqual(0.95, $caught / $bad, $told);
        $this->assertLessThanOrEqual(0.02, $alarms / $good, $told);
        $this->assertGreaterThanOrEqual(0.8, $named / $bad, $told);
    }

    private static function interval(int $of, int $all): string
    {
        $rate = FailureRate::ofUnits($of, $all, 0.95);

        return sprintf('(%.1f to %.1f %%)', 100.0 * $rate->lower, 100.0 * $rate->upper);
    }

    /**
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return array{list<string>, string} failed checks, and whom the run suspects first
     */
    private static function judged(string $family, array $faults, int $seed): array
    {
        $run = TestCell::run($family, $faults, $seed);
        $failed = array_filter($run['checks'], fn (array $c): bool => ! $c['pass']);
        $chart = ApplyChart::read(Input::of(TestCell::family($family)['train']));
        $suspects = (new TestEvidence($chart, $run['analysis'], $run['checks']))->suspects();

        return [
            array_values(array_map(fn (array $c): string => "$c[check], $c[where]", $failed)),
            $suspects[0]['element'] ?? '',
        ];
    }
}
