<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Dyno\ForeignCsv;

/** Recordings of other rigs: columns, units, rate, and what is no recording. */
final class ForeignCsvTest extends CoreTestCase
{
    private const SPEEDS = [
        'input_rpm' => ['column' => 'Engine', 'unit' => 'rpm'], 'output_rpm' => ['column' => 'Out', 'unit' => 'rpm'],
    ];

    private const TIME = ['column' => 'Time', 'unit' => 's'];

    /**
     * @param  array<string, array{column: string, unit: string}>  $channels
     * @param  array{column: string, unit: string}|null  $time
     * @return array{float, list<list<float>>}
     */
    private static function read(string $text, array $channels = self::SPEEDS, ?array $time = self::TIME): array
    {
        $file = fopen('php://temp', 'w+') ?: throw new \RuntimeException('No memory.');
        fwrite($file, $text);
        $csv = new ForeignCsv($time, $channels, $time === null ? 50.0 : null);
        $rate = $csv->rate($file);

        return [$rate, iterator_to_array($csv->rows($file, $rate, 3600.0), false)];
    }

    public function test_units_columns_and_decimal_signs_are_those_of_the_file(): void
    {
        $text = "\xEF\xBB\xBFLogger 7;made in spring\nTime;Engine;Temp;Out;Line;Flow;Torque\n"
            ."[ms];[rad/s];[F];[rpm];[psi];;\n"
            ."1000,0;104,719755;212;500;100;1;100\n1010,0;104,719755;212;500;100;1;100\n1020;209,43951;32;400;0;2;0\n";
        [$rate, $rows] = self::read($text, [
            'input_rpm' => ['column' => 'Engine', 'unit' => 'rad/s'],
            'output_rpm' => ['column' => 'Out', 'unit' => 'rpm'],
            'line_kpa' => ['column' => 'Line', 'unit' => 'psi'],
            'temp_degc' => ['column' => 'Temp', 'unit' => 'degF'],
            'cooler_lpm' => ['column' => 'Flow', 'unit' => 'US gal/min'],
            'input_nm' => ['column' => 'Torque', 'unit' => 'lbf.ft'],
        ], ['column' => 'Time', 'unit' => 'ms']);
        $this->assertEqualsWithDelta(100.0, $rate, 1e-9);
        $this->assertCount(3, $rows);
        // 10 rev/s is 62.83 rad/s; 100 psi = 689.4757 kPa and 1 lbf.ft = 1.3558179 N.m (NIST SP 811);
        // a US gallon is 3.785411784 L.
        $this->assertEqualsWithDelta([0.0, 1000.0, 500.0, 689.4757, 100.0, 3.785412, 135.58179], $rows[0], 1e-4);
        $this->assertEqualsWithDelta([0.02, 2000.0, 400.0, 0.0, 0.0, 7.570824, 0.0], $rows[2], 1e-4);
    }

    public function test_an_uneven_clock_is_put_on_an_even_grid_and_a_fine_one_is_averaged(): void
    {
        $uneven = "Time,Engine,Out\n";
        foreach ([0.0, 0.011, 0.019, 0.0302, 0.0398] as $t) {
            $uneven .= sprintf("%.4f,%.3f,%.3f\n", $t, 1000.0 + 500.0 * $t, 100.0);
        }
        [$rate, $rows] = self::read($uneven);
        $this->assertEqualsWithDelta(100.5, $rate, 0.05);
        $this->assertEqualsWithDelta(0.0, $rows[0][0], 1e-12);
        $fine = "Time,Engine,Out\n";
        for ($k = 0; $k < 4000; $k++) {
            $fine .= sprintf("%.4f,%d,%d\n", $k / 2000.0, $k % 2 === 0 ? 900 : 1100, 300);
        }
        [$rate, $rows] = self::read($fine);
        $this->assertSame(200.0, $rate);
        $this->assertEqualsWithDelta(400, count($rows), 1);
        $this->assertEqualsWithDelta(1000.0, array_sum(array_column(array_slice($rows, 5, 300), 1)) / 300, 1.0);
    }

    public function test_a_short_hole_is_bridged_and_a_long_one_stays(): void
    {
        $text = "Time,Engine,Out\n";
        foreach ([0, 1, 2, 4, 5, 6, 30, 31] as $k) {
            $text .= sprintf("%.2f,%d,%d\n", $k / 100.0, 10 * $k, 1);
        }
        [, $rows] = self::read($text);
        $this->assertEqualsWithDelta([0.03, 30.0, 1.0], $rows[3], 1e-9);
        $there = [0.0, 0.01, 0.02, 0.03, 0.04, 0.05, 0.06, 0.30, 0.31];
        $this->assertEqualsWithDelta($there, array_column($rows, 0), 1e-9);
    }

    public function test_a_file_without_a_clock_has_a_rate(): void
    {
        [$rate, $rows] = self::read("Engine\tOut\n800\t1\n810\t2\n820\t3\n", self::SPEEDS, null);
        $this->assertSame(50.0, $rate);
        $this->assertEqualsWithDelta([[0.0, 800.0, 1.0], [0.02, 810.0, 2.0], [0.04, 820.0, 3.0]], $rows, 1e-9);
    }

    /** @return array<string, array{string, string}> text of a file, and what is said of it */
    public static function wrong(): array
    {
        $head = "Time,Engine,Out\n0.00,800,1\n0.01,801,1\n";

        return [
            'text in a channel' => [$head.'0.02,=cmd(),1', 'Line 4: column Engine holds "=cmd()", not a number.'],
            'nothing in a channel' => [$head.'0.02,,1', 'Line 4: column Engine holds nothing, not a number.'],
            'not a number' => [$head.'0.02,NAN,1', 'column Engine holds "NAN"'],
            'beyond any number' => [$head.'0.02,1e999,1', 'column Engine holds "1e999"'],
            'time runs backwards' => [$head.'0.005,800,1', 'Line 4: the time runs backwards.'],
            'no such column' => ["Time,Motor,Out\n0,1,2\n", 'names all of these columns: Time, Engine, Out'],
            'a picture' => [random_bytes(5000), 'names all of these columns'],
            'a line without an end' => ["Time,Engine,Out\n".str_repeat('1', 200_000), 'Line 2 is longer than any line'],
            'one sample' => ["Time,Engine,Out\n0,800,1\n", 'fewer than two samples'],
            'nothing' => ['', 'names all of these columns'],
        ];
    }

    #[DataProvider('wrong')]
    public function test_what_is_no_recording_is_refused_with_its_line(string $text, string $says): void
    {
        $this->expectException(BadInput::class);
        $this->expectExceptionMessage($says);
        self::read($text);
    }

    public function test_what_is_asked_for_wrongly_is_refused_at_its_place(): void
    {
        $at = function (array $channels, ?array $time = self::TIME, ?float $rate = null): string {
            try {
                new ForeignCsv($time, $channels, $rate);
            } catch (BadInput $e) {
                return $e->path;
            }

            return 'taken';
        };
        $column = fn (string $unit): array => ['column' => 'x', 'unit' => $unit];
        $this->assertSame('taken', $at(self::SPEEDS));
        $this->assertSame('/channels', $at(['input_rpm' => $column('rpm')]));
        $this->assertSame('/channels/line_kpa/unit', $at(self::SPEEDS + ['line_kpa' => $column('rpm')]));
        $this->assertSame('/channels/cooler_lpm/unit', $at(self::SPEEDS + ['cooler_lpm' => $column('psi')]));
        $this->assertSame('/channels/colour', $at(self::SPEEDS + ['colour' => $column('rpm')]));
        $this->assertSame('/time/unit', $at(self::SPEEDS, ['column' => 'Time', 'unit' => 'weeks']));
        $this->assertSame('/rate_hz', $at(self::SPEEDS, null));
        $this->assertSame('/rate_hz', $at(self::SPEEDS, self::TIME, 50.0));
    }

    public function test_a_file_ten_times_as_long_takes_no_more_memory(): void
    {
        $taken = function (int $lines): int {
            $file = tmpfile() ?: throw new \RuntimeException('No disk.');
            fwrite($file, "Time,Engine,Out\n");
            for ($k = 0; $k < $lines; $k++) {
                fwrite($file, sprintf("%.3f,%d,%d\n", $k / 200.0, 800 + $k % 50, 300));
            }
            memory_reset_peak_usage();
            $before = memory_get_usage();
            $csv = new ForeignCsv(self::TIME, self::SPEEDS, null);
            $n = 0;
            foreach ($csv->rows($file, $csv->rate($file), 1e6) as $row) {
                $n++;
            }
            $this->assertSame($lines, $n);

            return memory_get_peak_usage() - $before;
        };
        $this->assertLessThan($taken(20_000) + 200_000, $taken(200_000));
    }
}
