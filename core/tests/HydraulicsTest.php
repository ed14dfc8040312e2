<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Plate packs, bands, turning oil and springs against textbook examples (data and printed answers from memory). */
final class HydraulicsTest extends CoreTestCase
{
    private const IN = 25.4;

    private const LBF = 4.4482216152605;

    private const PSI_KPA = 6.894757293168361;

    /** A pack pressed by exactly this force: piston of 100 mm2 at 10 kPa a newton. */
    private static function pack(
        float $mu,
        int $faces,
        float $outer,
        float $inner,
        float $force,
        string $model = 'uniform-wear',
    ): array {
        return [
            'mu' => $mu,
            'frictionFaces' => $faces,
            'outerDiameter_mm' => $outer,
            'innerDiameter_mm' => $inner,
            'model' => $model,
            'pistonOuter_mm' => sqrt(400.0 / M_PI),
            'pistonInner_mm' => 0,
            'pressure_kpa' => 10.0 * $force,
            'returnForce_n' => 0,
        ];
    }

    public function test_single_face_of_the_textbook(): void
    {
        // Budynas & Nisbett, Shigley's Mechanical Engineering Design, ch. 16, end-of-chapter problem: 250/175 mm, f
        // 0.30, 4 kN; printed 0.194 MPa and 127.5 N.m, 0.160 MPa and 129 N.m
        $wear = $this->calc('clutch.capacity', self::pack(0.3, 1, 250, 175, 4000));
        $this->assertRelative(127.5, $wear['torque_nm']);
        $this->assertRelative(194.0174544, $wear['liningPressure_kpa']);
        $even = $this->calc('clutch.capacity', self::pack(0.3, 1, 250, 175, 4000, 'uniform-pressure'));
        $this->assertRelative(128.8235294, $even['torque_nm']);
        $this->assertRelative(159.7790801, $even['liningPressure_kpa']);
    }

    public static function hydraulicMultidisk(): array
    {
        // same book, hydraulic multidisk problem: D 6.5 in, f 0.24, pa 120 psi, 6 faces; printed torques in lbf.in by
        // inner diameter
        return [
            [2, 5191.167701, 5191],
            [3, 6768.875531, 6769],
            [4, 7125.132138, 7125],
            [5, 5852.787114, 5853],
            [6, 2544.690049, 2545],
        ];
    }

    #[DataProvider('hydraulicMultidisk')]
    public function test_hydraulic_multidisk_of_the_textbook(float $inner, float $torque, float $printed): void
    {
        [$outer, $inner] = [6.5 * self::IN, $inner * self::IN];
        $force = (((M_PI * 120 * self::PSI_KPA) / 1000.0) * $inner * ($outer - $inner)) / 2.0;
        $out = $this->calc('clutch.capacity', self::pack(0.24, 6, $outer, $inner, $force));
        $inLbf = ($out['torque_nm'] * 1000.0) / self::IN / self::LBF;
        $this->assertRelative($torque, $inLbf);
        $this->assertEqualsWithDelta($printed, $inLbf, 0.5);
        $this->assertRelative(
            120 * self::PSI_KPA,
            $out['liningPressure_kpa'],
            1e-9,
            'the pressure the force was made from',
        );
    }

    public function test_wet_disks_of_the_textbook(): void
    {
        // Juvinall & Marshek, Fundamentals of Machine Component Design, ch. 18, multiple-disk wet clutch: N = 8, F =
        // 4483 N, 85 N.m, 1.17 MPa
        $out = $this->calc('clutch.capacity', self::pack(0.06, 8, 100, 58, 4483.122363));
        $this->assertRelative(85.0, $out['torque_nm']);
        $this->assertRelative(1171.610976, $out['liningPressure_kpa']);
    }

    public function test_piston_springs_and_a_pressure_too_low_to_apply(): void
    {
        $pack = [
            'mu' => 0.13,
            'frictionFaces' => 10,
            'outerDiameter_mm' => 140,
            'innerDiameter_mm' => 110,
            'model' => 'uniform-wear',
            'pistonOuter_mm' => 145,
            'pistonInner_mm' => 60,
            'returnForce_n' => 1500,
        ];
        $out = $this->calc('clutch.capacity', $pack + ['pressure_kpa' => 1000]);
        $this->assertEqualsWithDelta(12185.563, $out['normalForce_n'], 5e-4);
        $this->assertRelative(990.0769935, $out['torque_nm']);
        $this->assertSame(
            [0.0, 0.0],
            array_map(floatval(...), [
                $this->calc('clutch.capacity', $pack + ['pressure_kpa' => 100])['normalForce_n'],
                $this->calc('clutch.capacity', $pack + ['pressure_kpa' => 100])['torque_nm'],
            ]),
            'never negative',
        );
        $this->assertGreaterThan(
            0.0,
            $this->calc('clutch.capacity', $pack + ['pressure_kpa' => 109.61])['normalForce_n'],
        );
        $spun = $this->calc(
            'clutch.capacity',
            $pack + [
                'pressure_kpa' => 1000,
                'centrifugal' => ['speed_rpm' => 6000, 'density' => 850, 'fillRadius_mm' => 25],
            ],
        );
        $this->assertRelative(12185.563 + 5632.886666, $spun['normalForce_n'], 1e-7);
        // five double plates, 9000 N: printed nowhere, own closed form
        $this->assertRelative(
            731.25,
            $this->calc('clutch.capacity', self::pack(0.13, 10, 140, 110, 9000))['torque_nm'],
        );
        $this->assertRelative(
            734.76,
            $this->calc('clutch.capacity', self::pack(0.13, 10, 140, 110, 9000, 'uniform-pressure'))['torque_nm'],
        );
    }

    public static function turningOil(): array
    {
        return [
            [850, 3000, 60, 145, 30, 1250.357327],
            [850, 6000, 60, 145, 30, 5001.429308],
            [850, 6000, 60, 145, 25, 5632.886666],
            [830, 7000, 85, 140, 20, 6400.565287],
            [850, 6000, 60, 145, 0, 7068.017027],
            [850, 6000, 60, 145, 45, 2751.754369],
            [850, 0, 60, 145, 25, 0],
        ];
    }

    #[DataProvider('turningOil')]
    public function test_oil_in_a_turning_drum_agrees_with_integration(
        float $density,
        float $rpm,
        float $inner,
        float $outer,
        float $fill,
        float $force,
    ): void {
        $out = $this->calc('piston.centrifugal', [
            'speed_rpm' => $rpm,
            'pistonOuter_mm' => $outer,
            'pistonInner_mm' => $inner,
            'fillRadius_mm' => $fill,
            'density' => $density,
            'returnForce_n' => 1500,
        ]);
        $this->assertRelative($force, $out['force_n']);
        // Simpson's rule over the wetted ring
        $omega = ($rpm * M_PI) / 30.0;
        [$from, $to, $n] = [max($inner / 2000, $fill / 1000), $outer / 2000, 400];
        $sum = 0.0;
        for ($i = 0; $i <= $n; $i++) {
            $r = $from + (($to - $from) * $i) / $n;
            $sum +=
                ((($i === 0 || $i === $n ? 1 : ($i % 2 === 1 ? 4 : 2)) *
                    $density *
                    $omega ** 2 *
                    ($r ** 2 - ($fill / 1000) ** 2)) /
                    2.0) *
                2.0 *
                M_PI *
                $r;
        }
        $this->assertRelative(($sum * ($to - $from)) / $n / 3.0, $out['force_n'], 1e-9);
        $this->assertSame($force > 1500, $out['selfApplies']);
    }

    public function test_speed_at_which_a_clutch_applies_itself(): void
    {
        $oil = [
            'speed_rpm' => 3000,
            'pistonOuter_mm' => 145,
            'pistonInner_mm' => 60,
            'fillRadius_mm' => 25,
            'density' => 850,
            'returnForce_n' => 1500,
        ];
        $out = $this->calc('piston.centrifugal', $oil);
        $this->assertRelative(3096.216875, $out['selfApplySpeed_rpm']);
        $this->assertFalse($out['selfApplies']);
        $at = $this->calc('piston.centrifugal', ['speed_rpm' => $out['selfApplySpeed_rpm']] + $oil);
        $this->assertRelative(1500.0, $at['force_n']);
        $this->assertArrayNotHasKey(
            'selfApplySpeed_rpm',
            $this->calc('piston.centrifugal', ['fillRadius_mm' => 80] + $oil),
            'a drum without oil never applies',
        );
        $balanced = $this->calc(
            'piston.centrifugal',
            ['speed_rpm' => 6000, 'balance' => ['outer_mm' => 136, 'inner_mm' => 72, 'fillRadius_mm' => 25]] + $oil,
        );
        $this->assertRelative(1536.803726, $balanced['force_n'], 1e-8);
    }

    public function test_bands_of_the_textbook_and_our_own(): void
    {
        // Shigley, ch. 16, band brakes: pa 90 psi, D 14 in, b 4 in, f 0.25, 270 degrees: P1 2520 lbf, P2 776 lbf, T 12
        // 200 lbf.in
        $out = $this->calc('band.capacity', [
            'mu' => 0.25,
            'wrap_deg' => 270,
            'drumDiameter_mm' => 14 * self::IN,
            'applyForce_n' => 775.8172077 * self::LBF,
            'rotation' => 'with',
        ]);
        $this->assertRelative(2520 * self::LBF, $out['tightSide_n']);
        $this->assertRelative(12209.27955, ($out['torque_nm'] * 1000) / self::IN / self::LBF);
        $metric = $this->calc('band.capacity', [
            'mu' => 0.3,
            'wrap_deg' => 270,
            'drumDiameter_mm' => 350,
            'applyForce_n' => 659.7818854,
            'rotation' => 'with',
        ]);
        $this->assertRelative(2712.5, $metric['tightSide_n']);
        $this->assertRelative(359.2256701, $metric['torque_nm']);
        $own = ['mu' => 0.12, 'wrap_deg' => 330, 'drumDiameter_mm' => 140, 'applyForce_n' => 2500];
        [$with, $against] = [
            $this->calc('band.capacity', $own + ['rotation' => 'with']),
            $this->calc('band.capacity', $own + ['rotation' => 'against']),
        ];
        $this->assertRelative(174.3018184, $with['torque_nm']);
        $this->assertRelative(87.32510573, $against['torque_nm']);
        $this->assertRelative(1.996010391, $with['torque_nm'] / $against['torque_nm']);
        $this->assertSame([2500.0, 2500.0], [(float) $with['slackSide_n'], (float) $against['tightSide_n']]);
        foreach (['with', 'against'] as $rotation) {
            $this->assertSame(
                0.0,
                (float) $this->calc('band.capacity', ['mu' => 0, 'rotation' => $rotation] + $own)['torque_nm'],
            );
            $this->assertSame(
                0.0,
                (float) $this->calc('band.capacity', ['wrap_deg' => 0, 'rotation' => $rotation] + $own)['torque_nm'],
            );
        }
    }

    public function test_spring_of_the_textbook(): void
    {
        // Shigley, ch. 10, example 10-1: no. 16 music wire, d 0.037 in, OD 7/16 in, 12.5 coils squared ends, G 11.85
        // Mpsi; printed k 4.13, solid 0.500 (D rounded there)
        $out = $this->calc('spring.helical', [
            'wire_mm' => 0.037 * self::IN,
            'meanDiameter_mm' => 0.4005 * self::IN,
            'activeCoils' => 10.5,
            'solidCoils' => 13.5,
            'freeLength_mm' => 2.065699527 * self::IN,
            'modulus_gpa' => (11.85e6 * self::PSI_KPA) / 1e6,
            'compressedLength_mm' => (2.065699527 - 5 / 4.115649664) * self::IN,
        ]);
        $this->assertRelative(4.115649664, ($out['rate_n_per_mm'] / self::LBF) * self::IN);
        $this->assertEqualsWithDelta(4.13, ($out['rate_n_per_mm'] / self::LBF) * self::IN, 0.005 * 4.13);
        $this->assertRelative(10.82432432, $out['index']);
        $this->assertRelative(1.133157607, $out['wahl']);
        $this->assertRelative(0.4995, $out['solidLength_mm'] / self::IN);
        $this->assertRelative(6.445928559, $out['forces']['solid'] / self::LBF);
        $this->assertRelative(114076.9196, ($out['stress_mpa']['compressed'] / self::PSI_KPA) * 1000, 1e-8);
    }

    public function test_own_springs_alone_in_parallel_and_nested(): void
    {
        $one = [
            'wire_mm' => 1.6,
            'meanDiameter_mm' => 9.0,
            'activeCoils' => 6.5,
            'freeLength_mm' => 28.0,
            'modulus_gpa' => 79.3,
        ];
        $out = $this->calc('spring.helical', $one + ['installedLength_mm' => 24.5, 'compressedLength_mm' => 22.7]);
        $this->assertRelative(13.70951989, $out['rate_n_per_mm']);
        $this->assertRelative(1.271495495, $out['wahl']);
        $twenty = $this->calc('spring.helical', [
            'springs' => array_fill(0, 20, $one),
            'installedLength_mm' => 24.5,
            'compressedLength_mm' => 22.7,
        ]);
        $this->assertRelative(959.6663923, $twenty['forces']['installed']);
        $this->assertRelative(1453.209108, $twenty['forces']['compressed']);
        // thicker wire by 1 %: rate times 1.01^4
        $this->assertRelative(
            1.04060401,
            $this->calc('spring.helical', ['wire_mm' => 1.616] + $one)['rate_n_per_mm'] / $out['rate_n_per_mm'],
        );
        // nested: outer 12 N/mm free 60, inner 9 N/mm free 52 (wire chosen to give these rates)
        $with = fn (float $rate, float $free): array => [
            'wire_mm' => 2.0,
            'meanDiameter_mm' => 16.0,
            'activeCoils' => (79300 * 16.0) / (8 * 4096 * $rate),
            'solidCoils' => (79300 * 16.0) / (8 * 4096 * $rate) + 2,
            'freeLength_mm' => $free,
            'modulus_gpa' => 79.3,
        ];
        $nested = fn (float $length): array => $this->calc('spring.helical', [
            'springs' => [$with(12, 60), $with(9, 52)],
            'compressedLength_mm' => $length,
        ]);
        $this->assertRelative(243.0, $nested(45)['forces']['compressed']);
        $this->assertRelative(60.0, $nested(55)['forces']['compressed'], 1e-9, 'the inner one does not touch yet');
        $this->assertEqualsWithDelta(
            [[60, 12], [52, 21]],
            array_map(array_values(...), $nested(45)['rateSteps']),
            1e-9,
        );
    }

    public function test_an_accumulator_window_is_force_over_area_and_compares_builds(): void
    {
        $spring = [
            'wire_mm' => 2.4,
            'meanDiameter_mm' => 18.0,
            'activeCoils' => 9.0,
            'freeLength_mm' => 75.0,
            'modulus_gpa' => 79.3,
        ];
        $build = [
            'name' => 'stock',
            'pistonDiameter_mm' => 30.0,
            'springs' => [$spring],
            'installedLength_mm' => 70.0,
            'stroke_mm' => 40.0,
        ];
        $out = $this->calc('accumulator.window', [
            'builds' => [
                $build,
                ['name' => 'short', 'stroke_mm' => 25.0] + $build,
                ['name' => 'blocked', 'stroke_mm' => 0.0, 'springs' => []] + $build,
            ],
        ]);
        $rate = (79300 * 2.4 ** 4) / (8 * 18.0 ** 3 * 9);
        $area = M_PI * 225;
        $this->assertRelative((($rate * 5) / $area) * 1000, $out['builds'][0]['start_kpa']);
        $this->assertRelative((($rate * 45) / $area) * 1000, $out['builds'][0]['end_kpa']);
        $this->assertRelative(($area * 40) / 1000, $out['builds'][0]['volume_ml']);
        $this->assertRelative(((-$rate * 15) / $area) * 1000, $out['changes'][0]['end_kpa']);
        $this->assertSame([0.0, 0.0], [(float) $out['builds'][2]['volume_ml'], (float) $out['builds'][2]['end_kpa']]);
        $inner = ['freeLength_mm' => 60.0] + $spring;
        $bent = $this->calc('accumulator.window', ['builds' => [['springs' => [$spring, $inner]] + $build]])[
            'builds'
        ][0]['curve'];
        $this->assertCount(3, $bent, 'the curve bends where the inner spring begins to touch');
        $this->assertRelative(($area * 10) / 1000, $bent[1]['volume_ml']);
        $this->assertRefused(
            'accumulator.window',
            ['builds' => [['stroke_mm' => 55.0] + $build]],
            'solid',
            '/builds/0/stroke_mm',
        );
    }

    public function test_orifices_go_by_area_and_root_of_pressure(): void
    {
        $in = ['diameter_mm' => 2.0, 'dischargeCoefficient' => 0.62, 'pressureDrop_kpa' => 500, 'density' => 850];
        $out = $this->calc('orifice.flow', $in + ['compare' => ['diameter_mm' => 4.0]]);
        $this->assertRelative(0.62 * M_PI * 1e-6 * sqrt((2 * 500e3) / 850) * 60000, $out['flow_l_min']);
        $this->assertRelative(4.0, $out['ratio']);
        $this->assertRelative(
            2.0,
            $this->calc('orifice.flow', ['pressureDrop_kpa' => 2000] + $in)['flow_l_min'] / $out['flow_l_min'],
        );
    }

    public static function bad(): array
    {
        $pack = [
            'mu' => 0.13,
            'frictionFaces' => 10,
            'outerDiameter_mm' => 140,
            'innerDiameter_mm' => 110,
            'model' => 'uniform-wear',
            'pistonOuter_mm' => 145,
            'pistonInner_mm' => 60,
            'pressure_kpa' => 1000,
            'returnForce_n' => 1500,
        ];
        $spring = [
            'wire_mm' => 1.6,
            'meanDiameter_mm' => 9.0,
            'activeCoils' => 6.5,
            'freeLength_mm' => 28.0,
            'modulus_gpa' => 79.3,
        ];

        return [
            'missing mu' => ['clutch.capacity', array_diff_key($pack, ['mu' => 0]), 'missing', '/mu'],
            'inner above outer' => [
                'clutch.capacity',
                ['innerDiameter_mm' => 150] + $pack,
                'range',
                '/innerDiameter_mm',
            ],
            'half a face' => ['clutch.capacity', ['frictionFaces' => 9.5] + $pack, 'type', '/frictionFaces'],
            'wear without an inner edge' => [
                'clutch.capacity',
                ['innerDiameter_mm' => 0] + $pack,
                'range',
                '/innerDiameter_mm',
            ],
            'negative springs' => ['clutch.capacity', ['returnForce_n' => -1] + $pack, 'range', '/returnForce_n'],
            'negative spring wire' => ['spring.helical', ['wire_mm' => -1] + $spring, 'range', '/wire_mm'],
            'wire thicker than its coil' => [
                'spring.helical',
                ['wire_mm' => 9.5] + $spring,
                'range',
                '/meanDiameter_mm',
            ],
            'free below solid' => ['spring.helical', ['freeLength_mm' => 10] + $spring, 'range', '/freeLength_mm'],
            'pressed below solid' => [
                'spring.helical',
                ['compressedLength_mm' => 5] + $spring,
                'solid',
                '/compressedLength_mm',
            ],
            'decimal comma' => [
                'orifice.flow',
                ['diameter_mm' => '2,5', 'dischargeCoefficient' => 0.6, 'pressureDrop_kpa' => 1, 'density' => 850],
                'type',
                '/diameter_mm',
            ],
            'rotation' => [
                'band.capacity',
                ['mu' => 0.1, 'wrap_deg' => 300, 'drumDiameter_mm' => 140, 'applyForce_n' => 1, 'rotation' => 'left'],
                'choice',
                '/rotation',
            ],
        ];
    }

    #[DataProvider('bad')]
    public function test_bad_hardware_is_refused(string $name, array $input, string $code, string $path): void
    {
        $this->assertRefused($name, $input, $code, $path);
    }
}
