<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Eris\Generators;
use Eris\TestTrait;
use Yard\Core\Calculator\Calculators;

/**
 * What must hold for any train, pack, band, spring and package, tried on random ones. The laws are those of
 * Shigley's Mechanical Engineering Design (chapters on clutches, brakes, springs and gear trains, from memory)
 * and of mechanics itself; none of the expected values comes from the code under test.
 */
final class HardwarePropertiesTest extends CoreTestCase
{
    use TestTrait;

    /**
     * @return array<string, float> Willis's equation of one set: coefficients of the speeds of its members, sum zero
     */
    private static function willis(string $kind, int $sun, int $ring): array
    {
        return $kind === 'simple'
            ? ['sun' => $sun, 'ring' => $ring, 'carrier' => -($sun + $ring)]
            : ['sun' => $sun, 'ring' => -$ring, 'carrier' => $ring - $sun];
    }

    /**
     * Sets one after the other, each with one member held: the ratio is the product of the single ratios.
     *
     * @param  list<array{string, int, int, array{string, string, string}}>  $stages kind, sun teeth, ring teeth,
     *     members
     *     driven, driving on and held
     * @return array{array<string, mixed>, float}
     */
    private static function chain(array $stages): array
    {
        $train = [
            'input' => 'n0',
            'output' => 'n'.count($stages),
            'sets' => [],
            'elements' => [],
            'gears' => [['name' => 'g', 'applied' => []]],
        ];
        $ratio = 1.0;
        foreach ($stages as $k => [$kind, $sun, $ring, [$in, $out, $held]]) {
            $train['sets'][] = [
                'id' => "P$k",
                'kind' => $kind,
                'sunTeeth' => $sun,
                'ringTeeth' => $ring,
                $in => "n$k",
                $out => 'n'.($k + 1),
                $held => "h$k",
            ];
            $train['elements'][] = ['id' => "B$k", 'kind' => 'brake', 'a' => "h$k", 'b' => 'case'];
            $train['gears'][0]['applied'][] = "B$k";
            $c = self::willis($kind, $sun, $ring);
            $ratio *= -$c[$out] / $c[$in];
        }

        return [$train, $ratio];
    }

    private static function stages(): \Eris\Generator
    {
        $roles = [
            ['sun', 'ring', 'carrier'],
            ['sun', 'carrier', 'ring'],
            ['ring', 'sun', 'carrier'],
            ['ring', 'carrier', 'sun'],
            ['carrier', 'sun', 'ring'],
            ['carrier', 'ring', 'sun'],
        ];
        $stage = Generators::tuple(
            Generators::elements('simple', 'double'),
            Generators::choose(15, 40),
            Generators::choose(60, 120),
            Generators::elements(...$roles),
        );

        return Generators::bind(Generators::choose(1, 5), fn (int $n) => Generators::vector($n, $stage));
    }

    public function test_sets_in_a_row_multiply_their_ratios(): void
    {
        $this->limitTo(80)
            ->forAll(self::stages())
            ->then(function (array $stages): void {
                [$train, $ratio] = self::chain($stages);
                $gear = $this->calc('geartrain.solve', $train)['gears'][0];
                $this->assertSame('driven', $gear['state']);
                $this->assertRelative($ratio, $gear['ratio'], 1e-9);
                $this->assertRelative($ratio, $gear['outputTorque'], 1e-9, 'what turns slower turns harder');
            });
    }

    public function test_every_set_keeps_its_torque_shares_and_loses_no_power(): void
    {
        $this->limitTo(80)
            ->forAll(self::stages())
            ->then(function (array $stages): void {
                [$train] = self::chain($stages);
                $gear = $this->calc('geartrain.solve', $train)['gears'][0];
                foreach ($train['sets'] as $k => $set) {
                    $torque = $gear['setTorque'][$set['id']];
                    $size = max(array_map(abs(...), $torque));
                    $this->assertEqualsWithDelta(
                        0.0,
                        array_sum($torque),
                        1e-9 * $size,
                        'torques of a set add up to nothing',
                    );
                    $power = 0.0;
                    foreach (['sun', 'ring', 'carrier'] as $member) {
                        $power += $torque[$member] * $gear['speeds'][$set[$member]];
                    }
                    $this->assertEqualsWithDelta(0.0, $power, 1e-9 * $size, 'a set makes no power');
                    // the tooth force is the same at sun and ring: torques go as the teeth
                    $c = self::willis($set['kind'], $set['sunTeeth'], $set['ringTeeth']);
                    $this->assertRelative(
                        $c['sun'] / $c['ring'],
                        $torque['sun'] / $torque['ring'],
                        1e-9,
                        $set['kind'],
                    );
                    $this->assertEqualsWithDelta(
                        abs($gear['elementTorque']["B$k"]),
                        abs($torque[$stages[$k][3][2]]),
                        1e-9 * $size,
                        'the brake holds what the held member gives it',
                    );
                }
            });
    }

    public function test_one_set_turned_as_a_block_has_no_pinion_speed(): void
    {
        $this->limitTo(30)
            ->forAll(
                Generators::elements('simple', 'double'),
                Generators::choose(15, 40),
                Generators::choose(60, 120),
                Generators::elements(['sun', 'ring'], ['sun', 'carrier'], ['ring', 'carrier']),
            )
            ->then(function (string $kind, int $sun, int $ring, array $locked): void {
                $set = [
                    'id' => 'P',
                    'kind' => $kind,
                    'sun' => 'sun',
                    'ring' => 'ring',
                    'carrier' => 'carrier',
                    'sunTeeth' => $sun,
                    'ringTeeth' => $ring,
                ];
                $train = [
                    'input' => $locked[0],
                    'output' => array_values(array_diff(['sun', 'ring', 'carrier'], $locked))[0],
                    'sets' => [$set],
                    'elements' => [['id' => 'C', 'kind' => 'clutch', 'a' => $locked[0], 'b' => $locked[1]]],
                    'gears' => [['name' => '1:1', 'applied' => ['C']], ['name' => 'N', 'applied' => []]],
                ];
                [$block, $neutral] = $this->calc('geartrain.solve', $train)['gears'];
                $this->assertRelative(1.0, $block['ratio']);
                foreach ($block['speeds'] as $speed) {
                    $this->assertRelative(1.0, $speed);
                }
                $this->assertNotSame('driven', $neutral['state'], 'nothing applied drives nothing');
            });
    }

    /**
     * Torque of one face by summing rings: mu p 2 pi r^2 dr, with pressure even or falling as 1/r, at the given clamp
     * force.
     */
    private static function faceTorque(string $model, float $mu, float $force, float $inner, float $outer): float
    {
        $n = 4000;
        $h = ($outer - $inner) / $n;
        $area = $torque = 0.0;
        for ($i = 0; $i < $n; $i++) {
            $r = $inner + ($i + 0.5) * $h;
            $p = $model === 'uniform-wear' ? 1.0 / $r : 1.0;
            $area += $p * 2 * M_PI * $r * $h;
            $torque += $p * 2 * M_PI * $r * $r * $h;
        }

        return ($mu * $force * $torque) / $area / 1000.0;
    }

    public function test_a_pack_holds_what_its_rings_add_up_to(): void
    {
        $this->limitTo(40)
            ->forAll(
                Generators::choose(60, 180),
                Generators::choose(5, 60),
                Generators::choose(2, 14),
                Generators::choose(80, 160),
                Generators::choose(400, 1800),
            )
            ->then(function (int $inner, int $width, int $faces, int $mu, int $kpa): void {
                $outer = $inner + $width;
                $in = [
                    'mu' => $mu / 1000,
                    'frictionFaces' => $faces,
                    'outerDiameter_mm' => $outer,
                    'innerDiameter_mm' => $inner,
                    'pistonOuter_mm' => 150,
                    'pistonInner_mm' => 70,
                    'pressure_kpa' => $kpa,
                    'returnForce_n' => 900,
                ];
                $force = (($kpa * 1e-3 * M_PI) / 4) * (150 ** 2 - 70 ** 2) - 900;
                $torque = [];
                foreach (['uniform-wear', 'uniform-pressure'] as $model) {
                    $out = $this->calc('clutch.capacity', ['model' => $model] + $in);
                    $this->assertRelative($force, $out['normalForce_n'], 1e-9);
                    $this->assertRelative(
                        $faces * self::faceTorque($model, $mu / 1000, $force, $inner / 2, $outer / 2),
                        $out['torque_nm'],
                        1e-6,
                        $model,
                    );
                    $torque[$model] = $out['torque_nm'];
                }
                $this->assertGreaterThan(
                    $torque['uniform-wear'],
                    $torque['uniform-pressure'],
                    'a worn-in pack holds a little less than a new one',
                );
            });
    }

    public function test_a_pack_gains_with_each_plate_as_much_as_with_the_one_before(): void
    {
        $example = json_decode(Calculators::schema('clutch.capacity'), true)['example']['input'];
        $this->limitTo(30)
            ->forAll(Generators::choose(1, 12), Generators::choose(300, 2500))
            ->then(function (int $faces, int $kpa) use ($example): void {
                $at = fn (int $n, int $p): float => $this->calc(
                    'clutch.capacity',
                    ['frictionFaces' => $n, 'pressure_kpa' => $p] + $example,
                )['torque_nm'];
                $this->assertRelative($at($faces, $kpa) / $faces, $at($faces + 1, $kpa) - $at($faces, $kpa), 1e-9);
                // even steps of pressure are even steps of torque once the springs are overcome
                $this->assertRelative(
                    $at($faces, $kpa + 100) - $at($faces, $kpa),
                    $at($faces, $kpa + 200) - $at($faces, $kpa + 100),
                    1e-9,
                );
            });
    }

    public function test_a_band_pulls_as_a_rope_round_a_post(): void
    {
        // Euler-Eytelwein: tight over slack = e^(mu theta), marched here in small steps of the wrap, dT = mu T dtheta
        $this->limitTo(30)
            ->forAll(Generators::choose(180, 690), Generators::choose(60, 180), Generators::choose(500, 6000))
            ->then(function (int $wrap, int $mu, int $force): void {
                $tension = 1.0;
                $steps = 20000;
                $d = deg2rad($wrap) / $steps;
                for ($i = 0; $i < $steps; $i++) {
                    $half = $tension + (($mu / 1000) * $tension * $d) / 2;
                    $tension += ($mu / 1000) * $half * $d;
                }
                $at = fn (string $rotation): array => $this->calc('band.capacity', [
                    'mu' => $mu / 1000,
                    'wrap_deg' => $wrap,
                    'drumDiameter_mm' => 140,
                    'applyForce_n' => $force,
                    'rotation' => $rotation,
                ]);
                [$with, $against] = [$at('with'), $at('against')];
                $this->assertRelative($tension, $with['tightSide_n'] / $with['slackSide_n'], 1e-6);
                $this->assertRelative(
                    $tension,
                    $with['torque_nm'] / $against['torque_nm'],
                    1e-6,
                    'the servo at the slack side is worth e^(mu theta) as much',
                );
                $this->assertRelative(($with['tightSide_n'] - $with['slackSide_n']) * 0.07, $with['torque_nm'], 1e-9);
            });
    }

    public function test_oil_in_a_drum_pushes_with_the_square_of_the_speed(): void
    {
        $in = json_decode(Calculators::schema('piston.centrifugal'), true)['example']['input'];
        $this->limitTo(30)
            ->forAll(Generators::choose(200, 9000), Generators::choose(100, 4000))
            ->then(function (int $rpm, int $spring) use ($in): void {
                $out = $this->calc('piston.centrifugal', ['speed_rpm' => $rpm, 'returnForce_n' => $spring] + $in);
                $twice = $this->calc(
                    'piston.centrifugal',
                    ['speed_rpm' => 2 * $rpm, 'returnForce_n' => $spring] + $in,
                );
                $this->assertRelative(4 * $out['force_n'], $twice['force_n'], 1e-9);
                $this->assertSame($out['force_n'] > $spring, $out['selfApplies']);
                // at the speed named the oil and the springs are equal
                $this->assertRelative(
                    (float) $spring,
                    $this->calc(
                        'piston.centrifugal',
                        ['speed_rpm' => $out['selfApplySpeed_rpm'], 'returnForce_n' => $spring] + $in,
                    )['force_n'],
                    1e-9,
                );
            });
    }

    public function test_springs_follow_wire_diameter_and_coils(): void
    {
        $in = json_decode(Calculators::schema('spring.helical'), true)['example']['input'];
        $this->limitTo(30)
            ->forAll(Generators::choose(8, 40), Generators::choose(4, 12), Generators::choose(30, 120))
            ->then(function (int $wire, int $index, int $coils) use ($in): void {
                $own =
                    [
                        'wire_mm' => $wire / 10,
                        'meanDiameter_mm' => ($wire / 10) * $index,
                        'activeCoils' => $coils / 10,
                        'freeLength_mm' => 200,
                        'installedLength_mm' => 190,
                        'compressedLength_mm' => 180,
                    ] + $in;
                $out = $this->calc('spring.helical', $own);
                // energy: half k x^2 equals the torsion energy of the wire, T^2 L / 2 G J, with T = F D/2, J = pi
                // d^4/32, L = pi D N
                [$d, $mean, $force] = [$wire / 1e4, ($wire / 1e4) * $index, $out['forces']['installed']];
                $torsion =
                    ((($force * $mean) / 2) ** 2 * M_PI * $mean * $coils) /
                    10 /
                    ((2 * $in['modulus_gpa'] * 1e9 * M_PI * $d ** 4) / 32);
                $this->assertRelative($torsion, 0.5 * $force * 0.01, 1e-9);
                $this->assertRelative(2 * $out['forces']['installed'], $out['forces']['compressed'], 1e-9);
                $this->assertRelative(
                    $out['rate_n_per_mm'] / 2,
                    $this->calc('spring.helical', ['activeCoils' => $coils / 5] + $own)['rate_n_per_mm'],
                    1e-9,
                    'twice the coils, half the rate',
                );
                $this->assertGreaterThan(1.0, $out['wahl']);
            });
    }

    public function test_two_equal_orifices_flow_as_one_of_root_two(): void
    {
        $in = json_decode(Calculators::schema('orifice.flow'), true)['example']['input'];
        $this->limitTo(30)
            ->forAll(Generators::choose(5, 60), Generators::choose(10, 1500))
            ->then(function (int $tenths, int $kpa) use ($in): void {
                $flow = fn (float $diameter, float $drop): float => $this->calc(
                    'orifice.flow',
                    ['diameter_mm' => $diameter, 'pressureDrop_kpa' => $drop, 'compare' => ['diameter_mm' => 1.0]] +
                        $in,
                )['flow_l_min'];
                $this->assertRelative(2 * $flow($tenths / 10, $kpa), $flow(($tenths / 10) * M_SQRT2, $kpa), 1e-9);
                $this->assertRelative(
                    2 * $flow($tenths / 10, $kpa),
                    $flow($tenths / 10, 4 * $kpa),
                    1e-9,
                    'four times the pressure, twice the flow',
                );
                // the jet carries the pressure away as kinetic energy (Bernoulli): v = Q/(Cd A), p = rho v^2 / 2
                $v =
                    $flow($tenths / 10, $kpa) /
                    6e4 /
                    ((($in['dischargeCoefficient'] * M_PI) / 4) * ($tenths / 1e4) ** 2);
                $this->assertRelative($kpa * 1000.0, ($in['density'] * $v ** 2) / 2, 1e-9);
            });
    }

    public function test_margins_fall_as_torque_rises_and_never_rise_with_lower_pressure(): void
    {
        $in = json_decode(Calculators::schema('power.margin'), true)['example']['input'];
        $rows = function (array $in): array {
            $rows = [];
            foreach ($this->calc('power.margin', $in)['gears'] as $gear) {
                foreach ($gear['elements'] as $e) {
                    $rows["{$gear['name']} {$e['element']}"] = $e;
                }
            }

            return $rows;
        };
        $this->limitTo(30)
            ->forAll(Generators::choose(50, 900), Generators::choose(500, 1800), Generators::choose(1, 99))
            ->then(function (int $torque, int $kpa, int $percent) use ($in, $rows): void {
                $base = $rows(['inputTorque_nm' => $torque, 'pressure_kpa' => $kpa] + $in);
                $double = $rows(['inputTorque_nm' => 2 * $torque, 'pressure_kpa' => $kpa] + $in);
                $low = $rows(['inputTorque_nm' => $torque, 'pressure_kpa' => ($kpa * $percent) / 100] + $in);
                foreach ($base as $key => $e) {
                    $this->assertRelative($e['margin'] / 2, $double[$key]['margin'], 1e-9, $key);
                    $this->assertLessThanOrEqual($e['margin'] + 1e-12, $low[$key]['margin'], $key);
                }
            });
    }

    public function test_heat_of_a_shift_grows_with_its_time_by_the_engine_alone(): void
    {
        // Heat = a + b t: the inertia's share does not depend on the time, the engine's share is proportional to it.
        $in = json_decode(Calculators::schema('shift.energy'), true)['example']['input'];
        $this->limitTo(20)
            ->forAll(Generators::choose(100, 700), Generators::choose(1500, 6500), Generators::choose(5, 60))
            ->then(function (int $torque, int $rpm, int $hundredths) use ($in): void {
                $heat = fn (array $more): float => array_sum(
                    array_column(
                        $this->calc(
                            'shift.energy',
                            $more + ['inputTorque_nm' => $torque, 'inputSpeed_rpm' => $rpm] + $in,
                        )['shifts'][0]['elements'],
                        'energy_j',
                    ),
                );
                $t = $hundredths / 50;
                $inertia = $heat(['inputTorque_nm' => 0, 'shiftTime_s' => $t]);
                $this->assertRelative($inertia, $heat(['inputTorque_nm' => 0, 'shiftTime_s' => 3 * $t]), 1e-9);
                $this->assertRelative(
                    3 * ($heat(['shiftTime_s' => $t]) - $inertia),
                    $heat(['shiftTime_s' => 3 * $t]) - $inertia,
                    1e-9,
                );
                // 1-2 of this train by its closed forms, R/s and R(s+l)/(s(l+R))
                [$first, $second] = [74 / 30, (74 * (30 + 38)) / (30 * (38 + 74))];
                $w1 = ($rpm * M_PI) / 30;
                $w2 = ($w1 * $second) / $first;
                // kinetic energy given up less the work it does at the output, which keeps w1/i1 and gets i2 J dw/t for
                // t
                $this->assertRelative(
                    0.5 * $in['inputInertia_kgm2'] * ($w1 ** 2 - $w2 ** 2) -
                        ($second * $in['inputInertia_kgm2'] * ($w1 - $w2) * $w1) / $first,
                    $inertia,
                    1e-9,
                );
            });
    }

    /**
     * @return \Eris\Generator a catalog as a list of [price, requires, excludes,
     *     either]; targets are taken modulo what comes later
     */
    private static function catalog(): \Eris\Generator
    {
        $row = Generators::tuple(
            Generators::choose(0, 90),
            Generators::choose(0, 40),
            Generators::choose(0, 40),
            Generators::choose(0, 40),
        );

        return Generators::bind(Generators::choose(4, 12), fn (int $n) => Generators::vector($n, $row));
    }

    /**
     * @param  list<array{int, int, int, int}>  $rows
     * @return list<array<string, mixed>>
     */
    private static function options(array $rows): array
    {
        $options = [];
        $n = count($rows);
        foreach ($rows as $i => [$price, $requires, $excludes, $either]) {
            $left = $n - 1 - $i;
            $later = fn (int $k): ?string => $left > 0 && $k < 2 * $left ? 'o'.($i + 1 + ($k % $left)) : null;
            $options[] = [
                'code' => "o$i",
                'price' => $price,
                'requires' => array_values(array_filter([$later($requires)])),
                'excludes' => array_values(array_filter([$later($excludes)])),
                'requiresAny' => $left > 1 && $later($either) !== null
                        ? [array_values(array_unique([$later($either), 'o'.($n - 1)]))]
                        : [],
            ];
        }

        return $options;
    }

    public function test_one_more_wish_is_never_cheaper_and_one_rule_less_never_dearer(): void
    {
        $cost = fn (array $options, array $wanted): float => ($out = $this->calc('package.resolve', [
            'options' => $options,
            'wanted' => $wanted,
        ]))['status'] === 'ok'
            ? (float) $out['cheapest']['cost']
            : INF;
        $this->limitTo(60)
            ->forAll(self::catalog(), Generators::choose(0, 11), Generators::choose(0, 11))
            ->then(function (array $rows, int $a, int $b) use ($cost): void {
                $options = self::options($rows);
                $n = count($options);
                [$a, $b] = ['o'.$a % $n, 'o'.$b % $n];
                $both = $cost($options, array_values(array_unique([$a, $b])));
                $this->assertGreaterThanOrEqual($cost($options, [$a]), $both);
                foreach ($options as $i => $option) {
                    foreach (['requires', 'excludes', 'requiresAny'] as $rule) {
                        if ($option[$rule] !== []) {
                            $this->assertLessThanOrEqual(
                                $both,
                                $cost(
                                    array_replace($options, [$i => [$rule => []] + $option]),
                                    array_values(array_unique([$a, $b])),
                                ),
                                "$rule of {$option['code']} taken away",
                            );
                        }
                    }
                }
            });
    }

    public function test_a_package_is_the_cheapest_of_all_and_other_codes_change_nothing(): void
    {
        $this->limitTo(40)
            ->forAll(self::catalog(), Generators::choose(0, 11))
            ->then(function (array $rows, int $w): void {
                $options = self::options($rows);
                $n = count($options);
                $wanted = 'o'.$w % $n;
                $best = INF;
                for ($mask = 0; $mask < 1 << $n; $mask++) {
                    $in = fn (string $code): bool => (($mask >> (int) substr($code, 1)) & 1) === 1;
                    $cost = 0;
                    $ok = $in($wanted);
                    foreach ($options as $o) {
                        if (! $ok || ! $in($o['code'])) {
                            continue;
                        }
                        $cost += $o['price'];
                        foreach ($o['requires'] as $r) {
                            $ok = $ok && $in($r);
                        }
                        foreach ($o['excludes'] as $r) {
                            $ok = $ok && ! $in($r);
                        }
                        foreach ($o['requiresAny'] as $any) {
                            $ok = $ok && array_filter($any, $in) !== [];
                        }
                    }
                    $ok && ($best = min($best, $cost));
                }
                $out = $this->calc('package.resolve', ['options' => $options, 'wanted' => [$wanted]]);
                $this->assertSame($best < INF, $out['status'] === 'ok');
                $renamed = json_decode(
                    (string) preg_replace_callback(
                        '/"o(\d+)"/',
                        fn (array $m): string => '"zz '.(99 - (int) $m[1]).' ü"',
                        (string) json_encode(['options' => array_reverse($options), 'wanted' => [$wanted]]),
                    ),
                    true,
                );
                $again = $this->calc('package.resolve', $renamed);
                $this->assertSame($out['status'], $again['status']);
                if ($best < INF) {
                    $this->assertEqualsWithDelta($best, $out['cheapest']['cost'], 1e-9);
                    $this->assertEqualsWithDelta($best, $again['cheapest']['cost'], 1e-9);
                }
            });
    }
}
