<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Inspection\BurnMap;
use Yard\Core\Inspection\BurnPattern;

/** How the damage of a pack lies over its plates. */
final class BurnMapTest extends CoreTestCase
{
    /** @return array<string, array{list<int>, float, BurnPattern}> damage, tau-b by R 4.2.2 (kendall) */
    public static function packs(): array
    {
        return [
            'growing away from the piston' => [[0, 0, 1, 2, 4], 0.948683298051, BurnPattern::AwayFromPiston],
            'worst at the piston' => [[3, 2, 2, 1, 0], -0.948683298051, BurnPattern::AtPiston],
            'soaked in the middle' => [[0, 1, 3, 1, 0], 0.0, BurnPattern::Middle],
            'eight plates, one out of order' => [[0, 1, 2, 2, 1, 3, 3, 4], 0.793725393319, BurnPattern::AwayFromPiston],
            'old and new by turns' => [[0, 2, 0, 2, 0, 2], 0.258198889747, BurnPattern::Scattered],
            'all alike' => [[2, 2, 2], 0.0, BurnPattern::Even],
            'two plates, one burnt' => [[0, 3], 1.0, BurnPattern::AwayFromPiston],
            'one plate' => [[3], 0.0, BurnPattern::Even],
        ];
    }

    /** @param  list<int>  $damage */
    #[DataProvider('packs')]
    public function test_the_pattern_follows_the_rank_correlation(array $damage, float $tau, BurnPattern $pattern): void
    {
        $map = new BurnMap($damage);
        $this->assertEqualsWithDelta($tau, $map->trend(), 1e-12);
        $this->assertSame($pattern, $map->pattern());
        $this->assertSame(max($damage), $map->worst());
    }

    public function test_a_pack_turned_round_is_worse_at_its_other_end(): void
    {
        mt_srand(20261127);
        for ($n = 0; $n < 200; $n++) {
            $damage = array_map(fn (): int => mt_rand(0, 4), range(1, mt_rand(2, 9)));
            [$map, $turned] = [new BurnMap($damage), new BurnMap(array_reverse($damage))];
            $this->assertEqualsWithDelta(-$map->trend(), $turned->trend(), 1e-12);
            $other = match ($map->pattern()) {
                BurnPattern::AtPiston => BurnPattern::AwayFromPiston,
                BurnPattern::AwayFromPiston => BurnPattern::AtPiston,
                default => $map->pattern(),
            };
            $this->assertSame($other, $turned->pattern(), json_encode($damage) ?: '');
        }
    }

    public function test_every_pattern_has_its_sentence_and_a_healthy_pack_says_so(): void
    {
        $said = array_map(fn (BurnPattern $p) => $p->sentence(false), BurnPattern::cases());
        $this->assertSame($said, array_unique($said));
        $this->assertSame('All plates are healthy.', BurnPattern::Even->sentence(true));
    }

    public function test_a_grade_below_healthy_is_refused(): void
    {
        $this->expectException(BadInput::class);
        new BurnMap([0, -1]);
    }
}
