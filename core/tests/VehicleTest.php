<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Calculator\Calculators;

/** Engine, converter, tyre and mass around the train: closed forms, energy balances, and R as a judge. */
final class VehicleTest extends CoreTestCase
{
    /** @return array<string, mixed> */
    private static function example(string $name): array
    {
        return json_decode(Calculators::schema($name), true)['example']['input'];
    }

    public function test_stall_of_a_flat_engine_is_the_capacity_factor_times_the_root_of_the_torque(): void
    {
        // K = N / sqrt(T), the usual definition of a converter's capacity factor (SAE J643, from memory)
        $out = $this->calc('converter.match', [
            'engine' => ['torque_nm' => 400],
            'converter' => ['kFactor' => 105, 'stallTorqueRatio' => 1.9],
        ]);
        $this->assertRelative(2100.0, $out['stall_rpm']);
        $this->assertRelative(760.0, $out['stallTurbineTorque_nm']);
        $this->assertRelative(1.9, $out['torqueRatioOfPeak']);
        $this->assertRelative(
            (400 * 2100 * M_PI) / 30000,
            $out['stallHeat_kw'],
            1e-9,
            'at stall all of the engine\'s power is heat',
        );
        $double = $this->calc('converter.match', [
            'engine' => ['torque_nm' => 1600],
            'converter' => ['kFactor' => 105, 'stallTorqueRatio' => 1.9],
        ]);
        $this->assertRelative(
            2 * $out['stall_rpm'],
            $double['stall_rpm'],
            1e-9,
            'four times the torque, twice the speed',
        );
    }

    public function test_the_turbine_torque_can_be_highest_between_two_points_of_the_converter(): void
    {
        // Engine T = N/10 meets N = K sqrt(T) at T = K^2/100; torque ratio 3.5 - K/80. Q = (3.5 - K/80) K^2/100 turns
        // at K = 560/3.
        $out = $this->calc('converter.match', [
            'engine' => [
                'curve' => [['speed_rpm' => 1000, 'torque_nm' => 100], ['speed_rpm' => 5000, 'torque_nm' => 500]],
            ],
            'converter' => [
                'points' => [
                    ['speedRatio' => 0, 'torqueRatio' => 2, 'kFactor' => 120],
                    ['speedRatio' => 0.8, 'torqueRatio' => 1, 'kFactor' => 200],
                ],
            ],
        ]);
        $this->assertRelative(288.0, $out['points'][0]['turbineTorque_nm']);
        $this->assertRelative(400.0, $out['points'][1]['turbineTorque_nm']);
        $this->assertRelative(((7 / 6) * (560 / 3) ** 2) / 100, $out['highestTurbineTorque_nm'], 1e-12);
    }

    public function test_stall_behind_an_engine_curve_agrees_with_a_root_finder_of_r(): void
    {
        $curve = self::example('converter.match')['engine']['curve'];
        $f =
            'approxfun(c('.
            implode(',', array_column($curve, 'speed_rpm')).
            '), c('.
            implode(',', array_column($curve, 'torque_nm')).
            '), rule = 2)';
        foreach ([50, 80, 105, 140, 200, 330] as $k) {
            $ours = $this->calc('converter.match', [
                'engine' => ['curve' => $curve],
                'converter' => ['kFactor' => $k, 'stallTorqueRatio' => 2],
            ]);
            $this->assertEqualsWithDelta(
                $this->r("uniroot(function(n) $f(n) - (n / $k)^2, c(1, 12000), tol = 1e-10)\$root")[0],
                $ours['stall_rpm'],
                1e-5,
                "K $k",
            );
            $this->assertSame($ours['stall_rpm'] > 5600, $ours['beyondCurve']);
        }
    }

    public function test_power_in_is_power_out_and_heat_at_every_speed_ratio(): void
    {
        foreach ($this->calc('converter.match', self::example('converter.match'))['points'] as $p) {
            $this->assertRelative(
                ($p['engineTorque_nm'] * $p['engine_rpm'] * M_PI) / 30000,
                ($p['turbineTorque_nm'] * $p['turbine_rpm'] * M_PI) / 30000 + $p['heat_kw'],
            );
            $this->assertRelative($p['engine_rpm'] * $p['speedRatio'], $p['turbine_rpm']);
        }
    }

    public function test_the_window_of_stall_speeds_answers_in_a_sentence(): void
    {
        $says = fn (int $min, int $max): array => $this->calc('converter.match', [
            'engine' => ['torque_nm' => 400],
            'converter' => ['kFactor' => 100, 'stallTorqueRatio' => 2],
            'window' => ['min' => $min, 'max' => $max],
        ])['window'];
        $this->assertTrue($says(2000, 2400)['fits'], 'the edge is inside');
        $this->assertStringContainsString('below the 2100 to 2400', $says(2100, 2400)['message']);
        $this->assertStringContainsString('above the 1500 to 1900', $says(1500, 1900)['message']);
    }

    public function test_pulling_away_with_one_capacity_and_a_straight_torque_ratio_has_a_closed_form(): void
    {
        // Flat engine, constant K: the engine stands at N = K sqrt(T). Torque ratio t0 - m s from 2 at s = 0 to 1 at s
        // = 0.8. Without resistance a = c (t0 - m s) and v = s vc/0.8, so t = vc/(0.8 c m) ln(t0 / (t0 - 0.8 m)).
        [$torque, $k, $mass, $ratio, $axle, $radius] = [300.0, 120.0, 2000.0, 2.5, 3.5, 0.33];
        $points = array_map(
            fn (int $n): array => ['speedRatio' => $n / 10, 'torqueRatio' => 2 - (1.25 * $n) / 10, 'kFactor' => $k],
            range(0, 8),
        );
        $out = $this->calc('vehicle.launch', [
            'engine' => ['torque_nm' => $torque],
            'converter' => ['points' => $points],
            'vehicle' => ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => 1000 * $radius],
            'ratio' => $ratio,
            'rollingCoefficient' => 0,
            'fluid_l' => 10,
        ]);
        $n = $k * sqrt($torque);
        $top = ((0.8 * $n * M_PI) / 30 / ($ratio * $axle)) * $radius;
        $c = ($torque * $ratio * $axle) / $radius / $mass;
        $time = ($top / (0.8 * $c * 1.25)) * log(2 / 1.0);
        $this->assertRelative($time, $out['time_s'], 1e-6);
        $this->assertRelative(3.6 * $top, $out['speed_kmh'], 1e-9);
        $this->assertRelative((($torque * $n * M_PI) / 30000) * $time, $out['engineWork_kj'], 1e-6, 'constant power');
        $this->assertRelative(
            $out['engineWork_kj'] - (0.5 * $mass * $top ** 2) / 1000,
            $out['heat_kj'],
            1e-6,
            'what is not motion is heat',
        );
        $this->assertRelative($out['heat_kj'] / (10 * 0.85 * 2.0), $out['fluidRise_k'], 1e-9);
    }

    #[DataProvider('launches')]
    public function test_the_energy_of_a_launch_closes(array $change): void
    {
        $in = array_replace(self::example('vehicle.launch'), $change);
        $out = $this->calc('vehicle.launch', $in);
        $this->assertTrue($out['reaches']);
        $kinetic = (0.5 * $in['vehicle']['mass_kg'] * ($out['speed_kmh'] / 3.6) ** 2) / 1000;
        $uphill = ($out['resistance_n'] * $out['distance_m']) / 1000;
        $this->assertRelative($out['engineWork_kj'], $out['heat_kj'] + $kinetic + $uphill, 1e-8);
    }

    /** @return array<string, array{array<string, mixed>}> */
    public static function launches(): array
    {
        return [
            'up a grade with a trailer' => [[]],
            'on the flat' => [['grade_pct' => 0]],
            'downhill' => [['grade_pct' => -6, 'rollingCoefficient' => 0.01]],
            'without a trailer' => [['vehicle' => ['mass_kg' => 1900, 'axleRatio' => 3.42, 'tyreRadius_mm' => 330]]],
        ];
    }

    public function test_a_grade_too_steep_hangs_and_the_limit_is_where_the_pull_holds_the_mass(): void
    {
        $in = self::example('vehicle.launch');
        $limit = $this->calc('vehicle.launch', $in)['gradeLimit_pct'];
        $hold = $this->calc('vehicle.launch', ['grade_pct' => $limit] + $in);
        $this->assertRelative(
            $hold['pull_n'],
            $hold['resistance_n'],
            1e-9,
            'at the limit the pull at stall is the resistance',
        );
        $this->assertSame(
            0.0,
            (float) $this->calc('vehicle.launch', ['grade_pct' => $limit * 1.01] + $in)['hangs']['speed_kmh'],
            'above it does not move',
        );
        $half = $this->calc('vehicle.launch', ['grade_pct' => $limit * 0.75] + $in);
        $this->assertFalse($half['reaches'], 'the torque ratio falls as it gains speed');
        $this->assertGreaterThan(0.0, $half['hangs']['speed_kmh']);
        $this->assertArrayNotHasKey('heat_kj', $half);
    }

    /** Overall diameters of the ETRTO standards manual, from memory. */
    #[DataProvider('tyres')]
    public function test_tyre_diameters_are_those_of_the_standard(string $size, float $diameter): void
    {
        $out = $this->calc('tyre.size', ['size' => $size]);
        $this->assertEqualsWithDelta(
            $diameter,
            $out['diameter_mm'],
            1.5,
            'the standard rounds the section height to whole mm',
        );
        $this->assertRelative((3.05 * $out['diameter_mm']) / (2 * M_PI), $out['rollingRadius_mm'], 1e-9);
    }

    /** @return list<array{string, float}> */
    public static function tyres(): array
    {
        return [
            ['205/55R16', 632],
            ['195/65 R15', 635],
            ['225/45ZR17', 634],
            ['LT265/70R17', 804],
            ['175/70r13 82T', 576],
        ];
    }

    public function test_what_was_assumed_is_named_and_what_the_input_says_goes_before_it(): void
    {
        $example = $this->example('vehicle.launch');
        $shipped = $this->calc('vehicle.launch', $example);
        $this->assertEquals(
            ['rollingCoefficient' => 0.012, 'fluidDensity_kg_l' => 0.85, 'fluidHeat_kj_kgk' => 2.0],
            (array) $shipped['assumed'],
        );
        $own = $this->calc('vehicle.launch', ['fluidDensity_kg_l' => 1.7, 'rollingCoefficient' => 0.012] + $example);
        $this->assertEquals(['fluidHeat_kj_kgk' => 2.0], (array) $own['assumed']);
        $this->assertRelative($shipped['fluidRise_k'] / 2.0, $own['fluidRise_k'], 1e-12);
        $this->assertSame($shipped['heat_kj'], $own['heat_kj']);
        $soft = $this->calc('vehicle.launch', ['rollingCoefficient' => 0.05] + $example);
        $this->assertGreaterThan($shipped['time_s'], $soft['time_s'], 'soft ground costs time');

        $tyre = $this->calc('tyre.size', ['size' => '265/70R17']);
        $this->assertSame(['rollingFactor' => 3.05], (array) $tyre['assumed']);
        $free = $this->calc('tyre.size', ['size' => '265/70R17', 'rollingFactor' => M_PI]);
        $this->assertSame([], (array) $free['assumed']);
        $this->assertRelative($free['diameter_mm'] / 2.0, $free['rollingRadius_mm'], 1e-12);
        $this->assertRefused('tyre.size', ['size' => '265/70R17', 'rollingFactor' => 4], 'range', '/rollingFactor');
    }

    public function test_a_text_that_is_no_tyre_is_refused(): void
    {
        foreach (['big', '205', '205/55', '55/205R16', '205/55R99'] as $size) {
            $this->assertStringContainsString(
                '235/60R16',
                $this->assertRefused('tyre.size', ['size' => $size], 'tyre', '/size')->getMessage(),
            );
        }
    }

    public function test_bad_engines_and_converters_are_refused(): void
    {
        $in = self::example('converter.match');
        $falling = [['speed_rpm' => 3000, 'torque_nm' => 300], ['speed_rpm' => 2000, 'torque_nm' => 250]];
        $this->assertRefused(
            'converter.match',
            ['engine' => ['curve' => $falling]] + $in,
            'order',
            '/engine/curve/1/speed_rpm',
        );
        $this->assertRefused('converter.match', ['engine' => ['torque_nm' => 0]] + $in, 'range', '/engine/torque_nm');
        $point = fn (float $s, float $t): array => ['speedRatio' => $s, 'torqueRatio' => $t, 'kFactor' => 100];
        $this->assertRefused(
            'converter.match',
            ['converter' => ['points' => [$point(0.1, 2)]]] + $in,
            'order',
            '/converter/points/0/speedRatio',
        );
        $this->assertRefused(
            'converter.match',
            ['converter' => ['points' => [$point(0, 2), $point(0.9, 1.2)]]] + $in,
            'efficiency',
            '/converter/points/1/torqueRatio',
        );
        $this->assertRefused(
            'converter.match',
            ['window' => ['min' => 3000, 'max' => 2000]] + $in,
            'order',
            '/window/max',
        );
        $this->assertRefused(
            'vehicle.launch',
            ['converter' => ['kFactor' => 100, 'stallTorqueRatio' => 2]] + self::example('vehicle.launch'),
            'missing',
            '/converter',
        );
    }

    public function test_without_engine_torque_the_heat_is_half_the_reduced_inertia_times_the_slip_squared(): void
    {
        // Two bodies joined by a clutch: E = I1 I2 dw^2 / (2 (I1 + I2)), whatever the time (Shigley, ch. 16, energy
        // considerations).
        $in =
            ['inputTorque_nm' => 0, 'vehicle' => ['mass_kg' => 1500, 'axleRatio' => 3.5, 'tyreRadius_mm' => 310]] +
            self::example('shift.energy');
        $gears = array_column(
            $this->calc(
                'geartrain.solve',
                array_intersect_key($in, array_flip(['input', 'output', 'sets', 'elements', 'gears'])),
            )['gears'],
            'ratio',
            'name',
        );
        foreach ([0.2, 0.6] as $time) {
            foreach ($this->calc('shift.energy', ['shiftTime_s' => $time] + $in)['shifts'] as $shift) {
                $one = $in['inputInertia_kgm2'];
                $two = (1500 * (0.31 / 3.5) ** 2) / $gears[$shift['to']] ** 2;
                $slip = (($in['inputSpeed_rpm'] * M_PI) / 30) * (1 - $gears[$shift['to']] / $gears[$shift['from']]);
                $this->assertRelative(
                    ($one * $two * $slip ** 2) / (2 * ($one + $two)),
                    array_sum(array_column($shift['elements'], 'energy_j')),
                    1e-9,
                    "{$shift['from']} to {$shift['to']}",
                );
            }
        }
    }

    public function test_the_energy_of_a_shift_closes_with_a_vehicle_that_gains_speed_uphill(): void
    {
        $in =
            ['vehicle' => ['mass_kg' => 3500, 'axleRatio' => 3.73, 'tyreRadius_mm' => 360], 'roadLoad_n' => 2600] +
            self::example('shift.energy');
        $gears = array_column(
            $this->calc(
                'geartrain.solve',
                array_intersect_key($in, array_flip(['input', 'output', 'sets', 'elements', 'gears'])),
            )['gears'],
            'ratio',
            'name',
        );
        $j = 3500 * (0.36 / 3.73) ** 2;
        $road = (2600 * 0.36) / 3.73;
        foreach ($this->calc('shift.energy', $in)['shifts'] as $shift) {
            [$t, $w] = [$in['shiftTime_s'], ($in['inputSpeed_rpm'] * M_PI) / 30];
            $v = $w / $gears[$shift['from']];
            $wEnd = $w - ($shift['inputDrop_rpm'] * M_PI) / 30;
            $vEnd = $v + (($shift['outputTorque_nm']['during'] - $road) / $j) * $t;
            $this->assertRelative($gears[$shift['to']] * $vEnd, $wEnd, 1e-9, 'both ends meet in the new gear');
            $work = (($in['inputTorque_nm'] * ($w + $wEnd)) / 2) * $t - (($road * ($v + $vEnd)) / 2) * $t;
            $kinetic = 0.5 * $in['inputInertia_kgm2'] * ($w ** 2 - $wEnd ** 2) + 0.5 * $j * ($v ** 2 - $vEnd ** 2);
            $this->assertRelative($work + $kinetic, array_sum(array_column($shift['elements'], 'energy_j')), 1e-9);
        }
        $heavy = $this->calc(
            'shift.energy',
            ['vehicle' => ['mass_kg' => 1e9, 'axleRatio' => 3.73, 'tyreRadius_mm' => 360]] +
                self::example('shift.energy'),
        );
        $fixed = $this->calc('shift.energy', self::example('shift.energy'));
        $this->assertRelative(
            $fixed['shifts'][0]['elements'][0]['energy_j'],
            $heavy['shifts'][0]['elements'][0]['energy_j'],
            1e-6,
            'a very heavy vehicle keeps its speed',
        );
    }

    public function test_the_converter_sets_the_torque_of_the_gears_that_slip(): void
    {
        $in = self::example('power.margin');
        $converter = ['kFactor' => 110, 'stallTorqueRatio' => 1.6];
        $by = $this->calc(
            'power.margin',
            ['converterRatio' => 1, 'converter' => $converter, 'slipping' => ['1']] + $in,
        );
        $this->assertEqualsWithDelta(
            $this->calc('power.margin', $in)['weakest'],
            $by['weakest'],
            1e-9,
            'behind a flat engine the torque ratio at stall is all there is to it',
        );
        $curve = [
            ['speed_rpm' => 1000, 'torque_nm' => 180],
            ['speed_rpm' => 3500, 'torque_nm' => 300],
            ['speed_rpm' => 6000, 'torque_nm' => 240],
        ];
        $soft = $this->calc(
            'power.margin',
            ['engine' => ['curve' => $curve], 'converter' => $converter, 'slipping' => ['1']] +
                array_diff_key($in, ['inputTorque_nm' => 0]),
        );
        $stall = $this->calc('converter.match', ['engine' => ['curve' => $curve], 'converter' => $converter]);
        $demand = array_column($soft['gears'][0]['elements'], 'demand_nm', 'element');
        $this->assertRelative(
            $stall['stallTurbineTorque_nm'],
            $demand['C1'],
            1e-9,
            'first carries what the turbine gives, not the peak',
        );
        $this->assertLessThan(300 * 1.6, $demand['C1']);
    }

    public function test_the_largest_engine_of_the_same_shape_just_holds(): void
    {
        // Only first gear is described, so the converter's gear decides.
        $in = self::example('power.margin');
        $curve = [
            ['speed_rpm' => 1000, 'torque_nm' => 180],
            ['speed_rpm' => 3500, 'torque_nm' => 300],
            ['speed_rpm' => 6000, 'torque_nm' => 240],
        ];
        $first =
            [
                'gears' => [$in['gears'][0]],
                'pressure_kpa' => 1100,
                'converterRatio' => 1,
                'converter' => ['kFactor' => 110, 'stallTorqueRatio' => 1.9],
                'slipping' => ['1'],
                'engine' => ['curve' => $curve],
            ] + array_diff_key($in, ['inputTorque_nm' => 0, 'changes' => 0]);
        $largest = $this->calc('power.margin', $first)['largestInputTorque_nm'];
        $scaled = fn (float $peak): array => [
            'engine' => [
                'curve' => array_map(
                    fn (array $p): array => ['torque_nm' => ($p['torque_nm'] * $peak) / 300] + $p,
                    $curve,
                ),
            ],
        ] + $first;
        $this->assertRelative(
            $in['limit'],
            $this->calc('power.margin', $scaled($largest))['weakest']['margin'],
            1e-9,
        );
        $this->assertFalse($this->calc('power.margin', $scaled($largest * 1.001))['holds']);
    }

    public function test_the_lock_up_clutch_carries_the_engine_and_is_one_of_the_margins(): void
    {
        $in = self::example('power.margin');
        $clutch = [
            'kind' => 'clutch',
            'mu' => 0.12,
            'frictionFaces' => 1,
            'outerDiameter_mm' => 250,
            'innerDiameter_mm' => 200,
            'model' => 'uniform-pressure',
            'pistonOuter_mm' => 250,
            'pistonInner_mm' => 50,
            'returnForce_n' => 0,
            'pressureFactor' => 0.5,
        ];
        $with = ['lockup' => ['4'], 'capacities' => ['lock-up' => $clutch] + $in['capacities']] + $in;
        $row = array_column($this->calc('power.margin', $with)['gears'][3]['elements'], null, 'element')['lock-up'];
        $this->assertRelative(300.0, $row['demand_nm']);
        $this->assertRelative(
            $this->calc('clutch.capacity', ['pressure_kpa' => 450] + $clutch)['torque_nm'],
            $row['capacity_nm'],
        );
        $this->assertSame(
            [['gear' => '4', 'element' => 'lock-up']],
            $this->calc('power.margin', ['lockup' => ['4']] + $in)['unknown'],
            'not described: named, not guessed',
        );
        $this->assertRefused('power.margin', ['lockup' => ['9']] + $in, 'unknown-gear', '/lockup/0');
        $this->assertRefused(
            'power.margin',
            ['elements' => [['id' => 'lock-up', 'kind' => 'clutch', 'a' => 'in', 'b' => 'c'], ...$in['elements']]] +
                $in,
            'reserved',
            '/elements',
        );
    }

    public function test_a_lining_pressed_or_heated_beyond_what_it_stands_is_named(): void
    {
        $in = self::example('power.margin');
        $in['capacities']['C1']['lining'] = ['pressure_kpa' => 1000, 'heat_j_mm2' => 0.8];
        $in['capacities']['B2'] += ['width_mm' => 38, 'lining' => ['heat_j_mm2' => 1e-4]];
        $in += ['shift' => ['inputInertia_kgm2' => 0.25, 'shiftTime_s' => 0.5]];
        $out = $this->calc('power.margin', $in);
        $first = array_column($out['gears'][0]['elements'], null, 'element')['C1'];
        $this->assertSame(
            $first['liningPressure_kpa'] > 1000,
            in_array(
                ['1', 'C1'],
                array_map(fn (array $o): array => [$o['gear'], $o['element']], $out['overPressed']),
                true,
            ),
        );
        $this->assertNotEmpty($out['overPressed']);
        $second = $out['shifts'][0]['elements'][0];
        $this->assertSame(['B2', true], [$second['element'], $second['over']]);
        $this->assertRelative(
            $second['energy_j'] / (70 * deg2rad(330) * 38),
            $second['perArea_j_mm2'],
            1e-9,
            'heat over the wrapped face of the band',
        );
        // highest lining pressure of a band: 2 P1 / (b D) (Shigley, ch. 16)
        $band = array_column($out['gears'][1]['elements'], null, 'element')['B2'];
        $tight = $this->calc('band.capacity', [
            'mu' => 0.12,
            'wrap_deg' => 330,
            'drumDiameter_mm' => 140,
            'applyForce_n' => (((1.0 * M_PI) / 4) * 3600 - 220) * 1.6,
            'rotation' => 'with',
        ])['tightSide_n'];
        $this->assertRelative((2 * $tight) / (0.038 * 0.14) / 1000, $band['liningPressure_kpa']);
        $alone = $this->calc(
            'shift.energy',
            array_intersect_key(
                $in,
                array_flip(['input', 'output', 'sets', 'elements', 'gears', 'inputTorque_nm', 'inputSpeed_rpm']),
            ) + $in['shift'],
        );
        $this->assertRelative(
            $alone['shifts'][0]['elements'][0]['energy_j'],
            $second['energy_j'],
            1e-12,
            'the same as shift.energy alone',
        );
    }

    public function test_part_throttle_can_be_weaker_than_full_throttle(): void
    {
        // pressure = spring + (full - spring) x share of the boost; the return springs take the same force off both
        $in = self::example('power.margin');
        $c3 = $in['capacities']['C3'];
        unset($c3['centrifugal']);
        $in =
            [
                'gears' => [$in['gears'][2]],
                'pressure_kpa' => 900,
                'spring_kpa' => 300,
                'capacities' => ['C3' => $c3],
                'throttle' => [
                    ['opening' => 0.25, 'torqueShare' => 0.5, 'boostShare' => 0.2],
                    ['opening' => 0.5, 'torqueShare' => 0.6, 'boostShare' => 0.8],
                ],
            ] + array_diff_key($in, ['changes' => 0, 'converterRatio' => 0]);
        $out = $this->calc('power.margin', $in);
        $held = fn (float $kpa): float => $this->calc('clutch.capacity', ['pressure_kpa' => $kpa] + $c3)['torque_nm'];
        $full = $out['gears'][0]['elements'][0];
        $this->assertRelative($held(900), $full['capacity_nm']);
        $this->assertSame(0.25, $out['weakest']['opening']);
        $this->assertRelative($held(300 + 600 * 0.2), $out['weakest']['capacity_nm']);
        $this->assertRelative($full['demand_nm'] * 0.5, $out['weakest']['demand_nm']);
        $this->assertRelative(
            $out['weakest']['capacity_nm'] / (($in['limit'] * 0.5 * $full['demand_nm']) / 300),
            $out['largestInputTorque_nm'],
            1e-9,
            'the largest engine holds at every throttle',
        );
        $this->assertCount(3, $out['byThrottle']);
        $this->assertSame(
            [0.25, null],
            [$out['byThrottle'][0]['opening'], $out['byThrottle'][1]['opening'] ?? null],
            'the weakest first, full throttle second',
        );
        $this->assertRefused(
            'power.margin',
            ['throttle' => [['opening' => 1, 'torqueShare' => 1, 'boostShare' => 1]]] + $in,
            'range',
            '/throttle/0/opening',
        );
    }

    public function test_a_stronger_spring_helps_at_every_throttle_and_a_bigger_boost_valve_only_with_it(): void
    {
        $in =
            ['pressure_kpa' => ['1' => 1100, '2' => 1000, '3' => 900, '4' => 900], 'spring_kpa' => 300] +
            self::example('power.margin');
        $in['changes'] = [
            ['name' => 'spring', 'springAdd_kpa' => 100],
            ['name' => 'boost', 'boostFactor' => 1.2],
            ['name' => 'both', 'springAdd_kpa' => 100, 'boostFactor' => 1.2, 'pressureFactor' => 1.1],
        ];
        $changes = array_column($this->calc('power.margin', $in)['changes'], null, 'name');
        $same = fn (array $pressures, float $spring): array => $this->calc(
            'power.margin',
            ['pressure_kpa' => $pressures, 'spring_kpa' => $spring] + array_diff_key($in, ['changes' => 0]),
        )['weakest'];
        $this->assertEqualsWithDelta(
            $same(['1' => 1200, '2' => 1100, '3' => 1000, '4' => 1000], 400),
            $changes['spring']['weakest'],
            1e-9,
        );
        $this->assertEqualsWithDelta(
            $same(['1' => 1260, '2' => 1140, '3' => 1020, '4' => 1020], 300),
            $changes['boost']['weakest'],
            1e-9,
        );
        $this->assertEqualsWithDelta(
            $same(array_map(fn (float $p): float => 1.1 * (400 + 1.2 * ($p - 300)), $in['pressure_kpa']), 440),
            $changes['both']['weakest'],
            1e-9,
        );
        $over = $this->calc('power.margin', ['pressureLimit_kpa' => 950] + array_diff_key($in, ['changes' => 0]))[
            'overPressure'
        ];
        $this->assertSame([['gear' => '1', 'pressure_kpa' => 1100], ['gear' => '2', 'pressure_kpa' => 1000]], $over);
    }
}
