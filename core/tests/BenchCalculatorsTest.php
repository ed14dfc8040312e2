<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Press fits, twisted shafts, held converters, leaks, agreement and particles against textbooks and second ways. */
final class BenchCalculatorsTest extends CoreTestCase
{
    private const BUSH = [
        'diameter_mm' => 40,
        'interference_um' => 40,
        'length_mm' => 20,
        'outer' => ['diameter_mm' => 90, 'e_gpa' => 70, 'nu' => 0.33],
        'inner' => ['diameter_mm' => 30, 'e_gpa' => 110, 'nu' => 0.34],
        'mu' => 0.12,
    ];

    /** Thick cylinders after Lame (formulas of any machine design text); numbers computed independently. */
    public function test_a_bronze_bush_pressed_into_aluminium(): void
    {
        $out = $this->calc('press.fit', self::BUSH);
        $expected = [
            'pressure_mpa' => 18.0474,
            'insertForce_n' => 5442.97,
            'torque_nm' => 108.859,
            'boreClosure_um' => 22.5007,
            'hoopOuter_mpa' => 26.9323,
        ];
        foreach ($expected as $field => $value) {
            $this->assertRelative($value, $out[$field], 5e-6, $field);
        }
        $solid = $this->calc('press.fit', ['inner' => ['diameter_mm' => 0] + self::BUSH['inner']] + self::BUSH);
        $this->assertArrayNotHasKey('boreClosure_um', $solid);
        $this->assertGreaterThan($out['pressure_mpa'], $solid['pressure_mpa'], 'a solid part gives less way');
        $loose = $this->calc('press.fit', ['interference_um' => 0] + self::BUSH);
        $this->assertSame(0.0, (float) $loose['insertForce_n']);
    }

    /** Equilibrium and compatibility, not the closed form: displacements of both faces make up the interference. */
    public function test_both_parts_give_way_by_the_interference(): void
    {
        $out = $this->calc('press.fit', self::BUSH);
        [$p, $r, $ro, $ri] = [$out['pressure_mpa'], 20.0, 45.0, 15.0];
        $hoop = $out['hoopOuter_mpa'];
        $outward = ($r / 70000.0) * ($hoop + 0.33 * $p);
        $hoopInner = (-$p * ($r ** 2 + $ri ** 2)) / ($r ** 2 - $ri ** 2);
        $inward = ($r / 110000.0) * ($hoopInner + 0.34 * $p);
        $this->assertRelative(0.040, 2.0 * ($outward - $inward), 1e-9, 'interference');
        $this->assertRelative(($p * ($ro ** 2 + $r ** 2)) / ($ro ** 2 - $r ** 2), $hoop, 1e-12, 'hoop');
    }

    /** 16 T / (pi D3) and its hollow form (Shigley, torsion, from memory). */
    public function test_shafts_twisted(): void
    {
        $solid = $this->calc('shaft.torsion', ['outer_mm' => 40, 'torque_nm' => 1000]);
        $this->assertSame(['stress_mpa'], array_keys($solid));
        $this->assertRelative(79.5775, $solid['stress_mpa'], 1e-6, 'solid');
        $hollow = ['outer_mm' => 40, 'inner_mm' => 20, 'torque_nm' => 1000];
        $this->assertRelative(84.8826, $this->calc('shaft.torsion', $hollow)['stress_mpa'], 1e-6, 'hollow');
        $all = $this->calc('shaft.torsion', $hollow + ['kt' => 1.5, 'shearYield_mpa' => 300, 'shearModulus_gpa' => 80]);
        $this->assertRelative(300.0 / (84.8826 * 1.5), $all['margin'], 1e-6, 'margin');
        $this->assertRelative(1000.0 * $all['margin'], $all['torqueAtYield_nm'], 1e-12, 'torque at yield');
        // theta = tau / (G r), without the notch
        $this->assertRelative(rad2deg(84.8826 / (80000.0 * 20.0) * 1000.0), $all['twist_deg_per_m'], 1e-6, 'twist');
        $still = $this->calc('shaft.torsion', ['outer_mm' => 40, 'torque_nm' => 0, 'shearYield_mpa' => 300]);
        $this->assertArrayNotHasKey('margin', $still);
    }

    public function test_the_charge_pushes_the_converter_on_its_hub(): void
    {
        $free = $this->calc('thrust.converter', ['charge_kpa' => 600, 'hubDiameter_mm' => 44]);
        $this->assertRelative(0.6 * (M_PI / 4.0) * 44.0 ** 2, $free['force_n'], 1e-12, 'p A');
        $this->assertArrayNotHasKey('pressureBehind_kpa', $free);
        $hole = ['diameter_mm' => 2.8, 'dischargeCoefficient' => 0.62, 'flow_l_min' => 6, 'density' => 850];
        $with = ['charge_kpa' => 600, 'hubDiameter_mm' => 44, 'restriction' => $hole];
        $behind = $this->calc('thrust.converter', $with)['pressureBehind_kpa'];
        // the orifice calculator gives that flow back for the drop
        $flow = $this->calc('orifice.flow', $hole + ['pressureDrop_kpa' => 600 - $behind])['flow_l_min'];
        $this->assertRelative(6.0, $flow, 1e-9, 'flow');
        $this->assertRefused(
            'thrust.converter',
            ['restriction' => ['flow_l_min' => 90] + $hole] + $with,
            'range',
            '/restriction/flow_l_min',
        );
    }

    private const HELD = [
        'torque_nm' => 400,
        'speed_rpm' => 2200,
        'fluid_l' => 9,
        'metal_kg' => 20,
        'coolerUa_w_per_k' => 40,
        'air_degc' => 25,
        'start_degc' => 85,
        'limits' => [['name' => 'Fluid', 'max_degc' => 150]],
    ];

    /** Lumped heating, closed form; numbers computed independently. */
    public function test_a_converter_held_on_the_brake(): void
    {
        $out = $this->calc('launch.hold', self::HELD + ['coolTo_degc' => 95]);
        // Held from there to the lowest limit, cooled, held again: every hold but the first starts at coolTo.
        $again = $this->calc('launch.hold', ['start_degc' => 95] + self::HELD)['secondsTo'];
        $held = min(array_column($again, 'seconds'));
        $this->assertRelative(3600.0 / ($held + $out['coolDown_s']), $out['perHour']);
        $this->assertRelative(92153.4, $out['heat_w'], 1e-6, 'heat');
        $this->assertRelative(622.5, $out['timeConstant_s'], 1e-9, 'time constant');
        $this->assertRelative(2328.83, $out['steady_degc'], 2e-6, 'steady');
        $this->assertRelative(18.2991, $out['secondsTo'][0]['seconds'], 2e-6, 'seconds');
        $this->assertRelative(622.5 * log(125.0 / 70.0), $out['coolDown_s'], 1e-9, 'rest');
        // step by step instead of the closed form
        [$t, $dt] = [85.0, 0.001];
        for ($s = 0.0; $t < 150.0; $s += $dt) {
            $t += ($dt * ($out['heat_w'] - 40.0 * ($t - 25.0))) / 24900.0;
        }
        $this->assertEqualsWithDelta($out['secondsTo'][0]['seconds'], $s, 0.01);
    }

    public function test_what_never_gets_hot_and_what_is_hot_already(): void
    {
        $limits = [['name' => 'far', 'max_degc' => 3000], ['name' => 'past', 'max_degc' => 60]];
        $out = $this->calc('launch.hold', ['limits' => $limits, 'coolTo_degc' => 70] + self::HELD);
        $this->assertSame([['name' => 'far'], ['name' => 'past', 'seconds' => 0]], array_map(
            fn (array $l): array => array_map(fn ($v) => is_float($v) ? (int) $v : $v, $l),
            $out['secondsTo'],
        ));
        $this->assertEquals(0.0, $out['coolDown_s'], 'it is cooler than the lowest limit');
        $bare = $this->calc('launch.hold', ['coolerUa_w_per_k' => 0, 'coolTo_degc' => 90] + self::HELD);
        $this->assertSame(['heat_w', 'secondsTo'], array_keys($bare));
        $this->assertRelative(65.0 * 24900.0 / $bare['heat_w'], $bare['secondsTo'][0]['seconds'], 1e-9, 'linear');
        $air = $this->calc('launch.hold', ['coolTo_degc' => 25] + self::HELD);
        $this->assertArrayNotHasKey('coolDown_s', $air);
        $this->assertRefused('launch.hold', ['fluid_l' => 0, 'metal_kg' => 0] + self::HELD, 'range', '/fluid_l');
    }

    private const DECAY = [
        'method' => 'decay',
        'volume_l' => 0.4,
        'start_kpa' => 380,
        'end_kpa' => 330,
        'seconds' => 10,
        'temp_degc' => 22,
    ];

    /** Choked mass flow of air: m' sqrt(T) / (Cd A p) = 0.0404149 (any gas dynamics table at k = 1.4). */
    public function test_a_drum_that_loses_its_air_choked(): void
    {
        $out = $this->calc('aircheck.leak', self::DECAY);
        $this->assertSame('all', $out['choked']);
        $byHand = (log(380.0 / 330.0) * 0.0004) / (287.05 * sqrt(295.15) * 0.8 * 0.0404149 * 10.0);
        $this->assertRelative($byHand * 1e6, $out['area_mm2'], 1e-6, 'area');
        $this->assertRelative(sqrt(4.0 * $out['area_mm2'] / M_PI), $out['diameter_mm'], 1e-12, 'diameter');
        $this->assertSame($out['area_mm2'], $out['netArea_mm2']);
    }

    #[DataProvider('decays')]
    public function test_the_pressure_falls_that_way_through_that_hole(float $start, float $end, string $choked): void
    {
        $out = $this->calc('aircheck.leak', ['start_kpa' => $start, 'end_kpa' => $end, 'seconds' => 60] + self::DECAY);
        $this->assertSame($choked, $out['choked']);
        // Runge-Kutta forward in time through the hole that was found
        $fall = function (float $p) use ($out): float {
            $r = max(101.325 / $p, 0.528282);
            $g = sqrt((7.0 / 287.05) * ($r ** (2 / 1.4) - $r ** (2.4 / 1.4)));

            return (-287.05 * sqrt(295.15) * 0.8 * $out['area_mm2'] * 1e-6 * $p * $g) / 0.0004;
        };
        [$p, $h] = [$start, 0.01];
        for ($n = 0; $n < 6000; $n++) {
            $k1 = $fall($p);
            $k2 = $fall($p + ($h / 2) * $k1);
            $k3 = $fall($p + ($h / 2) * $k2);
            $p += ($h / 6) * ($k1 + 2 * $k2 + 2 * $k3 + $fall($p + $h * $k3));
        }
        $this->assertEqualsWithDelta($end, $p, 0.001);
    }

    public static function decays(): array
    {
        return [
            'choked' => [500.0, 250.0, 'all'],
            'across' => [400.0, 120.0, 'part'],
            'below' => [180.0, 110.0, 'none'],
        ];
    }

    public function test_a_leakdown_passes_the_same_air_through_both(): void
    {
        $test = ['method' => 'leakdown', 'supply_kpa' => 700, 'gauge_kpa' => 500, 'reference_mm' => 1.0];
        $out = $this->calc('aircheck.leak', $test + ['ambient_kpa' => 100]);
        // 500 / 700 is subsonic, 100 / 500 choked
        $r = 500 / 700;
        $g = sqrt((7.0 / 287.05) * ($r ** (2 / 1.4) - $r ** (2.4 / 1.4)));
        $this->assertRelative((M_PI / 4 * 700 * $g) / (500 * 0.0404149), $out['area_mm2'], 1e-5, 'area');
        $this->assertSame('all', $out['choked']);
        $bled = $this->calc('aircheck.leak', $test + ['ambient_kpa' => 100, 'bleed_mm' => [0.5, 0.5]]);
        $this->assertRelative($out['area_mm2'] - M_PI / 8, $bled['netArea_mm2'], 1e-9, 'net');
        $tight = $this->calc('aircheck.leak', ['gauge_kpa' => 700, 'bleed_mm' => [2]] + $test);
        $this->assertEquals([0.0, 0.0], [$tight['area_mm2'], $tight['netArea_mm2']]);
        $this->assertRefused('aircheck.leak', ['gauge_kpa' => 90] + $test, 'range', '/gauge_kpa');
        $this->assertRefused('aircheck.leak', ['end_kpa' => 390] + self::DECAY, 'range', '/end_kpa');
        $this->assertRefused('aircheck.leak', ['end_kpa' => 100] + self::DECAY, 'range', '/end_kpa');
        $this->assertEquals(0.0, $this->calc('aircheck.leak', ['end_kpa' => 380] + self::DECAY)['area_mm2']);
    }

    /** @return list<array{string, string}> */
    private static function pairs(array $table): array
    {
        $pairs = [];
        foreach ($table as [$first, $second, $times]) {
            array_push($pairs, ...array_fill(0, $times, [$first, $second]));
        }

        return $pairs;
    }

    /** The much-used table of fifty (from memory): 20 yes/yes, 5 yes/no, 10 no/yes, 15 no/no. */
    public function test_agreement_beyond_chance(): void
    {
        $pairs = self::pairs([['yes', 'yes', 20], ['yes', 'no', 5], ['no', 'yes', 10], ['no', 'no', 15]]);
        $out = $this->calc('grade.agreement', ['pairs' => $pairs, 'weights' => 'none']);
        $this->assertSame(50, $out['n']);
        $this->assertEqualsWithDelta([0.7, 0.5, 0.4], [$out['observed'], $out['expected'], $out['kappa']], 1e-12);
        $this->assertRelative(0.126996, $out['stdErr'], 1e-5, 'error');
        $this->assertEqualsWithDelta(0.4 + 1.959964 * 0.126996, $out['upper'], 1e-5);
        $two = ['pairs' => $pairs, 'order' => ['yes', 'no'], 'weights' => 'quadratic'];
        $kappa = $this->calc('grade.agreement', $two)['kappa'];
        $this->assertEqualsWithDelta(0.4, $kappa, 1e-12, 'two grades: no difference');
    }

    /** Quadratic weights equal the intraclass form 1 - E d2 / E0 d2 (Fleiss and Cohen 1973). */
    public function test_weighted_agreement_by_the_distances(): void
    {
        $table = [['a', 'a', 8], ['a', 'b', 3], ['b', 'b', 6], ['b', 'c', 4], ['c', 'a', 1], ['c', 'c', 5]];
        $pairs = self::pairs($table);
        $of = ['a' => 0, 'b' => 1, 'c' => 2];
        foreach (['linear' => 1, 'quadratic' => 2] as $weights => $power) {
            $seen = $chance = 0.0;
            foreach ($pairs as [$x, $y]) {
                $seen += abs($of[$x] - $of[$y]) ** $power / count($pairs);
                foreach ($pairs as [, $other]) {
                    $chance += abs($of[$x] - $of[$other]) ** $power / count($pairs) ** 2;
                }
            }
            $graded = ['pairs' => $pairs, 'order' => ['a', 'b', 'c'], 'weights' => $weights];
            $out = $this->calc('grade.agreement', $graded);
            $this->assertRelative(1.0 - $seen / $chance, $out['kappa'], 1e-12, $weights);
        }
        $this->assertRefused('grade.agreement', ['pairs' => $pairs, 'weights' => 'linear'], 'missing', '');
        $order = ['pairs' => $pairs, 'order' => ['a', 'b'], 'weights' => 'none'];
        $this->assertRefused('grade.agreement', $order, 'choice', '/pairs/17/1');
        $same = ['pairs' => [['a', 'a'], ['a', 'a']], 'weights' => 'none'];
        $this->assertRefused('grade.agreement', $same, 'undefined', '/pairs');
        $perfect = $this->calc('grade.agreement', ['pairs' => [['a', 'a'], ['b', 'b']], 'weights' => 'none']);
        $this->assertEquals([1.0, 1.0], [$perfect['kappa'], $perfect['upper']]);
    }

    /** Table 1 of ISO 4406 (ranges from memory); upper bounds are included. */
    public function test_particles_as_a_code(): void
    {
        $code = fn (array $counts, array $more = []): array => $this->calc('fluid.cleanliness', [
            'counts' => array_combine(array_slice(['um4', 'um6', 'um14'], 3 - count($counts)), $counts),
        ] + $more);
        $cases = [
            '18/16/13' => [1500, 350, 55],
            '22/20/16' => [22340, 6150, 412],
            '18/15/10' => [2500, 320, 10],
            '19/16/11' => [2500.5, 320.5, 10.5],
            '17/15/13' => [650, 163, 40.1],
            '25/23/20' => [160001, 79000, 5001],
            '–/17/14' => [1000, 100],
        ];
        foreach ($cases as $expected => $counts) {
            $this->assertSame($expected, $code($counts)['code']);
        }
        $this->assertSame(18, $code([37500, 100, 10], ['volume_ml' => 25])['numbers']['um4']);
        $this->assertSame(['um14'], $code([37500, 100, 10], ['volume_ml' => 25])['fewCounted']);
        $this->assertFalse($code([1500, 350, 85], ['target' => '18/16/13'])['meets']);
        $this->assertSame(['um14'], $code([1500, 350, 85], ['target' => '18/16/13'])['over']);
        $this->assertTrue($code([900, 350, 55], ['target' => '18/16/13'])['meets']);
        $counts = ['um4' => 10, 'um6' => 20, 'um14' => 1];
        $this->assertRefused('fluid.cleanliness', ['counts' => $counts], 'range', '/counts/um6');
        $dirty = ['um4' => 3e6, 'um6' => 20, 'um14' => 1];
        $this->assertRefused('fluid.cleanliness', ['counts' => $dirty], 'range', '/counts/um4');
        $good = ['um4' => 30, 'um6' => 20, 'um14' => 1];
        $this->assertRefused('fluid.cleanliness', ['counts' => $good, 'target' => '18-16'], 'format', '/target');
    }

    /** Shear areas after FED-STD-H28/2; limits of ISO 965-2 and strengths of ISO 898-1, from memory. */
    public function test_which_strips_first(): void
    {
        $m8 = ['thread' => 'M8x1.25', 'grade' => '8.8', 'engagement_mm' => 12, 'holeShear_mpa' => 190, 'k' => 0.2];
        $out = $this->calc('fastener.strip', $m8);
        $expected = [
            'holeArea_mm2' => 263.8937829,
            'boltThreadArea_mm2' => 187.9348407,
            'holeStripLoad_n' => 50139.81875,
            'proofLoad_n' => 21232.95364,
            'boltBreakLoad_n' => 29286.83261,
            'equalEngagement_mm' => 7.009239364,
        ];
        foreach ($expected as $field => $value) {
            $this->assertRelative($value, $out[$field], 1e-9, $field);
        }
        $this->assertSame('bolt', $out['failsFirst']);
        $this->assertRelative(0.875 * M_PI * 8 * 12, $out['holeArea_mm2'], 1e-12, 'basic diameters');
        $this->assertRelative(0.2 * 8 * 21.23295364, $out['torqueLimit_nm'], 1e-9, 'the bolt limits it');
        $worst = $this->calc('fastener.strip', $m8 + ['limits' => [
            'boltMajorMin_mm' => 7.760,
            'holePitchMax_mm' => 7.348,
            'holeMinorMax_mm' => 6.912,
            'boltPitchMin_mm' => 7.042,
        ]]);
        $this->assertRelative(201.9423225, $worst['holeArea_mm2'], 1e-9, 'hole at its limits');
        $this->assertRelative(145.9342831, $worst['boltThreadArea_mm2'], 1e-9, 'bolt at its limits');
        $m6 = ['thread' => 'M6x1', 'engagement_mm' => 9, 'holeShear_mpa' => 150, 'torque_nm' => 10] + $m8;
        $this->assertRelative(22266.03793, $this->calc('fastener.strip', $m6)['holeStripLoad_n'], 1e-9, 'M6');
        $this->assertTrue($this->calc('fastener.strip', $m6)['within']);
        $short = $this->calc('fastener.strip', ['engagement_mm' => 3] + $m6);
        $this->assertSame(['hole', true], [$short['failsFirst'], $short['torqueLimit_nm'] < 10]);
        $this->assertFalse($short['within']);
        $ksi = 6.894757293168361;
        $inch = ['thread' => '1/4-20', 'grade' => 'SAE 5', 'engagement_mm' => 9.525, 'holeShear_mpa' => 25 * $ksi];
        $this->assertRelative(
            6442.719309 * 4.4482216152605,
            $this->calc('fastener.strip', $inch + $m8)['holeStripLoad_n'],
            1e-9,
            '1/4-20',
        );
    }
}
