<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Eris\Generators;
use Eris\TestTrait;

/** What must hold for any engine, converter and vehicle, tried on random ones; the laws are those of mechanics. */
final class VehiclePropertiesTest extends CoreTestCase
{
    use TestTrait;

    /** @return \Eris\Generator three points of a full-load curve that rise in speed */
    private static function engine(): \Eris\Generator
    {
        return Generators::map(
            fn (array $n): array => [
                'curve' => [
                    ['speed_rpm' => 800 + $n[0], 'torque_nm' => $n[1]],
                    ['speed_rpm' => 2000 + $n[0], 'torque_nm' => $n[2]],
                    ['speed_rpm' => 5000 + $n[0], 'torque_nm' => $n[3]],
                ],
            ],
            Generators::tuple(
                Generators::choose(0, 600),
                Generators::choose(80, 500),
                Generators::choose(120, 700),
                Generators::choose(80, 600),
            ),
        );
    }

    /**
     * @return \Eris\Generator stall torque ratio in hundredths and K at stall,
     *     to a converter whose ratio falls straight to 1 at 0.85
     */
    private static function converter(): \Eris\Generator
    {
        return Generators::map(
            fn (array $n): array => [
                'points' => array_map(
                    fn (int $k): array => [
                        'speedRatio' => $k * 0.17,
                        'torqueRatio' => 1 + ($n[0] / 100 - 1) * (1 - $k / 5),
                        'kFactor' => $n[1] * (1 + 0.012 * $k ** 2),
                    ],
                    range(0, 5),
                ),
            ],
            Generators::tuple(Generators::choose(140, 260), Generators::choose(60, 240)),
        );
    }

    public function test_at_stall_the_converter_takes_what_the_engine_gives_and_no_slower_speed_does(): void
    {
        $this->limitTo(60)
            ->forAll(self::engine(), Generators::choose(60, 240))
            ->then(function (array $engine, int $k): void {
                $out = $this->calc('converter.match', [
                    'engine' => $engine,
                    'converter' => ['kFactor' => $k, 'stallTorqueRatio' => 2],
                ]);
                $this->assertRelative(($out['stall_rpm'] / $k) ** 2, $out['stallEngineTorque_nm'], 1e-9);
                $points = $engine['curve'];
                $torque = function (float $n) use ($points): float {
                    foreach ([[0, 1], [1, 2]] as [$a, $b]) {
                        if ($n <= $points[$b]['speed_rpm']) {
                            $share = max(
                                0.0,
                                ($n - $points[$a]['speed_rpm']) /
                                    ($points[$b]['speed_rpm'] - $points[$a]['speed_rpm']),
                            );

                            return $points[$a]['torque_nm'] +
                                $share * ($points[$b]['torque_nm'] - $points[$a]['torque_nm']);
                        }
                    }

                    return $points[2]['torque_nm'];
                };
                $this->assertRelative(
                    $torque($out['stall_rpm']),
                    $out['stallEngineTorque_nm'],
                    1e-9,
                    'the point lies on the curve',
                );
                for ($n = 100.0; $n < $out['stall_rpm'] - 1.0; $n += 97.0) {
                    $this->assertGreaterThan(($n / $k) ** 2, $torque($n), 'below it the engine still runs up');
                }
            });
    }

    public function test_more_engine_stalls_higher_and_a_looser_converter_too(): void
    {
        $this->limitTo(40)
            ->forAll(self::engine(), Generators::choose(60, 240), Generators::choose(101, 180))
            ->then(function (array $engine, int $k, int $percent): void {
                $stall = fn (array $e, float $k): float => $this->calc('converter.match', [
                    'engine' => $e,
                    'converter' => ['kFactor' => $k, 'stallTorqueRatio' => 2],
                ])['stall_rpm'];
                $more = [
                    'curve' => array_map(
                        fn (array $p): array => ['torque_nm' => ($p['torque_nm'] * $percent) / 100] + $p,
                        $engine['curve'],
                    ),
                ];
                $this->assertGreaterThan($stall($engine, $k), $stall($more, $k));
                $this->assertGreaterThan($stall($engine, $k), $stall($engine, ($k * $percent) / 100));
            });
    }

    public function test_no_point_of_a_converter_makes_power(): void
    {
        $this->limitTo(40)
            ->forAll(self::engine(), self::converter())
            ->then(function (array $engine, array $converter): void {
                foreach (
                    $this->calc('converter.match', ['engine' => $engine, 'converter' => $converter])['points'] as $p
                ) {
                    $this->assertGreaterThanOrEqual(-1e-9, $p['heat_kw']);
                    $this->assertRelative(
                        $p['engineTorque_nm'] * $p['engine_rpm'],
                        $p['turbineTorque_nm'] * $p['turbine_rpm'] + ($p['heat_kw'] * 30000) / M_PI,
                        1e-9,
                    );
                }
            });
    }

    public function test_the_highest_turbine_torque_is_the_highest_of_a_fine_sweep(): void
    {
        $between = 0;
        $this->limitTo(20)
            ->forAll(self::engine(), self::converter(), Generators::choose(1, 40))
            ->then(function (array $engine, array $converter, int $loosens) use (&$between): void {
                foreach ($converter['points'] as $n => $p) {
                    $converter['points'][$n]['kFactor'] = $p['kFactor'] * (1 + ($n * $loosens) / 50);
                    $converter['points'][$n]['torqueRatio'] = 1 + ($p['torqueRatio'] - 1) / 4;
                }
                $fine = [];
                foreach ($converter['points'] as $n => $p) {
                    $next = $converter['points'][$n + 1] ?? null;
                    for ($i = 0; $i < ($next === null ? 1 : 60); $i++) {
                        $fine[] =
                            $next === null
                                ? $p
                                : array_map(
                                    static fn (string $f): float => $p[$f] + (($next[$f] - $p[$f]) * $i) / 60,
                                    [
                                        'speedRatio' => 'speedRatio',
                                        'torqueRatio' => 'torqueRatio',
                                        'kFactor' => 'kFactor',
                                    ],
                                );
                    }
                }
                $out = $this->calc('converter.match', ['engine' => $engine, 'converter' => $converter]);
                $swept = max(
                    array_column(
                        $this->calc('converter.match', ['engine' => $engine, 'converter' => ['points' => $fine]])[
                            'points'
                        ],
                        'turbineTorque_nm',
                    ),
                );
                $this->assertLessThanOrEqual(
                    $out['highestTurbineTorque_nm'] * (1 + 1e-12),
                    $swept,
                    'no state of the sweep gives more',
                );
                $this->assertRelative(
                    $out['highestTurbineTorque_nm'],
                    $swept,
                    2e-2,
                    'and the sweep comes close to it',
                );
                $between +=
                    $out['highestTurbineTorque_nm'] >
                    max(array_column($out['points'], 'turbineTorque_nm')) * (1 + 1e-9)
                        ? 1
                        : 0;
            });
        $this->assertGreaterThan(
            0,
            $between,
            'some of these engines pull hardest between two points of the converter',
        );
    }

    public function test_every_launch_closes_its_energy_and_a_heavier_one_takes_longer_and_heats_more(): void
    {
        $this->limitTo(30)
            ->forAll(self::engine(), self::converter(), Generators::choose(900, 3500), Generators::choose(0, 12))
            ->then(function (array $engine, array $converter, int $mass, int $grade): void {
                $launch = fn (int $m): array => $this->calc('vehicle.launch', [
                    'engine' => $engine,
                    'converter' => $converter,
                    'vehicle' => ['mass_kg' => $m, 'axleRatio' => 3.6, 'tyreRadius_mm' => 340],
                    'ratio' => 2.8,
                    'grade_pct' => $grade,
                ]);
                $one = $launch($mass);
                if (! $one['reaches']) {
                    $this->assertArrayHasKey('hangs', $one);

                    return;
                }
                $motion = (0.5 * $mass * ($one['speed_kmh'] / 3.6) ** 2) / 1000;
                $this->assertRelative(
                    $one['engineWork_kj'],
                    $one['heat_kj'] + $motion + ($one['resistance_n'] * $one['distance_m']) / 1000,
                    1e-8,
                );
                $heavy = $launch($mass + 300);
                if ($heavy['reaches']) {
                    $this->assertGreaterThan($one['time_s'], $heavy['time_s']);
                    $this->assertGreaterThan($one['heat_kj'], $heavy['heat_kj']);
                    $this->assertRelative(
                        $one['speed_kmh'],
                        $heavy['speed_kmh'],
                        1e-9,
                        'coupling comes at the same road speed',
                    );
                }
            });
    }

    public function test_a_launch_agrees_with_an_integral_of_r(): void
    {
        // dv = (vc/0.85) d(s N(s)/N(0.85)); with a flat engine N(s) = K(s) sqrt(T), so t = integral of (d(s K)/ds) c /
        // a ds
        [$torque, $mass, $ratio, $axle, $radius, $k0] = [320.0, 1800.0, 2.6, 3.5, 0.33, 110.0];
        $points = array_map(
            fn (int $n): array => [
                'speedRatio' => $n * 0.0085,
                'torqueRatio' => 2 - $n * 0.01,
                'kFactor' => $k0 * (1 + 0.5 * ($n * 0.0085) ** 2),
            ],
            range(0, 100),
        );
        $ours = $this->calc('vehicle.launch', [
            'engine' => ['torque_nm' => $torque],
            'converter' => ['points' => $points],
            'vehicle' => ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => 1000 * $radius],
            'ratio' => $ratio,
            'rollingCoefficient' => 0.012,
        ]);
        $speed = sprintf('(pi/30) * %.1f * sqrt(%.1f) / (%.1f * %.1f) * %.2f', $k0, $torque, $ratio, $axle, $radius);
        $a = sprintf(
            '((2 - s/0.85) * %.1f * %.1f * %.1f / %.2f - %.1f * 9.80665 * 0.012) / %.1f',
            $torque,
            $ratio,
            $axle,
            $radius,
            $mass,
            $mass,
        );
        $time = $this->r(
            "integrate(function(s) $speed * (1 + 1.5 * s^2) / ($a), 0, 0.85, rel.tol = 1e-10)\$value",
        )[0];
        $this->assertRelative($time, $ours['time_s'], 2e-4);
    }

    public function test_a_tyre_grows_with_each_of_its_three_numbers(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(145, 335), Generators::choose(25, 80), Generators::choose(13, 22))
            ->then(function (int $width, int $aspect, int $rim): void {
                $radius = fn (int $w, int $a, int $r): float => $this->calc('tyre.size', ['size' => "$w/{$a}R$r"])[
                    'rollingRadius_mm'
                ];
                $here = $radius($width, $aspect, $rim);
                foreach (
                    [[$width + 10, $aspect, $rim], [$width, $aspect + 5, $rim], [$width, $aspect, $rim + 1]] as $bigger
                ) {
                    $this->assertGreaterThan($here, $radius(...$bigger));
                }
                $this->assertRelative(
                    (25.4 * 3.05) / (2 * M_PI),
                    $radius($width, $aspect, $rim + 1) - $here,
                    1e-9,
                    'an inch of rim',
                );
            });
    }

    public function test_shifts_take_the_same_heat_whatever_carries_the_mass(): void
    {
        // Only m (r/axle)^2 counts: twice the mass behind a radius smaller by sqrt(2) is the same inertia.
        $in = json_decode(\Yard\Core\Calculator\Calculators::schema('shift.energy'), true)['example']['input'];
        $this->limitTo(20)
            ->forAll(Generators::choose(800, 5000), Generators::choose(250, 420), Generators::choose(28, 45))
            ->then(function (int $mass, int $radius, int $tenths) use ($in): void {
                $heat = fn (array $vehicle): array => array_map(
                    fn (array $s): float => array_sum(array_column($s['elements'], 'energy_j')),
                    $this->calc('shift.energy', ['vehicle' => $vehicle] + $in)['shifts'],
                );
                $one = $heat(['mass_kg' => $mass, 'axleRatio' => $tenths / 10, 'tyreRadius_mm' => $radius]);
                $this->assertEqualsWithDelta(
                    $one,
                    $heat([
                        'mass_kg' => 2 * $mass,
                        'axleRatio' => $tenths / 10,
                        'tyreRadius_mm' => $radius / sqrt(2),
                    ]),
                    1e-6,
                );
                $this->assertEqualsWithDelta(
                    $one,
                    $heat(['mass_kg' => $mass, 'axleRatio' => $tenths / 5, 'tyreRadius_mm' => 2 * $radius]),
                    1e-6,
                );
                $laden = $heat(['mass_kg' => 3 * $mass, 'axleRatio' => $tenths / 10, 'tyreRadius_mm' => $radius]);
                foreach ($laden as $i => $heavier) {
                    $this->assertGreaterThan($one[$i], $heavier, 'a heavier vehicle gives way less');
                }
            });
    }
}
