<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Eris\Generators;
use Eris\TestTrait;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * How an accumulator lets a shift happen: closed forms where there are any, else a plain step-by-step integration in
 * the test.
 */
final class ShiftFeelTest extends CoreTestCase
{
    use TestTrait;

    private const FEED = ['diameter_mm' => 2.0, 'dischargeCoefficient' => 0.62, 'density' => 850];

    private const SPRING = [
        'wire_mm' => 3.6,
        'meanDiameter_mm' => 24,
        'activeCoils' => 12,
        'freeLength_mm' => 122,
        'modulus_gpa' => 79.3,
    ];

    /** Simple set, sun held by B: 1.5; locked by C: 1. The clutch C carries a share of the input while it slips. */
    private const TRAIN = [
        'input' => 'ring',
        'output' => 'carrier',
        'sets' => [
            [
                'id' => 'P',
                'kind' => 'simple',
                'sun' => 'sun',
                'ring' => 'ring',
                'carrier' => 'carrier',
                'sunTeeth' => 36,
                'ringTeeth' => 72,
            ],
        ],
        'elements' => [
            ['id' => 'B', 'kind' => 'brake', 'a' => 'sun', 'b' => 'case'],
            ['id' => 'C', 'kind' => 'clutch', 'a' => 'ring', 'b' => 'sun'],
        ],
        'gears' => [['name' => '1', 'applied' => ['B']], ['name' => '2', 'applied' => ['C']]],
    ];

    private const CLUTCH = [
        'kind' => 'clutch',
        'mu' => 0.13,
        'frictionFaces' => 8,
        'outerDiameter_mm' => 150,
        'innerDiameter_mm' => 118,
        'model' => 'uniform-pressure',
        'pistonOuter_mm' => 122,
        'pistonInner_mm' => 62,
        'returnForce_n' => 1100,
    ];

    /** @param  array<string, mixed>  $other @return array<string, mixed> */
    private static function accumulator(array $other = []): array
    {
        return $other + [
            'name' => 'as made',
            'pistonDiameter_mm' => 32,
            'springs' => [self::SPRING],
            'installedLength_mm' => 97,
            'stroke_mm' => 44.5,
            'feed' => self::FEED,
            'line_kpa' => 950,
        ];
    }

    /**
     * @param  array<string, mixed>  $other
     * @param  list<array<string, mixed>>  $builds
     * @return array<string, mixed>
     */
    private static function shift(array $other = [], array $builds = []): array
    {
        return $other +
            self::TRAIN + [
                'from' => '1',
                'to' => '2',
                'element' => 'C',
                'capacity' => self::CLUTCH,
                'inputTorque_nm' => 300,
                'inputSpeed_rpm' => 4500,
                'inputInertia_kgm2' => 0.25,
                'builds' => $builds === [] ? [self::accumulator()] : $builds,
            ];
    }

    /** Torque of the clutch as seen at the input at a pressure in kPa, by the formulas of clutch.capacity. */
    private function atInput(float $kpa): float
    {
        $share = abs($this->calc('geartrain.solve', self::TRAIN)['gears'][1]['elementTorque']['C']);

        return $this->calc('clutch.capacity', array_diff_key(self::CLUTCH, ['kind' => 0]) + ['pressure_kpa' => $kpa])[
            'torque_nm'
        ] / $share;
    }

    public function test_blocked_solid_the_input_falls_evenly_under_the_torque_of_line_pressure(): void
    {
        $out = $this->calc('shift.feel', self::shift([], [self::accumulator(['springs' => [], 'stroke_mm' => 0])]))[
            'builds'
        ][0];
        $x = $this->atInput(950);
        $drop = ((4500 * M_PI) / 30) * (1 - 1 / 1.5);
        $this->assertSame(0.0, (float) $out['takeOver_s']);
        $this->assertRelative(($drop * 0.25) / ($x - 300), $out['duration_s'], 1e-12, 'I dw/dt = Te - X');
        $this->assertRelative(
            (($x * $drop) / 2) * $out['duration_s'],
            $out['energy_j'],
            1e-12,
            'torque times half the first slip times time',
        );
        $this->assertRelative($x / 300, $out['bump'], 1e-12);
        $this->assertFalse($out['endsInStroke']);
    }

    public function test_a_piston_held_at_one_pressure_gives_that_torque(): void
    {
        // No spring but a back pressure: the pack stays at 500 kPa as long as the piston moves.
        $out = $this->calc(
            'shift.feel',
            self::shift([], [self::accumulator(['springs' => [], 'backPressure_kpa' => 500, 'stroke_mm' => 60])]),
        )['builds'][0];
        $x = $this->atInput(500);
        $this->assertTrue($out['endsInStroke']);
        $this->assertRelative((((4500 * M_PI) / 30 / 3) * 0.25) / ($x - 300), $out['duration_s'], 1e-12);
        $flow = $this->calc('orifice.flow', self::FEED + ['pressureDrop_kpa' => 450])['flow_l_min'];
        $this->assertRelative(
            (((M_PI / 4) * 32 ** 2 * 60) / 1e6 / $flow) * 60,
            $out['fill_s'],
            1e-12,
            'stroke volume over the flow of orifice.flow',
        );
    }

    public function test_the_time_to_fill_agrees_with_an_integral_of_r(): void
    {
        // dt = dV / (C sqrt(line - p(V))), p from the springs of spring.helical
        $out = $this->calc('accumulator.window', ['builds' => [self::accumulator()]])['builds'][0];
        [$start, $end, $volume] = [$out['start_kpa'], $out['end_kpa'], $out['volume_ml']];
        $conductance = ((0.62 * M_PI) / 4) * 4.0 * sqrt(2000 / 850);
        $r = $this->r(
            sprintf(
                'integrate(function(v) 1 / (%.15g * sqrt(950 - (%.15g + (%.15g - %.15g) * v / %.15g))), 0, %.15g, '
                    .'rel.tol = 1e-11)$value',
                $conductance,
                $start,
                $end,
                $start,
                $volume,
                $volume,
            ),
        )[0];
        $this->assertRelative($r, $out['fill_s'], 1e-9);
        $this->assertTrue($out['fills']);
        $weak = $this->calc('accumulator.window', ['builds' => [self::accumulator(['line_kpa' => $end - 1])]])[
            'builds'
        ][0];
        $this->assertFalse($weak['fills']);
        $this->assertArrayNotHasKey('fill_s', $weak);
    }

    /** @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>}> */
    public static function shifts(): iterable
    {
        $vehicle = ['vehicle' => ['mass_kg' => 1900, 'axleRatio' => 3.5, 'tyreRadius_mm' => 340]];
        $inner = [
            'wire_mm' => 2.4,
            'meanDiameter_mm' => 15,
            'activeCoils' => 10,
            'freeLength_mm' => 80,
            'modulus_gpa' => 79.3,
        ];
        yield 'the output keeps its speed' => [[], [self::accumulator()]];
        yield 'with a vehicle' => [$vehicle, [self::accumulator()]];
        yield 'uphill' => [['roadLoad_n' => 4000] + $vehicle, [self::accumulator()]];
        yield 'a short stroke that ends before the shift' => [$vehicle, [self::accumulator(['stroke_mm' => 12])]];
        yield 'an inner spring that touches on the way' => [
            $vehicle,
            [self::accumulator(['springs' => [self::SPRING, $inner]])],
        ];
        yield 'line pressure below the end of the stroke' => [$vehicle, [self::accumulator(['line_kpa' => 700])]];
        yield 'springs so soft that the plates do not touch at first' => [
            $vehicle,
            [self::accumulator(['springs' => [['wire_mm' => 2.6] + self::SPRING]])],
        ];
        yield 'the old gear lets go too early' => [$vehicle, [self::accumulator(['letsGo_s' => 0.05])]];
        yield 'before the plates touch' => [
            $vehicle,
            [self::accumulator(['letsGo_s' => 0.0, 'springs' => [['wire_mm' => 2.6] + self::SPRING]])],
        ];
        yield 'the old gear lets go too late' => [
            ['roadLoad_n' => 2000] + $vehicle,
            [self::accumulator(['letsGo_s' => 0.4])],
        ];
        yield 'after the piston is at its end' => [
            $vehicle,
            [self::accumulator(['letsGo_s' => 0.5, 'stroke_mm' => 12])],
        ];
        yield 'a big engine' => [['inputTorque_nm' => 500] + $vehicle, [self::accumulator()]];
    }

    /**
     * @param  array<string, mixed>  $other
     * @param  list<array<string, mixed>>  $builds
     */
    #[DataProvider('shifts')]
    public function test_the_shift_agrees_with_a_step_by_step_integration(array $other, array $builds): void
    {
        $asked = self::shift($other, $builds);
        $out = $this->calc('shift.feel', $asked)['builds'][0];
        [$build, $vehicle] = [$builds[0], $asked['vehicle'] ?? null];
        $window = $this->calc('accumulator.window', ['builds' => $builds])['builds'][0];
        [$once, $twice] = [$this->atInput(1e6), $this->atInput(2e6)];
        $torque = static fn (float $kpa): float => max(0.0, $once + ($twice - $once) * ($kpa / 1e6 - 1));
        $pressure = static function (float $volume) use ($window, $build): float {
            foreach (array_slice($window['curve'], 1) as $n => $point) {
                if ($volume < $point['volume_ml']) {
                    $from = $window['curve'][$n];

                    return $from['pressure_kpa'] +
                        (($point['pressure_kpa'] - $from['pressure_kpa']) * ($volume - $from['volume_ml'])) /
                            ($point['volume_ml'] - $from['volume_ml']);
                }
            }

            return $build['line_kpa'];
        };
        $conductance = ((0.62 * M_PI) / 4) * 4.0 * sqrt(2000 / 850);
        [$i, $j, $te] = [
            0.25,
            $vehicle === null
                ? 1e12
                : $vehicle['mass_kg'] * ($vehicle['tyreRadius_mm'] / 1000 / $vehicle['axleRatio']) ** 2,
            $asked['inputTorque_nm'],
        ];
        $road =
            $vehicle === null
                ? 0.0
                : (($asked['roadLoad_n'] ?? 0.0) * $vehicle['tyreRadius_mm']) / 1000 / $vehicle['axleRatio'];
        [$w, $volume, $t, $heat, $took, $free, $step, $flare, $lowest] = [
            (4500 * M_PI) / 30,
            0.0,
            0.0,
            0.0,
            null,
            null,
            2e-6,
            0.0,
            INF,
        ];
        $letsGo = $build['letsGo_s'] ?? null;
        $v = $w / 1.5;
        while ($w - $v > 0.0 && $t < 5.0) {
            $kpa = min($pressure($volume), $build['line_kpa']);
            $x = $torque($kpa);
            // In the old gear the shafts are tied: one equation for both, from the balance of the whole train.
            $tied = (1.5 * $te - 0.5 * $x - $road) / ($j + $i * 2.25);
            $took ??= $x >= $te - $i * 1.5 * $tied ? $t : null;
            $free ??= ($letsGo === null ? $took !== null : $t >= $letsGo) ? $t : null;
            [$dw, $dv] = $free === null ? [1.5 * $tied, $tied] : [($te - $x) / $i, ($x - $road) / $j];
            $lowest = min($lowest, $free === null ? 1.5 * ($te - $i * $dw) - 0.5 * $x : $x);
            $flare = max($flare, $w - 1.5 * $v);
            $heat += $x * ($w - $v) * $step;
            $w += $dw * $step;
            $v += $dv * $step;
            $volume += $conductance * sqrt(max(0.0, $build['line_kpa'] - $kpa)) * $step;
            $t += $step;
        }
        $this->assertTrue($out['completes']);
        $this->assertEqualsWithDelta((float) $took, $out['takeOver_s'], 1e-4);
        $this->assertEqualsWithDelta($t - $free, $out['duration_s'], 1e-4);
        $this->assertEqualsWithDelta($free - $took, $out['overlap_s'], 1e-4, 'above 0 both hold, below 0 none does');
        $this->assertEqualsWithDelta(($flare * 30) / M_PI, $out['flare_rpm'], 0.05);
        $this->assertEqualsWithDelta($lowest, $out['outputTorque_nm']['lowest'], 0.3);
        $this->assertRelative($heat, $out['energy_j'], 1e-3);
        $this->assertRelative($x / $te, $out['bump'], 1e-3);
        $this->assertSame($volume < $window['volume_ml'], $out['endsInStroke']);
        $last = $out['curve'][count($out['curve']) - 1];
        $this->assertRelative(($w * 30) / M_PI, $last['input_rpm'], 1e-3);
        $this->assertRelative($out['outputTorque_nm']['peak'], $last['output_nm'], 1e-9);
    }

    public function test_what_the_engine_gives_is_heat_and_motion(): void
    {
        $this->limitTo(60)
            ->forAll(
                Generators::choose(100, 500),
                Generators::choose(60, 1500),
                Generators::choose(10, 44),
                Generators::choose(800, 3500),
                Generators::choose(5, 60),
            )
            ->then(function (int $torque, int $line, int $stroke, int $mass, int $inertia): void {
                $vehicle = ['mass_kg' => $mass, 'axleRatio' => 3.5, 'tyreRadius_mm' => 340];
                $out = $this->calc(
                    'shift.feel',
                    self::shift(
                        ['inputTorque_nm' => $torque, 'inputInertia_kgm2' => $inertia / 100, 'vehicle' => $vehicle],
                        [self::accumulator(['stroke_mm' => $stroke, 'line_kpa' => $line])],
                    ),
                )['builds'][0];
                $x = $this->atInput($line);
                if (! $out['completes']) {
                    $this->assertLessThan(
                        $torque,
                        $x * (1 - 1e-9),
                        'only a pack that does not hold the engine gives up',
                    );

                    return;
                }
                $load = $mass * (0.34 / 3.5) ** 2;
                $energy = static fn (float $w, float $ratio): float => ((0.5 * $inertia) / 100) * $w ** 2 +
                    0.5 * $load * ($w / $ratio) ** 2;
                [$before, $after] = [
                    (4500 * M_PI) / 30,
                    ($out['curve'][count($out['curve']) - 1]['input_rpm'] * M_PI) / 30,
                ];
                $this->assertRelative(
                    $out['engineWork_j'],
                    $out['energy_j'] + $energy($after, 1.0) - $energy($before, 1.5),
                    1e-9,
                );
                $this->assertLessThanOrEqual(
                    ($x / $torque) * (1 + 1e-12),
                    $out['bump'],
                    'no more than line pressure gives',
                );
            });
    }

    public function test_the_curve_leaps_where_the_piston_comes_to_its_end(): void
    {
        $out = $this->calc('shift.feel', self::shift([], [self::accumulator(['stroke_mm' => 6])]))['builds'][0];
        $leaps = array_values(
            array_filter($out['curve'], fn (array $p): bool => abs($p['t'] - $out['fill_s']) < 1e-9),
        );
        $this->assertCount(2, $leaps, 'one moment, two pressures');
        $this->assertRelative($out['end_kpa'], $leaps[0]['pressure_kpa'], 1e-9);
        $this->assertRelative(950.0, $leaps[1]['pressure_kpa'], 1e-9);
        $times = array_column($out['curve'], 't');
        $this->assertSame(
            $times,
            (function (array $t): array {
                sort($t);

                return $t;
            })($times),
            'time never runs back',
        );
    }

    public function test_firmer_is_quicker(): void
    {
        $time = fn (array $other): float => (fn (array $b): float => $b['takeOver_s'] + $b['duration_s'])(
            $this->calc('shift.feel', self::shift([], [self::accumulator($other)]))['builds'][0],
        );
        $stock = $time([]);
        foreach (
            [
                'stiffer spring' => ['springs' => [['wire_mm' => 3.8] + self::SPRING], 'stroke_mm' => 42],
                'shorter stroke' => ['stroke_mm' => 12],
                'bigger orifice' => ['feed' => ['diameter_mm' => 2.4] + self::FEED],
                'more line pressure' => ['line_kpa' => 1100],
                'blocked' => ['springs' => [], 'stroke_mm' => 0],
            ] as $what => $change
        ) {
            $this->assertLessThan($stock, $time($change), $what);
        }
    }

    public function test_it_stands_in_the_margins_of_a_unit_and_follows_an_option(): void
    {
        $power = self::TRAIN + [
            'capacities' => ['C' => self::CLUTCH],
            'accumulators' => ['C' => array_diff_key(self::accumulator(), ['name' => 0, 'line_kpa' => 0])],
            'pressure_kpa' => 950,
            'inputTorque_nm' => 300,
            'inputSpeed_rpm' => 4500,
            'shift' => ['inputInertia_kgm2' => 0.25, 'shiftTime_s' => 0.5],
        ];
        $row = fn (array $out): array => $out['shifts'][0]['elements'][0];
        $alone = $this->calc('shift.feel', self::shift())['builds'][0];
        $here = $row($this->calc('power.margin', $power));
        $this->assertRelative($alone['duration_s'], $here['feel']['duration_s'], 1e-12);
        $this->assertRelative(
            $alone['energy_j'],
            $here['energy_j'],
            1e-12,
            'the heat is that of the shift as the accumulator lets it happen, not of the assumed time',
        );
        $order = [
            'options' => [
                [
                    'code' => 'short',
                    'price' => 9,
                    'power' => [
                        'accumulators' => [
                            'C' => array_diff_key(self::accumulator(['stroke_mm' => 12]), [
                                'name' => 0,
                                'line_kpa' => 0,
                            ]),
                        ],
                    ],
                ],
            ],
            'power' => $power,
        ];
        $with = $row($this->calc('package.resolve', ['wanted' => ['short']] + $order)['margins']);
        $this->assertLessThan(
            $row($this->calc('package.resolve', $order)['margins'])['feel']['duration_s'],
            $with['feel']['duration_s'],
        );
        $this->assertArrayNotHasKey(
            'feel',
            $row($this->calc('power.margin', array_diff_key($power, ['accumulators' => 0]))),
        );
    }

    public function test_a_gap_flares_and_an_overlap_ties_up(): void
    {
        $at = fn (?float $letsGo): array => $this->calc(
            'shift.feel',
            self::shift(
                ['inputTorque_nm' => 500],
                [self::accumulator($letsGo === null ? [] : ['letsGo_s' => $letsGo])],
            ),
        )['builds'][0];
        $right = $at(null);
        [$early, $late] = [$at($right['takeOver_s'] / 2), $at($right['takeOver_s'] + 0.1)];
        $this->assertEqualsWithDelta([0.0, 0.0], [$right['overlap_s'], $right['flare_rpm']], 1e-9);
        $this->assertGreaterThan(0.0, $early['flare_rpm']);
        $this->assertEqualsWithDelta(0.0, $late['flare_rpm'], 1e-9);
        $this->assertLessThan(
            $right['outputTorque_nm']['lowest'],
            $late['outputTorque_nm']['lowest'],
            'the output is braked while both hold',
        );
        $this->assertRelative(0.1, $late['overlap_s'], 1e-9);
        // The output keeps its speed here, so a gap of constant torque 0 would run up by Te/I: the flare stays below
        // it.
        $this->assertLessThan(((((500 / 0.25) * $right['takeOver_s']) / 2) * 30) / M_PI, $early['flare_rpm']);
        $this->assertTrue($at(123456.789)['completes'], 'however late');
        $exact = $at($right['takeOver_s']);
        $this->assertRelative($right['energy_j'], $exact['energy_j'], 1e-9, 'just in time is just in time');
    }

    public function test_bad_data_is_refused_with_its_place(): void
    {
        $oneWay = [
            'elements' => [
                ['id' => 'B', 'kind' => 'one-way', 'a' => 'sun', 'b' => 'case', 'locks' => 'negative'],
                self::TRAIN['elements'][1],
            ],
        ];
        $this->assertRefused(
            'shift.feel',
            self::shift($oneWay, [self::accumulator(['letsGo_s' => 0.1])]),
            'one-way',
            '/builds/0/letsGo_s',
        );
        $this->assertRefused('shift.feel', self::shift(['from' => '2', 'to' => '1']), 'upshift', '/to');
        $this->assertRefused('shift.feel', self::shift(['to' => '9']), 'unknown-gear', '/to');
        $this->assertRefused('shift.feel', self::shift(['element' => 'B']), 'on-coming', '/element');
        $this->assertRefused('shift.feel', self::shift(['inputInertia_kgm2' => 0]), 'range', '/inputInertia_kgm2');
        $this->assertRefused(
            'shift.feel',
            self::shift(['capacity' => ['kind' => 'fixed', 'torque_nm' => 300]]),
            'pressure',
            '/capacity',
        );
        $this->assertRefused(
            'shift.feel',
            self::shift([], [array_diff_key(self::accumulator(), ['feed' => 0])]),
            'missing',
            '/builds/0/feed',
        );
        $this->assertRefused(
            'accumulator.window',
            ['builds' => [array_diff_key(self::accumulator(), ['feed' => 0])]],
            'missing',
            '/builds/0/feed',
        );
        $power = self::TRAIN + [
            'capacities' => ['C' => self::CLUTCH],
            'pressure_kpa' => 950,
            'inputTorque_nm' => 300,
        ];
        $this->assertRefused(
            'power.margin',
            ['accumulators' => ['X' => array_diff_key(self::accumulator(), ['name' => 0, 'line_kpa' => 0])]] + $power,
            'unknown-element',
            '/accumulators/X',
        );
        $this->assertRefused(
            'power.margin',
            [
                'accumulators' => [
                    'C' => array_diff_key(self::accumulator(), ['name' => 0, 'line_kpa' => 0, 'feed' => 0]),
                ],
            ] + $power,
            'missing',
            '/accumulators/C/feed',
        );
    }
}
