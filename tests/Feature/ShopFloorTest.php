<?php

namespace Tests\Feature;

use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use App\Shop\Models\HouseRule;
use App\Shop\Models\Person;
use App\Shop\RuleDefinition;
use App\Stations\Assembly\Models\SignOff;
use App\Stations\Dispatch\Models\Shipment;
use App\Stations\Dispatch\Queries\DeliverySheet;
use App\Stations\Returns\Models\UnitReturn;
use App\Stock\Models\Lot;
use App\Yard\Models\Build;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;
use Yard\Core\Calculator\Calculators;

/**
 * What the manager looks at beside the units: the shelf, lots gone bad, what comes back, and the rules of the house.
 */
final class ShopFloorTest extends TestCase
{
    public function test_the_shelf_is_found_by_number_name_and_the_other_names_of_a_part_and_is_paged(): void
    {
        $this->as('viewer');
        $found = fn (string $q): array => array_column(
            $this->read('/stock?q='.urlencode($q))
                ->assertOk()
                ->json('parts'),
            'number',
        );
        $this->assertContains('CV-B1', $found('CV-B'));
        $this->assertContains('SP-92', $found('sprag'), 'by name');
        Part::query()
            ->where('number', 'SP-92')
            ->update(['aliases' => json_encode(['diode wheel'])]);
        config(['yard.page_size' => 5]);
        $first = $this->read('/stock')->json();
        $this->assertCount(5, $first['parts']);
        $next = $this->read('/stock?after='.urlencode($first['after']))->json();
        $this->assertGreaterThan(
            $first['parts'][4]['number'],
            $next['parts'][0]['number'],
            'in order, without a gap or a double',
        );
        $this->assertSame(
            [],
            array_intersect(array_column($first['parts'], 'number'), array_column($next['parts'], 'number')),
        );
        $this->assertSame([], $this->read('/stock?q='.urlencode('no such thing anywhere'))->json('parts'));
    }

    public function test_pieces_on_the_shelf_are_the_sum_of_their_lots(): void
    {
        $part = Part::query()->where('number', 'BP-180')->firstOrFail();
        $before = (int) Lot::query()->where('part_id', $part->id)->sum('quantity');
        DB::table('stock_lots')->insert([
            'part_id' => $part->id,
            'lot' => 'L-NEW',
            'quantity' => 7,
            'supplier' => 'x',
            'received_on' => '2026-11-20',
            'place' => 'S9',
        ]);
        $shown = collect($this->as('viewer')->read('/stock?q=BP-180')->json('parts'))->firstWhere('number', 'BP-180');
        $this->assertSame($before + 7, $shown['pieces']);
        $this->assertSame((float) $part->thickness, (float) $shown['thickness']);
    }

    public function test_a_lot_gone_bad_names_every_unit_that_carries_it(): void
    {
        $this->bringTo('dyno');
        $build = $this->unit()->currentBuild;
        $lots = DB::table('installed_parts')
            ->join('stock_lots', 'stock_lots.id', '=', 'installed_parts.lot_id')
            ->where('build_id', $build->id)
            ->pluck('lot')
            ->unique();
        $this->assertNotEmpty($lots, 'the packs were built from lots');
        foreach ($lots as $lot) {
            $units = $this->as('viewer')
                ->read('/lots/'.urlencode($lot))
                ->assertOk()
                ->json('units');
            $this->assertContains($build->serial, array_column($units, 'serial'), $lot);
            $this->assertSame(['C-9001'], array_values(array_unique(array_column($units, 'coreTag'))));
        }
        $this->assertSame([], $this->read('/lots/NOT-A-LOT')->json('units'));
    }

    /**
     * Ships builds without the weeks of work: what is counted here are shipments and returns, not how they came about.
     */
    private function ship(string $tag, bool $returned, Person $builder): void
    {
        $this->receive($tag)->assertCreated();
        $unit = $this->unit($tag);
        $unit->update(['variant_id' => Variant::query()->where('code', 'RD4-M')->valueOrFail('id')]);
        $package = DB::table('packages')->where('family_id', $unit->family_id)->where('code', 'daily')->value('id');
        $build = Build::query()->create([
            'unit_id' => $unit->id,
            'generation' => 1,
            'serial' => "T-$tag",
            'state' => $returned ? 'returned' : 'shipped',
            'package_id' => $package,
            'duty' => 'daily',
            'spec' => ['options' => []],
            'released_by' => $builder->id,
            'released_at' => now(),
            'price' => 1,
            'hours' => 1,
            'created_by' => $builder->id,
            'created_at' => now(),
            'version' => 1,
        ]);
        SignOff::query()->create([
            'build_id' => $build->id,
            'what' => 'assembly',
            'loop_no' => 1,
            'signed_by' => $builder->id,
            'signed_at' => now(),
        ]);
        Shipment::query()->create([
            'build_id' => $build->id,
            'customer_id' => $unit->customer_id ?? DB::table('customers')->value('id'),
            'carrier' => '',
            'sheet' => ['serial' => "T-$tag"],
            'warranty_until' => '2027-11-25',
            'warranty_km' => 1,
            'shipped_by' => $builder->id,
            'shipped_at' => now(),
        ]);
        if ($returned) {
            UnitReturn::query()->create([
                'number' => "R-$tag",
                'build_id' => $build->id,
                'unit_id' => $unit->id,
                'complaint' => 'x',
                'failed_on' => '2026-11-24',
                'opened_by' => $builder->id,
                'opened_at' => now(),
                'version' => 1,
            ]);
        }
    }

    public function test_return_rates_carry_the_exact_interval_by_variant_package_and_builder(): void
    {
        [$one, $two] = Person::query()->where('role', 'builder')->orderBy('id')->limit(2)->get()->all();
        foreach (range(1, 7) as $n) {
            $this->ship("C-910$n", $n <= 2, $n <= 4 ? $one : $two);
        }
        \App\Insight\Queries\FieldKeys::recount(DB::connection());
        $answer = $this->as('manager')->read('/insight/return-rates')->assertOk()->json();
        $groups = collect($answer['groups'])
            ->keyBy('by')
            ->map(fn (array $g) => array_column($g['rows'], null, 'name'));
        $variant = $groups['variant'][Variant::query()->where('code', 'RD4-M')->value('name')];
        $this->assertSame([7, 2], [$variant['units'], $variant['failures']]);
        // Clopper-Pearson 2 of 7 at 95 %: 0.03669 to 0.70958 (R: binom.test(2, 7))
        $this->assertEqualsWithDelta([0.03669, 0.70958], [$variant['lower'], $variant['upper']], 5e-5);
        $this->assertSame(
            [[4, 2], [3, 0]],
            [
                array_map(fn ($k) => $groups['builder'][$one->name][$k], ['units', 'failures']),
                array_map(fn ($k) => $groups['builder'][$two->name][$k], ['units', 'failures']),
            ],
        );
        $this->assertEqualsWithDelta(
            Calculators::call('rate.interval', ['failures' => 0, 'units' => 3])['upper'],
            $groups['builder'][$two->name]['upper'],
            1e-12,
            'no return in three says little',
        );
        $this->assertSame(7, $groups['package']['Daily']['units']);
    }

    public function test_a_house_rule_knows_its_kind_unit_and_limits_and_is_signed_in_the_ledger(): void
    {
        $version = 0;
        $set = fn (string $choice, string $code = 'margin-limit') => $this->as('manager')->write(
            "/house-rules/$code",
            ['choice' => $choice, 'reason' => 'Hot summers', 'version' => $version],
            null,
            'PUT',
        );
        foreach (['often', '1,2'] as $noNumber) {
            $this->assertProblem($set($noNumber), 422, 'Type a number', '/choice');
        }
        foreach (['0', '9'] as $outside) {
            $this->assertProblem($set($outside), 422, 'from 1 to 5', '/choice');
        }
        $this->assertProblem($set('3 psi', 'fit-surprise'), 422, 'takes a length', '/choice');
        $this->assertProblem($set('1 in', 'fit-surprise'), 422, 'from 0.0005 to 0.1 in', '/choice');
        $set('6 thou', 'fit-surprise')->assertOk();
        $this->assertEqualsWithDelta(0.006, app(HouseRules::class)->number('fit-surprise'), 1e-12);
        $set('1.25')->assertOk();
        $rule = HouseRule::query()->where('code', 'margin-limit')->sole();
        $this->assertSame(['1.25', 1], [$rule->choice, $rule->version]);
        $event = DB::table('ledger')->where('kind', 'rule.set')->latest('id')->first();
        $this->assertSame(
            ['margin-limit', '1.25', 'Hot summers'],
            array_values(
                array_intersect_key(json_decode($event->payload, true), ['code' => 0, 'choice' => 0, 'reason' => 0]),
            ),
        );
        $version = 1;
        $this->as('builder')
            ->write('/house-rules/margin-limit', ['choice' => '1', 'reason' => 'x', 'version' => 1], null, 'PUT')
            ->assertForbidden();
        $this->assertProblem($set('1', 'no-such-rule'), 404, 'no house rule');
    }

    /** Every rule the program asks for is shipped with a source, and every shipped default is a value it takes. */
    public function test_every_house_rule_is_shipped_whole(): void
    {
        foreach (RuleDefinition::all() as $code => $rule) {
            $this->assertNotSame('', $rule->source, $code);
            $this->assertNotSame('', $rule->changes, $code);
            if ($rule->kind === 'choice') {
                $this->assertContains($rule->default, array_column($rule->choices, 'value'), $code);
            } else {
                $this->assertTrue(
                    (float) $rule->default >= $rule->min && (float) $rule->default <= $rule->max,
                    "$code is shipped outside its own limits",
                );
            }
        }
        $asked = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(app_path())) as $file) {
            if ($file->getExtension() === 'php') {
                preg_match_all(
                    "/->(?:number|share|choice)\('([a-z]+(?:-[a-z]+)+)'\)/",
                    (string) file_get_contents($file->getPathname()),
                    $found,
                );
                array_push($asked, ...$found[1]);
            }
        }
        $this->assertGreaterThan(15, count(array_unique($asked)));
        $this->assertSame([], array_values(array_diff($asked, array_keys(RuleDefinition::all()))));
    }

    public function test_the_school_in_force_is_shown_where_it_matters(): void
    {
        $this->bringTo('assembly');
        $this->house('reuse', 'always-list', 'No time to argue about bushings.');
        $card = $this->read('/units/C-9001?sections=teardown,assembly')->assertOk()->json();
        $this->assertSame(
            [
                [
                    'question' => 'Reuse of hard parts',
                    'choice' => 'always-list',
                    'reason' => 'No time to argue about bushings.',
                ],
            ],
            $card['teardown']['house']['inspection'],
        );
        $this->assertSame(
            'measure the clutch first',
            $card['teardown']['house']['symptoms'][0]['choice'],
            'what the shop has not decided holds as shipped',
        );
        $packs = array_filter($card['assembly']['places'], fn (array $p) => $p['kind'] === 'pack');
        $this->assertSame(
            array_fill(0, 4, ['reuse bright flat ones']),
            array_values(array_map(fn (array $p) => array_column($p['house'], 'choice'), $packs)),
            'steels at every pack',
        );
    }

    public function test_a_specification_frozen_in_the_older_form_still_prints_its_papers(): void
    {
        $this->tampered = true;
        $unit = $this->bringTo('assembly');
        $build = $unit->refresh()->currentBuild;
        $old = ['operations' => ['Fill two quarts more.']] + array_diff_key($build->spec, ['work' => 0]);
        DB::table('builds')
            ->where('id', $build->id)
            ->update(['spec' => json_encode($old)]);
        $fresh = Build::query()->findOrFail($build->id);
        $this->assertSame(
            [['kind' => 'work', 'text' => 'Fill two quarts more.', 'option' => '']],
            $fresh->spec['work'],
        );
        $sheet = app(DeliverySheet::class)->of($fresh->load('unit'));
        $this->assertSame([['Fill two quarts more.'], []], [$sheet['operations'], $sheet['checks']]);
    }

    public function test_the_margin_limit_of_the_house_decides_at_the_order_desk(): void
    {
        $this->bringTo('ordering');
        $added = fn (): array => array_column(
            $this->as('manager')
                ->write('/units/C-9001/ordering/preview', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
                ->json('added'),
            'option',
        );
        $this->assertSame([], $added());
        $this->house('margin-limit', '1.30');
        $this->assertContains('pressure-raised', $added(), 'a stricter house asks for more');
    }

    public function test_an_order_costs_the_same_queries_however_many_options_and_vehicles_the_catalog_has(): void
    {
        $this->bringTo('ordering');
        $count = function (): int {
            $this->as('manager');
            DB::enableQueryLog();
            DB::flushQueryLog();
            $this->write('/units/C-9001/ordering/preview', [
                'package' => 'tow',
                'vehicle' => 'HW-TR5',
                'duty' => ['mass' => '4000'],
            ])->assertOk();

            return count(DB::getQueryLog());
        };
        $options = DB::table('options')->where('family_id', $this->unit()->family_id);
        $options->clone()->where('id', 0)->update(['name' => '']); // who wrote to the catalog reads its tables
        $few = $count();
        $row = (array) $options->clone()->where('code', 'deep-pan')->first();
        foreach (range(1, 30) as $n) {
            DB::table('options')->insert(
                [
                    'code' => "more-$n",
                    'name' => "More $n",
                    'body' => json_encode(['why' => 'x', 'parts' => [['part' => 'FL-21', 'count' => 1]]]),
                ] + array_diff_key($row, ['id' => 0]),
            );
        }
        $this->assertSame($few, $count());
        $this->assertLessThan(16, $few);
    }
}
