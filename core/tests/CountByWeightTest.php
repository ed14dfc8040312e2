<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Yard\Core\BadInput;
use Yard\Core\Work\CountByWeight;

final class CountByWeightTest extends TestCase
{
    /**
     * A steel ball of 1/4 in weighs (pi/6) d^3 rho = 1.044 g with 7.79 g/cm3, the handbook density of bearing steel
     * (from memory), so eight weigh 8.35 g.
     */
    public function test_eight_quarter_inch_balls_are_eight_and_seven_are_seven(): void
    {
        $ball = M_PI / 6.0 * 0.635 ** 3 * 7.79;
        self::assertEqualsWithDelta(1.044, $ball, 0.001);
        self::assertSame(8, CountByWeight::of(8.35, 1.044, 0.05, 0.005)->pieces);
        self::assertSame(7, CountByWeight::of(7.31, 1.044, 0.05, 0.005)->pieces);
    }

    public function test_an_empty_basket_is_none(): void
    {
        self::assertSame(0, CountByWeight::of(0.0, 3.5, 0.05, 0.01)->pieces);
    }

    /** @return array<string, array{float, float, float, float, string, string}> */
    public static function refused(): array
    {
        return [
            'less than nothing' => [-3.0, 3.5, 0.05, 0.01, '/net_g', 'less than nothing'],
            'not a number' => [NAN, 3.5, 0.05, 0.01, '/net_g', 'less than nothing'],
            'a piece of nothing' => [10.0, 0.0, 0.05, 0.01, '/piece_g', 'must weigh something'],
            'a half ball' => [12.25, 3.5, 0.05, 0.01, '/net_g', '3.50 pieces'],
            'too many' => [350.0, 3.5, 0.05, 0.01, '/net_g', '48 can be told from 49'],
            'too light' => [0.2, 0.02, 0.05, 0.01, '/net_g', 'too little for this scale'],
        ];
    }

    #[DataProvider('refused')]
    public function test_it_refuses(
        float $net,
        float $piece,
        float $scale,
        float $spread,
        string $at,
        string $why,
    ): void {
        try {
            CountByWeight::of($net, $piece, $scale, $spread);
            self::fail('It counted.');
        } catch (BadInput $e) {
            self::assertSame($at, $e->path);
            self::assertStringContainsString($why, $e->getMessage());
        }
    }

    /** Up to the count it names, pieces drawn at random within their spread never come out as another count. */
    public function test_whatever_the_pieces_weigh_the_count_is_right(): void
    {
        mt_srand(20261127);
        for ($n = 0; $n < 400; $n++) {
            $piece = 0.5 + mt_rand() / mt_getrandmax() * 9.5;
            [$scale, $spread] = [0.05, 0.004];
            $most = CountByWeight::of($piece, $piece, $scale, $spread)->most;
            $pieces = mt_rand(0, min($most, 60));
            $mean = 1.0 + (mt_rand() / mt_getrandmax() * 2.0 - 1.0) * $spread * 0.999;
            $shown = max(0.0, $pieces * $piece * $mean + (mt_rand() / mt_getrandmax() * 2.0 - 1.0) * $scale * 0.999);
            $found = CountByWeight::of($shown, $piece, $scale, $spread);
            self::assertSame($pieces, $found->pieces, "$pieces pieces of $piece g");
        }
    }
}
