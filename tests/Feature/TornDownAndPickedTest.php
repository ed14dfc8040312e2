<?php

namespace Tests\Feature;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Part;
use App\Stations\Teardown\Queries\LearnedHours;
use App\Stock\Models\Lot;
use App\Stock\Queries\Substitutes;
use App\Work\Bench;
use App\Work\Models\WorkedOperation;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Times that are learned, donors that are offered, parts that stand for others, torques that are borrowed. */
final class TornDownAndPickedTest extends TestCase
{
    public function test_times_are_learned_from_the_last_units_of_a_family(): void
    {
        $unit = $this->bringTo('teardown');
        $this->tampered = true;
        foreach ([1800, 2400, 3600, 3000, 90000] as $n => $seconds) {
            $other = DB::table('units')->insertGetId([
                'core_tag' => "C-95$n",
            ] + array_intersect_key($unit->getAttributes(), array_flip($unit->getFillable())));
            WorkedOperation::query()->create([
                'unit_id' => $other,
                'generation' => 1,
                'bench' => 'teardown',
                'code' => 'pan',
                'state' => 'done',
                'worked_s' => $seconds,
                'done_by' => DB::table('people')->where('badge', '102')->value('id'),
                'done_at' => now(),
            ]);
        }
        $learned = app(LearnedHours::class)->of((int) $unit->family_id, Bench::Teardown);
        $this->assertSame(['n' => 5, 'hours' => 0.83], $learned['pan'], 'the median, 3000 s: no forgotten pause');
        $this->assertArrayNotHasKey('filter', $learned, 'nobody timed it');
        $this->assertSame([], app(LearnedHours::class)->of((int) $unit->family_id, Bench::Dispatch));
        $rows = array_column($this->read('/units/C-9001/teardown/costs')->json('learned'), null, 'operation');
        $this->assertSame(0.83, $rows['pan']['hours']);
    }

    public function test_a_core_nobody_ordered_is_offered_as_a_donor_when_hard_parts_are_lost(): void
    {
        $this->bringTo('teardown');
        foreach (['C-9002' => 40, 'C-9003' => 20] as $tag => $credit) {
            $this->receive($tag)->assertCreated();
            $this->unit($tag)->update(['variant_id' => $this->unit()->variant_id, 'credit' => $credit]);
        }
        $this->as('teardown');
        $offered = fn (): array => array_column(
            $this->read('/units/C-9001/teardown/costs')->json('choices'),
            'what',
        );
        $this->assertNotContains('Hard parts of core C-9002', $offered(), 'nothing is lost yet');
        $this->write('/units/C-9001/teardown/findings', [
            'part' => 'reverse-drum',
            'condition' => 'snap-ring land cracked',
            'disposition' => 'scrap',
            'role' => 'collateral',
        ])->assertCreated();
        $isDonor = fn (string $what): bool => str_starts_with($what, 'Hard parts of core');
        $donors = array_values(array_filter($offered(), $isDonor));
        $this->assertSame(['Hard parts of core C-9003', 'Hard parts of core C-9002'], $donors, 'the cheapest first');
    }

    public function test_a_part_stands_for_another_by_supersession_or_equality_only(): void
    {
        $for = Substitutes::for(['SV-50X', 'RD-TB-L1', 'RD-PS-1', 'LP-PS-1', 'FR-F080']);
        $this->assertStringStartsWith('Supersedes SV-50X', $for['SV-50X']['SV-50']);
        $this->assertSame(['RD-TB-L2', 'RD-TB-L'], array_keys($for['RD-TB-L1']), 'step by step');
        $this->assertArrayHasKey('LP-PS-1', $for['RD-PS-1']);
        $this->assertArrayHasKey('RD-PS-1', $for['LP-PS-1'], 'equal is equal both ways');
        $this->assertArrayNotHasKey('FR-F080', $for);
        $this->assertSame([], Substitutes::for([]));
    }

    public function test_a_substitute_is_taken_only_after_it_was_said_once_more(): void
    {
        $this->bringTo('assembly');
        $servo = Part::query()->where('number', 'SV-50')->firstOrFail();
        $named = ['number' => 'SV-51N', 'name' => 'Servo spacer, new'];
        $new = Part::query()->create($named + ['kind' => 'hard', 'price' => 9]);
        DB::table('supersessions')->insert([
            'old_part_id' => $servo->id,
            'new_part_id' => $new->id,
            'both_ways' => false,
            'source' => 'Bulletin 90',
        ]);
        Lot::query()->create([
            'part_id' => $new->id,
            'lot' => 'LN-51',
            'supplier' => 'x',
            'quantity' => 3,
            'place' => 'S9',
            'received_on' => '2026-11-01',
        ]);
        $this->as('builder');
        $pick = fn (?string $instead) => $this->write('/units/C-9001/assembly/picks', [
            'part' => 'SV-50',
            'lot' => 'ln-51',
            'instead' => $instead,
        ]);
        $this->assertProblem($pick(null), 422, 'in place of SV-50', '/instead');
        $this->assertSame(3, (int) Lot::query()->where('lot', 'LN-51')->value('quantity'), 'nothing was taken');
        $line = array_column($pick('SV-51N')->assertCreated()->json('lines'), null, 'part')['SV-50'];
        $this->assertSame([['part' => 'SV-51N', 'lot' => 'LN-51', 'count' => 1]], $line['picked']);
        $record = (string) $this->read('/units/C-9001/assembly/record')->assertOk()->getContent();
        $this->assertStringContainsString('SV-51N in place of SV-50', $record);
    }

    public function test_a_borrowed_torque_is_signed_for_and_the_joint_says_what_gives_first(): void
    {
        FamilySpec::query()
            ->where('family_id', Family::query()->where('code', 'RD4')->value('id'))
            ->where('kind', 'fastener')
            ->where('code', 'pan')
            ->update(['confidence' => 'borrowed']);
        $this->bringTo('assembly');
        $card = $this->onCard('assembly');
        $pan = array_column($card['work']['operations'], null, 'code')['pan'];
        $this->assertSame(['sign', 'torque'], array_column($pan['proofs'], 'kind'));
        $this->assertStringContainsString('borrowed from an equal thread', $pan['proofs'][0]['of']);
        $bolts = array_column($card['fasteners'], null, 'code');
        // M8x1.25 of 8.8: 36.6 mm2 x 800 MPa = 29.3 kN (ISO 898-1); in 14 mm of aluminium the thread holds more, so the
        // bolt gives first; its proof load of 36.6 x 580 N at k = 0.2 is 34.0 N.m.
        $this->assertSame('bolt', $bolts['pump-cover']['givesFirst']);
        $this->assertEqualsWithDelta(0.2 * 8 * 36.6 * 580 / 1000, $bolts['pump-cover']['limitNm'], 0.1);
        $this->assertGreaterThan($bolts['pump-cover']['torqueNm'], $bolts['pump-cover']['limitNm']);
        $this->assertProblem(
            $this->as('builder')->write('/units/C-9001/assembly/sign-off'),
            409,
            'borrowed from an equal thread',
        );
    }

    public function test_a_tray_of_another_unit_is_not_weighed_or_moved(): void
    {
        $this->receive('C-9001')->assertCreated();
        $this->receive('C-9002')->assertCreated();
        $items = [['name' => 'check balls', 'count' => 8]];
        $this->write('/units/C-9001/trays', ['tag' => 'T-5', 'items' => $items])->assertCreated();
        $moved = $this->write('/units/C-9002/trays/T-5/stage', ['stage' => 'washer'], null, 'PUT');
        $this->assertProblem($moved, 404, 'not tied to this unit');
        $this->assertProblem($this->write('/units/C-9002/trays/T-5', [], null, 'DELETE'), 404, 'not tied to this unit');
        $this->assertSame('bench', DB::table('trays')->where('tag', 'T-5')->value('stage'));
        $this->assertSame(2, Unit::query()->whereIn('core_tag', ['C-9001', 'C-9002'])->count());
    }
}
