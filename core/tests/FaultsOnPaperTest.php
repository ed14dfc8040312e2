<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Broken trains, the overrun and stuck solenoids: what textbooks say of the arrangement, and every combination tried. */
final class FaultsOnPaperTest extends CoreTestCase
{
    /**
     * The three-speed arrangement named after Simpson, both sets 33 and 71 teeth (Naunheimer et al., Automotive
     * Transmissions; ratios 2 + S/R, 1 + S/R, 1, -R/S). The one-way holds the second carrier in first.
     *
     * @return array<string, mixed>
     */
    private static function simpson(): array
    {
        $set = ['kind' => 'simple', 'sun' => 'sun', 'sunTeeth' => 33, 'ringTeeth' => 71];

        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [
                ['id' => 'P1', 'ring' => 'ring1', 'carrier' => 'out'] + $set,
                ['id' => 'P2', 'ring' => 'out', 'carrier' => 'carrier2'] + $set,
            ],
            'elements' => [
                ['id' => 'C1', 'kind' => 'clutch', 'a' => 'in', 'b' => 'ring1'],
                ['id' => 'C2', 'kind' => 'clutch', 'a' => 'in', 'b' => 'sun'],
                ['id' => 'B1', 'kind' => 'brake', 'a' => 'sun', 'b' => 'case'],
                ['id' => 'B2', 'kind' => 'brake', 'a' => 'carrier2', 'b' => 'case'],
                ['id' => 'F1', 'kind' => 'one-way', 'a' => 'carrier2', 'b' => 'case', 'locks' => 'negative'],
            ],
            'gears' => [
                ['name' => '1', 'applied' => ['C1', 'F1']],
                ['name' => '2', 'applied' => ['C1', 'B1']],
                ['name' => '3', 'applied' => ['C1', 'C2']],
                ['name' => 'L', 'applied' => ['C1', 'B2']],
                ['name' => 'R', 'applied' => ['C2', 'B2']],
            ],
        ];
    }

    private const FIRST = 2 + 33 / 71;

    private const SECOND = 1 + 33 / 71;

    private const REVERSE = -71 / 33;

    /** @return array<string, array{list<array{string, string}>, array<string, float|string>, float|string}> */
    public static function brokenSimpsons(): array
    {
        $sound = ['1' => self::FIRST, '2' => self::SECOND, '3' => 1.0, 'L' => self::FIRST, 'R' => self::REVERSE];

        return [
            'sound' => [[], $sound, 'neutral'],
            'second brake dead: first in second' => [[['B1', 'stuck-off']], ['2' => self::FIRST] + $sound, 'neutral'],
            'forward clutch fused: creeps in neutral, no reverse' => [
                [['C1', 'stuck-on']],
                ['R' => 'locked'] + $sound,
                self::FIRST,
            ],
            'forward clutch dead: reverse only' => [
                [['C1', 'stuck-off']],
                ['1' => 'neutral', '2' => 'neutral', '3' => 'neutral', 'L' => 'neutral'] + $sound,
                'neutral',
            ],
            'direct clutch fused: third in first, second ties up' => [
                [['C2', 'stuck-on']],
                ['1' => 1.0, '2' => 'locked', 'L' => 'locked'] + $sound,
                'neutral',
            ],
            'one-way free: first in low only' => [[['F1', 'free']], ['1' => 'neutral'] + $sound, 'neutral'],
            'one-way locked: nothing turns in second and third' => [
                [['F1', 'locked']],
                ['2' => 'locked', '3' => 'locked'] + $sound,
                'neutral',
            ],
            'one-way the wrong way round' => [
                [['F1', 'reversed']],
                ['1' => 'neutral', '2' => 'locked', '3' => 'locked'] + $sound,
                'neutral',
            ],
            'forward clutch fused and the second brake too: second in all, direct ties up' => [
                [['C1', 'stuck-on'], ['B1', 'stuck-on']],
                ['1' => self::SECOND, '3' => 'locked', 'L' => 'locked', 'R' => 'locked'] + $sound,
                self::SECOND,
            ],
        ];
    }

    /**
     * @param  list<array{string, string}>  $faults
     * @param  array<string, float|string>  $expected  gear => ratio, or the state without one
     */
    #[DataProvider('brokenSimpsons')]
    public function test_a_broken_three_speed(array $faults, array $expected, float|string $neutral): void
    {
        $out = $this->calc('fault.simulate', self::simpson() + ['faults' => self::faults($faults)]);
        $sound = self::byName($this->calc('fault.simulate', self::simpson())['gears']);
        foreach (self::byName($out['gears']) as $name => $gear) {
            $this->assertGear($expected[$name], $gear, "gear $name");
            $same = ($gear['ratio'] ?? $gear['state']) === ($sound[$name]['ratio'] ?? $sound[$name]['state']);
            $this->assertSame(! $same, $gear['changed'], "gear $name");
            $this->assertSame($sound[$name]['state'], $gear['sound']['state']);
        }
        $this->assertGear($neutral, $out['neutral'], 'neutral');
        $this->assertSame(is_float($neutral), $out['neutral']['creeps']);
    }

    /** @param  array<string, mixed>  $gear */
    private function assertGear(float|string $expected, array $gear, string $what): void
    {
        if (is_string($expected)) {
            $this->assertSame($expected, $gear['state'], $what);
            $this->assertArrayNotHasKey('ratio', $gear, $what);

            return;
        }
        $this->assertSame('driven', $gear['state'], $what);
        $this->assertRelative($expected, $gear['ratio'], 1e-12, $what);
    }

    public function test_what_a_fault_does_is_said(): void
    {
        $out = $this->calc('fault.simulate', self::simpson() + ['faults' => self::faults([['B1', 'stuck-off']])]);
        $said = array_column($out['gears'], 'sentence', 'name');
        $this->assertSame('Asked for gear 2, it drives as gear 1 does.', $said['2']);
        $this->assertSame('Gear R is as it should be.', $said['R']);
    }

    /** One-ways listed or not, every combination written into the chart and asked of geartrain.solve. */
    public function test_every_combination_of_one_ways_tried_by_hand(): void
    {
        mt_srand(41);
        $states = ['clutch' => ['stuck-on', 'stuck-off'], 'brake' => ['stuck-on', 'stuck-off']] +
            ['one-way' => ['locked', 'free', 'reversed']];
        for ($case = 0; $case < 60; $case++) {
            $train = self::randomTrain();
            $faults = [];
            foreach ((array) array_rand($train['elements'], mt_rand(1, 3)) as $k) {
                $element = $train['elements'][$k];
                $possible = $states[$element['kind']];
                $faults[] = [$element['id'], $possible[mt_rand(0, count($possible) - 1)]];
            }
            $out = $this->calc('fault.simulate', $train + ['faults' => self::faults($faults)]);
            foreach ($train['gears'] as $n => $gear) {
                $expected = $this->tried($train, $gear['applied'], array_column($faults, 1, 0));
                $this->assertGear($expected, $out['gears'][$n], "case $case, gear $n: ".json_encode($faults));
            }
        }
    }

    /**
     * @param  array<string, mixed>  $train
     * @param  list<string>  $applied
     * @param  array<string, string>  $faults
     */
    private function tried(array $train, array $applied, array $faults): float|string
    {
        $fixed = $free = [];
        foreach ($train['elements'] as $k => $element) {
            $fault = $faults[$element['id']] ?? '';
            if ($fault === 'reversed') {
                $train['elements'][$k]['locks'] = $element['locks'] === 'negative' ? 'positive' : 'negative';
            }
            $isOn = $element['kind'] !== 'one-way' && in_array($element['id'], $applied, true);
            if (in_array($fault, ['stuck-on', 'locked'], true) || ($isOn && $fault === '')) {
                $fixed[] = $element['id'];
                unset($train['elements'][$k]['locks']); // what is fused delivers either way
            } elseif ($element['kind'] === 'one-way' && $fault !== 'free') {
                $free[] = $element['id'];
            } else {
                unset($train['elements'][$k]['locks']);
            }
        }
        $train['elements'] = array_values($train['elements']);
        $found = ['driven' => null, 'neutral' => null, 'held' => null];
        for ($mask = 0; $mask < 1 << count($free); $mask++) {
            $holding = array_values(array_filter($free, fn (int $i) => ($mask >> $i) % 2 === 1, ARRAY_FILTER_USE_KEY));
            $asked = ['gears' => [['name' => 'x', 'applied' => [...$fixed, ...$holding]]]] + $train;
            $solved = $this->calc('geartrain.solve', $asked);
            $gear = $solved['gears'][0];
            $warned = array_filter($solved['warnings'], fn (array $w) => $w['code'] === 'one-way-would-lock');
            $refused = in_array(false, $gear['oneWayConsistent'] ?? [], true);
            if ($gear['state'] === 'locked' || $warned !== [] || $refused) {
                continue;
            }
            $found[$gear['state']] ??= $gear['ratio'] ?? $gear['state'];
        }

        return $found['driven'] ?? $found['neutral'] ?? $found['held'] ?? 'locked';
    }

    /** @return array<string, mixed> two sets in series with clutches, brakes and two one-ways between random shafts */
    private static function randomTrain(): array
    {
        $shafts = ['in', 's1', 'r1', 'x', 's2', 'out'];
        $pick = fn (): string => $shafts[mt_rand(0, 5)];
        $elements = [];
        foreach (['C1', 'C2', 'C3', 'B1', 'B2', 'F1', 'F2'] as $id) {
            $kind = ['C' => 'clutch', 'B' => 'brake', 'F' => 'one-way'][$id[0]];
            do {
                [$a, $b] = [$id === 'C1' ? 'in' : $pick(), $kind === 'clutch' ? $pick() : 'case'];
            } while ($a === $b);
            $elements[] = ['id' => $id, 'kind' => $kind, 'a' => $a, 'b' => $b] +
                ($kind === 'one-way' ? ['locks' => mt_rand(0, 1) === 0 ? 'negative' : 'positive'] : []);
        }
        $gears = [];
        for ($n = 0; $n < 4; $n++) {
            $ids = array_column($elements, 'id');
            shuffle($ids);
            $gears[] = ['name' => "g$n", 'applied' => array_slice($ids, 0, mt_rand(1, 4))];
        }

        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [
                ['id' => 'P1', 'kind' => 'simple', 'sun' => 's1', 'ring' => 'r1', 'carrier' => 'x'] +
                    ['sunTeeth' => mt_rand(25, 40), 'ringTeeth' => mt_rand(65, 85)],
                ['id' => 'P2', 'kind' => 'simple', 'sun' => 's2', 'ring' => 'x', 'carrier' => 'out'] +
                    ['sunTeeth' => mt_rand(25, 40), 'ringTeeth' => mt_rand(65, 85)],
            ],
            'elements' => $elements,
            'gears' => $gears,
        ];
    }

    public function test_faults_that_make_no_sense(): void
    {
        $with = fn (array ...$faults): array => self::simpson() + ['faults' => self::faults($faults)];
        $this->assertRefused('fault.simulate', $with(['X', 'free']), 'unknown-element', '/faults/0/element');
        $this->assertRefused('fault.simulate', $with(['C1', 'free']), 'choice', '/faults/0/state');
        $twice = $with(['C1', 'stuck-on'], ['C1', 'stuck-off']);
        $this->assertRefused('fault.simulate', $twice, 'duplicate', '/faults/1/element');
        $all = array_map(fn (string $id) => [$id, 'stuck-on'], ['C1', 'C2', 'B1', 'B2', 'C1']);
        $this->assertRefused('fault.simulate', $with(...$all), 'too-many', '/faults');
        $without = $with(['F1', 'reversed']);
        unset($without['elements'][4]['locks']);
        $this->assertRefused('fault.simulate', $without, 'no-direction', '/faults/0/state');
    }

    /** First on its one-way lets the vehicle roll; low holds it by the brake beside the one-way. */
    public function test_the_overrun_of_a_three_speed(): void
    {
        $simpson = self::simpson();
        $simpson['gears'][3]['applied'] = ['C1', 'B2', 'F1'];
        unset($simpson['gears'][4]);
        $out = $this->calc('geartrain.coast', $simpson);
        $gears = self::byName($out['gears']);
        $this->assertSame([false, true, true, true], array_column($out['gears'], 'engineBraking'));
        $this->assertSame(['F1'], $gears['1']['overruns']);
        $this->assertSame([], $gears['1']['elementTorque']);
        $this->assertSame(['F1'], $gears['L']['overruns'], 'one beside a brake carries nothing');
        $this->assertRelative(-(self::FIRST - 1), $gears['L']['elementTorque']['B2'], 1e-12, 'the brake takes it');
        $this->assertSame(0.0, (float) $gears['L']['elementTorque']['F1']);
        $this->assertSame(['B2'], $out['coastOnly'], 'in drive the one-way takes the whole');
        $withReverse = $this->calc('geartrain.coast', self::simpson());
        $this->assertSame([], $withReverse['coastOnly'], 'reverse needs the brake in drive');
    }

    /** The torque balance at the case, of every gear that holds the vehicle back. */
    public function test_torques_of_the_overrun_balance(): void
    {
        $train = self::simpson();
        $grounded = array_column(array_filter($train['elements'], fn (array $e) => $e['b'] === 'case'), 'id');
        $solved = self::byName($this->calc('geartrain.solve', $train)['gears']);
        foreach ($this->calc('geartrain.coast', $train)['gears'] as $gear) {
            if ($gear['engineBraking']) {
                $case = array_sum(array_intersect_key($gear['elementTorque'], array_flip($grounded)));
                $this->assertEqualsWithDelta(-$solved[$gear['name']]['ratio'], -1 + $case, 1e-9, $gear['name']);
            }
        }
    }

    /** Without one-ways a gear brakes when it drives. */
    public function test_a_train_without_one_ways_brakes_where_it_drives(): void
    {
        mt_srand(43);
        for ($case = 0; $case < 40; $case++) {
            $train = self::randomTrain();
            $train['elements'] = array_slice($train['elements'], 0, 5);
            foreach ($train['gears'] as $n => $gear) {
                $train['gears'][$n]['applied'] = array_values(array_diff($gear['applied'], ['F1', 'F2']));
            }
            $solved = $this->calc('geartrain.solve', $train)['gears'];
            foreach ($this->calc('geartrain.coast', $train)['gears'] as $n => $gear) {
                if (in_array($solved[$n]['state'], ['driven', 'held', 'neutral'], true)) {
                    $this->assertSame($solved[$n]['state'] === 'driven', $gear['engineBraking'], "case $case, gear $n");
                }
            }
        }
    }

    /** @return array<string, mixed> four gears of two solenoids */
    private static function fourGears(): array
    {
        return [
            'solenoids' => [['id' => 'A'], ['id' => 'B']],
            'states' => [
                ['gear' => '1', 'on' => ['A']],
                ['gear' => '2', 'on' => ['A', 'B']],
                ['gear' => '3', 'on' => ['B']],
                ['gear' => '4', 'on' => []],
            ],
        ];
    }

    public function test_the_gears_of_a_stuck_solenoid(): void
    {
        $faults = $this->calc('control.map', self::fourGears())['faults'];
        $got = [];
        foreach ($faults as $fault) {
            $got[$fault['solenoid'].' '.$fault['state']] = implode('', $fault['obtained']);
            $this->assertRelative(0.2, $fault['posterior'], 1e-12, 'nothing seen yet');
        }
        $this->assertSame('1234', $got['none works']);
        $this->assertSame('1221', $got['A stuck-on']);
        $this->assertSame('4334', $got['A stuck-off']);
        $this->assertSame('2233', $got['B stuck-on']);
        $this->assertSame('1144', $got['B stuck-off']);
    }

    /** By hand: likelihood .95 + .05/5 of what is expected, .05/5 of anything else; five hypotheses and limp mode. */
    public function test_two_symptoms_of_one_solenoid(): void
    {
        $seen = ['limp' => '4', 'observed' => ['1' => '1', '3' => '2']];
        $out = $this->calc('control.map', self::fourGears() + $seen);
        [$hit, $miss] = [0.95 + 0.01, 0.01];
        $weights = ['A stuck-on' => $hit * $hit] + ['none works' => $hit * $miss, 'B stuck-off' => $hit * $miss] +
            ['A stuck-off' => $miss * $miss, 'B stuck-on' => $miss * $miss, 'limp limp' => $miss * $miss];
        foreach ($out['faults'] as $fault) {
            $weight = $weights[$fault['solenoid'].' '.$fault['state']];
            $this->assertRelative($weight / array_sum($weights), $fault['posterior'], 1e-12, $fault['solenoid']);
        }
        $this->assertSame('A', $out['faults'][0]['solenoid']);
        $this->assertSame(['reliability' => 0.95], $out['assumed']);
        $this->assertEqualsCanonicalizing(['2', '4', 'A', 'B'], array_column($out['next'], 'test'));
    }

    public function test_a_state_that_no_gear_has(): void
    {
        $three = self::fourGears();
        unset($three['states'][3]);
        $three['states'] = array_values($three['states']);
        $faults = array_column($this->calc('control.map', $three)['faults'], null, 'solenoid');
        $this->assertSame('none', $faults['A']['obtained']['1'], 'A dead in first leaves no solenoid on');
        $effort = $this->calc('control.map', $three + ['effort' => ['A' => 3]])['next'];
        $this->assertEqualsWithDelta(3.0, array_column($effort, 'effort', 'test')['A'], 1e-9);
    }

    public function test_maps_that_make_no_sense(): void
    {
        $map = self::fourGears();
        $map['states'][3]['on'] = ['A'];
        $this->assertRefused('control.map', $map, 'duplicate', '/states/3/on');
        $map['states'][3] = ['gear' => '4', 'on' => ['C']];
        $this->assertRefused('control.map', $map, 'unknown-solenoid', '/states/3/on/0');
        $this->assertRefused('control.map', self::fourGears() + ['limp' => '5'], 'unknown-gear', '/limp');
        $seen = ['observed' => ['1' => '9']];
        $this->assertRefused('control.map', self::fourGears() + $seen, 'unknown-gear', '/observed/1');
    }

    /**
     * @param  list<array{string, string}>  $faults
     * @return list<array{element: string, state: string}>
     */
    private static function faults(array $faults): array
    {
        return array_map(fn (array $f) => ['element' => $f[0], 'state' => $f[1]], $faults);
    }

    /**
     * @param  list<array<string, mixed>>  $gears
     * @return array<string, array<string, mixed>>
     */
    private static function byName(array $gears): array
    {
        return array_column($gears, null, 'name');
    }
}
