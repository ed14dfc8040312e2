<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Maths\Special;

final class EvidenceTest extends CoreTestCase
{
    /** Three hypotheses, one two-valued test: closed form. */
    public function test_posterior_and_expected_information_of_a_test(): void
    {
        $in = [
            'hypotheses' => [
                ['id' => 'a', 'prior' => 0.5, 'expect' => ['t' => ['+' => 0.2, '-' => 0.8]]],
                ['id' => 'b', 'prior' => 0.3, 'expect' => ['t' => ['+' => 0.7, '-' => 0.3]]],
                ['id' => 'c', 'prior' => 0.2, 'expect' => ['t' => ['+' => 0.5, '-' => 0.5]]],
            ],
            'features' => [['id' => 't', 'values' => ['+', '-']]],
        ];
        $out = $this->calc('evidence.rank', $in);
        $this->assertRelative(1.48547529723, $out['entropyBits'], 1e-10);
        $this->assertRelative(0.151149151545, $out['next'][0]['gainBits'], 1e-9);
        $out = $this->calc('evidence.rank', $in + ['observed' => ['t' => '+']]);
        $this->assertSame(['b', 'a', 'c'], array_column($out['ranking'], 'id'), 'a tie keeps the input order');
        $this->assertRelative(0.512195121951, $out['ranking'][0]['posterior'], 1e-10);
        $this->assertSame(['t'], $out['ranking'][0]['supports']);
        $this->assertSame(['t'], $out['ranking'][1]['contradicts']);
        $this->assertFalse($out['mixed']);
    }

    /**
     * Quinlan, Induction of decision trees, Machine Learning 1 (1986); Mitchell, Machine Learning, 1997, ch. 3 and
     * 6.9.1.
     */
    private static function play(): array
    {
        $rows =
            'sunny,hot,high,weak,no;sunny,hot,high,strong,no;overcast,hot,high,weak,yes;rain,mild,high,weak,yes;'.
            'rain,cool,normal,weak,yes;'.
            'rain,cool,normal,strong,no;overcast,cool,normal,strong,yes;sunny,mild,high,weak,no;'.
            'sunny,cool,normal,weak,yes;rain,mild,normal,weak,yes;'.
            'sunny,mild,normal,strong,yes;overcast,mild,high,strong,yes;'.
            'overcast,hot,normal,weak,yes;rain,mild,high,strong,no';
        $attributes = [
            'outlook' => ['sunny', 'overcast', 'rain'],
            'temperature' => ['hot', 'mild', 'cool'],
            'humidity' => ['high', 'normal'],
            'wind' => ['weak', 'strong'],
        ];
        $counts = ['yes' => 0, 'no' => 0];
        $expect = [];
        foreach (explode(';', $rows) as $row) {
            $values = explode(',', $row);
            $counts[$values[4]]++;
            foreach (array_keys($attributes) as $i => $attribute) {
                $expect[$values[4]][$attribute] ??= array_fill_keys($attributes[$attribute], 0);
                $expect[$values[4]][$attribute][$values[$i]]++;
            }
        }

        return [
            'hypotheses' => array_map(
                fn (string $h): array => ['id' => $h, 'prior' => $counts[$h], 'expect' => $expect[$h]],
                ['yes', 'no'],
            ),
            'features' => array_map(
                fn (string $f): array => ['id' => $f, 'values' => $attributes[$f]],
                array_keys($attributes),
            ),
        ];
    }

    public function test_information_gain_of_the_published_example(): void
    {
        $out = $this->calc('evidence.rank', self::play());
        $this->assertRelative(0.940285958671, $out['entropyBits'], 1e-9);
        $gain = array_column($out['next'], 'gainBits', 'feature');
        foreach (
            [
                'outlook' => 0.246749819774,
                'temperature' => 0.029222565659,
                'humidity' => 0.151835501362,
                'wind' => 0.0481270304083,
            ] as $attribute => $expected
        ) {
            $this->assertRelative($expected, $gain[$attribute], 1e-9, $attribute);
        }
        $this->assertSame('outlook', $out['next'][0]['feature']);
    }

    public function test_naive_bayes_of_the_published_example(): void
    {
        $out = $this->calc(
            'evidence.rank',
            self::play() + [
                'observed' => [
                    'outlook' => 'sunny',
                    'temperature' => 'cool',
                    'humidity' => 'high',
                    'wind' => 'strong',
                ],
            ],
        );
        $this->assertSame('no', $out['ranking'][0]['id']);
        $this->assertRelative(486 / 611, $out['ranking'][0]['posterior'], 1e-9);
    }

    public function test_two_state_bayes_repeated(): void
    {
        $fault = fn (array $observed): float => array_column(
            $this->calc('evidence.rank', [
                'hypotheses' => [
                    [
                        'id' => 'fault',
                        'prior' => 1,
                        'expect' => ['x' => ['y' => 0.9, 'n' => 0.1], 'z' => ['y' => 0.9, 'n' => 0.1]],
                    ],
                    [
                        'id' => 'none',
                        'prior' => 9,
                        'expect' => ['x' => ['y' => 0.2, 'n' => 0.8], 'z' => ['y' => 0.2, 'n' => 0.8]],
                    ],
                ],
                'features' => [['id' => 'x', 'values' => ['y', 'n']], ['id' => 'z', 'values' => ['y', 'n']]],
                'observed' => $observed,
            ])['ranking'],
            'posterior',
            'id',
        )['fault'];
        $this->assertRelative(1 / 3, $fault(['x' => 'y']));
        $this->assertRelative(9 / 13, $fault(['x' => 'y', 'z' => 'y']));
        $this->assertRelative(1 / 73, $fault(['x' => 'n']));
    }

    public function test_reliability_softens_an_observation(): void
    {
        $in = fn (float $reliability): array => [
            'hypotheses' => [
                ['id' => 'a', 'expect' => ['f' => ['1' => 1, '2' => 0, '3' => 0, '4' => 0]]],
                ['id' => 'b'],
            ],
            'features' => [['id' => 'f', 'values' => ['1', '2', '3', '4'], 'reliability' => $reliability]],
            'observed' => ['f' => '1'],
        ];
        // P(1|a) = 0.8 + 0.2/4, P(1|b) = 1/4
        $this->assertRelative(0.85 / 1.1, $this->calc('evidence.rank', $in(0.8))['ranking'][0]['posterior']);
        $this->assertRelative(0.8, $this->calc('evidence.rank', $in(1.0))['ranking'][0]['posterior']);
    }

    public function test_partial_lists_are_warned_about_and_normalised(): void
    {
        $out = $this->calc('evidence.rank', [
            'hypotheses' => [['id' => 'a', 'expect' => ['f' => ['x' => 2, 'y' => 2]]], ['id' => 'b']],
            'features' => [['id' => 'f', 'values' => ['x', 'y', 'z'], 'reliability' => 0.9]],
            'observed' => ['f' => 'x'],
        ]);
        $this->assertSame('partial-likelihoods', $out['warnings'][0]['code']);
        $this->assertRelative((0.9 * 0.5 + 0.1 / 3) / (0.9 * 0.5 + 0.1 / 3 + 1 / 3), $out['ranking'][0]['posterior']);
    }

    public function test_a_leader_with_a_contradiction_is_mixed(): void
    {
        $out = $this->calc('evidence.rank', [
            'hypotheses' => [
                ['id' => 'a', 'prior' => 50, 'expect' => ['f' => ['x' => 0.1, 'y' => 0.9]]],
                ['id' => 'b', 'expect' => ['f' => ['x' => 0.9, 'y' => 0.1]]],
            ],
            'features' => [['id' => 'f', 'values' => ['x', 'y']]],
            'observed' => ['f' => 'x'],
        ]);
        $this->assertTrue($out['mixed']);
        $this->assertSame(['f'], $out['ranking'][0]['contradicts']);
        $this->assertRelative(log(0.2, 2), $out['ranking'][0]['weightBits']['f'], 1e-9);
    }

    public function test_a_measured_feature_uses_the_normal_density(): void
    {
        $sd = sqrt(0.05 ** 2 + 0.2 ** 2 / 3);
        $phi = fn (float $x, float $mean): float => exp(-0.5 * (($x - $mean) / $sd) ** 2) / ($sd * sqrt(2 * M_PI));
        $in = [
            'hypotheses' => [
                ['id' => 'a', 'expect' => ['d' => ['mean' => 43.0, 'sd' => 0.05]]],
                ['id' => 'b', 'expect' => ['d' => ['mean' => 43.4, 'sd' => 0.05]]],
            ],
            'features' => [
                ['id' => 'd', 'kind' => 'number', 'tolerance' => 0.2, 'range' => [40, 50], 'reliability' => 0.95],
            ],
        ];
        $a = 0.95 * $phi(43.1, 43.0) + 0.05 / 10;
        $b = 0.95 * $phi(43.1, 43.4) + 0.05 / 10;
        $out = $this->calc('evidence.rank', $in + ['observed' => ['d' => 43.1]]);
        $this->assertRelative($a / ($a + $b), $out['ranking'][0]['posterior']);
        // The gain of 20 equal bins is a lower bound of the exact mutual information, here found by Simpson's rule.
        $exact = 0.0;
        $n = 20000;
        for ($i = 0; $i <= $n; $i++) {
            $x = 40 + (10 * $i) / $n;
            $weight = $i === 0 || $i === $n ? 1 : ($i % 2 === 1 ? 4 : 2);
            foreach ([43.0, 43.4] as $mean) {
                $p = 0.95 * $phi($x, $mean) + 0.005;
                $m = 0.5 * (0.95 * $phi($x, 43.0) + 0.95 * $phi($x, 43.4)) + 0.005;
                $exact += ($weight * 0.5 * $p * log($p / $m, 2) * (10 / $n)) / 3;
            }
        }
        $next = $this->calc('evidence.rank', $in)['next'][0];
        $this->assertCount(19, $next['binEdges']);
        $this->assertLessThanOrEqual($exact + 1e-9, $next['gainBits']);
        $this->assertGreaterThan(0.95 * $exact, $next['gainBits']);
    }

    public function test_gain_per_effort_orders_the_questions(): void
    {
        $out = $this->calc('evidence.rank', [
            'hypotheses' => [
                ['id' => 'a', 'expect' => ['dear' => ['x' => 1, 'y' => 0], 'free' => ['x' => 0.8, 'y' => 0.2]]],
                ['id' => 'b', 'expect' => ['dear' => ['x' => 0, 'y' => 1], 'free' => ['x' => 0.2, 'y' => 0.8]]],
            ],
            'features' => [
                ['id' => 'dear', 'values' => ['x', 'y'], 'effort' => 30],
                ['id' => 'free', 'values' => ['x', 'y'], 'effort' => 1],
            ],
        ]);
        $this->assertSame(['free', 'dear'], array_column($out['next'], 'feature'));
        $this->assertRelative(1.0, $out['next'][1]['gainBits']);
    }

    public function test_more_than_can_be_weighed_at_once_is_refused(): void
    {
        $features = array_map(fn (int $i): array => ['id' => "f$i", 'values' => ['x', 'y']], range(1, 320));
        $hypotheses = array_map(fn (int $i): array => ['id' => "h$i"], range(1, 320));
        $this->assertRefused('evidence.rank', compact('features', 'hypotheses'), 'too-large', '/hypotheses');
        $few = $this->calc('evidence.rank', ['hypotheses' => array_slice($hypotheses, 0, 2)] + compact('features'));
        $this->assertEqualsWithDelta(0.5, $few['ranking'][0]['posterior'], 1e-12, 'nothing tells them apart');
    }

    public function test_bad_evidence(): void
    {
        $in = [
            'hypotheses' => [['id' => 'a', 'expect' => ['f' => ['x' => 1, 'y' => 0]]]],
            'features' => [['id' => 'f', 'values' => ['x', 'y']]],
        ];
        $this->assertRefused('evidence.rank', $in + ['observed' => ['f' => 'y']], 'impossible-evidence', '/observed');
        $this->assertRefused('evidence.rank', $in + ['observed' => ['f' => 'q']], 'unknown-value', '/observed/f');
        $this->assertRefused('evidence.rank', $in + ['observed' => ['g' => 'x']], 'unknown-feature', '/observed/g');
        $this->assertRefused(
            'evidence.rank',
            ['hypotheses' => [['id' => 'a', 'prior' => 0]]] + $in,
            'prior',
            '/hypotheses',
        );
        $this->assertRefused(
            'evidence.rank',
            ['hypotheses' => [['id' => 'a', 'prior' => -1]]] + $in,
            'range',
            '/hypotheses/0/prior',
        );
        $this->assertRefused(
            'evidence.rank',
            ['features' => [['id' => 'f', 'values' => ['x', 'y'], 'reliability' => 0]]] + $in,
            'range',
            '/features/0/reliability',
        );
        $this->assertRefused(
            'evidence.rank',
            ['features' => [['id' => 'f', 'kind' => 'number', 'reliability' => 0.9]]] + $in,
            'missing-range',
            '/features/0',
        );
    }

    /** Abramowitz & Stegun, tables 7.1 and 26.1 (values from memory); the incomplete gamma function everywhere else. */
    public function test_the_error_function_agrees_with_tables_and_with_the_incomplete_gamma_function(): void
    {
        $tables = [[0.1, 0.1124629160], [0.5, 0.5204998778], [1.0, 0.8427007929], [2.0, 0.9953222650]];
        foreach ($tables as [$x, $erf]) {
            $this->assertEqualsWithDelta($erf, 1.0 - Special::erfc($x), 5e-11, "erf $x");
        }
        $this->assertEqualsWithDelta(0.841344746068543, Special::normalCdf(1.0), 1e-15);
        for ($x = -6.0; $x < 26.0; $x += 0.03) {
            $upper = Special::gammaQ(0.5, $x * $x);
            $expected = $x < 0.0 ? 2.0 - $upper : $upper;
            $this->assertEqualsWithDelta(1.0, Special::erfc($x) / $expected, 2e-13, "erfc $x");
        }
        $this->assertSame([0.0, 2.0], [Special::erfc(40.0), Special::erfc(-40.0)]);
    }
}
