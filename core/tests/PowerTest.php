<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Torque margins and packages: closed forms, brute force, and GLPK as a judge. */
final class PowerTest extends CoreTestCase
{
    /** @return array<string, mixed> */
    private static function example(string $name): array
    {
        return json_decode(\Yard\Core\Calculator\Calculators::schema($name), true)['example']['input'];
    }

    public function test_demand_is_the_train_s_torque_and_margins_fall_with_it(): void
    {
        // Ravigneaux set 30/38/74 at 300 N.m: brake torques 149.2857143 in second and 101.7857143 in fourth (exact
        // rational solve, textbook closed forms)
        $in = self::example('power.margin');
        $out = $this->calc('power.margin', $in);
        $rows = [];
        foreach ($out['gears'] as $gear) {
            foreach ($gear['elements'] as $e) {
                $rows[$gear['name']][$e['element']] = $e;
            }
        }
        $this->assertRelative(149.2857143, $rows['2']['B2']['demand_nm']);
        $this->assertRelative(101.7857143, $rows['4']['B2']['demand_nm']);
        $this->assertRelative(300 * 1.6, $rows['1']['C1']['demand_nm'], 1e-9, 'the converter multiplies in first');
        // band of 3.4 in the check list: servo 60 mm, 1100 kPa, 220 N, lever 1.6: energised 322.4083578, against
        // 161.5263925 N.m
        $band = $this->calc('power.margin', ['pressure_kpa' => 1100] + $in);
        $held = [];
        foreach ($band['gears'] as $gear) {
            foreach ($gear['elements'] as $e) {
                $held[$gear['name']][$e['element']] = $e;
            }
        }
        $this->assertRelative(322.4083578, $held['2']['B2']['capacity_nm']);
        $this->assertRelative(161.5263925, $held['4']['B2']['capacity_nm']);
        $this->assertSame(
            ['with', 'against'],
            [$held['2']['B2']['rotation'], $held['4']['B2']['rotation']],
            'the drum pulls the other way in fourth',
        );
        foreach ($rows as $elements) {
            foreach ($elements as $e) {
                $this->assertRelative($e['capacity_nm'] / $e['demand_nm'], $e['margin']);
            }
        }
    }

    public function test_the_largest_input_torque_is_where_the_weakest_margin_meets_the_limit(): void
    {
        $in = self::example('power.margin');
        $largest = $this->calc('power.margin', $in)['largestInputTorque_nm'];
        $at = $this->calc('power.margin', ['inputTorque_nm' => $largest] + $in);
        $this->assertRelative($in['limit'], $at['weakest']['margin'], 1e-12);
        $this->assertFalse($this->calc('power.margin', ['inputTorque_nm' => $largest * 1.0001] + $in)['holds']);
        $this->assertTrue($this->calc('power.margin', ['inputTorque_nm' => $largest * 0.9999] + $in)['holds']);
        $none = $this->calc('power.margin', ['inputTorque_nm' => 0] + $in);
        $this->assertArrayNotHasKey('weakest', $none, 'no margin at zero demand');
        $this->assertRelative($largest, $none['largestInputTorque_nm']);
    }

    public function test_drum_speeds_come_from_the_train_and_say_when_a_released_pack_applies_itself(): void
    {
        $out = $this->calc('power.margin', self::example('power.margin'));
        // small sun in fourth turns 2.266667 times as fast as the input (closed form)
        $small = array_values(array_filter($out['memberSpeeds'], fn (array $m): bool => $m['node'] === 'small'))[0];
        $this->assertRelative((34 / 15) * 5500, $small['rpm']['4']);
        $this->assertSame(['4', false], [$small['gear'], $small['backwards']]);
        $large = array_values(array_filter($out['memberSpeeds'], fn (array $m): bool => $m['node'] === 'large'))[0];
        $this->assertTrue($large['backwards'], 'the large sun turns backwards in first');
        $c3 = array_values(
            array_filter($out['released'], fn (array $r): bool => $r['element'] === 'C3' && $r['gear'] === '1'),
        )[0];
        $this->assertTrue($c3['selfApplies']);
        $slower = $this->calc(
            'power.margin',
            ['inputSpeed_rpm' => $c3['selfApplyInputSpeed_rpm'] * 0.999] + self::example('power.margin'),
        );
        $this->assertSame(
            [],
            array_filter($slower['selfApplying'], fn (array $r): bool => $r['element'] === 'C3' && $r['gear'] === '1'),
        );
    }

    public function test_changes_are_ranked_by_what_they_allow(): void
    {
        $out = $this->calc('power.margin', self::example('power.margin'));
        $torques = array_column($out['changes'], 'largestInputTorque_nm');
        $sorted = $torques;
        rsort($sorted);
        $this->assertSame($sorted, $torques);
        $this->assertSame(
            0.0,
            (float) $out['changes'][1]['gain_nm'],
            'a plate in a pack that is not the weakest gains nothing',
        );
    }

    public function test_bad_power_input(): void
    {
        $in = self::example('power.margin');
        $this->assertRefused(
            'power.margin',
            ['capacities' => ['C9' => ['kind' => 'fixed', 'torque_nm' => 1]]] + $in,
            'unknown-element',
            '/capacities/C9',
        );
        $this->assertRefused('power.margin', ['pressure_kpa' => ['9' => 1]] + $in, 'unknown-gear', '/pressure_kpa/9');
        $this->assertRefused('power.margin', ['pressure_kpa' => ['1' => 900]] + $in, 'missing', '/pressure_kpa/2');
        $in['capacities']['C1']['mu'] = null;
        $this->assertRefused('power.margin', $in, 'type', '/capacities/C1/mu');
        $this->assertSame(
            [['gear' => '1', 'element' => 'F1']],
            $this->calc(
                'power.margin',
                ['capacities' => array_diff_key(self::example('power.margin')['capacities'], ['F1' => 0])] +
                    self::example('power.margin'),
            )['unknown'],
            'an element nobody described is named, not guessed',
        );
    }

    /** @return array{list<array<string, mixed>>, list<string>, list<list<string>>} options, wanted, oneOf */
    private static function randomCatalog(int $n, int $rules): array
    {
        $options = [];
        for ($i = 0; $i < $n; $i++) {
            $options[$i] = [
                'code' => "o$i",
                'price' => mt_rand(0, 400) / 4,
                'requires' => [],
                'requiresAny' => [],
                'excludes' => [],
            ];
        }
        for ($k = 0; $k < $rules; $k++) {
            $a = mt_rand(0, $n - 2);
            // requirements point to later options only: no circles
            $later = fn (): string => 'o'.mt_rand($a + 1, $n - 1);
            match (mt_rand(0, 3)) {
                0, 1 => ($options[$a]['requires'][] = $later()),
                2 => ($options[$a]['requiresAny'][] = array_values(array_unique([$later(), $later(), $later()]))),
                3 => ($options[$a]['excludes'][] = $later()),
            };
        }
        $wanted = array_values(
            array_unique(array_map(fn (): string => 'o'.mt_rand(0, $n - 1), range(1, mt_rand(1, 3)))),
        );

        return [$options, $wanted, mt_rand(0, 1) === 1 ? [['o'.($n - 1), 'o'.($n - 2), 'o'.($n - 3)]] : []];
    }

    /** The same problem as a 0/1 program for GLPK; null when infeasible. */
    private static function glpk(array $options, array $wanted, array $oneOf): ?float
    {
        $rows = [];
        foreach ($options as $o) {
            foreach ($o['requires'] as $b) {
                $rows[] = "{$o['code']} - $b <= 0";
            }
            foreach ($o['requiresAny'] as $any) {
                $rows[] = $o['code'].' - '.implode(' - ', $any).' <= 0';
            }
            foreach ($o['excludes'] as $b) {
                $rows[] = "{$o['code']} + $b <= 1";
            }
        }
        foreach ($oneOf as $group) {
            $rows[] = implode(' + ', $group).' = 1';
        }
        foreach ($wanted as $w) {
            $rows[] = "$w = 1";
        }
        $lp =
            "Minimize\n cost: ".
            implode(' + ', array_map(fn (array $o): string => "{$o['price']} {$o['code']}", $options)).
            "\nSubject To\n ".
            implode("\n ", $rows).
            "\nBinary\n ".
            implode(' ', array_column($options, 'code')).
            "\nEnd\n";
        $file = (string) tempnam(sys_get_temp_dir(), 'mip');
        file_put_contents($file, $lp);
        shell_exec("glpsol --lp $file -o $file.out 2>/dev/null");
        $report = (string) file_get_contents("$file.out");
        array_map(unlink(...), [$file, "$file.out"]);

        return preg_match('/Status:\s+INTEGER OPTIMAL/', $report) === 1 &&
            preg_match('/Objective:\s+cost = (\S+)/', $report, $m) === 1
            ? (float) $m[1]
            : null;
    }

    public function test_two_hundred_random_catalogs_have_the_optimum_glpk_finds(): void
    {
        if (trim((string) shell_exec('command -v glpsol')) === '') {
            $this->markTestSkipped('GLPK is not installed.');
        }
        mt_srand(4);
        $conflicts = 0;
        for ($case = 0; $case < 200; $case++) {
            [$options, $wanted, $oneOf] = self::randomCatalog(mt_rand(6, 24), mt_rand(5, 45));
            $ours = $this->calc('package.resolve', ['options' => $options, 'wanted' => $wanted, 'oneOf' => $oneOf]);
            $theirs = self::glpk($options, $wanted, $oneOf);
            $this->assertSame($theirs !== null, $ours['status'] === 'ok', "case $case");
            if ($theirs !== null) {
                $this->assertEqualsWithDelta($theirs, $ours['cheapest']['cost'], 1e-6, "case $case");
                self::assertHolds($options, $ours['chosen'], $wanted, $oneOf);
            } else {
                $conflicts++;
                // the clash itself cannot hold, and every smaller set of wishes can
                $clash = $ours['conflicts'][0]['options'];
                $this->assertNull(self::glpk($options, $clash, $oneOf), "case $case");
                foreach ($clash as $w) {
                    $this->assertNotNull(
                        self::glpk($options, array_values(array_diff($clash, [$w])), $oneOf),
                        "case $case without $w",
                    );
                }
            }
        }
        $this->assertGreaterThan(10, $conflicts, 'both kinds were met');
    }

    private static function assertHolds(array $options, array $chosen, array $wanted, array $oneOf): void
    {
        self::assertSame([], array_diff($wanted, $chosen));
        foreach ($options as $o) {
            if (in_array($o['code'], $chosen, true)) {
                self::assertSame([], array_diff($o['requires'], $chosen));
                self::assertSame([], array_intersect($o['excludes'], $chosen));
                foreach ($o['requiresAny'] as $any) {
                    self::assertNotSame([], array_intersect($any, $chosen));
                }
            }
        }
        foreach ($oneOf as $group) {
            self::assertCount(1, array_intersect($group, $chosen));
        }
    }

    public function test_with_margins_the_optimum_is_that_of_trying_everything(): void
    {
        $power = self::example('package.resolve')['power'];
        mt_srand(21);
        $found = $clashes = 0;
        for ($case = 0; $case < 40; $case++) {
            $power['inputTorque_nm'] = mt_rand(250, 620);
            $options = [];
            foreach (['C1', 'C3', 'B2', 'F1'] as $i => $element) {
                for ($k = 0; $k < 2; $k++) {
                    $capacity = $power['capacities'][$element];
                    match ($capacity['kind']) {
                        'clutch' => ($capacity['frictionFaces'] += 2 * mt_rand(-1, 3)),
                        'band' => ($capacity['wrap_deg'] += mt_rand(-20, 200)),
                        default => ($capacity['torque_nm'] *= mt_rand(90, 220) / 100),
                    };
                    $options[] = [
                        'code' => "$element-$k",
                        'price' => mt_rand(20, 300),
                        'excludes' => $k === 0 ? [] : ["$element-0"],
                        'power' => ['capacities' => [$element => $capacity]],
                        'requires' => [],
                        'requiresAny' => [],
                    ];
                }
            }
            $options[] = [
                'code' => 'pressure',
                'price' => mt_rand(20, 200),
                'requires' => ['restrictor'],
                'power' => ['pressureFactor' => mt_rand(95, 160) / 100],
                'excludes' => [],
                'requiresAny' => [],
            ];
            $options[] = [
                'code' => 'restrictor',
                'price' => 12,
                'requires' => [],
                'excludes' => [],
                'requiresAny' => [],
            ];
            $out = $this->calc('package.resolve', ['options' => $options, 'power' => $power]);
            $best = null;
            for ($mask = 0; $mask < 1 << count($options); $mask++) {
                $chosen = array_values(
                    array_filter($options, fn (int $i): bool => (($mask >> $i) & 1) === 1, ARRAY_FILTER_USE_KEY),
                );
                $codes = array_column($chosen, 'code');
                $cost = array_sum(array_column($chosen, 'price'));
                if (
                    ($best !== null && $cost >= $best) ||
                    array_filter(
                        $chosen,
                        fn (array $o): bool => array_diff($o['requires'], $codes) !== [] ||
                            array_intersect($o['excludes'], $codes) !== [],
                    ) !== []
                ) {
                    continue;
                }
                $in = $power;
                $factor = 1.0;
                foreach ($chosen as $o) {
                    $in['capacities'] = array_replace($in['capacities'], $o['power']['capacities'] ?? []);
                    $factor *= $o['power']['pressureFactor'] ?? 1.0;
                }
                $in['pressure_kpa'] = array_map(
                    fn (float $p): float => $p * $factor,
                    array_map(floatval(...), $in['pressure_kpa']),
                );
                $this->calc('power.margin', $in)['holds'] && ($best = $cost);
            }
            $this->assertSame($best !== null, $out['status'] === 'ok', "case $case");
            if ($best === null) {
                $clashes++;
                $this->assertSame('margin', $out['conflicts'][0]['rule']);
                $this->assertStringContainsString('must carry', $out['conflicts'][0]['explain']);
            } else {
                $found++;
                $this->assertEqualsWithDelta($best, $out['cheapest']['cost'], 1e-9, "case $case");
                $this->assertTrue($out['margins']['holds']);
            }
        }
        $this->assertGreaterThan(5, $found);
    }

    public function test_reasons_are_given_in_a_sentence_each(): void
    {
        $in = self::example('package.resolve');
        $out = $this->calc('package.resolve', $in);
        $this->assertSame(['deep-pan', 'long-filter'], $out['chosen']);
        $this->assertStringContainsString('does not reach the floor', $out['added'][0]['because']);
        $this->assertSame('pan-stock', $out['removed'][0]['option']);
        $this->assertSame(
            [['part' => 'PN-31', 'count' => 1], ['part' => 'FL-21', 'count' => 1]],
            $out['bom'],
            'the long filter leaves the short one out',
        );
        $this->assertRelative(10.4, $out['fluid_l']);
        // what one more option would do is what power.margin says of the same hardware
        $five = $this->calc('package.resolve', ['wanted' => ['deep-pan', 'c3-five']] + $in)['margins'][
            'largestInputTorque_nm'
        ];
        $this->assertEqualsWithDelta(
            $five,
            array_column($out['sensitivity'], 'largestInputTorque_nm', 'option')['c3-five'],
            1e-9,
        );
        $clash = $this->calc('package.resolve', ['wanted' => ['deep-pan', 'pan-stock']] + $in);
        $this->assertSame(
            ['conflict', ['deep-pan', 'pan-stock']],
            [$clash['status'], $clash['conflicts'][0]['options']],
        );
        $this->assertStringContainsString('cannot be in one unit', $clash['conflicts'][0]['explain']);
        $this->assertSame(['deep-pan', 'pan-stock'], array_column($clash['alternatives'], 'without'));
        // a clash over two rules is told in their order
        $options = [
            ['code' => 'a', 'name' => 'Bearing shell', 'price' => 1, 'requires' => ['b']],
            ['code' => 'b', 'name' => 'Bearing', 'price' => 1, 'excludes' => ['c']],
            ['code' => 'c', 'name' => 'Washer', 'price' => 1],
        ];
        $this->assertSame(
            '"Bearing shell" needs "Bearing". "Bearing" and "Washer" cannot be in one unit.',
            $this->calc('package.resolve', ['options' => $options, 'wanted' => ['a', 'c']])['conflicts'][0][
                'explain'
            ],
        );
        // variant and duty
        $only = [
            ['code' => 'late', 'name' => 'Late drum', 'price' => 1, 'variantOnly' => ['V2']],
            ['code' => 'race', 'name' => 'Two flats for the wave plate', 'price' => 1, 'dutyOnly' => ['race']],
        ];
        $this->assertStringContainsString(
            'only for the variant V2, not for V1',
            $this->calc('package.resolve', [
                'options' => $only,
                'variant' => 'V1',
                'duty' => 'race',
                'wanted' => ['late'],
            ])['conflicts'][0]['explain'],
        );
        $this->assertSame(
            ['race'],
            array_column(
                $this->calc('package.resolve', ['options' => $only, 'variant' => 'V2', 'duty' => 'tow'])['forbidden'],
                'option',
            ),
        );
    }

    public function test_bad_catalogs_are_refused_in_one_sentence(): void
    {
        $o = fn (string $code, array $more = []): array => ['code' => $code, 'price' => 1] + $more;
        $this->assertRefused(
            'package.resolve',
            ['options' => [$o('a', ['requires' => ['b']])]],
            'unknown-option',
            '/options/0/requires/0',
        );
        $this->assertRefused(
            'package.resolve',
            ['options' => [$o('a')], 'wanted' => ['z']],
            'unknown-option',
            '/wanted/0',
        );
        $circle = $this->assertRefused(
            'package.resolve',
            [
                'options' => [
                    $o('a', ['requires' => ['b']]),
                    $o('b', ['requires' => ['c']]),
                    $o('c', ['requires' => ['a']]),
                ],
            ],
            'cycle',
            '/options',
        );
        $this->assertSame('The requirements run in a circle: a needs b needs c needs a.', $circle->getMessage());
        $this->assertRefused(
            'package.resolve',
            ['options' => [$o('a', ['excludes' => ['a']])]],
            'self',
            '/options/0/excludes/0',
        );
        $this->assertRefused('package.resolve', ['options' => [$o('a'), $o('a')]], 'duplicate', '/options/1/code');
        $this->assertRefused(
            'package.resolve',
            ['options' => [['code' => 'a', 'price' => -3]]],
            'range',
            '/options/0/price',
        );
    }

    public function test_the_heat_of_a_shift_closes_with_the_power_that_goes_in(): void
    {
        $in = self::example('shift.energy');
        $out = $this->calc('shift.energy', $in);
        $this->assertSame(
            [['1', '2'], ['2', '3'], ['3', '4']],
            array_map(fn (array $s): array => [$s['from'], $s['to']], $out['shifts']),
        );
        $this->assertSame([['B2'], ['F1']], [$out['shifts'][0]['on'], $out['shifts'][0]['off']]);
        foreach ($out['shifts'] as $i => $shift) {
            // Energy balance over the shift: engine work + kinetic energy of the slowing input - work at the output =
            // heat, with a constant output torque of the new ratio times (input + inertia torque).
            $gears = array_column(
                \Yard\Core\Calculator\Calculators::call(
                    'geartrain.solve',
                    array_intersect_key($in, array_flip(['input', 'output', 'sets', 'elements', 'gears'])),
                )['gears'],
                null,
                'name',
            );
            [$old, $new] = [$gears[$shift['from']]['ratio'], $gears[$shift['to']]['ratio']];
            $w1 = ($in['inputSpeed_rpm'] * M_PI) / 30;
            $w2 = ($w1 * $new) / $old;
            $engine = (($in['inputTorque_nm'] * ($w1 + $w2)) / 2) * $in['shiftTime_s'];
            $kinetic = 0.5 * $in['inputInertia_kgm2'] * ($w1 ** 2 - $w2 ** 2);
            $output =
                (($new * ($in['inputTorque_nm'] + $shift['inertiaTorque_nm']) * $w1) / $old) * $in['shiftTime_s'];
            $this->assertRelative(
                $engine + $kinetic - $output,
                array_sum(array_column($shift['elements'], 'energy_j')),
                1e-9,
                "shift $i",
            );
        }
        $this->assertRefused('shift.energy', ['shiftTime_s' => 0] + $in, 'range', '/shiftTime_s');
    }

    public function test_the_torques_of_every_set_add_up_to_nothing(): void
    {
        $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'), true);
        foreach ($pack['families'] as $family) {
            foreach ($this->calc('geartrain.solve', $family['train'])['gears'] as $gear) {
                foreach ($gear['setTorque'] as $id => $torque) {
                    $this->assertEqualsWithDelta(
                        0.0,
                        array_sum($torque),
                        1e-9,
                        "{$family['code']} {$gear['name']} $id",
                    );
                }
            }
        }
    }
}
