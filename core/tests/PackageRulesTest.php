<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Rules of packages as builders know them; the examples are common practice, no source. */
final class PackageRulesTest extends CoreTestCase
{
    /**
     * @param  array<string, array<string, mixed>>  $rules
     * @param  array<string, mixed>  $order
     * @return array<string, mixed>
     */
    private function resolve(array $rules, array $order): array
    {
        return $this->calc('package.resolve', ['options' => array_map(fn (string $code, array $rule): array => $rule + ['code' => $code, 'price' => 10, 'why' => "why $code."], array_keys($rules), $rules)] + $order);
    }

    public function test_what_is_required_comes_along_through_any_number_of_steps(): void
    {
        $out = $this->resolve(['raised pressure' => ['requires' => ['restrictor']], 'restrictor' => ['requires' => ['plug']], 'plug' => []], ['wanted' => ['raised pressure']]);
        $this->assertSame(['raised pressure', 'restrictor', 'plug'], $out['chosen']);
        $this->assertSame('"raised pressure" needs "restrictor": why restrictor.', $out['added'][0]['because']);
    }

    public function test_two_that_travel_together_are_a_pair_not_a_circle(): void
    {
        $this->assertSame(['deep pan', 'long filter'], $this->resolve(['deep pan' => ['requires' => ['long filter']], 'long filter' => ['requires' => ['deep pan']]], ['wanted' => ['long filter']])['chosen']);
    }

    public function test_a_wish_and_what_it_requires_displace_what_the_package_brings(): void
    {
        $out = $this->resolve(['stock spring' => [], 'servo' => ['requires' => ['wide band']], 'wide band' => ['excludes' => ['band'], 'why' => 'grips wider'], 'band' => []], ['package' => ['stock spring', 'band'], 'wanted' => ['servo']]);
        $this->assertSame(['stock spring', 'servo', 'wide band'], $out['chosen']);
        $this->assertSame([['option' => 'band', 'because' => '"wide band" and "band" cannot be in one unit: grips wider.']], $out['removed']);
    }

    public function test_the_house_list_is_not_displaced_silently(): void
    {
        $out = $this->resolve(['bushings' => [], 'keep old bushings' => ['excludes' => ['bushings']]], ['always' => ['bushings'], 'wanted' => ['keep old bushings']]);
        $this->assertSame(['conflict', ['keep old bushings']], [$out['status'], $out['conflicts'][0]['options']]);
    }

    public function test_taking_off_what_a_wish_needs_is_a_conflict_and_what_the_package_needs_takes_it_along(): void
    {
        $rules = ['raised pressure' => ['requires' => ['restrictor']], 'restrictor' => ['why' => 'the thrust bearing suffers otherwise']];
        $out = $this->resolve($rules, ['wanted' => ['raised pressure'], 'unwanted' => ['restrictor']]);
        $this->assertSame('conflict', $out['status']);
        $this->assertStringContainsString('the thrust bearing suffers otherwise', $out['conflicts'][0]['explain']);
        $soft = $this->resolve($rules, ['package' => ['raised pressure', 'restrictor'], 'unwanted' => ['restrictor']]);
        $this->assertSame([], $soft['chosen']);
        $this->assertStringEndsWith('That was taken off.', array_column($soft['removed'], 'because', 'option')['raised pressure']);
    }

    public function test_exactly_one_of_a_group_is_in(): void
    {
        $rules = ['shallow' => ['price' => 0], 'deep' => ['price' => 80]];
        $this->assertSame(['shallow'], $this->resolve($rules, ['oneOf' => [['shallow', 'deep']]])['chosen'], 'the cheapest, when nothing speaks for another');
        $this->assertSame(['deep'], $this->resolve($rules, ['oneOf' => [['shallow', 'deep']], 'unwanted' => ['shallow']])['chosen']);
        $this->assertSame('conflict', $this->resolve($rules, ['oneOf' => [['shallow', 'deep']], 'wanted' => ['shallow', 'deep']])['status']);
    }

    public function test_only_what_a_wish_or_the_house_keeps_out_is_forbidden(): void
    {
        $rules = ['band' => [], 'wide band' => ['excludes' => ['band']], 'bushings' => [], 'old bushings' => ['excludes' => ['bushings']], 'servo' => ['requires' => ['wide band']]];
        $forbidden = fn (array $order): array => array_column($this->resolve($rules, $order + ['package' => ['band'], 'always' => ['bushings']])['forbidden'], 'because', 'option');
        $this->assertSame(['old bushings'], array_keys($forbidden([])), 'the wide band may come: the package gives way');
        $this->assertSame(['wide band', 'old bushings', 'servo'], array_keys($forbidden(['wanted' => ['band']])));
        foreach (['"servo" needs "wide band"', '"wide band" and "band" cannot be in one unit'] as $step) {
            $this->assertStringContainsString($step, $forbidden(['wanted' => ['band']])['servo']);
        }
    }

    public function test_omitted_parts_carry_their_reason(): void
    {
        $order = ['base' => ['parts' => [['part' => 'spacer']]]];
        $rules = ['wide band' => ['omits' => ['spacer'], 'omitWhy' => 'The band drags.']];
        $this->assertSame([['part' => 'spacer', 'because' => 'The band drags.']], $this->resolve($rules, $order + ['wanted' => ['wide band']])['omitted']);
        $this->assertSame([[], [['part' => 'spacer', 'count' => 1]]], [$this->resolve($rules, $order)['omitted'], $this->resolve($rules, $order)['bom']]);
    }

    public function test_the_order_of_wishes_and_of_the_catalog_does_not_change_the_cost(): void
    {
        mt_srand(7);
        for ($case = 0; $case < 40; $case++) {
            $rules = [];
            foreach ($codes = range('a', 'i') as $i => $code) {
                $later = array_slice($codes, $i + 1);
                $pick = fn (): string => $later[mt_rand(0, count($later) - 1)];
                $rules[$code] = ['price' => mt_rand(1, 50), 'requires' => $later !== [] && mt_rand(0, 2) === 0 ? [$pick()] : [], 'excludes' => $later !== [] && mt_rand(0, 3) === 0 ? [$pick()] : [], 'requiresAny' => count($later) > 1 && mt_rand(0, 2) === 0 ? [[$pick(), $pick()]] : []];
            }
            $one = $this->resolve($rules, ['wanted' => ['a', 'c', 'd']]);
            $two = $this->resolve(array_reverse($rules), ['wanted' => ['d', 'c', 'a']]);
            $this->assertSame([$one['status'], $one['cheapest']['cost'] ?? null], [$two['status'], $two['cheapest']['cost'] ?? null], (string) json_encode($rules));
        }
    }
}
