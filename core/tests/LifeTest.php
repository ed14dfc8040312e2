<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

/** Lives against data printed in the survival literature and against R's survival, run beside it where R is there. */
final class LifeTest extends CoreTestCase
{
    /** Leukaemia, maintained and not (R. Miller, Survival Analysis, 1981; R survival::aml). A plus is still alive. */
    private const MAINTAINED = '9 13 13+ 18 23 28+ 31 34 45+ 48 161+';

    private const NOT_MAINTAINED = '5 5 8 8 12 16+ 23 27 30 33 43 45';

    /** 6-MP and control (Freireich et al. 1963; Gehan 1965; R MASS::gehan). */
    private const SIX_MP = '10 7 32+ 23 22 6 16 34+ 32+ 25+ 11+ 20+ 19+ 6 17+ 35+ 6 13 9+ 6+ 10+';

    private const CONTROL = '1 22 3 12 8 17 2 11 8 12 2 5 4 15 8 23 5 11 4 1 8';

    /** Test stopped at 500 h (NIST/SEMATECH e-Handbook 8.2.2.1, from memory). */
    private const NIST = '54 187 216 240 244 335 361 373 375 386 500+ 500+ 500+ 500+ 500+ 500+ 500+ 500+ 500+ 500+';

    /** Shock absorbers, km (O'Connor 1985; Meeker & Escobar 1998, from memory). */
    private const SHOCK = '6700 6950+ 7820+ 8790+ 9120 9660+ 9820+ 11310+ 11690+ 11850+ 11880+ 12140+ 12200 12870+ '
        .'13150 13330+ 13470+ 14040+ 14300 17520 17540+ 17890+ 18450+ 18960+ 18980+ 19410+ 20100 20100+ 20150+ 20320+ '
        .'20900 22700 23490+ 26510 27410+ 27490 27890+ 28100+';

    /** Ball bearings, millions of revolutions (Lieblein & Zelen 1956, from memory). */
    private const BEARINGS = '17.88 28.92 33 41.52 42.12 45.6 48.48 51.84 51.96 54.12 55.56 67.8 68.64 68.64 68.88 '
        .'84.12 93.12 98.64 105.12 105.84 127.92 128.04 173.4';

    /** @return array{times: list<float>, events: list<int>} */
    private static function lives(string $text): array
    {
        $out = ['times' => [], 'events' => []];
        foreach (explode(' ', $text) as $life) {
            $out['times'][] = (float) $life;
            $out['events'][] = str_ends_with($life, '+') ? 0 : 1;
        }

        return $out;
    }

    public function test_survival_of_the_maintained_arm(): void
    {
        $out = $this->calc('life.km', self::lives(self::MAINTAINED));
        $this->assertSame([9, 13, 18, 23, 31, 34, 48], array_map(intval(...), array_column($out['curve'], 'time')));
        $this->assertSame([11, 10, 8, 7, 5, 4, 2], array_column($out['curve'], 'atRisk'));
        $survival = [10 / 11, 9 / 11, 63 / 88, 27 / 44, 27 / 55, 81 / 220, 81 / 440];
        $errors = [0.0866784172, 0.1162912998, 0.1396649706, 0.152632331, 0.1641932672, 0.1626688858, 0.1534927458];
        foreach ($out['curve'] as $k => $row) {
            $this->assertRelative($survival[$k], $row['survival'], 1e-12, "survival $k");
            $this->assertRelative($errors[$k], $row['stdErr'], 1e-9, "error $k");
        }
        $this->assertSame(31.0, (float) $out['median']);
    }

    /** @return array<string, array{string, int, float, float}> */
    public static function bands(): array
    {
        return [
            'log, second failure' => ['log', 1, 0.6192489874, 1.0],
            'log, last' => ['log', 6, 0.03591789849, 0.9435257695],
            'plain, third' => ['plain', 2, 0.4421707787, 0.9896474031],
            'plain, cut at nothing' => ['plain', 6, 0.0, 0.4849311627],
            'log-log, first' => ['log-log', 0, 0.5080802058, 0.9866738227],
            'log-log, last' => ['log-log', 6, 0.01173848012, 0.5250148427],
        ];
    }

    /** Output of R 4.2.2, survival 3.5-3. */
    #[DataProvider('bands')]
    public function test_bands_on_each_scale(string $interval, int $row, float $lower, float $upper): void
    {
        $out = $this->calc('life.km', ['interval' => $interval] + self::lives(self::MAINTAINED))['curve'][$row];
        $this->assertEqualsWithDelta($lower, $out['lower'], 1e-9);
        $this->assertEqualsWithDelta($upper, $out['upper'], 1e-9);
    }

    public function test_a_curve_that_ends_at_nothing_has_no_bounds_there(): void
    {
        $out = $this->calc('life.km', ['at' => [0, 12, 20, 45, 90]] + self::lives(self::NOT_MAINTAINED));
        $last = $out['curve'][count($out['curve']) - 1];
        $this->assertSame(['time', 'atRisk', 'events', 'survival'], array_keys($last));
        $this->assertSame(0.0, (float) $last['survival']);
        $this->assertSame(23.0, (float) $out['median']);
        $this->assertSame([1.0, 1.0, 1.0], array_map(floatval(...), [
            $out['at'][0]['survival'],
            $out['at'][0]['lower'],
            $out['at'][0]['upper'],
        ]));
        $this->assertRelative(7 / 12, $out['at'][1]['survival'], 1e-12, 'just after a failure');
        $this->assertRelative(7 / 12, $out['at'][2]['survival'], 1e-12, 'between two failures');
        $this->assertSame(0.0, (float) $out['at'][4]['survival']);
    }

    /** The area by hand: steps of one quarter; the middle of the stretch at one half. */
    public function test_median_and_mean_of_four_units(): void
    {
        $out = $this->calc('life.km', ['times' => [1, 2, 4, 8], 'events' => [1, 1, 1, 1]]);
        $this->assertSame(3.0, (float) $out['median']);
        $this->assertSame(3.75, (float) $out['restrictedMean']);
        $running = $this->calc('life.km', ['times' => [1, 2, 4, 8], 'events' => [1, 0, 0, 0]]);
        $this->assertArrayNotHasKey('median', $running);
        $this->assertSame(1 + 0.75 * 7, (float) $running['restrictedMean']);
    }

    /** @return array<string, array{string, list<float>}> */
    public static function weibull(): array
    {
        return [
            'reliability handbook' => [
                self::NIST,
                [
                    1.720797261, 606.527558, -75.134618164, 0.9712661, 3.0487456, 405.08929, 908.13479,
                    164.0224387, 540.7370255,
                ],
            ],
            'shock absorbers' => [
                self::SHOCK,
                [
                    3.160470315, 27718.71813, -123.99536119, 2.0087331, 4.9725734, 22347.77, 34380.492,
                    13600.03472, 24811.53716,
                ],
            ],
            'bearings' => [
                self::BEARINGS,
                [
                    2.102058875, 81.87833405, -113.69129093, 1.5472031, 2.8558963, 66.643739, 100.59552,
                    28.06941401, 72.51865178,
                ],
            ],
            'maintained arm' => [
                self::MAINTAINED,
                [
                    1.031854242, 60.32288978, -35.703956315, 0.59943751, 1.7762038, 29.412519, 123.71776,
                    6.812881154, 59.55910753,
                ],
            ],
            'one failure, two longer still' => [
                '60 80+ 100+',
                [2.693652793, 124.4059267],
            ],
        ];
    }

    /** @param  list<float>  $expected  shape, scale, log-likelihood, their 95 % intervals, B10, mean */
    #[DataProvider('weibull')]
    public function test_weibull_by_maximum_likelihood(string $lives, array $expected): void
    {
        $out = $this->calc('life.weibull', self::lives($lives));
        $this->assertTrue($out['converged']);
        $found = [$out['shape'], $out['scale'], $out['logLik'], ...$out['ci']['shape'], ...$out['ci']['scale']];
        foreach (array_slice([...$found, $out['b10'], $out['mean']], 0, count($expected)) as $k => $value) {
            $this->assertRelative($expected[$k], $value, $k < 3 || $k > 6 ? 1e-7 : 1e-5, "number $k");
        }
    }

    /** Kilometres or miles: the shape stays, the scale follows, the likelihood moves by the failures. */
    public function test_the_unit_of_time_does_not_matter(): void
    {
        $km = self::lives(self::SHOCK);
        $mile = 0.621371192;
        [$a, $b] = [
            $this->calc('life.weibull', $km),
            $this->calc('life.weibull', ['times' => array_map(fn (float $t) => $t * $mile, $km['times'])] + $km),
        ];
        $this->assertRelative($a['shape'], $b['shape'], 1e-9, 'shape');
        $this->assertRelative($a['scale'] * $mile, $b['scale'], 1e-9, 'scale');
        $this->assertEqualsWithDelta(-11 * log($mile), $b['logLik'] - $a['logLik'], 1e-7);
    }

    /** No point nearby is likelier: the root is the top. */
    public function test_the_fit_is_the_likeliest(): void
    {
        $lives = self::lives(self::SIX_MP);
        $out = $this->calc('life.weibull', $lives);
        $likelihood = function (float $shape, float $scale) use ($lives): float {
            $sum = 0.0;
            foreach ($lives['times'] as $i => $t) {
                $sum -= ($t / $scale) ** $shape;
                $sum += $lives['events'][$i] * (log($shape) - $shape * log($scale) + ($shape - 1) * log($t));
            }

            return $sum;
        };
        $this->assertEqualsWithDelta($likelihood($out['shape'], $out['scale']), $out['logLik'], 1e-9);
        foreach ([[1.001, 1], [0.999, 1], [1, 1.001], [1, 0.999], [1.001, 0.999]] as [$p, $q]) {
            $this->assertLessThan($out['logLik'], $likelihood($out['shape'] * $p, $out['scale'] * $q));
        }
    }

    public function test_what_cannot_be_fitted_says_so(): void
    {
        $this->assertRefused('life.weibull', ['times' => [5, 8], 'events' => [0, 0]], 'not-estimable', '/events');
        $atEnd = ['times' => [60, 80, 100], 'events' => [0, 0, 1]];
        $this->assertRefused('life.weibull', $atEnd, 'not-estimable', '/times');
        $this->assertRefused('life.weibull', ['times' => [0, 80], 'events' => [1, 1]], 'range', '/times/0');
        $this->assertRefused('life.km', ['times' => [1, 2], 'events' => [1]], 'length', '/events');
        $this->assertRefused('life.km', ['times' => [1], 'events' => [2]], 'range', '/events/0');
        $one = ['times' => [3], 'events' => [0]];
        $two = [['name' => 'a'] + $one, ['name' => 'b'] + $one];
        $this->assertRefused('life.logrank', ['groups' => $two], 'one-group', '/groups');
        $this->assertRefused('life.logrank', ['groups' => [$two[0], $two[0]]], 'duplicate', '/groups/1/name');
    }

    /** @return array<string, array{string, string, array{float, float}, float, float}> */
    public static function twoGroups(): array
    {
        return [
            'leukaemia' => [
                self::MAINTAINED, self::NOT_MAINTAINED,
                [10.68933599, 7.310664008], 3.396388699, 0.06533932204,
            ],
            '6-MP (16.79 printed)' => [
                self::SIX_MP, self::CONTROL,
                [19.25050095, 10.74949905], 16.79294099, 4.168809109e-05,
            ],
        ];
    }

    /** @param  array{float, float}  $expected */
    #[DataProvider('twoGroups')]
    public function test_two_groups(string $a, string $b, array $expected, float $chisq, float $p): void
    {
        $out = $this->calc('life.logrank', [
            'groups' => [['name' => 'a'] + self::lives($a), ['name' => 'b'] + self::lives($b)],
        ]);
        $this->assertSame(1, $out['df']);
        $this->assertRelative($chisq, $out['chisq'], 1e-9, 'chi square');
        $this->assertRelative($p, $out['p'], 1e-8, 'p');
        foreach ($expected as $k => $value) {
            $this->assertRelative($value, $out['groups'][$k]['expected'], 1e-9, "expected $k");
        }
        $this->assertEqualsWithDelta(
            array_sum(array_column($out['groups'], 'observed')),
            array_sum(array_column($out['groups'], 'expected')),
            1e-9,
        );
    }

    /** Four groups at once, and one nobody of which ever stood at risk, against R's survdiff. */
    public function test_more_groups_against_r(): void
    {
        mt_srand(12);
        $groups = $code = [];
        foreach (['a' => 20.0, 'b' => 30.0, 'c' => 24.0, 'd' => 45.0] as $name => $mean) {
            $one = ['name' => $name, 'times' => [], 'events' => []];
            for ($k = 0; $k < 15; $k++) {
                $one['times'][] = (float) ceil(-$mean * log(mt_rand(1, 999) / 1000));
                $one['events'][] = mt_rand(0, 3) > 0 ? 1 : 0;
            }
            $groups[] = $one;
            $code[] = $one;
        }
        $out = $this->calc('life.logrank', ['groups' => $groups]);
        $this->assertSame(3, $out['df']);
        $list = fn (array $x): string => 'c('.implode(',', $x).')';
        $found = $this->r(sprintf(
            'survival::survdiff(survival::Surv(%s,%s) ~ %s)$chisq',
            $list(array_merge(...array_column($code, 'times'))),
            $list(array_merge(...array_column($code, 'events'))),
            'rep(1:4, each=15)',
        ));
        $this->assertRelative($found[0], $out['chisq'], 1e-8, 'chi square');
        $groups[] = ['name' => 'never at risk', 'times' => [0.5], 'events' => [0]];
        $with = $this->calc('life.logrank', ['groups' => $groups]);
        $this->assertSame(3, $with['df']);
        $this->assertRelative($out['chisq'], $with['chisq'], 1e-12, 'the idle group changes nothing');
    }

    /** @return array<string, array{list<float>, float, float, float}> */
    public static function policies(): array
    {
        return [
            'shape 2.5' => [[2.5, 1000, 1, 5], 493.0469576, 0.003462042739, 0.00563530249],
            'shape 3' => [[3, 500, 100, 400], 277.0766083, 0.5527544174, 0.8958772174],
            'shape 2' => [[2, 1000, 1, 10], 336.4511913, 0.006056121443, 0.01128379167],
        ];
    }

    /** Barlow & Proschan 1965, ch. 4; roots in 30 digits and by R's optimize, made outside the project. */
    #[DataProvider('policies')]
    public function test_the_age_at_which_it_is_best_renewed(array $in, float $age, float $rate, float $waiting): void
    {
        $out = $this->calc(
            'life.replace',
            array_combine(['shape', 'scale', 'plannedCost', 'failedCost'], $in),
        );
        $this->assertTrue($out['pays']);
        $this->assertRelative($age, $out['age'], 1e-8, 'age');
        $this->assertRelative($rate, $out['costRate'], 1e-9, 'cost rate');
        $this->assertRelative($waiting, $out['waitingCostRate'], 1e-9, 'cost rate of waiting');
        $this->assertRelative(1 - $rate / $waiting, $out['saves'], 1e-8, 'saving');
    }

    public function test_where_waiting_is_best(): void
    {
        $cases = [[1, 1000, 1, 5, 0.005], [0.8, 1000, 1, 5, 0.004413050605], [2.5, 1000, 2, 1, 0.001127060498]];
        foreach ($cases as [$shape, $scale, $planned, $failed, $rate]) {
            $out = $this->calc('life.replace', [
                'shape' => $shape,
                'scale' => $scale,
                'plannedCost' => $planned,
                'failedCost' => $failed,
            ]);
            $this->assertFalse($out['pays']);
            $this->assertRelative($rate, $out['costRate'], 1e-9, 'cost rate');
            $this->assertArrayNotHasKey('age', $out);
        }
    }
}
