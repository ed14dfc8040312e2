<?php

namespace Tests\Feature;

use App\Catalog\Models\Family;
use Tests\TestCase;

/** The strength register of a family: parts twisted in the gear that asks most of them, claims beside. */
final class StrengthTest extends TestCase
{
    /** @return array<string, array<string, mixed>> by name */
    private function register(string $family, string $query = 'engine=300&stall=2&shock=1'): array
    {
        $register = $this->as('viewer')->read("/catalog/families/$family/strength?$query")->assertOk();

        return array_column($register->json('parts'), null, 'name');
    }

    public function test_a_shaft_is_twisted_as_the_textbook_twists_it(): void
    {
        $parts = $this->register('RD4');
        $shaft = $parts['Input shaft, turbine spline'];
        // tau = 16 T D / (pi (D^4 - d^4)) x kt, 600 N.m on 29/7 mm (Shigley, torsion of round bars).
        $tau = 16 * 600e3 * 29 / (M_PI * (29 ** 4 - 7 ** 4)) * 1.6;
        $this->assertEqualsWithDelta($tau, $shaft['stressMpa'], 1e-6);
        $this->assertEqualsWithDelta(520 / $tau, $shaft['margin'], 1e-9);
        $low = max(array_filter(Family::query()->where('code', 'RD4')->firstOrFail()->chart()->ratios()));
        $out = $parts['Output shaft, rear spline'];
        $this->assertSame('1', $out['gear']);
        $this->assertEqualsWithDelta(600 * $low, $out['torqueNm'], 1e-6);
        $this->assertSame('Ringwell', $parts['Sun shell, hub weld']['claims'][0]['by']);
        $margins = array_column($parts, 'margin');
        $sorted = $margins;
        sort($sorted);
        $this->assertSame($sorted, $margins, 'the weakest first');
    }

    public function test_shock_is_the_houses_where_nobody_says_it(): void
    {
        $hard = $this->register('TX6', 'engine=300&stall=2&shock=3')['Input shaft']['torqueNm'];
        $this->house('shock-factor', '3');
        $own = $this->register('TX6', 'engine=300&stall=2')['Input shaft']['torqueNm'];
        $this->assertEqualsWithDelta($hard, $own, 1e-9);
    }

    public function test_no_two_families_hold_alike(): void
    {
        $holds = [];
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $parts = $this->register($family);
            $this->assertGreaterThanOrEqual(5, count($parts), $family);
            $this->assertNotContains(null, array_column($parts, 'margin'), "$family: all are loaded in some gear");
            $holds[] = array_map(fn (float $nm): string => (string) round($nm), array_column($parts, 'holdsNm'));
        }
        foreach ($holds as $n => $ones) {
            foreach (array_slice($holds, $n + 1) as $others) {
                $this->assertLessThanOrEqual(1, count(array_intersect($ones, $others)));
            }
        }
    }

    public function test_what_no_engine_gives_is_refused_beside_its_field(): void
    {
        $this->as('viewer');
        $ask = fn (string $query) => $this->read("/catalog/families/RD4/strength?$query");
        $this->assertProblem($ask('engine=-3&stall=2'), 422, 'over 0', '/engine');
        $this->assertProblem($ask('engine=300&stall=0.5'), 422, '1 to 5', '/stall');
        $this->assertProblem($ask('engine=300&stall=2&shock=much'), 422, '1 to 10', '/shock');
        $this->read('/catalog/families/NONE/strength?engine=300&stall=2')->assertNotFound();
    }
}
