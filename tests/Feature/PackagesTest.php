<?php

namespace Tests\Feature;

use App\Catalog\Models\Family;
use App\Catalog\Models\Option;
use App\Catalog\Models\Package;
use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Catalog\Models\Vehicle;
use App\Stations\Ordering\Duty;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\AskedOrder;
use Tests\TestCase;

/**
 * Every package of the demo catalog with every single wish, and for every variant, held against the rules as the
 * catalog writes them.
 */
final class PackagesTest extends TestCase
{
    /** @return \Generator<string, array{Family, Package, Option|null, array<string, mixed>}> */
    private function everyOrder(): \Generator
    {
        $resolve = app(Specification::class);
        foreach (Family::query()->orderBy('id')->get() as $family) {
            $options = Option::query()->where('family_id', $family->id)->orderBy('id')->get();
            foreach (Package::query()->where('family_id', $family->id)->orderBy('id')->get() as $package) {
                $variants = Variant::query()->where('family_id', $family->id)->orderBy('id')->get();
                foreach ([null, ...$options] as $n => $wish) {
                    foreach ($n === 0 ? $variants : [$variants[$n % count($variants)]] as $variant) {
                        yield "$variant->code $package->code with ".($wish->code ?? 'no wish') => [
                            $family,
                            $package,
                            $wish,
                            $resolve->of(
                                $family,
                                new AskedOrder($package->code, $wish === null ? [] : [$wish->code]),
                                null,
                                $variant,
                            ),
                        ];
                    }
                }
            }
        }
    }

    public function test_what_comes_out_meets_every_rule_of_the_catalog(): void
    {
        $seen = ['ok' => 0, 'conflict' => 0];
        foreach ($this->everyOrder() as $order => [$family, , $wish, $spec]) {
            $seen[$spec['status']]++;
            if ($spec['status'] === 'conflict') {
                $this->assertNotNull($wish, "$order: a package without wishes must hold");
                $this->assertStringEndsWith('.', $spec['conflicts'][0]['explain'], $order);

                continue;
            }
            $codes = array_column($spec['options'], 'code');
            $wish === null || $this->assertContains($wish->code, $codes, $order);
            foreach ($family->body['always'] as $always) {
                $this->assertContains($always['option'], $codes, "$order: the house list is always in");
            }
            foreach (Option::query()->where('family_id', $family->id)->whereIn('code', $codes)->get() as $option) {
                $this->assertSame(
                    [],
                    array_values(array_diff($option->body['requires'] ?? [], $codes)),
                    "$order: $option->code lacks what it needs",
                );
                $this->assertSame(
                    [],
                    array_values(array_intersect($option->body['excludes'] ?? [], $codes)),
                    "$order: $option->code beside what it excludes",
                );
                foreach ($option->body['requiresAny'] ?? [] as $any) {
                    $this->assertNotSame(
                        [],
                        array_intersect($any, $codes),
                        "$order: $option->code lacks one of several",
                    );
                }
            }
            foreach ($family->body['groups'] ?? [] as $group) {
                $this->assertCount(
                    1,
                    array_intersect($group, $codes),
                    "$order: exactly one of ".implode(', ', $group),
                );
            }
        }
        $this->assertGreaterThan(100, $seen['ok']);
        $this->assertGreaterThan(0, $seen['conflict'], 'both kinds were met');
    }

    public function test_price_hours_oil_and_parts_are_the_sum_of_what_is_in(): void
    {
        $known = Part::query()->pluck('id', 'number');
        foreach ($this->everyOrder() as $order => [$family, $package, , $spec]) {
            if ($spec['status'] === 'conflict') {
                continue;
            }
            [$price, $hours, $oil] = [
                (float) $package->base_price,
                (float) $package->base_hours,
                (float) $package->body['fluid_l'],
            ];
            $parts = array_column(
                array_map(fn (array $p): array => $p + ['count' => 1], $package->body['parts']),
                'count',
                'part',
            );
            $leftOut = [];
            foreach (
                Option::query()
                    ->where('family_id', $family->id)
                    ->whereIn('code', array_column($spec['options'], 'code'))
                    ->get() as $option
            ) {
                $price += (float) $option->price;
                $hours += (float) $option->hours;
                $oil += $option->body['fluid_l'] ?? 0.0;
                foreach ($option->body['parts'] ?? [] as $add) {
                    $parts[$add['part']] = ($parts[$add['part']] ?? 0) + ($add['count'] ?? 1);
                }
                $leftOut = [...$leftOut, ...$option->body['omits'] ?? []];
            }
            $parts = array_diff_key($parts, array_flip($leftOut));
            ksort($parts);
            $this->assertSame(
                [],
                array_values(
                    array_diff(array_map(strval(...), array_keys($parts)), $known->keys()->map(strval(...))->all()),
                ),
                "$order: every part stands in the catalog",
            );
            $this->assertEqualsWithDelta(
                [round($price, 2), round($hours, 2), round($oil, 2)],
                [$spec['price'], $spec['hours'], $spec['fluid']['litres']],
                0.0051,
                $order,
            );
            $this->assertEquals($parts, array_column($spec['bom'], 'count', 'part'), $order);
        }
    }

    public function test_every_option_not_in_is_either_on_offer_or_forbidden_with_a_reason(): void
    {
        foreach ($this->everyOrder() as $order => [$family, , , $spec]) {
            if ($spec['status'] === 'conflict') {
                continue;
            }
            $all = Option::query()->where('family_id', $family->id)->orderBy('code')->pluck('code')->all();
            $told = [
                ...array_column($spec['options'], 'code'),
                ...array_column($spec['available'], 'code'),
                ...array_column($spec['forbidden'], 'option'),
            ];
            sort($told);
            $this->assertSame($all, $told, "$order: each option once");
            foreach ([...$spec['forbidden'], ...$spec['added'], ...$spec['removed']] as $reason) {
                $this->assertMatchesRegularExpression('/^["A-Z].*[.]$/s', $reason['because'], $order);
            }
        }
    }

    public function test_every_variant_gets_a_converter_that_fits_it(): void
    {
        foreach ($this->everyOrder() as $order => [$family, , $wish, $spec]) {
            if ($spec['status'] !== 'ok' || $wish !== null) {
                continue;
            }
            $variant = Variant::query()->where('code', strtok($order, ' '))->firstOrFail();
            $converters = Option::query()
                ->where('family_id', $family->id)
                ->whereIn('code', array_column($spec['options'], 'code'))
                ->get()
                ->filter(fn (Option $o) => isset($o->body['converter']));
            $this->assertCount(1, $converters, $order);
            $this->assertSame($variant->hardware['hub'], $converters->first()->body['converter']['hub'], $order);
            $this->assertContains(
                $variant->hardware['lockup'],
                $converters->first()->body['converter']['lockup'],
                $order,
            );
        }
    }

    public function test_a_vehicle_s_own_engine_is_held_by_the_stock_hardware_or_the_missing_margin_is_named(): void
    {
        $resolve = app(Specification::class);
        $judged = 0;
        foreach (Family::query()->orderBy('id')->get() as $family) {
            $variants = Variant::query()->where('family_id', $family->id)->pluck('id');
            $package = Package::query()->where('family_id', $family->id)->orderBy('id')->firstOrFail();
            $vehicles = Vehicle::query()
                ->whereIn(
                    'id',
                    \App\Catalog\Models\Application::query()->whereIn('variant_id', $variants)->select('vehicle_id'),
                )
                ->orderBy('id')
                ->get();
            foreach ($vehicles as $vehicle) {
                $variant = Variant::query()
                    ->whereIn(
                        'id',
                        \App\Catalog\Models\Application::query()
                            ->where('vehicle_id', $vehicle->id)
                            ->whereIn('variant_id', $variants)
                            ->select('variant_id'),
                    )
                    ->firstOrFail();
                $spec = $resolve->of($family, new AskedOrder($package->code), Duty::of(null, $vehicle), $variant);
                $judged++;
                if ($spec['status'] === 'ok') {
                    $this->assertTrue($spec['margins']['holds'], "$family->code in $vehicle->code");
                    $this->assertSame(
                        [true, []],
                        [$spec['converterMatch']['fits'], $spec['margins']['overPressed']],
                        "$family->code in $vehicle->code",
                    );
                    $this->assertTrue(
                        $spec['converterMatch']['launch']['reaches'],
                        "$family->code pulls away in $vehicle->code",
                    );
                    foreach ($spec['margins']['shifts'] as $shift) {
                        $this->assertNotContains(
                            true,
                            array_column($shift['elements'], 'over'),
                            "$family->code in $vehicle->code, $shift[from] to $shift[to]: ".
                                json_encode($shift['elements']),
                        );
                    }
                    foreach ($spec['margins']['gears'] as $gear) {
                        foreach ($gear['elements'] as $e) {
                            $this->assertTrue(
                                ! isset($e['margin']) || $e['margin'] >= 1.0,
                                "$family->code in $vehicle->code: {$e['element']} slips in {$gear['name']}",
                            );
                        }
                    }
                } else {
                    $this->assertMatchesRegularExpression(
                        '/carries \d+ N\.m and must carry \d+, a margin of \d\.\d\d/',
                        $spec['conflicts'][0]['explain'],
                    );
                }
            }
        }
        $this->assertGreaterThan(20, $judged);
    }
}
