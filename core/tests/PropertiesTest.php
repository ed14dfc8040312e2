<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Eris\Generators;
use Eris\TestTrait;

/** What must hold for any input, tried on random ones (seeded by ERIS_SEED when a failure is to be repeated). */
final class PropertiesTest extends CoreTestCase
{
    use TestTrait;

    private const CHART = [
        '1' => ['C1', 'B1'],
        '2' => ['C1', 'B2'],
        '3' => ['C1', 'C3'],
        '4' => ['C3', 'B2'],
        'R' => ['C2', 'B1'],
    ];

    /** @return array<string, mixed> a Ravigneaux train with the given teeth */
    private static function train(int $small, int $large, int $ring): array
    {
        $gears = [];
        foreach (self::CHART as $name => $applied) {
            $gears[] = ['name' => (string) $name, 'applied' => $applied];
        }

        return [
            'input' => 'in',
            'output' => 'out',
            'gears' => $gears,
            'sets' => [
                [
                    'id' => 'L',
                    'kind' => 'simple',
                    'sun' => 'large',
                    'ring' => 'out',
                    'carrier' => 'c',
                    'sunTeeth' => $large,
                    'ringTeeth' => $ring,
                ],
                [
                    'id' => 'S',
                    'kind' => 'double',
                    'sun' => 'small',
                    'ring' => 'out',
                    'carrier' => 'c',
                    'sunTeeth' => $small,
                    'ringTeeth' => $ring,
                ],
            ],
            'elements' => [
                ['id' => 'C1', 'kind' => 'clutch', 'a' => 'in', 'b' => 'small'],
                ['id' => 'C2', 'kind' => 'clutch', 'a' => 'in', 'b' => 'large'],
                ['id' => 'C3', 'kind' => 'clutch', 'a' => 'in', 'b' => 'c'],
                ['id' => 'B1', 'kind' => 'brake', 'a' => 'c', 'b' => 'case'],
                ['id' => 'B2', 'kind' => 'brake', 'a' => 'large', 'b' => 'case'],
            ],
        ];
    }

    public function test_ravigneaux_closed_forms_hold_for_any_teeth(): void
    {
        // i1 = R/s, i2 = R(s+l)/(s(l+R)), i3 = 1, i4 = R/(l+R), iR = -R/l (Naunheimer et al., Automotive Transmissions,
        // from memory)
        $this->limitTo(60)
            ->forAll(Generators::choose(15, 40), Generators::choose(15, 45), Generators::choose(60, 120))
            ->then(function (int $s, int $l, int $r): void {
                $out = $this->calc('geartrain.solve', self::train($s, $l, $r));
                $this->assertEqualsWithDelta(
                    [$r / $s, ($r * ($s + $l)) / ($s * ($l + $r)), 1.0, $r / ($l + $r), -$r / $l],
                    array_column($out['gears'], 'ratio'),
                    1e-9,
                );
            });
    }

    public function test_power_and_torque_balance_hold_for_any_teeth(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(15, 40), Generators::choose(15, 45), Generators::choose(60, 120))
            ->then(function (int $s, int $l, int $r): void {
                foreach ($this->calc('geartrain.solve', self::train($s, $l, $r))['gears'] as $gear) {
                    $reaction = ($gear['elementTorque']['B1'] ?? 0.0) + ($gear['elementTorque']['B2'] ?? 0.0);
                    $this->assertEqualsWithDelta(0.0, 1.0 + $reaction - $gear['outputTorque'], 1e-9);
                    $this->assertEqualsWithDelta(1.0, $gear['outputTorque'] * $gear['speeds']['out'], 1e-9);
                }
            });
    }

    public function test_scaling_all_teeth_changes_no_ratio(): void
    {
        $this->limitTo(30)
            ->forAll(
                Generators::choose(15, 40),
                Generators::choose(15, 45),
                Generators::choose(60, 120),
                Generators::choose(2, 7),
            )
            ->then(function (int $s, int $l, int $r, int $k): void {
                $ratios = fn (array $train): array => array_column(
                    $this->calc('geartrain.solve', $train)['gears'],
                    'ratio',
                );
                $this->assertEqualsWithDelta(
                    $ratios(self::train($s, $l, $r)),
                    $ratios(self::train($k * $s, $k * $l, $k * $r)),
                    1e-9,
                );
            });
    }

    public function test_conversion_there_and_back_returns_the_value(): void
    {
        $pairs = [
            ['in', 'mm'],
            ['psi', 'kPa'],
            ['lbf.ft', 'N.m'],
            ['degF', 'degC'],
            ['hp', 'kW'],
            ['US qt', 'L'],
            ['kgf', 'lbf'],
            ['mph', 'km/h'],
            ['rpm', 'rad/s'],
            ['mi', 'km'],
        ];
        $this->limitTo(100)
            ->forAll(Generators::choose(-400, 400000), Generators::elements($pairs))
            ->then(function (int $n, array $pair): void {
                $value = $n / 1000;
                $there = $this->calc('units.convert', ['value' => $value, 'from' => $pair[0], 'to' => $pair[1]])[
                    'value'
                ];
                $this->assertEqualsWithDelta(
                    $value,
                    $this->calc('units.convert', ['value' => $there, 'from' => $pair[1], 'to' => $pair[0]])['value'],
                    1e-9,
                );
            });
    }

    public function test_a_typed_length_is_the_same_in_every_spelling(): void
    {
        $this->limitTo(100)
            ->forAll(Generators::choose(1, 5000))
            ->then(function (int $thou): void {
                $si = fn (string $text): float => $this->calc('units.parse', [
                    'text' => $text,
                    'kind' => 'length',
                    'default' => 'in',
                ])['si'];
                $inch = $thou / 1000;
                foreach (
                    ["$thou thou", "{$inch}in", "$inch", " $inch \"", $inch * 25.4.' mm', $thou * 25.4.'um'] as $text
                ) {
                    $this->assertEqualsWithDelta($thou * 2.54e-5, $si($text), 1e-12, $text);
                }
            });
    }

    public function test_posteriors_are_probabilities_and_no_question_loses_information(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(2, 5), Generators::choose(1, 4), Generators::choose(0, 1000000))
            ->then(function (int $hypotheses, int $features, int $seed): void {
                mt_srand($seed);
                $in = ['hypotheses' => [], 'features' => []];
                for ($f = 0; $f < $features; $f++) {
                    $in['features'][] = [
                        'id' => "f$f",
                        'values' => ['a', 'b', 'c'],
                        'reliability' => mt_rand(50, 100) / 100,
                        'effort' => mt_rand(1, 40),
                    ];
                }
                for ($h = 0; $h < $hypotheses; $h++) {
                    $expect = [];
                    for ($f = 0; $f < $features; $f++) {
                        $expect["f$f"] = ['a' => mt_rand(1, 9), 'b' => mt_rand(1, 9), 'c' => mt_rand(1, 9)];
                    }
                    $in['hypotheses'][] = ['id' => "h$h", 'prior' => mt_rand(1, 9), 'expect' => $expect];
                }
                $before = $this->calc('evidence.rank', $in);
                $this->assertEqualsWithDelta(1.0, array_sum(array_column($before['ranking'], 'posterior')), 1e-12);
                // The expected entropy after the best question, by enumeration, is the entropy now less its gain.
                $best = $before['next'][0];
                $expected = 0.0;
                $total = 0.0;
                foreach (['a', 'b', 'c'] as $value) {
                    $after = $this->calc('evidence.rank', $in + ['observed' => [$best['feature'] => $value]]);
                    $probability = $this->predictive($in, $best['feature'], $value);
                    $expected += $probability * $after['entropyBits'];
                    $total += $probability;
                }
                $this->assertEqualsWithDelta(1.0, $total, 1e-12);
                $this->assertGreaterThanOrEqual(0.0, $best['gainBits']);
                $this->assertEqualsWithDelta($before['entropyBits'] - $expected, $best['gainBits'], 1e-9);
            });
    }

    /** Probability of an answer before it is given, written out from the contract's formula. */
    private function predictive(array $in, string $feature, string $value): float
    {
        $f = array_column($in['features'], null, 'id')[$feature];
        $priors = array_sum(array_column($in['hypotheses'], 'prior'));
        $sum = 0.0;
        foreach ($in['hypotheses'] as $h) {
            $p = $h['expect'][$feature][$value] / array_sum($h['expect'][$feature]);
            $sum += ($h['prior'] / $priors) * ($f['reliability'] * $p + (1 - $f['reliability']) / 3);
        }

        return $sum;
    }

    public function test_the_end_play_that_results_is_the_one_predicted(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(0, 60), Generators::choose(60, 120))
            ->then(function (int $play, int $washer): void {
                $options = array_map(
                    fn (int $t): array => ['part' => "W$t", 'thickness' => $t / 1000],
                    range(60, 130, 5),
                );
                $out = $this->calc('endplay.select', [
                    'unit' => 'in',
                    'measured' => $play / 1000,
                    'fitted' => $washer / 1000,
                    'window' => ['min' => 0.007, 'max' => 0.019],
                    'options' => $options,
                ]);
                $this->assertEqualsWithDelta(($play + $washer - 13) / 1000, $out['needed'], 1e-12);
                $chosen = $out['best'] ?? $out['nearest'];
                $this->assertEqualsWithDelta(($play + $washer) / 1000 - $chosen['thickness'], $chosen['play'], 1e-12);
                foreach ($options as $option) {
                    $this->assertGreaterThanOrEqual(
                        $out['feasible'] ? $chosen['deviation'] - 1e-12 : -1.0,
                        abs(($play + $washer) / 1000 - $option['thickness'] - 0.013),
                    );
                }
            });
    }

    public function test_an_interval_holds_its_rate_and_shrinks_with_units(): void
    {
        $this->limitTo(60)
            ->forAll(Generators::choose(0, 20), Generators::choose(20, 400))
            ->then(function (int $failures, int $units): void {
                $one = $this->calc('rate.interval', ['failures' => $failures, 'units' => $units]);
                $ten = $this->calc('rate.interval', ['failures' => 10 * $failures, 'units' => 10 * $units]);
                $this->assertLessThanOrEqual($one['rate'], $one['lower']);
                $this->assertGreaterThanOrEqual($one['rate'], $one['upper']);
                $this->assertLessThan($one['upper'] - $one['lower'], $ten['upper'] - $ten['lower']);
            });
    }

    public function test_clopper_pearson_limits_are_where_the_exact_tails_say(): void
    {
        // The defining property, with the binomial tail summed term by term.
        $this->limitTo(25)
            ->forAll(Generators::choose(1, 15), Generators::choose(16, 60))
            ->then(function (int $x, int $n): void {
                $out = $this->calc('rate.interval', ['failures' => $x, 'units' => $n]);
                $tail = function (float $p, int $from, int $to) use ($n): float {
                    $sum = 0.0;
                    for ($k = $from; $k <= $to; $k++) {
                        $term = 1.0;
                        for ($i = 1; $i <= $k; $i++) {
                            $term *= ($n - $k + $i) / $i;
                        }
                        $sum += $term * $p ** $k * (1 - $p) ** ($n - $k);
                    }

                    return $sum;
                };
                $this->assertEqualsWithDelta(0.025, $tail($out['lower'], $x, $n), 1e-9);
                $this->assertEqualsWithDelta(0.025, $tail($out['upper'], 0, $x), 1e-9);
            });
    }

    public function test_credit_lines_always_add_up(): void
    {
        $this->limitTo(80)
            ->forAll(
                Generators::choose(0, 90000),
                Generators::choose(0, 9000),
                Generators::elements(['A', 'B', 'C', 'D', 'X']),
                Generators::choose(0, 900),
                Generators::choose(0, 60000),
            )
            ->then(function (int $charge, int $scrap, string $grade, int $hours, int $missing): void {
                $out = $this->calc('receive.credit', [
                    'coreCharge' => $charge / 100,
                    'scrapValue' => $scrap / 100,
                    'grade' => $grade,
                    'repairHours' => $hours / 60,
                    'rate' => 95.5,
                    'missingParts' => [['part' => 'x', 'price' => $missing / 100]],
                ]);
                $this->assertEqualsWithDelta($out['credit'], array_sum(array_column($out['lines'], 'amount')), 1e-6);
                $grade === 'X'
                    ? $this->assertEquals(0, $out['credit'])
                    : $this->assertGreaterThanOrEqual($scrap / 100 - 1e-9, $out['credit']);
            });
    }
}
