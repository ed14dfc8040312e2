<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** General-purpose programs as a second opinion where they are installed; the same cases stand as numbers elsewhere. */
final class OutsideJudgesTest extends CoreTestCase
{
    public function test_exact_intervals_agree_with_r(): void
    {
        foreach ([[2, 31, 0.95], [9, 40, 0.9], [0, 12, 0.99]] as [$x, $n, $level]) {
            $ours = $this->calc('rate.interval', ['failures' => $x, 'units' => $n, 'confidence' => $level]);
            $this->assertEqualsWithDelta(
                $this->r("binom.test($x, $n, conf.level = $level)\$conf.int"),
                [$ours['lower'], $ours['upper']],
                1e-8,
            );
        }
        $ours = $this->calc('rate.interval', ['failures' => 7, 'exposure' => 340.5]);
        $this->assertEqualsWithDelta(
            $this->r('poisson.test(7, 340.5)$conf.int'),
            [$ours['lower'], $ours['upper']],
            1e-8,
        );
    }

    public function test_gear_train_agrees_with_a_linear_solve_in_r(): void
    {
        // Lepelletier, 5th gear: unknowns front carrier, large sun, small sun, carrier, out; input speed 1.
        $solution = $this->r(
            'solve(matrix(c(-108,0,0,0,0, 0,38,0,-123,85, 0,0,31,54,-85, 1,-1,0,0,0, 0,0,0,1,0), 5, byrow = TRUE), '
                .'c(-71,0,0,0,1))',
        );
        $set = fn (string $id, string $kind, string $sun, string $ring, string $carrier, int $s, int $r): array => [
            'id' => $id,
            'kind' => $kind,
            'sun' => $sun,
            'ring' => $ring,
            'carrier' => $carrier,
            'sunTeeth' => $s,
            'ringTeeth' => $r,
        ];
        $out = $this->calc('geartrain.solve', [
            'input' => 'in',
            'output' => 'out',
            'sets' => [
                $set('F', 'simple', 'case', 'in', 'fc', 37, 71),
                $set('L', 'simple', 'large', 'out', 'c', 38, 85),
                $set('S', 'double', 'small', 'out', 'c', 31, 85),
            ],
            'elements' => [
                ['id' => 'B', 'kind' => 'clutch', 'a' => 'fc', 'b' => 'large'],
                ['id' => 'E', 'kind' => 'clutch', 'a' => 'in', 'b' => 'c'],
            ],
            'gears' => [['name' => '5', 'applied' => ['B', 'E']]],
        ])['gears'][0]['speeds'];
        $this->assertEqualsWithDelta(
            $solution,
            [$out['fc'], $out['large'], $out['small'], $out['c'], $out['out']],
            1e-9,
        );
    }

    public function test_normal_and_gamma_functions_agree_with_r(): void
    {
        $this->assertEqualsWithDelta(
            $this->r('pnorm(c(-4, -1.3, 0, 0.7, 2.9))'),
            array_map(\Yard\Core\Maths\Special::normalCdf(...), [-4.0, -1.3, 0.0, 0.7, 2.9]),
            1e-13,
        );
        $this->assertEqualsWithDelta(
            $this->r('lgamma(c(0.3, 1, 2.5, 33.3))'),
            array_map(\Yard\Core\Maths\Special::lnGamma(...), [0.3, 1.0, 2.5, 33.3]),
            1e-12,
        );
        $this->assertEqualsWithDelta(
            $this->r('pbeta(c(0.1, 0.5, 0.93), 3.2, 7)'),
            array_map(fn (float $x): float => \Yard\Core\Maths\Special::betaI($x, 3.2, 7.0), [0.1, 0.5, 0.93]),
            1e-13,
        );
    }

    public function test_naive_bayes_agrees_with_r_on_a_dataset_r_ships(): void
    {
        // datasets::Titanic (R), the published counts of class, sex, age and survival; naive Bayes by its formula in R.
        $code =
            't <- as.data.frame(Titanic); n <- function(v, h) xtabs(Freq ~ get(v) + Survived, t)[, h] / '
                .'sum(t$Freq[t$Survived == h]); p <- sapply(c("No", "Yes"), function(h) sum(t$Freq[t$Survived == '
                .'h]));';
        $shares = fn (string $feature, string $survived): array => $this->r(
            "{ $code as.vector(n('$feature', '$survived'))}",
        );
        [$no, $yes] = $this->r("{ $code as.vector(p)}");
        $values = [
            'Class' => ['1st', '2nd', '3rd', 'Crew'],
            'Sex' => ['Male', 'Female'],
            'Age' => ['Child', 'Adult'],
        ];
        $hypotheses = [];
        foreach (['No' => $no, 'Yes' => $yes] as $id => $count) {
            $hypotheses[] = [
                'id' => $id,
                'prior' => $count,
                'expect' => array_map(
                    fn (array $v, string $f): array => array_combine($v, $shares($f, $id)),
                    $values,
                    array_keys($values),
                ),
            ];
            $hypotheses[count($hypotheses) - 1]['expect'] = array_combine(
                array_keys($values),
                $hypotheses[count($hypotheses) - 1]['expect'],
            );
        }
        foreach (
            [
                ['3rd', 'Female', 'Child'],
                ['1st', 'Female', 'Adult'],
                ['Crew', 'Male', 'Adult'],
                ['2nd', 'Male', 'Child'],
            ] as [$class, $sex, $age]
        ) {
            $ours = $this->calc('evidence.rank', [
                'hypotheses' => $hypotheses,
                'features' => array_map(
                    fn (string $f): array => ['id' => $f, 'values' => $values[$f]],
                    array_keys($values),
                ),
                'observed' => ['Class' => $class, 'Sex' => $sex, 'Age' => $age],
            ]);
            $theirs = $this->r(
                "{ $code q <- sapply(c('No', 'Yes'), function(h) p[[h]] * n('Class', h)[['$class']] ".
                    "* n('Sex', h)[['$sex']] * n('Age', h)[['$age']]); as.vector(q / sum(q))}",
            );
            $posterior = array_column($ours['ranking'], 'posterior', 'id');
            $this->assertEqualsWithDelta($theirs, [$posterior['No'], $posterior['Yes']], 1e-10, "$class $sex $age");
        }
    }
}
