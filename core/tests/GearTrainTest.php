<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Willis equation: R. Willis, Principles of Mechanism, 1841; Shigley's Mechanical Engineering Design, ch. 13, and
 * Norton, Design of Machinery, ch. 9 (worked examples, from memory of the printed books). Expected fractions are exact.
 */
final class GearTrainTest extends CoreTestCase
{
    private static function set(
        string $id,
        string $kind,
        string $sun,
        string $ring,
        string $carrier,
        int $s,
        int $r,
        array $more = [],
    ): array {
        return [
            'id' => $id,
            'kind' => $kind,
            'sun' => $sun,
            'ring' => $ring,
            'carrier' => $carrier,
            'sunTeeth' => $s,
            'ringTeeth' => $r,
        ] + $more;
    }

    private static function clutch(string $id, string $a, string $b): array
    {
        return ['id' => $id, 'kind' => 'clutch', 'a' => $a, 'b' => $b];
    }

    private static function brake(string $id, string $a): array
    {
        return ['id' => $id, 'kind' => 'brake', 'a' => $a, 'b' => 'case'];
    }

    /** @return array{array<string, mixed>, array<string, array<string, mixed>>} whole result, gears by name */
    private function solve(array $train, array $chart): array
    {
        $gears = [];
        foreach ($chart as $name => $applied) {
            $gears[] = ['name' => (string) $name, 'applied' => $applied];
        }
        $out = $this->calc('geartrain.solve', $train + ['gears' => $gears]);
        $this->assertBalanced($train, $chart, $out['gears']);

        return [$out, array_column($out['gears'], null, 'name')];
    }

    /** Torque and power balance of every driven gear, an invariant independent of any table. */
    private function assertBalanced(array $train, array $chart, array $gears): void
    {
        $elements = array_column($train['elements'], null, 'id');
        foreach ($gears as $gear) {
            if ($gear['state'] !== 'driven' || count($gear['elementTorque']) !== count($chart[$gear['name']])) {
                continue;
            }
            $sum = 1.0 - $gear['outputTorque'];
            $power = 1.0 - $gear['outputTorque'] * $gear['speeds'][$train['output']];
            foreach ($gear['elementTorque'] as $id => $torque) {
                $sum += $elements[$id]['b'] === 'case' ? $torque : ($elements[$id]['a'] === 'case' ? -$torque : 0.0);
            }
            if (in_array('case', array_column($train['sets'], 'sun'), true)) {
                continue; // a member fixed in the case reacts there without an element
            }
            $this->assertEqualsWithDelta(0.0, $sum, 1e-9, "torque balance in gear {$gear['name']}");
            $this->assertEqualsWithDelta(0.0, $power, 1e-9, "power balance in gear {$gear['name']}");
            $this->assertEqualsWithDelta($gear['ratio'], $gear['outputTorque'], 1e-9);
        }
    }

    public static function singleSets(): array
    {
        // held, in, out => exact ratio; teeth 30/72 simple and 38/82 double
        return [
            ['simple', 30, 72, 'r', 's', 'c', 17 / 5],
            ['simple', 30, 72, 'r', 'c', 's', 5 / 17],
            ['simple', 30, 72, 's', 'c', 'r', 12 / 17],
            ['simple', 30, 72, 's', 'r', 'c', 17 / 12],
            ['simple', 30, 72, 'c', 's', 'r', -12 / 5],
            ['simple', 30, 72, 'c', 'r', 's', -5 / 12],
            ['simple', 34, 78, 'r', 's', 'c', 56 / 17],
            ['simple', 34, 78, 'c', 's', 'r', -39 / 17],
            ['double', 38, 82, 'r', 's', 'c', -22 / 19],
            ['double', 38, 82, 'r', 'c', 's', -19 / 22],
            ['double', 38, 82, 's', 'c', 'r', 41 / 22],
            ['double', 38, 82, 's', 'r', 'c', 22 / 41],
            ['double', 38, 82, 'c', 's', 'r', 41 / 19],
            ['double', 38, 82, 'c', 'r', 's', 19 / 41],
        ];
    }

    #[DataProvider('singleSets')]
    public function test_six_ways_to_use_one_set(
        string $kind,
        int $s,
        int $r,
        string $held,
        string $in,
        string $out,
        float $ratio,
    ): void {
        [, $gears] = $this->solve(
            [
                'input' => $in,
                'output' => $out,
                'sets' => [self::set('P', $kind, 's', 'r', 'c', $s, $r)],
                'elements' => [self::brake('B', $held)],
            ],
            ['g' => ['B']],
        );
        $this->assertRelative($ratio, $gears['g']['ratio']);
        $this->assertRelative($ratio - 1.0, $gears['g']['elementTorque']['B']);
    }

    public function test_printed_textbook_example_sun_planet_ring(): void
    {
        // Shigley, planetary example: 20/30/80 teeth, sun -100 rev/min, ring held: arm -20, planet 33 1/3 rev/min.
        [, $gears] = $this->solve(
            [
                'input' => 's',
                'output' => 'c',
                'sets' => [self::set('P', 'simple', 's', 'r', 'c', 20, 80, ['planetTeeth' => 30])],
                'elements' => [self::brake('B', 'r')],
            ],
            ['g' => ['B']],
        );
        $this->assertRelative(-20.0, -100.0 * $gears['g']['speeds']['c']);
        $this->assertRelative(100 / 3, -100.0 * ($gears['g']['speeds']['c'] + $gears['g']['pinionSpeeds']['P']));
    }

    private static function ravigneaux(): array
    {
        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [
                self::set('PL', 'simple', 'large', 'out', 'carrier', 38, 74, ['planetTeeth' => 18, 'planets' => 4]),
                self::set('PS', 'double', 'small', 'out', 'carrier', 30, 74, [
                    'planetTeeth' => [16, 18],
                    'planets' => 4,
                ]),
            ],
            'elements' => [
                self::clutch('C1', 'in', 'small'),
                self::clutch('C2', 'in', 'large'),
                self::clutch('C3', 'in', 'carrier'),
                self::brake('B1', 'carrier'),
                self::brake('B2', 'large'),
                ['id' => 'F1', 'kind' => 'one-way', 'a' => 'carrier', 'b' => 'case', 'locks' => 'negative'],
            ],
        ];
    }

    public function test_ravigneaux_ratios_speeds_and_torques(): void
    {
        [$out, $g] = $this->solve(self::ravigneaux(), [
            '1' => ['C1', 'F1'],
            '2' => ['C1', 'B2'],
            '3' => ['C1', 'C3'],
            '4' => ['C3', 'B2'],
            'R' => ['C2', 'B1'],
        ]);
        foreach (['1' => 37 / 15, '2' => 629 / 420, '3' => 1.0, '4' => 37 / 56, 'R' => -37 / 19] as $gear => $ratio) {
            $this->assertRelative($ratio, $g[$gear]['ratio'], 1e-9, "gear $gear");
        }
        $this->assertRelative(-0.789473684210526, $g['1']['speeds']['large']);
        $this->assertRelative(2.266666666666667, $g['4']['speeds']['small']);
        $this->assertRelative(0.497619047619048, $g['2']['elementTorque']['B2']);
        $this->assertRelative(-0.339285714285714, $g['4']['elementTorque']['B2']);
        $this->assertRelative(-15 / 37, $g['3']['elementTorque']['C1']);
        $this->assertTrue($g['1']['oneWayConsistent']['F1']);
        $this->assertRelative(37 / 15 / (37 / 56), $out['spread']);
        $this->assertCount(3, $out['step']);
        $this->assertSame([], $out['warnings']);
    }

    public function test_simpson_ratios(): void
    {
        // closed forms: i1 = ((S1+R1) + S1 R2/S2)/R1, i2 = 1 + S1/R1, iR = -R2/S2
        [, $g] = $this->solve(
            [
                'input' => 'in',
                'output' => 'out',
                'sets' => [
                    self::set('P1', 'simple', 'sun', 'ring1', 'out', 34, 74),
                    self::set('P2', 'simple', 'sun', 'out', 'c2', 28, 68),
                ],
                'elements' => [
                    self::clutch('C1', 'in', 'ring1'),
                    self::clutch('C2', 'in', 'sun'),
                    self::brake('B1', 'c2'),
                    self::brake('B2', 'sun'),
                ],
            ],
            ['1' => ['C1', 'B1'], '2' => ['C1', 'B2'], '3' => ['C1', 'C2'], 'R' => ['C2', 'B1']],
        );
        $this->assertRelative(667 / 259, $g['1']['ratio']);
        $this->assertRelative(54 / 37, $g['2']['ratio']);
        $this->assertRelative(-17 / 7, $g['R']['ratio']);
        $this->assertRelative(-0.685185185185185, $g['3']['elementTorque']['C1']);
        $this->assertRelative(-3.42857142857143, $g['R']['elementTorque']['B1']);
    }

    public function test_lepelletier_six_speed(): void
    {
        // Printed ratios for this tooth set, from memory: 4.171 2.340 1.521 1.143 0.867 0.691 R -3.403.
        [$out, $g] = $this->solve(
            [
                'input' => 'in',
                'output' => 'out',
                'sets' => [
                    self::set('PF', 'simple', 'case', 'in', 'fc', 37, 71),
                    self::set('PL', 'simple', 'large', 'out', 'carrier', 38, 85),
                    self::set('PS', 'double', 'small', 'out', 'carrier', 31, 85),
                ],
                'elements' => [
                    self::clutch('A', 'fc', 'small'),
                    self::clutch('B', 'fc', 'large'),
                    self::clutch('E', 'in', 'carrier'),
                    self::brake('C', 'large'),
                    self::brake('D', 'carrier'),
                ],
            ],
            [
                '1' => ['A', 'D'],
                '2' => ['A', 'C'],
                '3' => ['A', 'B'],
                '4' => ['A', 'E'],
                '5' => ['B', 'E'],
                '6' => ['C', 'E'],
                'R' => ['B', 'D'],
            ],
        );
        foreach (
            [
                '1' => 9180 / 2201,
                '2' => 211140 / 90241,
                '3' => 108 / 71,
                '4' => 9180 / 8033,
                '5' => 4590 / 5293,
                '6' => 85 / 123,
                'R' => -4590 / 1349,
            ] as $gear => $ratio
        ) {
            $this->assertRelative($ratio, $g[$gear]['ratio'], 1e-9, "gear $gear");
        }
        $this->assertRelative(1.2548649159267, $g['5']['elementTorque']['E'] * -1, 1e-6);
        $this->assertRelative(6.03543, $out['spread'], 1e-5);
    }

    public function test_coupled_carrier_four_speed(): void
    {
        [, $g] = $this->solve(
            [
                'input' => 'in',
                'output' => 'out',
                'sets' => [
                    self::set('P1', 'simple', 's1', 'y', 'out', 35, 73),
                    self::set('P2', 'simple', 's2', 'out', 'y', 32, 76),
                ],
                'elements' => [
                    self::clutch('C1', 'in', 's1'),
                    self::clutch('C2', 'in', 'y'),
                    self::clutch('C3', 'in', 's2'),
                    self::brake('B1', 'y'),
                    self::brake('B2', 's2'),
                ],
            ],
            ['1' => ['C1', 'B1'], '2' => ['C1', 'B2'], '3' => ['C1', 'C2'], '4' => ['C2', 'B2'], 'R' => ['C3', 'B1']],
        );
        foreach (
            ['1' => 108 / 35, '2' => 1529 / 945, '3' => 1.0, '4' => 19 / 27, 'R' => -19 / 8] as $gear => $ratio
        ) {
            $this->assertRelative($ratio, $g[$gear]['ratio'], 1e-9, "gear $gear");
        }
    }

    public function test_neutral_held_locked_and_redundant_states(): void
    {
        [, $g] = $this->solve(self::ravigneaux(), [
            'n1' => ['C1'],
            'n2' => ['B1'],
            't1' => ['C1', 'B1', 'B2'],
            't2' => ['C1', 'C2', 'B1'],
            't3' => ['C1', 'C3', 'B2'],
            'd' => ['C1', 'C2', 'C3'],
        ]);
        foreach (
            [
                'n1' => 'neutral',
                'n2' => 'neutral',
                't1' => 'locked',
                't2' => 'locked',
                't3' => 'locked',
                'd' => 'driven',
            ] as $gear => $state
        ) {
            $this->assertSame($state, $g[$gear]['state'], $gear);
        }
        $this->assertNull($g['t1']['ratio']);
        $this->assertSame([], $g['d']['elementTorque'], 'the split between redundant clutches is not determined');
        $this->assertRelative(1.0, $g['d']['outputTorque']);
        $train = self::ravigneaux();
        $train['elements'][] = self::brake('PARK', 'out');
        [, $g] = $this->solve($train, ['P' => ['PARK']]);
        $this->assertSame('held', $g['P']['state']);
        $this->assertNull($g['P']['ratio']);
    }

    public function test_one_way_clutches(): void
    {
        $train = self::ravigneaux();
        [, $g] = $this->solve($train, ['R' => ['C2', 'F1']]);
        $this->assertFalse($g['R']['oneWayConsistent']['F1'], 'in reverse the carrier reaction has the other sign');
        $train['elements'][5]['locks'] = 'positive';
        [$out] = $this->solve($train, ['2' => ['C1', 'B2']]);
        $this->assertSame(['one-way-would-lock'], array_column($out['warnings'], 'code'));
    }

    public function test_geometry_warnings(): void
    {
        // Assembly conditions as in Mueller, Epicyclic Drive Trains, 1982 (from memory).
        $codes = fn (string $kind, int $s, int|array|null $p, int $r, int $n): array => array_column(
            $this->calc('geartrain.solve', [
                'input' => 's',
                'output' => 'c',
                'elements' => [],
                'gears' => [],
                'sets' => [
                    self::set(
                        'P',
                        $kind,
                        's',
                        'r',
                        'c',
                        $s,
                        $r,
                        ['planets' => $n] + ($p === null ? [] : ['planetTeeth' => $p]),
                    ),
                ],
            ])['warnings'],
            'code',
        );
        $this->assertSame([], $codes('simple', 30, 21, 72, 3));
        $this->assertSame(['assembly-condition'], $codes('simple', 30, 21, 72, 4));
        $this->assertSame(['planet-teeth'], $codes('simple', 38, 23, 85, 3));
        $this->assertSame(['planet-clearance'], $codes('simple', 20, 30, 80, 5));
        $this->assertSame([], $codes('double', 31, null, 85, 3));
        $this->assertSame(['assembly-condition'], $codes('double', 31, null, 85, 4));
    }

    public function test_renaming_shafts_and_reordering_changes_nothing(): void
    {
        $chart = ['1' => ['C1', 'B1'], '2' => ['C1', 'B2'], '4' => ['C3', 'B2'], 'R' => ['C2', 'B1']];
        [, $a] = $this->solve(self::ravigneaux(), $chart);
        $text = strtr((string) json_encode(self::ravigneaux()), [
            '"small"' => '"7"',
            '"carrier":"carrier"' => '"carrier":"Ä x"',
            '"a":"carrier"' => '"a":"Ä x"',
            '"b":"carrier"' => '"b":"Ä x"',
        ]);
        $renamed = json_decode($text, true);
        $renamed['sets'] = array_reverse($renamed['sets']);
        $renamed['elements'] = array_reverse($renamed['elements']);
        [, $b] = $this->solve($renamed, $chart);
        foreach (array_keys($chart) as $gear) {
            $this->assertRelative($a[$gear]['ratio'], $b[$gear]['ratio'], 1e-12);
        }
    }

    public static function broken(): array
    {
        return [
            [fn (array &$t) => ($t['sets'][0]['sunTeeth'] = 0), 'range', '/sets/0/sunTeeth'],
            [fn (array &$t) => ($t['sets'][0]['ringTeeth'] = 20), 'teeth', '/sets/0/ringTeeth'],
            [fn (array &$t) => ($t['sets'][0]['ring'] = 'large'), 'self-loop', '/sets/0'],
            [fn (array &$t) => ($t['elements'][0]['b'] = 'in'), 'self-loop', '/elements/0'],
            [fn (array &$t) => ($t['elements'][3]['b'] = 'large'), 'brake', '/elements/3'],
            [fn (array &$t) => ($t['gears'][0]['applied'] = ['C9']), 'unknown-element', '/gears/0/applied/0'],
            [fn (array &$t) => ($t['output'] = 'nowhere'), 'unknown-node', '/output'],
            [fn (array &$t) => ($t['input'] = 'case'), 'case', '/input'],
            [fn (array &$t) => ($t['elements'][1]['id'] = 'C1'), 'duplicate', '/elements/1/id'],
            [fn (array &$t) => ($t['sets'][1]['planetTeeth'] = [16]), 'teeth', '/sets/1/planetTeeth'],
            [fn (array &$t) => ($t['sets'][0]['kind'] = 'triple'), 'choice', '/sets/0/kind'],
            [fn (array &$t) => ($t['sets'][0]['sunTeeth'] = 30.5), 'type', '/sets/0/sunTeeth'],
            [fn (array &$t) => ($t['elements'][0]['locks'] = 'negative'), 'locks', '/elements/0/locks'],
        ];
    }

    #[DataProvider('broken')]
    public function test_bad_trains_are_refused_in_one_sentence(callable $break, string $code, string $path): void
    {
        $train = self::ravigneaux() + ['gears' => [['name' => '1', 'applied' => ['C1', 'B1']]]];
        $break($train);
        $this->assertRefused('geartrain.solve', $train, $code, $path);
    }
}
