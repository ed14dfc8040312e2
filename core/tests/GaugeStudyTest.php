<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Spc\GaugeStudy;

/** Studies of gauges against the example of AIAG's manual and R's aov. */
final class GaugeStudyTest extends CoreTestCase
{
    /** Three people, ten parts, three trials: the example of Measurement Systems Analysis, 4th ed. (from memory). */
    private const AIAG = [
        [
            [.29, -.56, 1.34, .47, -.80, .02, .59, -.31, 2.26, -1.36],
            [.41, -.68, 1.17, .50, -.92, -.11, .75, -.20, 1.99, -1.25],
            [.64, -.58, 1.27, .64, -.84, -.21, .66, -.17, 2.01, -1.31],
        ],
        [
            [.08, -.47, 1.19, .01, -.56, -.20, .47, -.63, 1.80, -1.68],
            [.25, -1.22, .94, 1.03, -1.20, .22, .55, .08, 2.12, -1.62],
            [.07, -.68, 1.34, .20, -1.28, .06, .83, -.34, 2.19, -1.50],
        ],
        [
            [.04, -1.38, .88, .14, -1.46, -.29, .02, -.46, 1.77, -1.49],
            [-.11, -1.13, 1.09, .20, -1.07, -.67, .01, -.56, 1.45, -1.77],
            [-.15, -.96, .67, .11, -1.45, -.49, .21, -.49, 1.87, -2.16],
        ],
    ];

    /**
     * @param  list<list<list<float>>>  $byTrial  person, trial, part
     * @return list<list<list<float>>> person, part, trial
     */
    private static function byPart(array $byTrial): array
    {
        return array_map(fn (array $trials): array => array_map(null, ...$trials), $byTrial);
    }

    public function test_the_manuals_example_gives_the_manuals_numbers(): void
    {
        $study = GaugeStudy::of(self::byPart(self::AIAG));
        $this->assertEqualsWithDelta(0.199933, $study->repeatability, 5e-6);
        $this->assertEqualsWithDelta(0.226838, $study->reproducibility, 5e-6);
        $this->assertEqualsWithDelta(0.302373, $study->gauge(), 5e-6);
        $this->assertEqualsWithDelta(1.042327, $study->parts, 5e-6);
        $this->assertSame(4, $study->categories());
        $this->assertGreaterThan(0.9, $study->interaction, 'there is none');
        $this->assertEqualsWithDelta(6 * 0.302373 / 8, $study->shareOf(8.0), 1e-5);
    }

    public function test_r_finds_the_same_squares_where_people_and_parts_do_interact(): void
    {
        mt_srand(7);
        $readings = [];
        foreach (range(0, 2) as $person) {
            foreach (range(0, 5) as $part) {
                // The third person reads odd parts otherwise than the rest do.
                $off = $person === 2 ? ($part % 2 === 0 ? 0.4 : -0.4) : 0.05 * $person;
                $readings[$person][$part] = array_map(
                    fn (): float => round($part + $off + (mt_rand() / mt_getrandmax() - 0.5) * 0.2, 3),
                    range(1, 3),
                );
            }
        }
        $values = implode(',', array_merge(...array_map(fn (array $p) => array_merge(...$p), $readings)));
        [$partMean, $personMean, $bothMean, $errorMean, $chance] = $this->r(
            "(function() { y <- c($values); person <- factor(rep(1:3, each = 18)); part <- factor(rep(rep(1:6, ".
                'each = 3), 3)); t <- summary(aov(y ~ part * person))[[1]]; c(t[["Mean Sq"]], t[["Pr(>F)"]][3]) })()',
        );
        $study = GaugeStudy::of($readings);
        $this->assertEqualsWithDelta($chance, $study->interaction, 1e-12);
        $this->assertLessThan(0.05, $chance, 'they do interact');
        $this->assertRelative(sqrt($errorMean), $study->repeatability, 1e-9);
        $this->assertRelative(sqrt(($partMean - $bothMean) / 9), $study->parts, 1e-9);
        $people = max(0.0, ($personMean - $bothMean) / 18) + ($bothMean - $errorMean) / 3;
        $this->assertRelative(sqrt($people), $study->reproducibility, 1e-9);
    }

    /** @return array<string, array{list<mixed>, string}> */
    public static function refused(): array
    {
        return [
            'one person' => [[[[1.0, 1.1], [2.0, 2.1]]], '/readings'],
            'one trial' => [[[[1.0], [2.0]], [[1.0], [2.0]]], '/readings'],
            'a part left out' => [[[[1.0, 1.1], [2.0, 2.1]], [[1.0, 1.1]]], '/readings/1/0'],
            'a trial left out' => [[[[1.0, 1.1], [2.0, 2.1]], [[1.0, 1.1], [2.0]]], '/readings/1/1'],
        ];
    }

    /** @param  list<mixed>  $readings */
    #[DataProvider('refused')]
    public function test_what_is_not_crossed_is_refused_where_it_is_not(array $readings, string $at): void
    {
        try {
            GaugeStudy::of($readings);
            $this->fail('It was taken.');
        } catch (BadInput $e) {
            $this->assertSame($at, $e->path);
        }
    }

    public function test_a_gauge_that_always_says_the_same_of_a_part_has_no_spread(): void
    {
        $study = GaugeStudy::of([[[1.0, 1.0], [2.0, 2.0]], [[1.0, 1.0], [2.0, 2.0]]]);
        $this->assertSame([0.0, 0.0], [$study->gauge(), $study->shareOf(0.01)]);
        $this->assertSame(PHP_INT_MAX, $study->categories());
    }
}
