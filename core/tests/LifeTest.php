<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Maths\Special;

final class LifeTest extends CoreTestCase
{
    /**
     * Exact limits computed with R 4.2.2 (binom.test, poisson.test); printed for 0, 3 and 10 counts in Garwood (1936).
     */
    public static function intervals(): array
    {
        return [
            [['failures' => 0, 'units' => 20], 0.0, 0.0, 0.168433471],
            [['failures' => 3, 'units' => 50], 0.06, 0.01254858784, 0.1654819466],
            [['failures' => 7, 'units' => 120], 7 / 120, 0.02377202379, 0.1164983796],
            [['failures' => 20, 'units' => 20], 1.0, 0.831566529, 1.0],
            [['failures' => 1, 'units' => 10, 'confidence' => 0.9], 0.1, 0.005116196892, 0.3941633024],
            [['failures' => 52, 'units' => 100], 0.52, 0.4177897654, 0.6209945198],
            [['failures' => 0, 'exposure' => 1], 0.0, 0.0, 3.688879454],
            [['failures' => 3, 'exposure' => 1], 3.0, 0.6186721229, 8.76727307],
            [['failures' => 10, 'exposure' => 1], 10.0, 4.795388696, 18.39035604],
            [['failures' => 5, 'exposure' => 1200], 5 / 1200, 0.001352905325, 0.009723610066],
            [['failures' => 14, 'exposure' => 250, 'confidence' => 0.9], 0.056, 0.03385575009, 0.08754594365],
        ];
    }

    #[DataProvider('intervals')]
    public function test_exact_intervals(array $in, float $rate, float $lower, float $upper): void
    {
        $out = $this->calc('rate.interval', $in);
        $this->assertRelative($rate, $out['rate']);
        $this->assertEqualsWithDelta($lower, $out['lower'], 1e-8);
        $this->assertEqualsWithDelta($upper, $out['upper'], 1e-8 * max(1.0, $upper));
    }

    public function test_zero_failures_have_the_closed_form(): void
    {
        $this->assertRelative(
            1 - 0.025 ** (1 / 37),
            $this->calc('rate.interval', ['failures' => 0, 'units' => 37])['upper'],
            1e-10,
        );
    }

    public function test_bad_rates(): void
    {
        $this->assertRefused('rate.interval', ['failures' => 3, 'units' => 2], 'range', '/failures');
        $this->assertRefused('rate.interval', ['failures' => 3], 'choice', '');
        $this->assertRefused('rate.interval', ['failures' => 3, 'units' => 5, 'exposure' => 2], 'choice', '');
        $this->assertRefused('rate.interval', ['failures' => 1.5, 'units' => 5], 'type', '/failures');
        $this->assertRefused('rate.interval', ['failures' => 1, 'exposure' => 0], 'range', '/exposure');
    }

    public function test_special_functions_against_tabulated_values(): void
    {
        // Abramowitz & Stegun tables 6.1, 7.1, 26.1.
        $this->assertRelative(log(24.0), Special::lnGamma(5.0), 1e-14);
        $this->assertRelative(0.5 * log(M_PI), Special::lnGamma(0.5), 1e-13);
        $this->assertRelative(0.841344746068543, Special::normalCdf(1.0), 1e-13);
        $this->assertRelative(0.0013498980316301, Special::normalCdf(-3.0), 1e-11);
        $this->assertRelative(1 - exp(-2.0), Special::gammaP(1.0, 2.0), 1e-14);
        $this->assertRelative(0.6875, Special::betaI(0.5, 2.0, 3.0), 1e-13);
    }
}
