<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\BadInput;

/** Rules of packages as builders know them; the examples are common practice, no source. */
final class PackageRulesTest extends CoreTestCase
{
    /**
     * @param  array<string, array<string, mixed>>  $rules
     * @param  array<string, mixed>  $order
     * @return array<string, mixed>
     */
    private function resolve(array $rules, array $order): array
    {
        return $this->calc(
            'package.resolve',
            [
                'options' => array_map(
                    fn (string $code, array $rule): array => $rule + [
                        'code' => $code,
                        'price' => 10,
                        'why' => "why $code.",
                    ],
                    array_keys($rules),
                    $rules,
                ),
            ] + $order,
        );
    }

    public function test_what_is_required_comes_along_through_any_number_of_steps(): void
    {
        $out = $this->resolve(
            [
                'raised pressure' => ['requires' => ['restrictor']],
                'restrictor' => ['requires' => ['plug']],
                'plug' => [],
            ],
            ['wanted' => ['raised pressure']],
        );
        $this->assertSame(['raised pressure', 'restrictor', 'plug'], $out['chosen']);
        $this->assertSame('"raised pressure" needs "restrictor": why restrictor.', $out['added'][0]['because']);
    }

    public function test_two_that_travel_together_are_a_pair_not_a_circle(): void
    {
        $this->assertSame(
            ['deep pan', 'long filter'],
            $this->resolve(
                ['deep pan' => ['requires' => ['long filter']], 'long filter' => ['requires' => ['deep pan']]],
                ['wanted' => ['long filter']],
            )['chosen'],
        );
    }

    public function test_a_wish_and_what_it_requires_displace_what_the_package_brings(): void
    {
        $out = $this->resolve(
            [
                'stock spring' => [],
                'servo' => ['requires' => ['wide band']],
                'wide band' => ['excludes' => ['band'], 'why' => 'grips wider'],
                'band' => [],
            ],
            ['package' => ['stock spring', 'band'], 'wanted' => ['servo']],
        );
        $this->assertSame(['stock spring', 'servo', 'wide band'], $out['chosen']);
        $this->assertSame(
            [['option' => 'band', 'because' => '"wide band" and "band" cannot be in one unit: grips wider.']],
            $out['removed'],
        );
    }

    public function test_the_house_list_is_not_displaced_silently(): void
    {
        $out = $this->resolve(
            ['bushings' => [], 'keep old bushings' => ['excludes' => ['bushings']]],
            ['always' => ['bushings'], 'wanted' => ['keep old bushings']],
        );
        $this->assertSame(['conflict', ['keep old bushings']], [$out['status'], $out['conflicts'][0]['options']]);
    }

    public function test_taking_off_what_a_wish_needs_is_a_conflict_and_what_the_package_needs_takes_it_along(): void
    {
        $rules = [
            'raised pressure' => ['requires' => ['restrictor']],
            'restrictor' => ['why' => 'the thrust bearing suffers otherwise'],
        ];
        $out = $this->resolve($rules, ['wanted' => ['raised pressure'], 'unwanted' => ['restrictor']]);
        $this->assertSame('conflict', $out['status']);
        $this->assertStringContainsString('the thrust bearing suffers otherwise', $out['conflicts'][0]['explain']);
        $soft = $this->resolve($rules, [
            'package' => ['raised pressure', 'restrictor'],
            'unwanted' => ['restrictor'],
        ]);
        $this->assertSame([], $soft['chosen']);
        $this->assertStringEndsWith(
            'That was taken off.',
            array_column($soft['removed'], 'because', 'option')['raised pressure'],
        );
    }

    public function test_exactly_one_of_a_group_is_in(): void
    {
        $rules = ['shallow' => ['price' => 0], 'deep' => ['price' => 80]];
        $this->assertSame(
            ['shallow'],
            $this->resolve($rules, ['oneOf' => [['shallow', 'deep']]])['chosen'],
            'the cheapest, when nothing speaks for another',
        );
        $this->assertSame(
            ['deep'],
            $this->resolve($rules, ['oneOf' => [['shallow', 'deep']], 'unwanted' => ['shallow']])['chosen'],
        );
        $this->assertSame(
            'conflict',
            $this->resolve($rules, ['oneOf' => [['shallow', 'deep']], 'wanted' => ['shallow', 'deep']])['status'],
        );
    }

    public function test_only_what_a_wish_or_the_house_keeps_out_is_forbidden(): void
    {
        $rules = [
            'band' => [],
            'wide band' => ['excludes' => ['band']],
            'bushings' => [],
            'old bushings' => ['excludes' => ['bushings']],
            'servo' => ['requires' => ['wide band']],
        ];
        $forbidden = fn (array $order): array => array_column(
            $this->resolve($rules, $order + ['package' => ['band'], 'always' => ['bushings']])['forbidden'],
            'because',
            'option',
        );
        $this->assertSame(
            ['old bushings'],
            array_keys($forbidden([])),
            'the wide band may come: the package gives way',
        );
        $this->assertSame(['wide band', 'old bushings', 'servo'], array_keys($forbidden(['wanted' => ['band']])));
        foreach (['"servo" needs "wide band"', '"wide band" and "band" cannot be in one unit'] as $step) {
            $this->assertStringContainsString($step, $forbidden(['wanted' => ['band']])['servo']);
        }
    }

    public function test_omitted_parts_carry_their_reason(): void
    {
        $order = ['base' => ['parts' => [['part' => 'spacer']]]];
        $rules = ['wide band' => ['omits' => ['spacer'], 'omitWhy' => 'The band drags.']];
        $this->assertSame(
            [['part' => 'spacer', 'because' => 'The band drags.']],
            $this->resolve($rules, $order + ['wanted' => ['wide band']])['omitted'],
        );
        $this->assertSame(
            [[], [['part' => 'spacer', 'count' => 1]]],
            [$this->resolve($rules, $order)['omitted'], $this->resolve($rules, $order)['bom']],
        );
    }

    public function test_the_order_of_wishes_and_of_the_catalog_does_not_change_the_cost(): void
    {
        mt_srand(7);
        for ($case = 0; $case < 40; $case++) {
            $rules = [];
            foreach ($codes = range('a', 'i') as $i => $code) {
                $later = array_slice($codes, $i + 1);
                $pick = fn (): string => $later[mt_rand(0, count($later) - 1)];
                $rules[$code] = [
                    'price' => mt_rand(1, 50),
                    'requires' => $later !== [] && mt_rand(0, 2) === 0 ? [$pick()] : [],
                    'excludes' => $later !== [] && mt_rand(0, 3) === 0 ? [$pick()] : [],
                    'requiresAny' => count($later) > 1 && mt_rand(0, 2) === 0 ? [[$pick(), $pick()]] : [],
                ];
            }
            $one = $this->resolve($rules, ['wanted' => ['a', 'c', 'd']]);
            $two = $this->resolve(array_reverse($rules), ['wanted' => ['d', 'c', 'a']]);
            $this->assertSame(
                [$one['status'], $one['cheapest']['cost'] ?? null],
                [$two['status'], $two['cheapest']['cost'] ?? null],
                (string) json_encode($rules),
            );
        }
    }

    public function test_a_part_that_is_never_left_out_keeps_options_out_that_would(): void
    {
        // load-release springs in a small high-gear clutch: without them it comes on before the band is off (common
        // practice)
        $rules = ['no springs' => ['omits' => ['release springs']], 'solid rings' => []];
        $never = [
            'neverOmit' => [
                [
                    'part' => 'release springs',
                    'why' => 'Without them the high clutch comes on before the band is off.',
                ],
            ],
        ];
        $this->assertSame(['no springs'], $this->resolve($rules, ['wanted' => ['no springs']])['chosen']);
        $out = $this->resolve($rules, $never + ['wanted' => ['no springs']]);
        $this->assertSame(
            [
                'conflict',
                '"no springs" leaves out release springs, which is never left out here: without them the high clutch '
                    .'comes on before the band is off.',
            ],
            [$out['status'], $out['conflicts'][0]['explain']],
        );
        $this->assertSame(['no springs'], array_column($this->resolve($rules, $never)['forbidden'], 'option'));
        $this->assertRefused(
            'package.resolve',
            ['options' => [['code' => 'a', 'price' => 1]], 'neverOmit' => [['part' => 'x']]],
            'missing',
            '/neverOmit/0/why',
        );
    }

    public function test_work_and_checks_come_with_the_options_that_ask_for_them(): void
    {
        $rules = [
            'one plate more' => [
                'operations' => ['Thin the backing plate.'],
                'checks' => ['Measure the clearance anew.'],
            ],
            'pan' => ['checks' => ['Fill by the dipstick.']],
        ];
        $out = $this->resolve($rules, ['wanted' => ['pan', 'one plate more']]);
        $this->assertSame(
            [['Thin the backing plate.'], ['Measure the clearance anew.', 'Fill by the dipstick.']],
            [$out['operations'], $out['checks']],
        );
        $this->assertSame([], $this->resolve($rules, [])['checks']);
    }

    /**
     * @return array<string,
     *     mixed> a train of one gear behind a 400 N.m engine; stall of a converter with K = 105 is 2100
     */
    private static function power(): array
    {
        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [],
            'elements' => [['id' => 'C', 'kind' => 'clutch', 'a' => 'in', 'b' => 'out']],
            'gears' => [['name' => '1', 'applied' => ['C']]],
            'capacities' => ['C' => ['kind' => 'fixed', 'torque_nm' => 800]],
            'pressure_kpa' => 1000,
            'engine' => ['torque_nm' => 400],
            'slipping' => ['1'],
        ];
    }

    public function test_the_converter_is_chosen_with_the_unit(): void
    {
        $converter = fn (string $hub, float $k, float $ratio = 1.8, array $lockup = ['modulated']): array => [
            'converter' => ['hub' => $hub, 'lockup' => $lockup, 'kFactor' => $k, 'stallTorqueRatio' => $ratio],
        ];
        $rules = [
            'stock' => $converter('62 mm', 105) + ['price' => 10],
            'stock late' => $converter('66 mm', 105) + ['price' => 10],
            'tight' => $converter('62 mm', 90) + ['price' => 40],
            'loose' => $converter('62 mm', 140) + ['price' => 50],
            'on-off only' => $converter('62 mm', 100, 1.8, ['on-off']) + ['price' => 5],
        ];
        $order = [
            'oneOf' => [array_keys($rules)],
            'package' => ['stock', 'stock late'],
            'power' => self::power(),
            'converterFit' => [
                'hub' => '62 mm',
                'lockup' => 'modulated',
                'stall_rpm' => ['min' => 1700, 'max' => 2400],
            ],
        ];
        $out = $this->resolve($rules, $order);
        $this->assertSame(
            [['stock'], []],
            [$out['chosen'], $out['removed']],
            'its sister for the other hub is not missed',
        );
        $this->assertRelative(2100.0, $out['converter']['stall_rpm']);
        $because = array_column($out['forbidden'], 'because', 'option');
        $this->assertSame('"stock late" has a hub of 66 mm, and this unit takes 62 mm.', $because['stock late']);
        $this->assertSame(
            '"on-off only" has a lock-up for on-off control, and this unit\'s is modulated.',
            $because['on-off only'],
        );
        $this->assertSame(
            '"loose" does not match: with this engine it stalls at 2800 rev/min, above the 1700 to 2400 rev/min this '
                .'duty wants: it slips and heats the fluid.',
            $because['loose'],
        );
        $late = $this->resolve($rules, ['converterFit' => ['hub' => '66 mm']] + $order);
        $this->assertSame(['stock late'], $late['chosen']);
        $tow = $this->resolve(
            $rules,
            [
                'converterFit' => [
                    'hub' => '62 mm',
                    'lockup' => 'modulated',
                    'stall_rpm' => ['min' => 1500, 'max' => 1900],
                ],
            ] + $order,
        );
        $this->assertSame(['tight'], $tow['chosen'], 'the only one that matches');
        $this->assertStringContainsString('stalls at 2100', $tow['removed'][0]['because']);
        $anyway = $this->resolve($rules, ['enforceMargins' => false, 'wanted' => ['loose']] + $order);
        $this->assertSame(
            [['loose'], false],
            [$anyway['chosen'], $anyway['converter']['fits']],
            'not enforced: told, not refused',
        );
        $none = $this->resolve($rules, ['converterFit' => ['hub' => '70 mm']] + $order);
        $this->assertSame('conflict', $none['status']);
        $this->assertStringContainsString('this unit takes 70 mm', $none['conflicts'][0]['explain']);
        $this->assertArrayNotHasKey('ignored', $none, 'every field is read, whatever was refused first');
        $narrow = $this->resolve(
            $rules,
            [
                'converterFit' => [
                    'hub' => '62 mm',
                    'lockup' => 'modulated',
                    'stall_rpm' => ['min' => 900, 'max' => 1000],
                ],
            ] + $order,
        )['conflicts'][0]['explain'];
        $this->assertStringContainsString('"stock" does not match: with this engine it stalls at 2100', $narrow);
        $this->assertStringNotContainsString(
            '66 mm',
            $narrow,
            'what is made for another unit is not held against this order',
        );
    }

    public function test_a_tighter_converter_can_be_what_holds_first_gear(): void
    {
        // capacity 800: torque ratio 2.2 asks 880 of the clutch, 1.9 asks 760
        $rules = [
            'stock' => ['price' => 0, 'converter' => ['kFactor' => 105, 'stallTorqueRatio' => 2.2]],
            'tight' => ['price' => 90, 'converter' => ['kFactor' => 100, 'stallTorqueRatio' => 1.9]],
        ];
        $out = $this->resolve($rules, [
            'oneOf' => [['stock', 'tight']],
            'package' => ['stock'],
            'power' => self::power(),
        ]);
        $this->assertSame(['tight'], $out['chosen']);
        $this->assertStringContainsString('margin', $out['added'][0]['because']);
        $this->assertRelative(800 / 760, $out['margins']['weakest']['margin']);
        $now = $this->resolve($rules, [
            'oneOf' => [['stock', 'tight']],
            'package' => ['tight'],
            'power' => self::power(),
        ]);
        $this->assertSame('stock', $now['sensitivity'][0]['option']);
        $this->assertRelative(
            800 / 2.2,
            $now['sensitivity'][0]['largestInputTorque_nm'],
            1e-9,
            'the stock one in its place, not beside it',
        );
    }

    public function test_forbidden_is_what_no_choice_can_hold_by_trying_every_choice(): void
    {
        mt_srand(11);
        $deep = 0;
        for ($case = 0; $case < 120; $case++) {
            $codes = range('a', 'h');
            $rules = $either = [];
            foreach ($codes as $i => $code) {
                $other = fn (): string => $codes[($i + mt_rand(1, 7)) % 8];
                $later = array_slice($codes, $i + 1);
                $rules[$code] = [
                    'requires' => $later !== [] && mt_rand(0, 3) === 0 ? [$later[array_rand($later)]] : [],
                    'excludes' => mt_rand(0, 2) === 0 ? [$other()] : [],
                    'requiresAny' => mt_rand(0, 2) === 0 ? [[$other(), $other()]] : [],
                ];
            }
            $order = [
                'wanted' => mt_rand(0, 1) === 1 ? [$codes[mt_rand(0, 7)]] : [],
                'always' => [$codes[mt_rand(0, 7)]],
                'oneOf' => mt_rand(0, 1) === 1 ? [['b', 'e']] : [],
            ];
            $possible = [];
            $any = false;
            for ($bits = 0; $bits < 256; $bits++) {
                $in = array_values(
                    array_filter($codes, fn (string $c): bool => (bool) (($bits >> (ord($c) - 97)) & 1)),
                );
                $holds = array_diff([...$order['wanted'], ...$order['always']], $in) === [];
                foreach ($in as $code) {
                    $holds =
                        $holds &&
                        array_diff($rules[$code]['requires'], $in) === [] &&
                        array_intersect($rules[$code]['excludes'], $in) === [] &&
                        ($rules[$code]['requiresAny'] === [] ||
                            array_intersect($rules[$code]['requiresAny'][0], $in) !== []);
                }
                foreach ($order['oneOf'] as $group) {
                    $holds = $holds && count(array_intersect($group, $in)) === 1;
                }
                if ($holds) {
                    $any = true;
                    $possible += array_flip($in);
                }
            }
            $out = $this->resolve($rules, $order);
            $this->assertSame($any ? 'ok' : 'conflict', $out['status']);
            if ($any) {
                $told = array_column($out['forbidden'], 'option');
                $this->assertSame(
                    array_values(array_diff($codes, array_keys($possible))),
                    $told,
                    (string) json_encode([$rules, $order]),
                );
                $deep += count($told);
            }
        }
        $this->assertGreaterThan(100, $deep, 'the cases had something to find');
    }

    /**
     * Pairs of options that exclude each other all along a ring, each asking for one of two others: many choices that
     * cost nearly the same.
     *
     * @return array<string, array<string, mixed>>
     */
    private static function tangle(int $options, int $seed): array
    {
        mt_srand($seed);
        $rules = [];
        for ($i = 0; $i < $options; $i++) {
            $other = fn (): string => 'o'.(($i + mt_rand(1, $options - 1)) % $options);
            $rules["o$i"] = [
                'price' => 10 + mt_rand(0, 40),
                'excludes' => ['o'.(($i + 1) % $options)],
                'requiresAny' => [[$other(), $other(), $other()]],
            ];
        }

        return $rules;
    }

    public function test_a_search_cut_short_says_so_and_its_bound_is_true(): void
    {
        $cut = 0;
        foreach (range(1, 6) as $seed) {
            $rules = self::tangle(22, $seed);
            $order = ['package' => array_map(fn (int $i): string => "o$i", range(0, 21)), 'rate_per_h' => 0];
            $left = fn (array $out): int => count(array_diff($order['package'], $out['chosen']));
            $whole = $this->resolve($rules, $order + ['effort' => 100]);
            $this->assertTrue($whole['optimal']);
            $this->assertArrayNotHasKey('bound', $whole);
            foreach ([0.001, 0.002, 0.005, 0.02] as $effort) {
                try {
                    $short = $this->resolve($rules, $order + ['effort' => $effort]);
                } catch (BadInput $e) {
                    $this->assertSame('too-large', $e->errorCode);
                    $cut++;

                    continue;
                }
                if ($short['optimal']) {
                    $this->assertSame($whole['price'], $short['price']);
                    $this->assertSame($left($whole), $left($short));

                    continue;
                }
                $cut++;
                $bound = [$short['bound']['packageLeftOut'], $short['bound']['cost']];
                $best = [$left($whole), $whole['price']];
                $this->assertLessThanOrEqual($best, $bound, 'no choice does better than the bound');
                $this->assertGreaterThanOrEqual($best, [$left($short), $short['price']]);
            }
        }
        $this->assertGreaterThan(5, $cut, 'some searches were cut');
    }

    public function test_sixty_options_with_wishes_that_cannot_hold_end_with_a_clash(): void
    {
        $rules = self::tangle(60, 3);
        $out = $this->resolve($rules, ['wanted' => array_map(fn (int $i): string => "o$i", range(0, 40))]);
        $this->assertSame('conflict', $out['status']);
        $this->assertTrue($out['optimal']);
        $this->assertCount(2, $out['conflicts'][0]['options'], 'two neighbours on the ring');

        // Twenty-two wishes that each close one of twenty-two ways: the clash needs them all, and the smaller sets are
        // tried first.
        $rules = ['last' => ['requiresAny' => [array_map(fn (int $i): string => "p$i", range(1, 22))]]];
        foreach (range(1, 22) as $i) {
            $rules["p$i"] = [];
            $rules["w$i"] = ['excludes' => ["p$i"]];
        }
        $wishes = [...array_map(fn (int $i): string => "w$i", range(1, 22)), 'last'];
        $out = $this->resolve($rules, ['wanted' => $wishes]);
        $this->assertSame('conflict', $out['status']);
        $this->assertFalse($out['optimal'], 'not every smaller set of wishes was tried');
        $this->assertCount(23, $out['alternatives'], 'yet none of them can stay when the others do');
    }
}
