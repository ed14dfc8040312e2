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
 * Forty in every test run, five hundred with YARD_LONG; the list is fixed here, before it is run. The long table keeps
 * each unit it has judged and goes on there when it is started again, as long as nothing it depends on has changed.
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

    /** @var array<string, array{list<string>, string}>|null what an earlier run of the long table judged */
    private static ?array $judged = null;

    public function test_bad_units_are_caught_good_ones_pass_and_the_right_element_is_named(): void
    {
        $units = getenv('YARD_LONG') === false ? 40 : 500;
        $good = (int) round(self::SHARE_GOOD * $units);
        $alarms = $caught = $named = 0;
        $missed = [];
        for ($n = 0; $n < $good; $n++) {
            $failed = self::verdict(self::FAMILIES[$n % 5], [], 20_000 + $n)[0];
            $alarms += $failed === [] ? 0 : 1;
            $failed === [] || $missed[] = "good, seed $n: $failed[0]";
        }
        for ($n = 0; $n < $units - $good; $n++) {
            [$family, $fault, $where, $severities, $right] = self::FAULTS[$n % count(self::FAULTS)];
            $severity = $severities[intdiv($n, count(self::FAULTS)) % count($severities)];
            $set = ['fault' => $fault, 'where' => $where, 'severity' => $severity];
            [$failed, $first] = self::verdict($family, [$set], 30_000 + $n);
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
     * The long table writes down what it finds, unit by unit.
     *
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return array{list<string>, string}
     */
    private static function verdict(string $family, array $faults, int $seed): array
    {
        if (getenv('YARD_LONG') === false) {
            return self::judged($family, $faults, $seed);
        }
        $file = self::keptIn();
        if (self::$judged === null) {
            self::$judged = [];
            foreach (is_file($file) ? file($file, FILE_IGNORE_NEW_LINES) ?: [] : [] as $line) {
                $kept = json_decode($line, true);
                // The line a crash cut off is judged again.
                is_array($kept) && self::$judged[$kept['unit']] = $kept['verdict'];
            }
        }
        $unit = (string) json_encode([$family, $faults, $seed]);
        if (! isset(self::$judged[$unit])) {
            self::$judged[$unit] = self::judged($family, $faults, $seed);
            $line = json_encode(['unit' => $unit, 'verdict' => self::$judged[$unit]]);
            file_put_contents($file, "$line\n", FILE_APPEND);
        }

        return self::$judged[$unit];
    }

    /** A file named by all that the verdicts depend on. */
    private static function keptIn(): string
    {
        $root = dirname(__DIR__, 2);
        $sources = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator("$root/core/src"));
        $files = array_keys(array_filter(iterator_to_array($sources), fn (\SplFileInfo $f): bool => $f->isFile()));
        array_push($files, "$root/database/demo/catalog.json", __DIR__.'/TestCell.php');
        array_push($files, ...glob("$root/rig/*.php") ?: []);
        sort($files);
        $hashes = array_map(fn (string $file): string => (string) hash_file('sha256', $file), $files);
        $hash = substr(hash('sha256', implode($hashes)), 0, 16);
        @mkdir("$root/storage/long", 0775, true);

        return "$root/storage/long/confusion-$hash.jsonl";
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
