<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Section\Outside;
use Yard\Core\Section\Section;
use Yard\Core\Section\SectionCheck;
use Yard\Core\Section\Shape;
use Yard\Core\Section\Solids;

/** The section drawing: sizes that follow from teeth and plates, and what cannot be drawn. */
final class SectionTest extends TestCase
{
    private const TRAIN = [
        'input' => 'in',
        'output' => 'out',
        'sets' => [
            ['id' => 'P', 'kind' => 'simple', 'sunTeeth' => 30, 'ringTeeth' => 70, 'planetTeeth' => 20],
            ['id' => 'D', 'kind' => 'double', 'sunTeeth' => 26, 'ringTeeth' => 74, 'planetTeeth' => [16, 18]],
        ],
        'elements' => [['id' => 'C1', 'name' => 'Forward clutch'], ['id' => 'B1']],
    ];

    /** @param  list<array<string, mixed>>  $parts */
    private static function section(array $parts): Section
    {
        return Section::of(
            self::input(['axes' => [['code' => 'main', 'name' => 'Main', 'y' => 0]], 'parts' => $parts]),
            self::input(self::TRAIN),
            ['C1' => 5],
        );
    }

    private static function input(mixed $value): Input
    {
        return Input::of(json_decode((string) json_encode($value)));
    }

    /** @return list<array{float, float, float, float}> */
    private static function boxes(Section $section, string $part, string $as): array
    {
        return array_values(array_map(
            static fn (Shape $s): array => $s->bounds(),
            array_filter($section->parts[$part]->shapes, static fn (Shape $s): bool => $s->as === $as),
        ));
    }

    public function test_a_pack_has_its_plates_in_order_from_the_piston_to_the_ring(): void
    {
        $pack = ['code' => 'C1', 'kind' => 'pack', 'of' => 'C1', 'x' => [100, 140], 'r' => [59, 71]];
        foreach (['left', 'right'] as $piston) {
            $section = self::section([$pack + ['piston' => $piston, 'wave' => true]]);
            $this->assertSame('Forward clutch', $section->parts['C1']->name);
            $frictions = self::boxes($section, 'C1', 'friction');
            $this->assertCount(5, $frictions);
            $this->assertCount(6, self::boxes($section, 'C1', 'steel'), 'five steels and the backing plate');
            $all = array_map(static fn (Shape $s): float => $s->bounds()[0], $section->parts['C1']->shapes);
            $sorted = $all;
            $piston === 'left' ? sort($sorted) : rsort($sorted);
            $this->assertSame($sorted, $all, 'from the piston outwards');
            $this->assertSame('wave', $section->parts['C1']->shapes[0]->as);
            $this->assertSame([55.0, 71.0], [$frictions[0][1], $frictions[0][3]], 'teeth reach to the hub inside');
            $this->assertEqualsWithDelta(100, min(array_column(self::outlines($section), 0)), 1e-9);
            $this->assertEqualsWithDelta(140, max(array_column(self::outlines($section), 2)), 1e-9);
        }
    }

    /** @return list<array{float, float, float, float}> */
    private static function outlines(Section $section): array
    {
        return array_map(static fn (Shape $s): array => $s->bounds(), $section->parts['C1']->shapes);
    }

    /** Pitch radius = teeth x module / 2 (ISO 21771, from memory): r 24, 16 and 56 for 30, 20 and 70 teeth at 1.6. */
    public function test_radii_of_a_set_follow_from_its_teeth(): void
    {
        $set = ['code' => 'P', 'kind' => 'set', 'of' => 'P', 'x' => [0, 30], 'module' => 1.6];
        $section = self::section([$set, ['code' => 'D', 'of' => 'D', 'x' => [50, 80]] + $set]);
        [$sun, $ring] = self::boxes($section, 'P', 'cut');
        $this->assertSame([24.0, 56.0], [$sun[3], $ring[1]]);
        [$planet] = self::boxes($section, 'P', 'plain');
        $this->assertEqualsWithDelta([24, 56], [$planet[1], $planet[3]], 1e-9, 'it meshes with both');
        $pinions = self::boxes($section, 'D', 'plain');
        $this->assertCount(2, $pinions);
        $this->assertEqualsWithDelta([20.8, 59.2], [$pinions[0][1], $pinions[1][3]], 1e-9);
        $this->assertEqualsWithDelta($pinions[0][3], $pinions[1][1], 1e-9, 'the short pinion meshes with the long one');
        $this->assertEqualsWithDelta(
            16 / 18,
            ($pinions[0][3] - $pinions[0][1]) / ($pinions[1][3] - $pinions[1][1]),
            1e-9,
        );
    }

    public function test_a_wall_is_as_thick_as_it_is_given_square_to_its_run(): void
    {
        $out = Solids::outside([[0.0, 100.0], [100.0, 100.0], [100.0, 40.0]], 7.0);
        $this->assertEqualsWithDelta([[0, 107], [107, 107], [107, 40]], $out, 1e-9);
        $slope = Solids::outside([[0.0, 0.0], [30.0, 40.0]], 5.0);
        $this->assertEqualsWithDelta([[-4, 3], [26, 43]], $slope, 1e-9);
    }

    public function test_a_lower_axis_moves_what_is_on_it(): void
    {
        $section = Section::of(
            self::input([
                'axes' => [
                    ['code' => 'main', 'name' => 'Main', 'y' => 0],
                    ['code' => 'low', 'name' => 'Low', 'y' => -120],
                ],
                'parts' => [
                    ['code' => 's', 'kind' => 'shaft', 'axis' => 'low', 'x' => [0, 50], 'r' => 10, 'node' => 'in'],
                ],
            ]),
            self::input(self::TRAIN),
            [],
        );
        $this->assertSame([0.0, -120.0, 50.0, -110.0], $section->parts['s']->bounds());
        $this->assertSame('input', $section->parts['s']->turns);
    }

    public function test_parts_in_one_place_and_elements_that_are_not_drawn_are_found(): void
    {
        $drum = ['code' => 'd', 'kind' => 'drum', 'x' => [0, 60], 'r' => [20, 80], 'web' => 'left', 'wall' => 5];
        $in = ['code' => 'i', 'kind' => 'block', 'x' => [10, 50], 'r' => [30, 75]];
        $faults = fn (array $parts): array => array_column(
            SectionCheck::faults(self::section($parts), self::input(self::TRAIN)),
            'detail',
        );
        $absent = ['gear set "P"', 'gear set "D"', 'element "C1"', 'element "B1"'];
        $this->assertCount(4, $faults([$drum, $in]), 'what lies in a drum is not in its metal');
        foreach ($absent as $n => $what) {
            $this->assertStringContainsString($what, $faults([$drum])[$n]);
        }
        $this->assertContains('"i" lies in the place of "d".', $faults([$drum, ['r' => [30, 77]] + $in]));
        $this->assertContains('"i" lies in the place of "d".', $faults([$drum, ['x' => [3, 50]] + $in]));
    }

    /** @return array<string, array{array<string, mixed>, string}> */
    public static function wrong(): array
    {
        $part = ['code' => 'p', 'kind' => 'block', 'x' => [0, 10], 'r' => [0, 10]];

        return [
            'a span that falls' => [['x' => [10, 0]] + $part, '/parts/0/x'],
            'a span of three' => [['x' => [0, 1, 2]] + $part, '/parts/0/x'],
            'larger than any unit' => [['x' => [0, 1e6]] + $part, '/parts/0/x'],
            'a kind nobody draws' => [['kind' => 'chimney'] + $part, '/parts/0/kind'],
            'a pack of no element' => [['kind' => 'pack', 'of' => 'C9', 'piston' => 'left'] + $part, '/parts/0/of'],
            'a set of no train' => [['kind' => 'set', 'of' => 'P9', 'module' => 1.6] + $part, '/parts/0/of'],
            'an axis that is not there' => [['axis' => 'low'] + $part, '/parts/0/axis'],
        ];
    }

    /** @param  array<string, mixed>  $part */
    #[DataProvider('wrong')]
    public function test_what_cannot_be_drawn_is_refused_at_its_place(array $part, string $pointer): void
    {
        try {
            self::section([$part]);
            $this->fail('It was drawn.');
        } catch (BadInput $e) {
            $this->assertSame($pointer, $e->path);
        }
    }

    public function test_a_part_is_drawn_once(): void
    {
        $part = ['code' => 'p', 'kind' => 'block', 'x' => [0, 10], 'r' => [0, 10]];
        $this->expectExceptionMessage('drawn twice');
        self::section([$part, $part]);
    }

    /** Area by the shoelace formula. */
    private static function area(array $corners): float
    {
        $sum = 0.0;
        foreach ($corners as $n => [$x, $y]) {
            [$bx, $by] = $corners[($n + 1) % count($corners)];
            $sum += $x * $by - $bx * $y;
        }

        return abs($sum) / 2;
    }

    public function test_from_its_side_a_housing_is_whole_and_cut_where_a_place_ends(): void
    {
        $section = self::section([
            ['code' => 'case', 'kind' => 'housing', 'wall' => 5, 'points' => [[0, 95], [200, 95]]],
            ['code' => 'pan', 'kind' => 'below', 'style' => 'plain', 'x' => [40, 160], 'y' => [-150, -100]],
        ]);
        $whole = Outside::of($section->parts['case']);
        $this->assertEqualsWithDelta(200.0 * 200.0, self::area($whole), 1e-6, 'both halves, 100 out with its wall');
        $bell = Outside::of($section->parts['case'], -INF, 60.0);
        $rest = Outside::of($section->parts['case'], 60.0);
        $this->assertSame(60.0, max(array_column($bell, 0)));
        $this->assertEqualsWithDelta(60.0 * 200.0, self::area($bell), 1e-6);
        $this->assertEqualsWithDelta(self::area($whole), self::area($bell) + self::area($rest), 1e-6);
        $this->assertSame([], Outside::of($section->parts['case'], 300.0));
        $this->assertEqualsWithDelta(120.0 * 50.0, self::area(Outside::of($section->parts['pan'])), 1e-6);
    }
}
