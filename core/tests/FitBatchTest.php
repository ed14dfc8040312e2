<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Decimal;
use Yard\Core\Fit\Bin;
use Yard\Core\Fit\SelectivePart;
use Yard\Core\Fit\Slot;
use Yard\Core\Fit\StackUp;
use Yard\Core\Fit\Window;

/** One bin for several builds: by hand, against everything tried, and against a mixed-integer program of GLPK. */
final class FitBatchTest extends CoreTestCase
{
    /** @param  array<string, int>  $stock */
    private static function bin(array $stock): Bin
    {
        $stack = fn (float $depth): StackUp => new StackUp(
            Decimal::ofFloat($depth),
            [],
            [new Slot('plate', 1, [SelectivePart::of('A', 1.0), SelectivePart::of('B', 1.2)])],
            Window::of(0.1, 0.2, 0.15),
        );

        return Bin::share([$stack(1.15), $stack(1.15), $stack(1.35)], $stock, 1.0);
    }

    public function test_one_more_piece_is_worth_the_builds_it_fills(): void
    {
        $bin = self::bin(['A' => 1, 'B' => 1]);
        $this->assertSame(2, $bin->assigned(), 'one of the two alike goes without');
        $this->assertSame(['A' => 1], $bin->oneMore(['A', 'B']), 'a second B serves nobody');
        $this->assertSame([], self::bin(['A' => 2, 'B' => 1])->oneMore(['A', 'B']), 'all are served');
        $left = array_filter([0, 1, 2], fn (int $b): bool => $bin->of($b) === null);
        $this->assertCount(1, $left);
        $this->assertSame('B', $bin->of(2)['picks'][0]['part'] ?? null);
    }

    /** @return array<string, mixed> a pack that wants one plate; the clearance is the depth less the plate */
    private static function pack(float $depth, string ...$parts): array
    {
        $thickness = ['thin' => 1.8, 'middle' => 2.0, 'thick' => 2.2];

        return [
            'unit' => 'mm',
            'depth' => $depth,
            'slots' => [
                [
                    'name' => 'plate',
                    'pick' => 1,
                    'options' => array_map(
                        fn (string $p): array => ['part' => $p, 'thickness' => $thickness[$p]],
                        $parts,
                    ),
                ],
            ],
            'window' => ['min' => 0.9, 'max' => 1.3],
        ];
    }

    /** One middle plate: the build that can take another one takes it, though the middle one lies nearer. */
    public function test_two_builds_and_one_plate_that_suits_both(): void
    {
        $out = $this->calc('fit.batch', [
            'builds' => [self::pack(3.1, 'thin', 'middle'), self::pack(3.1, 'middle')],
            'stock' => ['thin' => 1, 'middle' => 1],
        ]);
        $this->assertSame(2, $out['assigned']);
        $this->assertTrue($out['optimal']);
        $this->assertSame('thin', $out['builds'][0]['picks'][0]['part']);
        $this->assertEqualsWithDelta(1.3, $out['builds'][0]['clearance'], 1e-12);
        $this->assertSame([['slot' => 'plate', 'part' => 'middle', 'count' => 1]], $out['builds'][1]['picks']);
        $this->assertEqualsWithDelta(0.2, $out['totalDeviation'], 1e-12);
        $this->assertEquals(['assigned' => 2, 'totalDeviation' => 0.2], $out['bound']);
    }

    public function test_what_is_left_out_takes_nothing(): void
    {
        $out = $this->calc('fit.batch', [
            'builds' => [self::pack(9.0, 'middle'), self::pack(3.1, 'middle')],
            'stock' => ['middle' => 1],
        ]);
        $this->assertSame(1, $out['assigned']);
        $this->assertEquals(['feasible' => false, 'picks' => []], $out['builds'][0]);
        $this->assertTrue($out['builds'][1]['feasible']);
        $empty = $this->calc('fit.batch', ['builds' => [self::pack(9.0, 'middle')], 'stock' => ['middle' => 5]]);
        $this->assertSame([0, true], [$empty['assigned'], $empty['optimal']]);
    }

    public function test_the_edge_of_a_window_is_inside(): void
    {
        $build = self::pack(3.3, 'middle');
        $out = $this->calc('fit.batch', ['builds' => [$build], 'stock' => ['middle' => 1]]);
        $this->assertSame(1, $out['assigned']);
        $build['depth'] = 3.300001;
        $this->assertSame(0, $this->calc('fit.batch', ['builds' => [$build], 'stock' => []])['assigned']);
    }

    /**
     * Builds with a plate slot of two and a ring slot, a bin too small for all.
     *
     * @return array<string, mixed>
     */
    private static function random(int $builds, int $options, int $pick): array
    {
        $parts = $stock = [];
        foreach (['steel' => $options, 'ring' => 2] as $slot => $n) {
            for ($k = 0; $k < $n; $k++) {
                $parts[$slot][] = ['part' => "$slot-$k", 'thickness' => (1500 + 90 * $k + mt_rand(0, 40)) / 1000];
                $stock["$slot-$k"] = mt_rand(0, max(1, intdiv($builds * ($slot === 'steel' ? $pick : 1), $n)));
            }
        }
        $list = [];
        for ($b = 0; $b < $builds; $b++) {
            $list[] = [
                'unit' => 'mm',
                'depth' => ($pick + 1) * 1.6 + 1 + mt_rand(-250, 250) / 1000,
                'slots' => [
                    ['name' => 'steel', 'pick' => $pick, 'options' => $parts['steel']],
                    ['name' => 'ring', 'pick' => 1, 'options' => $parts['ring']],
                ],
                'window' => ['min' => 0.9, 'max' => 1.1],
            ];
        }

        return ['builds' => $list, 'stock' => $stock];
    }

    public function test_against_everything_tried(): void
    {
        mt_srand(61);
        for ($case = 0; $case < 25; $case++) {
            $in = self::random(3, 3, 2);
            $out = $this->calc('fit.batch', $in);
            $this->assertTrue($out['optimal']);
            [$assigned, $deviation] = $this->tried($in['builds'], $in['stock']);
            $this->assertSame($assigned, $out['assigned'], "case $case");
            $this->assertEqualsWithDelta($deviation, $out['totalDeviation'], 1e-9, "case $case");
            $this->assertPlan($in, $out);
        }
    }

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, int>  $stock
     * @return array{int, float}
     */
    private function tried(array $builds, array $stock): array
    {
        if ($builds === []) {
            return [0, 0.0];
        }
        $build = array_shift($builds);
        $best = $this->tried($builds, $stock);
        [$steels, $rings] = array_column($build['slots'], 'options');
        foreach ($steels as $i => $a) {
            foreach (array_slice($steels, $i) as $b) {
                foreach ($rings as $ring) {
                    $clearance = $build['depth'] - $a['thickness'] - $b['thickness'] - $ring['thickness'];
                    $left = $stock;
                    foreach ([$a, $b, $ring] as $taken) {
                        $left[$taken['part']]--;
                    }
                    if (abs($clearance - 1) > 0.1 + 1e-9 || min($left) < 0) {
                        continue;
                    }
                    [$n, $deviation] = $this->tried($builds, $left);
                    $found = [$n + 1, $deviation + abs($clearance - 1)];
                    $better = $found[0] > $best[0] || ($found[0] === $best[0] && $found[1] < $best[1]);
                    $best = $better ? $found : $best;
                }
            }
        }

        return $best;
    }

    /**
     * What is promised is there, and brings each clearance into its window.
     *
     * @param  array<string, mixed>  $in
     * @param  array<string, mixed>  $out
     */
    private function assertPlan(array $in, array $out): void
    {
        $left = $in['stock'];
        $deviation = 0.0;
        foreach ($out['builds'] as $b => $build) {
            if (! $build['feasible']) {
                continue;
            }
            $thickness = $pieces = [];
            foreach ($in['builds'][$b]['slots'] as $slot) {
                $thickness += array_column($slot['options'], 'thickness', 'part');
                $pieces[$slot['name']] = $slot['pick'];
            }
            $clearance = $in['builds'][$b]['depth'];
            foreach ($build['picks'] as ['slot' => $slot, 'part' => $part, 'count' => $count]) {
                $clearance -= $count * $thickness[$part];
                $pieces[$slot] -= $count;
                $left[$part] -= $count;
            }
            $this->assertSame([0, 0], array_values($pieces), 'every slot is full');
            $this->assertEqualsWithDelta($clearance, $build['clearance'], 1e-9);
            $this->assertLessThanOrEqual(0.1 + 1e-9, abs($clearance - 1));
            $deviation += abs($clearance - 1);
        }
        $this->assertGreaterThanOrEqual(0, min($left));
        $this->assertEqualsWithDelta($deviation, $out['totalDeviation'], 1e-9);
    }

    public function test_against_a_mixed_integer_program(): void
    {
        if (trim((string) shell_exec('command -v glpsol')) === '') {
            $this->markTestSkipped('GLPK is not installed.');
        }
        mt_srand(62);
        for ($case = 0; $case < 6; $case++) {
            $in = self::random(6, 5, 4);
            $out = $this->calc('fit.batch', $in);
            $this->assertTrue($out['optimal'], "case $case");
            $assigned = (int) round(self::glpk($in, null));
            $this->assertSame($assigned, $out['assigned'], "case $case");
            $this->assertEqualsWithDelta(self::glpk($in, $assigned), $out['totalDeviation'], 1e-6, "case $case");
            $this->assertPlan($in, $out);
        }
    }

    /**
     * Most builds, or with so many the least deviation: whole pieces n, a build in or out y, its deviation d.
     *
     * @param  array<string, mixed>  $in
     */
    private static function glpk(array $in, ?int $assigned): float
    {
        $rows = $use = $whole = $in01 = $deviations = [];
        foreach ($in['builds'] as $b => $build) {
            $in01[] = "y$b";
            $deviations[] = "d$b";
            $stack = '';
            foreach ($build['slots'] as $s => $slot) {
                $pieces = [];
                foreach ($slot['options'] as $o => ['part' => $part, 'thickness' => $thickness]) {
                    $whole[] = $pieces[] = "n{$b}_{$s}_$o";
                    $use[$part][] = "n{$b}_{$s}_$o";
                    $stack .= " + $thickness n{$b}_{$s}_$o";
                }
                $rows[] = implode(' + ', $pieces)." - {$slot['pick']} y$b = 0";
            }
            // The stack is depth less clearance: within 0.1 of depth less 1, and off it by d.
            [$low, $high, $aim] = [$build['depth'] - 1.1, $build['depth'] - 0.9, $build['depth'] - 1];
            array_push($rows, "$stack - $low y$b >= -1e-7", "$stack - $high y$b <= 1e-7");
            array_push($rows, "$stack - $aim y$b - d$b <= 0", "$stack - $aim y$b + d$b >= 0");
        }
        foreach ($use as $part => $pieces) {
            $rows[] = implode(' + ', $pieces).' <= '.$in['stock'][$part];
        }
        if ($assigned !== null) {
            $rows[] = implode(' + ', $in01)." = $assigned";
        }
        $goal = $assigned === null
            ? "Maximize\n g: ".implode(' + ', $in01)
            : "Minimize\n g: ".implode(' + ', $deviations);
        $file = (string) tempnam(sys_get_temp_dir(), 'lp');
        file_put_contents($file, "$goal\nSubject To\n ".implode("\n ", $rows)."\nGeneral\n ".implode("\n ", $whole).
            "\nBinary\n ".implode(' ', $in01)."\nEnd\n");
        shell_exec("glpsol --lp $file -o $file.out --tmlim 60 2>/dev/null");
        $report = (string) file_get_contents("$file.out");
        array_map(unlink(...), [$file, "$file.out"]);
        preg_match('/Objective:\s+g = (\S+)/', $report, $m);

        return (float) ($m[1] ?? NAN);
    }

    /** With next to no work allowed it says so, and its bound is true. */
    public function test_a_limit_on_the_work_is_told(): void
    {
        mt_srand(63);
        $in = self::random(10, 6, 5);
        $little = $this->calc('fit.batch', $in + ['effort' => 0.0001]);
        $all = $this->calc('fit.batch', $in);
        $this->assertTrue($all['optimal']);
        $this->assertLessThanOrEqual($all['assigned'], $little['assigned']);
        $this->assertGreaterThanOrEqual($all['assigned'], $little['bound']['assigned']);
        if ($little['bound']['assigned'] === $all['assigned']) {
            $this->assertLessThanOrEqual($all['totalDeviation'] + 1e-9, $little['bound']['totalDeviation']);
        }
        $this->assertPlan($in, $little);
    }

    /**
     * Twelve packs of five plates, six steels and a ring out of one scarce bin: 8 builds, 0.0177 off in all. GLPK came
     * to 8 builds and 0.0190 within 20 s on the same data (measured); no plan of 8 builds can be below 0.0176.
     */
    public function test_a_dozen_packs_out_of_one_scarce_bin(): void
    {
        mt_srand(77);
        $parts = $stock = [];
        foreach (['F' => [1.6, 0.11], 'S' => [1.8, 0.17], 'R' => [1.5, 0.29]] as $name => [$from, $step]) {
            for ($k = 0; $k < 4; $k++) {
                $parts[$name][] = ['part' => "$name-$k", 'thickness' => round($from + $k * $step, 3)];
            }
        }
        foreach (array_merge(...array_values($parts)) as $part) {
            $stock[$part['part']] = mt_rand(6, 18);
        }
        $builds = array_map(fn (int $n): array => [
            'unit' => 'mm',
            'depth' => 24.3113 + 0.0371 * ($n % 7) - 0.0217 * ($n % 5),
            'slots' => [
                ['name' => 'plates', 'pick' => 5, 'options' => $parts['F']],
                ['name' => 'steels', 'pick' => 6, 'options' => $parts['S']],
                ['name' => 'ring', 'pick' => 1, 'options' => $parts['R']],
            ],
            'window' => ['min' => 0.95, 'max' => 1.05],
            'target' => 1.0,
        ], range(1, 12));
        $out = $this->calc('fit.batch', ['builds' => $builds, 'stock' => $stock]);
        $this->assertSame(8, $out['assigned']);
        $this->assertEqualsWithDelta(0.0177, $out['totalDeviation'], 0.0005);
        $this->assertGreaterThanOrEqual(8, $out['bound']['assigned']);
    }

    /** Hundreds of pieces in a slot are more ways than can be listed: an answer all the same, with a true bound. */
    public function test_more_ways_than_can_be_listed(): void
    {
        $slot = [
            'name' => 'shims',
            'pick' => 400,
            'options' => array_map(
                fn (int $k): array => ['part' => "S-$k", 'thickness' => round(0.1 + 0.01 * $k, 2)],
                range(0, 5),
            ),
        ];
        $build = ['unit' => 'mm', 'depth' => 51.0, 'slots' => [$slot], 'window' => ['min' => 0.5, 'max' => 1.5]];
        $stock = array_fill_keys(array_column($slot['options'], 'part'), 150);
        $out = $this->calc('fit.batch', ['builds' => [$build, $build], 'stock' => $stock]);
        $this->assertGreaterThanOrEqual(1, $out['assigned']);
        $this->assertFalse($out['optimal']);
        $this->assertSame(2, $out['bound']['assigned']);
        $slot['pick'] = 1000;
        $more = array_map(fn (int $k): array => ['name' => "shims $k"] + $slot, range(1, 17));
        $build['slots'] = $more;
        $this->assertRefused('fit.batch', ['builds' => [$build], 'stock' => $stock], 'too-many', '/builds');
    }

    public function test_a_bin_that_contradicts_itself(): void
    {
        $in = ['builds' => [self::pack(3.1, 'thin'), self::pack(3.1, 'middle')], 'stock' => ['thin' => 1]];
        $metric = $in;
        $metric['builds'][1]['unit'] = 'in';
        $this->assertRefused('fit.batch', $metric, 'unit', '/builds/1/unit');
        $thick = $in;
        $thick['builds'][1]['slots'][0]['options'][0] = ['part' => 'thin', 'thickness' => 1.9];
        $this->assertRefused('fit.batch', $thick, 'conflict', '/builds/1/slots/0/options/0/thickness');
        $counted = $in;
        $counted['builds'][0]['slots'][0]['options'][0]['stock'] = 3;
        $this->assertRefused('fit.batch', $counted, 'stock', '/builds/0/slots/0/options/0/stock');
        $this->assertRefused('fit.batch', ['stock' => ['thin' => -1]] + $in, 'range', '/stock/thin');
        $outside = $in;
        $outside['builds'][1]['target'] = 2;
        $this->assertRefused('fit.batch', $outside, 'window', '/builds/1/target');
    }
}
