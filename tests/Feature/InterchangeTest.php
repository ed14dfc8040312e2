<?php

namespace Tests\Feature;

use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** The interchange desk on the demo catalog: vehicle to unit, core to vehicle, part to everything. */
final class InterchangeTest extends TestCase
{
    public function test_a_vin_leads_to_the_vehicle_and_what_serves_it(): void
    {
        $vin = '4ZHT5AA25AK020049';
        $check = $this->as('receiver')
            ->write('/calc/vin.check', ['vin' => $vin])
            ->json('checkDigit.expected');
        $vin = substr_replace($vin, $check, 8, 1);
        $found = $this->read("/interchange/vehicles?q=$vin")
            ->assertOk()
            ->json();
        $this->assertSame(['HW-TR5'], array_column($found['vehicles'], 'code'));
        $this->assertTrue($found['vin']['valid']);
        $this->assertSame(
            [],
            $this->read('/interchange/vehicles?q=4ZHT5AA25OK020049')->json('vehicles'),
            'an O is no VIN character',
        );
        $this->assertContains(
            'HW-TR5',
            array_column($this->read('/interchange/vehicles?q=trusty+2010')->json('vehicles'), 'code'),
        );
    }

    public function test_units_come_cheapest_conversion_first_with_each_step(): void
    {
        $this->bringTo('ordering', 'C-9001'); // an RD4-M, fits as it is
        $this->receive('C-9002')->assertCreated();
        foreach (['connector-colour' => 'grey', 'tag-letter' => 'A'] as $feature => $value) {
            $this->write('/units/C-9002/identification/clues', ['feature' => $feature, 'value' => $value])->assertOk();
        }
        $this->write('/units/C-9002/identification', ['variant' => 'RD4-E', 'note' => 'seen inside'])->assertOk();
        $this->receive('C-9003', ['ownership' => 'customer'])->assertCreated();
        $desk = $this->read('/interchange/vehicles/HW-TR5?year=2010')->assertOk()->json();
        $this->assertSame(['RD4-M'], array_column($desk['fits'], 'variant'));
        $this->assertSame(
            [['C-9001', 0, 0], ['C-9002', 1, 1]],
            array_map(fn (array $u) => [$u['coreTag'], $u['steps'], (int) ($u['total'] > 0)], $desk['units']),
        );
        $way = collect($desk['ways'])->firstWhere('variant', 'RD4-E');
        $step = $way['steps'][0];
        // by hand: parts at catalog prices + 3.5 h at the house rate of 100
        $parts = array_sum(
            array_map(
                fn (array $p) => $p['count'] * (float) DB::table('parts')->where('number', $p['part'])->value('price'),
                $step['parts'],
            ),
        );
        $this->assertEqualsWithDelta($parts + 350, $way['total'], 0.005);
        $this->assertNotEmpty($step['steps'], 'what to do is written out');
    }

    public function test_a_conversion_the_vehicle_cannot_take_says_why(): void
    {
        $vehicle = DB::table('vehicles AS v')
            ->join('applications AS a', 'a.vehicle_id', '=', 'v.id')
            ->join('variants AS x', 'x.id', '=', 'a.variant_id')
            ->where('x.code', 'RD4-M')
            ->value('v.code');
        DB::table('vehicles')
            ->where('code', $vehicle)
            ->update(['facts' => '[]']);
        $way = collect(
            $this->as('viewer')
                ->read("/interchange/vehicles/$vehicle")
                ->assertOk()
                ->json('ways'),
        )->firstWhere('variant', 'RD4-E');
        if (! $way['found']) {
            $this->assertSame(
                ['requires', 'controller'],
                [$way['blockedBy'][0]['rule'], $way['blockedBy'][0]['fact']],
            );
            $this->assertStringContainsString('controller', $way['blockedBy'][0]['why']);
        } else {
            $this->assertSame([], $way['steps'], 'only a variant that fits as it is needs no controller');
        }
    }

    public function test_a_core_shows_the_vehicles_it_serves_and_needs_its_variant_first(): void
    {
        $this->bringTo('identification', 'C-9001');
        $this->assertProblem($this->read('/interchange/cores/C-9001'), 409, 'not identified');
        $this->bringTo('ordering', 'C-9002');
        $desk = $this->read('/interchange/cores/C-9002')->assertOk()->json();
        $asItIs = array_values(
            array_filter($desk['serves'], fn (array $s) => $s['way']['found'] && $s['way']['steps'] === []),
        );
        $this->assertSame(
            DB::table('applications')->where('variant_id', $this->unit('C-9002')->variant_id)->count(),
            count($asItIs),
        );
        $totals = array_map(fn (array $s) => $s['way']['total'] ?? INF, $desk['serves']);
        $sorted = $totals;
        sort($sorted);
        $this->assertSame($sorted, $totals);
        $this->assertSame(['RD4-M', 0], [$desk['variant']['code'], $desk['prices'][0]['sold']]);
    }

    public function test_a_part_is_found_on_the_shelf_in_kits_in_chains_and_in_cores(): void
    {
        $out = $this->as('receiver')->read('/interchange/part?number=RD-TB-L2')->assertOk()->json();
        $this->assertSame(
            [['RD-TB-L'], ['RD-TB-L1'], ['RD-TB-L']],
            [array_column($out['replacedBy'], 'number'), array_column($out['replaces'], 'number'), $out['current']],
        );
        $cycle = $this->read('/interchange/part?number=GV-SO-9B')->json();
        $this->assertCount(1, $cycle['cycles']);
        $this->assertSame(
            ['GV-SO-9A', 'GV-SO-9B', 'GV-SO-9C'],
            array_values(array_unique(collect($cycle['cycles'][0])->sort()->all())),
        );
        $this->assertSame([], $cycle['current']);
        $kit = $this->read('/interchange/part?number=FR-F080')->json();
        $this->assertContains('KT-RD4', array_column($kit['kits'], 'number'));
        $set = $this->read('/interchange/part?number=PN-31')->json('sets.0');
        $this->assertContains('FL-21', array_column($set['parts'], 'number'));
        $this->assertStringContainsString('deep pan', $set['why']);
        $this->assertSame('LP-PS-1', $this->read('/interchange/part?number=RD-PS-1')->json('equal.0.number'));
        $this->read('/interchange/part?number=NOPE')->assertNotFound();
    }

    public function test_cores_that_yield_a_part_leave_out_those_where_it_is_lost(): void
    {
        $hard = collect($this->as('receiver')->read('/receiving/form')->json('families'))->firstWhere('code', 'RD4')[
            'hardParts'
        ][0]['number'];
        $this->bringTo('ordering', 'C-9001');
        $this->receive('C-9002', ['failedHard' => [['part' => $hard]], 'grade' => null])->assertCreated();
        foreach (['connector-colour' => 'black', 'connector-cavities' => '16'] as $feature => $value) {
            $this->write('/units/C-9002/identification/clues', ['feature' => $feature, 'value' => $value])->assertOk();
        }
        $this->write('/units/C-9002/identification', ['variant' => 'RD4-M'])->assertOk();
        $this->assertSame(
            ['C-9001'],
            array_column(
                $this->read("/interchange/part?number=$hard")
                    ->assertOk()
                    ->json('cores'),
                'coreTag',
            ),
        );
    }

    public function test_the_desks_need_few_queries_however_many_units_there_are(): void
    {
        $count = function (string $path): int {
            DB::flushQueryLog();
            DB::enableQueryLog();
            $this->as('viewer')->read($path)->assertOk();
            DB::disableQueryLog();

            return count(DB::getQueryLog());
        };
        $this->bringTo('ordering', 'C-9001');
        $paths = [
            '/interchange/vehicles/HW-TR5',
            '/interchange/cores/C-9001',
            '/interchange/part?number=FR-F080',
            '/money/core-balances',
            '/catalog/entries?kind=applications',
        ];
        array_map($count, $paths); // what the catalog says is asked once
        $few = array_map($count, $paths);
        foreach (range(2, 9) as $n) {
            $this->bringTo('ordering', "C-900$n");
        }
        $this->assertSame($few, array_map($count, $paths));
        $this->assertLessThan(16, max($few));
    }
}
