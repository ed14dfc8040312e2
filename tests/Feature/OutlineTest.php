<?php

namespace Tests\Feature;

use App\Catalog\Models\Family;
use App\Catalog\Read\FamilyOutline;
use Tests\TestCase;

/** What one walks round at receiving is drawn from the section of the family: one unit, one picture. */
final class OutlineTest extends TestCase
{
    public function test_every_family_is_drawn_from_its_section_and_differs(): void
    {
        $families = $this->as('receiver')->read('/receiving/form')->assertOk()->json('families');
        $this->assertCount(5, $families);
        $seen = [];
        foreach ($families as $family) {
            $outline = $family['outline'];
            $this->assertGreaterThan($outline['height'], $outline['width'], $family['code']);
            foreach ($outline['places'] as $place) {
                $at = "{$family['code']} {$place['code']}";
                $this->assertSame('polygon', $place['shape']['kind'], $at);
                $this->assertGreaterThan(2, count($place['shape']['points']), $at);
                foreach ($place['shape']['points'] as [$x, $y]) {
                    $this->assertTrue($x >= 0 && $x <= $outline['width'] && $y >= 0 && $y <= $outline['height'], $at);
                }
            }
            $seen[] = json_encode(array_column($outline['places'], 'shape'));
        }
        $this->assertCount(5, array_unique($seen), 'no two families look alike');
    }

    public function test_the_bell_ends_where_the_case_begins(): void
    {
        $outline = FamilyOutline::of(Family::query()->where('code', 'RD4')->firstOrFail());
        $shapes = array_column($outline['places'] ?? [], 'shape', 'code');
        $x = fn (string $place): array => array_column($shapes[$place]['points'], 0);
        $this->assertEqualsWithDelta(max($x('bell')), min($x('case')), 0.11);
        $y = fn (string $place): array => array_column($shapes[$place]['points'], 1);
        $this->assertGreaterThan(max($y('case')) - 12, min($y('pan')), 'the pan hangs below');
        $this->assertGreaterThan(max($x('case')), max($x('sensor')), 'the speed sensor sits at the tail');
    }

    public function test_an_outline_with_measures_of_its_own_is_served_as_it_is(): void
    {
        $own = ['width' => 500, 'height' => 260, 'places' => [[
            'code' => 'case',
            'name' => 'Case',
            'shape' => ['kind' => 'rect', 'x' => 10, 'y' => 10, 'w' => 300, 'h' => 100],
            'parts' => [],
            'clues' => [],
            'features' => [],
        ]]];
        $family = Family::query()->where('code', 'RD4')->firstOrFail();
        $family->body = ['outline' => $own] + $family->body;
        $this->assertSame($own, FamilyOutline::of($family));
        $family->body = array_diff_key($family->body, ['outline' => 0]);
        $this->assertNull(FamilyOutline::of($family));
    }

    public function test_a_place_of_a_part_that_is_not_drawn_any_more_is_left_without_shape_not_without_the_page(): void
    {
        $family = Family::query()->where('code', 'RD4')->firstOrFail();
        $body = $family->body;
        $body['section']['parts'] = array_values(array_filter(
            $body['section']['parts'],
            fn (array $p): bool => $p['code'] !== 'pan',
        ));
        $family->body = $body;
        $shapes = array_column(FamilyOutline::of($family)['places'] ?? [], 'shape', 'code');
        $this->assertSame([], $shapes['pan']['points']);
        $this->assertNotSame([], $shapes['case']['points']);
    }
}
