<?php

declare(strict_types=1);

namespace Yard\Core\Maths;

/** Special functions PHP lacks, to about 1e-14 relative. Formulas: Abramowitz & Stegun, ch. 6, 7 and 26. */
final class Special
{
    private const TINY = 1e-300;

    private const ERF = [
        [
            1.85777706184603153e-1,
            3.16112374387056560,
            1.13864154151050156e2,
            3.77485237685302021e2,
            3.20937758913846947e3,
        ],
        [1.0, 2.36012909523441209e1, 2.44024637934444173e2, 1.28261652607737228e3, 2.84423683343917062e3],
    ];

    private const ERFC = [
        [
            2.15311535474403846e-8,
            5.64188496988670089e-1,
            8.88314979438837594,
            6.61191906371416295e1,
            2.98635138197400131e2,
            8.81952221241769090e2,
            1.71204761263407058e3,
            2.05107837782607147e3,
            1.23033935479799725e3,
        ],
        [
            1.0,
            1.57449261107098347e1,
            1.17693950891312499e2,
            5.37181101862009858e2,
            1.62138957456669019e3,
            3.29079923573345963e3,
            4.36261909014324716e3,
            3.43936767414372164e3,
            1.23033935480374942e3,
        ],
    ];

    private const FAR = [
        [
            1.63153871373020978e-2,
            3.05326634961232344e-1,
            3.60344899949804439e-1,
            1.25781726111229246e-1,
            1.60837851487422766e-2,
            6.58749161529837803e-4,
        ],
        [
            1.0,
            2.56852019228982242,
            1.87295284992346725,
            5.27905102951428412e-1,
            6.05183413124413191e-2,
            2.33520497626869185e-3,
        ],
    ];

    /** ln Gamma(x) for x > 0: recurrence up to x >= 15, then Stirling's series. */
    public static function lnGamma(float $x): float
    {
        $shift = 0.0;
        while ($x < 15.0) {
            $shift += log($x);
            $x += 1.0;
        }
        $r = 1.0 / ($x * $x);
        $series =
            (1.0 / 12.0 -
                $r *
                    (1.0 / 360.0 -
                        $r * (1.0 / 1260.0 - $r * (1.0 / 1680.0 - $r * (1.0 / 1188.0 - ($r * 691.0) / 360360.0))))) /
            $x;

        return ($x - 0.5) * log($x) - $x + 0.5 * log(2.0 * M_PI) + $series - $shift;
    }

    /** Regularised lower incomplete gamma P(a, x), a > 0, x >= 0. */
    public static function gammaP(float $a, float $x): float
    {
        if ($x <= 0.0) {
            return 0.0;
        }
        $front = exp($a * log($x) - $x - self::lnGamma($a));
        if ($x < $a + 1.0) {
            $term = $sum = 1.0 / $a;
            for ($n = 1; $n < 100000 && abs($term) > abs($sum) * 1e-17; $n++) {
                $term *= $x / ($a + $n);
                $sum += $term;
            }

            return $front * $sum;
        }

        return 1.0 - $front * self::gammaFraction($a, $x);
    }

    /** Regularised upper incomplete gamma Q(a, x) = 1 - P(a, x), accurate in the tail. */
    public static function gammaQ(float $a, float $x): float
    {
        return $x < $a + 1.0
            ? 1.0 - self::gammaP($a, $x)
            : exp($a * log($x) - $x - self::lnGamma($a)) * self::gammaFraction($a, $x);
    }

    /** Regularised incomplete beta I_x(a, b), a, b > 0, 0 <= x <= 1. */
    public static function betaI(float $x, float $a, float $b): float
    {
        if ($x <= 0.0 || $x >= 1.0) {
            return $x <= 0.0 ? 0.0 : 1.0;
        }
        $front = exp(self::lnGamma($a + $b) - self::lnGamma($a) - self::lnGamma($b) + $a * log($x) + $b * log1p(-$x));

        return $x < ($a + 1.0) / ($a + $b + 2.0)
            ? ($front * self::betaFraction($x, $a, $b)) / $a
            : 1.0 - ($front * self::betaFraction(1.0 - $x, $b, $a)) / $b;
    }

    /** Standard normal distribution function. */
    public static function normalCdf(float $z): float
    {
        return 0.5 * self::erfc(-$z / M_SQRT2);
    }

    /**
     * Complementary error function by rational Chebyshev approximations, to about 1e-16 (W. J. Cody, Mathematics of
     * Computation 23, 1969, 631; coefficients from memory, checked against the incomplete gamma function).
     */
    public static function erfc(float $x): float
    {
        $y = abs($x);
        if ($y <= 0.46875) {
            return 1.0 - $x * self::rational(self::ERF, $y * $y);
        }
        if ($y <= 4.0) {
            $tail = self::rational(self::ERFC, $y);
        } elseif ($y < 27.0) {
            $square = 1.0 / ($y * $y);
            $tail = (1.0 / sqrt(M_PI) - $square * self::rational(self::FAR, $square)) / $y;
        } else {
            return $x < 0.0 ? 2.0 : 0.0;
        }
        // The square in two parts, so that its exponential loses nothing.
        $coarse = floor($y * 16.0) / 16.0;
        $tail *= exp(-$coarse * $coarse) * exp(-($y - $coarse) * ($y + $coarse));

        return $x < 0.0 ? 2.0 - $tail : $tail;
    }

    /** @param  array{list<float>, list<float>}  $of  numerator and denominator, the highest power first */
    private static function rational(array $of, float $x): float
    {
        $values = [0.0, 0.0];
        foreach ($of as $k => $coefficients) {
            foreach ($coefficients as $c) {
                $values[$k] = $values[$k] * $x + $c;
            }
        }

        return $values[0] / $values[1];
    }

    /**
     * The x in [low, high] where an increasing function reaches the target: Chandrupatla's bracketing method (Advances
     * in Engineering Software 28, 1997, 145), to about 1e-15 of the bracket.
     *
     * @param  callable(float): float  $f
     */
    public static function invert(callable $f, float $target, float $low, float $high): float
    {
        [$a, $b] = [$low, $high];
        [$fa, $fb] = [$f($a) - $target, $f($b) - $target];
        if ($fa >= 0.0 || $fb <= 0.0) {
            return $fa >= 0.0 ? $a : $b;
        }
        $t = 0.5;
        for ($i = 0; $i < 200; $i++) {
            $x = $a + $t * ($b - $a);
            $fx = $f($x) - $target;
            if ($fx > 0.0 === $fa > 0.0) {
                [$c, $fc] = [$a, $fa];
            } else {
                [$c, $b, $fc, $fb] = [$b, $a, $fb, $fa];
            }
            [$a, $fa] = [$x, $fx];
            $best = abs($fa) < abs($fb) ? $a : $b;
            $room = (2e-15 * abs($best) + 1e-17 * ($high - $low)) / max(abs($b - $a), 1e-300);
            if ($fa === 0.0 || $room > 0.5) {
                return $best;
            }
            $xi = ($a - $b) / ($c - $b);
            $phi = ($fa - $fb) / ($fc - $fb);
            // Inverse quadratic interpolation where it is safe, bisection elsewhere.
            $t =
                $fb !== $fc && $fa !== $fc && 1.0 - sqrt(1.0 - $xi) < $phi && $phi < sqrt($xi)
                    ? (($fa / ($fb - $fa)) * $fc) / ($fb - $fc) +
                        ((((($c - $a) / ($b - $a)) * $fa) / ($fc - $fa)) * $fb) / ($fc - $fb)
                    : 0.5;
            $t = min(1.0 - $room, max($room, $t));
        }

        return 0.5 * ($a + $b);
    }

    private static function gammaFraction(float $a, float $x): float
    {
        $b = $x + 1.0 - $a;
        $c = 1.0 / self::TINY;
        $h = $d = 1.0 / $b;
        for ($i = 1; $i < 100000; $i++) {
            $an = -$i * ($i - $a);
            $b += 2.0;
            $d = 1.0 / self::nonZero($an * $d + $b);
            $c = self::nonZero($b + $an / $c);
            $h *= $d * $c;
            if (abs($d * $c - 1.0) < 1e-16) {
                break;
            }
        }

        return $h;
    }

    private static function betaFraction(float $x, float $a, float $b): float
    {
        $c = 1.0;
        $h = $d = 1.0 / self::nonZero(1.0 - (($a + $b) * $x) / ($a + 1.0));
        for ($m = 1; $m < 100000; $m++) {
            foreach (
                [
                    ($m * ($b - $m) * $x) / (($a + 2 * $m - 1.0) * ($a + 2 * $m)),
                    (-($a + $m) * ($a + $b + $m) * $x) / (($a + 2 * $m) * ($a + 2 * $m + 1.0)),
                ] as $term
            ) {
                $d = 1.0 / self::nonZero(1.0 + $term * $d);
                $c = self::nonZero(1.0 + $term / $c);
                $h *= $d * $c;
            }
            if (abs($d * $c - 1.0) < 1e-16) {
                break;
            }
        }

        return $h;
    }

    private static function nonZero(float $x): float
    {
        return abs($x) < self::TINY ? self::TINY : $x;
    }
}
