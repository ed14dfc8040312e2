<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Packages\ApplyRules;

/** Rules of packages; the examples are common practice, no source. */
final class PackageRulesTest extends CoreTestCase
{
    /** @param  array<string, array<string, mixed>>  $rules */
    private static function options(array $rules): array
    {
        $out = [];
        foreach ($rules as $code => $rule) {
            $out[$code] = $rule + ['name' => $code, 'why' => "why $code.", 'requires' => [], 'excludes' => [], 'omits' => [], 'omitWhy' => ''];
        }

        return $out;
    }

    public function test_what_is_required_comes_along_through_any_number_of_steps(): void
    {
        $out = ApplyRules::to(self::options(['raised pressure' => ['requires' => ['restrictor']], 'restrictor' => ['requires' => ['plug']], 'plug' => []]), [], [], ['raised pressure'], []);
        $this->assertSame(['raised pressure', 'restrictor', 'plug'], $out['chosen']);
        $this->assertSame('"raised pressure" needs "restrictor": why restrictor.', $out['added'][0]['because']);
        $this->assertSame('ok', $out['status']);
    }

    public function test_a_circle_of_requirements_ends(): void
    {
        $out = ApplyRules::to(self::options(['deep pan' => ['requires' => ['long filter']], 'long filter' => ['requires' => ['deep pan']]]), [], [], ['long filter'], []);
        $this->assertSame(['deep pan', 'long filter'], $out['chosen']);
    }

    public function test_a_wish_displaces_what_the_package_brings(): void
    {
        $options = self::options(['short filter' => [], 'deep pan' => ['excludes' => ['short filter']]]);
        $out = ApplyRules::to($options, ['short filter'], [], ['deep pan'], []);
        $this->assertSame(['deep pan'], $out['chosen']);
        $this->assertSame([['option' => 'short filter', 'because' => 'Comes out, because "deep pan" takes its place.']], $out['removed']);
    }

    public function test_what_a_wish_requires_displaces_the_package_too(): void
    {
        $options = self::options(['stock spring' => [], 'servo' => ['requires' => ['wide band']], 'wide band' => ['excludes' => ['band']], 'band' => []]);
        $this->assertSame(['stock spring', 'servo', 'wide band'], ApplyRules::to($options, ['stock spring', 'band'], [], ['servo'], [])['chosen']);
    }

    public function test_two_wishes_that_exclude_each_other_are_a_conflict_with_a_reason(): void
    {
        $out = ApplyRules::to(self::options(['solid rings' => ['excludes' => ['scarf rings']], 'scarf rings' => ['excludes' => ['solid rings']]]), [], [], ['solid rings', 'scarf rings'], []);
        $this->assertSame('conflict', $out['status']);
        $this->assertCount(1, $out['conflicts'], 'said once, not from both sides');
        $this->assertSame(['scarf rings', 'solid rings'], $out['conflicts'][0]['options']);
    }

    public function test_the_house_list_is_not_displaced_silently(): void
    {
        $out = ApplyRules::to(self::options(['bushings' => [], 'keep old bushings' => ['excludes' => ['bushings']]]), [], ['bushings'], ['keep old bushings'], []);
        $this->assertSame('conflict', $out['status']);
    }

    public function test_dropping_what_is_needed_is_a_conflict(): void
    {
        $options = self::options(['raised pressure' => ['requires' => ['restrictor']], 'restrictor' => []]);
        $out = ApplyRules::to($options, ['raised pressure', 'restrictor'], [], [], ['restrictor']);
        $this->assertSame('conflict', $out['status']);
        $this->assertStringEndsWith('But that was taken off.', $out['conflicts'][0]['explain']);
        $this->assertSame('ok', ApplyRules::to($options, ['raised pressure', 'restrictor'], [], [], ['restrictor', 'raised pressure'])['status']);
    }

    public function test_omitted_parts_carry_their_reason(): void
    {
        $out = ApplyRules::to(self::options(['wide band' => ['omits' => ['spacer'], 'omitWhy' => 'The band drags.']]), ['wide band'], [], [], []);
        $this->assertSame([['part' => 'spacer', 'because' => 'The band drags.']], $out['omitted']);
        $this->assertSame([], ApplyRules::to(self::options(['wide band' => ['omits' => ['spacer'], 'omitWhy' => 'x']]), ['wide band'], [], [], ['wide band'])['omitted']);
    }

    public function test_the_order_of_wishes_does_not_matter(): void
    {
        mt_srand(7);
        for ($case = 0; $case < 60; $case++) {
            $rules = [];
            foreach (range('a', 'h') as $code) {
                $others = array_values(array_diff(range('a', 'h'), [$code]));
                $rules[$code] = ['requires' => mt_rand(0, 2) === 0 ? [$others[mt_rand(0, 6)]] : [], 'excludes' => mt_rand(0, 3) === 0 ? [$others[mt_rand(0, 6)]] : []];
            }
            $options = self::options($rules);
            $wishes = ['a', 'c', 'f'];
            $one = ApplyRules::to($options, [], [], $wishes, []);
            $two = ApplyRules::to($options, [], [], array_reverse($wishes), []);
            $this->assertSame($one['status'], $two['status'], (string) json_encode($rules));
            if ($one['status'] === 'ok') {
                $this->assertSame($one['chosen'], $two['chosen']);
                foreach ($one['chosen'] as $code) {
                    $this->assertSame([], array_diff($rules[$code]['requires'], $one['chosen']), 'everything required is there');
                    $this->assertSame([], array_intersect($rules[$code]['excludes'], $one['chosen']), 'nothing excluded is there');
                }
            }
        }
    }
}
