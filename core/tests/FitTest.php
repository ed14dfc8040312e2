<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

final class FitTest extends CoreTestCase
{
    /** @param  array<string, array{int, array<string, array{float|int, ?int}>}>  $slots */
    private static function stack(
        float $depth,
        float $fixed,
        float $min,
        float $max,
        array $slots,
        string $unit = 'um',
    ): array {
        $list = [];
        foreach ($slots as $name => [$pick, $options]) {
            $offers = [];
            foreach ($options as $part => [$thickness, $stock]) {
                $offers[] =
                    ['part' => (string) $part, 'thickness' => $thickness] +
                    ($stock === null ? [] : ['stock' => $stock]);
            }
            $list[] = ['name' => $name, 'pick' => $pick, 'options' => $offers];
        }

        return [
            'unit' => $unit,
            'depth' => $depth,
            'fixed' => [['name' => 'fixed', 'thickness' => $fixed, 'count' => 1]],
            'slots' => $list,
            'window' => ['min' => $min, 'max' => $max],
        ];
    }

    /** Own cases with optima found by brute force over all multisets; greedy filling misses them. */
    public function test_clutch_pack_optimum(): void
    {
        $out = $this->calc(
            'fit.stack',
            self::stack(30977, 8120, 800, 1200, [
                'steel' => [4, ['1952' => [1952, 3], '2003' => [2003, 2], '2047' => [2047, 3], '2101' => [2101, 1]]],
                'plate' => [1, ['10490' => [10490, 1], '11013' => [11013, 1], '11508' => [11508, 1]]],
                'ring' => [1, ['2002' => [2002, 2], '2298' => [2298, 2], '2604' => [2604, 2]]],
            ]),
        );
        $this->assertSame(999, (int) $out['best']['clearance']);
        $this->assertSame(
            [['1952', 2], ['2047', 1], ['2101', 1], ['11508', 1], ['2298', 1]],
            array_map(fn ($p) => [$p['part'], $p['count']], $out['best']['picks']),
        );
        $this->assertCount(10, $out['alternatives']);
    }

    public function test_two_shims_and_a_washer(): void
    {
        $out = $this->calc(
            'fit.stack',
            self::stack(9945, 4410, 150, 350, [
                'washer' => [1, ['a' => [3012, 1], 'b' => [3246, 1], 'c' => [3498, 1], 'd' => [3751, 1]]],
                'shim' => [
                    2,
                    ['508' => [508, 1], '633' => [633, 2], '766' => [766, 1], '889' => [889, 3], '1016' => [1016, 1]],
                ],
            ]),
        );
        $this->assertEquals(255, $out['best']['clearance']);
        $this->assertCount(3, $out['alternatives'], '4 of 48 combinations lie inside');
    }

    public function test_infeasible_because_of_the_counts(): void
    {
        $slots = [
            'steel' => [3, ['1748' => [1748, 4], '1802' => [1802, 2]]],
            'ring' => [
                1,
                ['11020' => [11020, 1], '11310' => [11310, 1], '11560' => [11560, 1], '11840' => [11840, 1]],
            ],
        ];
        $out = $this->calc('fit.stack', self::stack(27850, 9740, 600, 900, $slots));
        $this->assertFalse($out['feasible']);
        $this->assertEquals([918, -18], [$out['nearest']['clearance'], $out['nearest']['shortBy']]);
        $slots['steel'][0] = 7;
        $this->assertSame(
            ['feasible' => false, 'reason' => 'stock', 'alternatives' => []],
            $this->calc('fit.stack', self::stack(27850, 9740, 600, 900, $slots)),
        );
    }

    public function test_the_edge_of_the_window_is_inside_without_binary_rounding(): void
    {
        // 0.1 + 0.2 style trap: 0.330 - 0.300 is 0.030000000000000027 in doubles.
        $out = $this->calc('fit.stack', self::stack(0.33, 0.1, 0.02, 0.03, ['s' => [1, ['A' => [0.2, null]]]], 'in'));
        $this->assertTrue($out['feasible']);
        $this->assertSame(0.03, $out['best']['clearance']);
    }

    public function test_the_thick_pack_of_the_trade(): void
    {
        // Common practice, no source: 0.007 too tight with a 0.240 plate; a 0.180 plate opens 0.060, two steels 0.015
        // thicker take back 0.030, and the feeler reads 0.023-0.024.
        $pack = fn (float $depth): array => [
            'unit' => 'in',
            'depth' => $depth,
            'fixed' => [['name' => 'friction', 'thickness' => 0.08, 'count' => 5]],
            'window' => ['min' => 0.02, 'max' => 0.03],
            'slots' => [
                [
                    'name' => 'plate',
                    'pick' => 1,
                    'options' => [['part' => 'P240', 'thickness' => 0.24], ['part' => 'P180', 'thickness' => 0.18]],
                ],
                [
                    'name' => 'steel',
                    'pick' => 5,
                    'options' => [['part' => 'S069', 'thickness' => 0.069], ['part' => 'S084', 'thickness' => 0.084]],
                ],
            ],
        ];
        $tight = 5 * 0.08 + 0.24 + 5 * 0.069 - 0.007;
        $out = $this->calc('fit.stack', $pack(round($tight, 3)));
        $this->assertSame(0.023, $out['best']['clearance']);
        $this->assertSame(
            [['P180', 1], ['S069', 3], ['S084', 2]],
            array_map(fn ($p) => [$p['part'], $p['count']], $out['best']['picks']),
        );
    }

    public function test_stock_is_shared_between_slots(): void
    {
        $out = $this->calc(
            'fit.stack',
            self::stack(10, 0, 0, 4, [
                'a' => [1, ['X' => [4, 1], 'Y' => [3, 9]]],
                'b' => [1, ['X' => [4, 1], 'Y' => [3, 9]]],
            ]),
        );
        $this->assertEquals(3, $out['best']['clearance'], 'two X would give the ideal 2, but there is only one');
        $this->assertSame(2, array_sum(array_column($out['best']['picks'], 'count')));
    }

    public function test_ties_prefer_fewer_parts_then_cost_then_name(): void
    {
        $in = [
            'unit' => 'mm',
            'depth' => 10,
            'fixed' => [],
            'window' => ['min' => 0, 'max' => 4],
            'slots' => [
                [
                    'name' => 's',
                    'pick' => 2,
                    'options' => [
                        ['part' => 'c', 'thickness' => 3, 'cost' => 1],
                        ['part' => 'd', 'thickness' => 5, 'cost' => 1],
                        ['part' => 'b', 'thickness' => 4, 'cost' => 3],
                        ['part' => 'a', 'thickness' => 4, 'cost' => 2],
                    ],
                ],
            ],
        ];
        $out = $this->calc('fit.stack', $in);
        $this->assertSame([['slot' => 's', 'part' => 'a', 'count' => 2]], $out['best']['picks']);
        $this->assertEquals(4, $out['best']['cost']);
    }

    public function test_agrees_with_brute_force_on_random_packs(): void
    {
        mt_srand(20261);
        for ($case = 0; $case < 150; $case++) {
            $slots = [];
            $thickness = [];
            foreach (['a', 'b', 'c'] as $name) {
                $options = [];
                for ($i = mt_rand(1, 4); $i > 0; $i--) {
                    $part = 'p'.mt_rand(1, 6);
                    $thickness[$part] ??= [mt_rand(100, 160), mt_rand(0, 3)];
                    $options[$part] = $thickness[$part];
                }
                $slots[$name] = [mt_rand(0, 3), $options];
            }
            $low = mt_rand(-40, 60);
            $in = self::stack(mt_rand(400, 1100), 20, $low, $low + mt_rand(0, 60), $slots);
            $out = $this->calc('fit.stack', $in);
            $expected = $this->bruteForce($in, array_column($thickness, 1, null));
            if ($expected['inside'] === null) {
                $this->assertFalse($out['feasible']);
                $expected['outside'] === null
                    ? $this->assertSame('stock', $out['reason'])
                    : $this->assertEquals($expected['outside'], abs($out['nearest']['shortBy']), "case $case");
            } else {
                $this->assertEquals($expected['inside'], $out['best']['deviation'], "case $case");
            }
        }
    }

    /** @return array{inside: float|null, outside: float|null} smallest deviation inside, smallest miss outside */
    private function bruteForce(array $in): array
    {
        $choices = [[]];
        foreach ($in['slots'] as $slot) {
            for ($i = 0; $i < $slot['pick']; $i++) {
                $next = [];
                foreach ($choices as $choice) {
                    foreach ($slot['options'] as $option) {
                        $next[] = [...$choice, $option];
                    }
                }
                $choices = $next;
            }
        }
        [$min, $max] = [$in['window']['min'], $in['window']['max']];
        $best = ['inside' => null, 'outside' => null];
        foreach ($choices as $choice) {
            foreach (array_count_values(array_column($choice, 'part')) as $part => $count) {
                if ($count > array_column($choice, 'stock', 'part')[$part]) {
                    continue 2;
                }
            }
            $clearance = $in['depth'] - $in['fixed'][0]['thickness'] - array_sum(array_column($choice, 'thickness'));
            $miss = max($min - $clearance, $clearance - $max);
            if ($miss <= 0) {
                $best['inside'] = min($best['inside'] ?? INF, abs($clearance - ($min + $max) / 2));
            } else {
                $best['outside'] = min($best['outside'] ?? INF, $miss);
            }
        }

        return $best;
    }

    /** Best and ten others in the order promised: deviation, distinct parts, cost, then slots, parts and counts. */
    public function test_the_order_of_the_choices_against_every_choice(): void
    {
        mt_srand(73);
        for ($case = 0; $case < 60; $case++) {
            $thickness = $cost = $slots = [];
            foreach (['beta', 'alpha'] as $name) {
                $options = [];
                foreach ((array) array_rand(array_flip(range(1, 5)), mt_rand(2, 4)) as $n) {
                    $part = "p$n";
                    $thickness[$part] ??= mt_rand(10, 13);
                    $cost[$part] ??= mt_rand(0, 2);
                    $options[] = [
                        'part' => $part,
                        'thickness' => $thickness[$part],
                        'cost' => $cost[$part],
                    ] + ($n > 3 ? ['stock' => 2] : []);
                }
                $slots[] = ['name' => $name, 'pick' => mt_rand(1, 3), 'options' => $options];
            }
            $in = ['unit' => 'um', 'depth' => 60, 'slots' => $slots, 'window' => ['min' => 0, 'max' => 40]];
            $expected = self::everyChoice($in);
            $out = $this->calc('fit.stack', $in);
            if ($expected === []) {
                $this->assertFalse($out['feasible'], "case $case");

                continue;
            }
            $found = array_map(self::ranking(...), [$out['best'], ...$out['alternatives']]);
            $this->assertEquals(array_slice($expected, 0, 11), $found, "case $case");
        }
    }

    /**
     * @param  array<string, mixed>  $choice
     * @return array{float, float, list<array{string, string, int}>} deviation, cost, sorted picks
     */
    private static function ranking(array $choice): array
    {
        $picks = array_map(array_values(...), $choice['picks']);
        sort($picks);

        return [(float) $choice['deviation'], (float) $choice['cost'], $picks];
    }

    /**
     * @param  array<string, mixed>  $in
     * @return list<array{float, float, list<array{string, string, int}>}> every choice inside, in the order promised
     */
    private static function everyChoice(array $in): array
    {
        $stacks = [[]];
        foreach ($in['slots'] as $slot) {
            for ($i = 0; $i < $slot['pick']; $i++) {
                $next = [];
                foreach ($stacks as $stack) {
                    foreach ($slot['options'] as $option) {
                        $more = [...$stack, ['slot' => $slot['name']] + $option];
                        usort($more, fn (array $a, array $b) => [$a['slot'], $a['part']] <=> [$b['slot'], $b['part']]);
                        $next[json_encode(array_map(fn (array $o) => [$o['slot'], $o['part']], $more))] = $more;
                    }
                }
                $stacks = array_values($next);
            }
        }
        $rows = [];
        foreach ($stacks as $stack) {
            $clearance = $in['depth'] - array_sum(array_column($stack, 'thickness'));
            $used = array_count_values(array_column($stack, 'part'));
            $short = array_filter($stack, fn (array $o) => isset($o['stock']) && $used[$o['part']] > $o['stock']);
            if ($clearance < 0 || $clearance > 40 || $short !== []) {
                continue;
            }
            $picks = [];
            foreach ($stack as ['slot' => $slot, 'part' => $part]) {
                $picks["$slot $part"] = [$slot, $part, ($picks["$slot $part"][2] ?? 0) + 1];
            }
            $cost = array_sum(array_column($stack, 'cost'));
            $rows[] = [abs($clearance - 20), count($used), $cost, array_values($picks)];
        }
        // Arrays of unequal length compare by length first: the picks are compared one by one.
        usort($rows, fn (array $a, array $b) => array_slice($a, 0, 3) <=> array_slice($b, 0, 3) ?:
            self::pickByPick($a[3], $b[3]));

        return array_map(fn (array $r) => [(float) $r[0], (float) $r[2], $r[3]], $rows);
    }

    /**
     * @param  list<array{string, string, int}>  $a
     * @param  list<array{string, string, int}>  $b
     */
    private static function pickByPick(array $a, array $b): int
    {
        foreach ($a as $i => $pick) {
            $order = isset($b[$i]) ? $pick <=> $b[$i] : 1;
            if ($order !== 0) {
                return $order;
            }
        }

        return count($a) <=> count($b);
    }

    /** Ten thicknesses, six pieces, two slots: 25 million stacks, kept apart by what they measure. */
    public function test_millions_of_stacks(): void
    {
        $slot = fn (string $name, int $from): array => [
            'name' => $name,
            'pick' => 6,
            'options' => array_map(
                fn (int $k): array => ['part' => "$name$k", 'thickness' => ($from + 53 * $k) / 1000],
                range(0, 9),
            ),
        ];
        $in = ['unit' => 'mm', 'depth' => 22.4, 'slots' => [$slot('s', 1500), $slot('f', 1401)]];
        $out = $this->calc('fit.stack', $in + ['window' => ['min' => 0.9, 'max' => 1.1]]);
        $sum = 0.0;
        foreach ($out['best']['picks'] as ['slot' => $slot, 'part' => $part, 'count' => $count]) {
            $sum += $count * (($slot === 's' ? 1.5 : 1.401) + 0.053 * (int) substr($part, 1));
        }
        $this->assertEqualsWithDelta(22.4 - $sum, $out['best']['clearance'], 1e-9);
        // Every sum is 6 x 1.5 + 6 x 1.401 + 0.053 k: the nearest to 21.4 has k = 75.
        $this->assertEqualsWithDelta(abs(21.4 - 17.406 - 0.053 * 75), $out['best']['deviation'], 1e-9);
    }

    public function test_thousands_of_combinations_stay_exact(): void
    {
        $options = [];
        for ($i = 0; $i < 8; $i++) {
            $options["p$i"] = [1000 + 37 * $i, 6];
        }
        $out = $this->calc(
            'fit.stack',
            self::stack(30000, 0, 900, 1000, [
                'a' => [8, $options],
                'b' => [8, $options],
                'c' => [10, ['q' => [1003, null], 'r' => [1100, null]]],
            ]),
        );
        $this->assertLessThanOrEqual(1.0, $out['best']['deviation']);
    }

    public function test_end_play_takes_the_washer_rule_of_the_trade(): void
    {
        // new = old + (measured - wanted); windows 0.003-0.019 and 0.007-0.019 in, set near 0.012: common practice, no
        // source.
        $in = [
            'unit' => 'in',
            'measured' => 0.035,
            'fitted' => 0.072,
            'window' => ['min' => 0.007, 'max' => 0.019],
            'target' => 0.012,
            'options' => [
                ['part' => 'W-072', 'thickness' => 0.072],
                ['part' => 'W-085', 'thickness' => 0.085],
                ['part' => 'W-094', 'thickness' => 0.094],
                ['part' => 'W-096', 'thickness' => 0.096, 'stock' => 0],
            ],
        ];
        $out = $this->calc('endplay.select', $in);
        $this->assertSame(0.095, $out['needed']);
        $this->assertSame(
            ['part' => 'W-094', 'thickness' => 0.094, 'play' => 0.013, 'deviation' => 0.001],
            $out['best'],
        );
        $out = $this->calc('endplay.select', ['measured' => 0.09] + $in);
        $this->assertFalse($out['feasible']);
        $this->assertSame(['W-094', -0.049], [$out['nearest']['part'], $out['nearest']['shortBy']]);
    }

    public function test_converter_depth(): void
    {
        // Lug face 22 mm deep, flex-plate 27 mm: not seated. Common practice, no source.
        $in = ['unit' => 'mm', 'converterDepth' => 22, 'flexplateDepth' => 27, 'minPull' => 1.5, 'maxPull' => 5];
        $this->assertFalse($this->calc('converter.depth', $in)['seated']);
        $seated = $this->calc('converter.depth', ['converterDepth' => 28.5] + $in);
        $this->assertSame([true, true, 1.5], [$seated['seated'], $seated['withinLimits'], $seated['pull']]);
        $far = $this->calc('converter.depth', ['converterDepth' => 33] + $in);
        $this->assertSame([true, false], [$far['seated'], $far['withinLimits']]);
    }

    public function test_bad_stacks(): void
    {
        $good = self::stack(10, 1, 0, 4, ['a' => [1, ['X' => [4, 1]]]]);
        $this->assertRefused('fit.stack', ['window' => ['min' => 4, 'max' => 0]] + $good, 'window', '/window');
        $this->assertRefused('fit.stack', ['target' => 9] + $good, 'window', '/target');
        $this->assertRefused('fit.stack', ['unit' => 'ft'] + $good, 'choice', '/unit');
        $this->assertRefused('fit.stack', ['depth' => '1,2'] + $good, 'type', '/depth');
        $this->assertRefused(
            'fit.stack',
            array_replace_recursive($good, ['slots' => [['pick' => -1]]]),
            'range',
            '/slots/0/pick',
        );
        $this->assertRefused(
            'fit.stack',
            array_replace_recursive($good, ['slots' => [['options' => [['thickness' => -4]]]]]),
            'range',
            '/slots/0/options/0/thickness',
        );
    }
}
