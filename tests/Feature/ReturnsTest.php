<?php

namespace Tests\Feature;

use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Models\Unit;
use Tests\TestCase;

/** Shipping, commissioning, return and verdict. */
final class ReturnsTest extends TestCase
{
    private function shipped(string $tag = 'C-9001'): string
    {
        $this->bringTo('dyno', $tag);
        $this->passDyno($tag);
        $this->workThrough($tag, 'dispatch');

        return $this->write("/units/$tag/dispatch/shipment", ['carrier' => 'Own lorry'])
            ->assertCreated()
            ->json('serial');
    }

    private function returned(): string
    {
        $serial = $this->shipped();

        return $this->as('returns')
            ->write('/returns', ['serial' => $serial, 'complaint' => 'No drive', 'failedOn' => '2026-11-01'])
            ->assertCreated()
            ->json('returns.cases.0.number');
    }

    public function test_papers_are_frozen_when_the_unit_leaves(): void
    {
        $this->shipped();
        $sheet = $this->onCard('dispatch.sheet');
        $this->assertSame(
            ['Low and reverse pack', 'Forward clutch pack', 'Reverse clutch pack'],
            array_slice(array_column($sheet['numbers'], 'name'), 0, 3),
        );
        // 27 mm flex-plate, 1.5 to 5 mm pull: the converter must read 28.5 to 32 mm (common practice, no source)
        $this->assertEquals(
            [28.5, 32.0],
            [$sheet['converterDepth']['readAtLeast'], $sheet['converterDepth']['readAtMost']],
        );
        $this->assertProblem($this->as('manager')->write('/units/C-9001/dispatch/shipment'), 409, 'customer');
        $this->assertNull(Unit::query()->where('core_tag', 'C-9001')->value('promised_on'));
    }

    public function test_a_customers_own_unit_goes_back_to_its_customer(): void
    {
        $this->bringTo('dyno');
        $this->unit()->update(['ownership' => 'customer']);
        $this->passDyno('C-9001');
        $this->workThrough('C-9001', 'dispatch');
        $this->assertProblem(
            $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'FL-NORD']),
            422,
            'goes back to the customer',
            '/customer',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'NOBODY']),
            422,
            'who gets the unit',
            '/customer',
        );
        $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])->assertCreated();
    }

    public function test_commissioning_is_recorded_once_with_the_depth_readings(): void
    {
        $this->shipped();
        $report = [
            'installedOn' => '2026-10-01',
            'odometer' => '70000 mi',
            'installer' => 'Fen Road',
            'items' => ['cooler', 'level'],
            'converterDepth' => '22 mm',
            'flexplateDepth' => '27 mm',
        ];
        $this->as('returns');
        $this->assertProblem(
            $this->write('/units/C-9001/dispatch/commissioning', ['odometer' => '7 bar'] + $report),
            422,
            'pressure',
            '/odometer',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/dispatch/commissioning', ['items' => ['magic']] + $report),
            422,
            'items',
        );
        $card = $this->write('/units/C-9001/dispatch/commissioning', $report)->assertCreated();
        $this->assertSame(112654, $card->json('dispatch.commissioning.odometerKm'));
        $this->assertFalse(
            $card->json('dispatch.commissioning.depth.seated'),
            'lug face 22, flex-plate 27: not seated (common practice, no source)',
        );
        $this->assertProblem($this->write('/units/C-9001/dispatch/commissioning', $report), 409, 'already on file');
    }

    public function test_only_a_unit_in_the_field_comes_back(): void
    {
        $this->bringTo('teardown');
        $serial = $this->unit()->currentBuild->serial;
        $this->as('returns');
        $this->assertProblem(
            $this->write('/returns', ['serial' => $serial, 'complaint' => 'x', 'failedOn' => '2026-11-01']),
            409,
            'teardown',
        );
        $this->assertProblem(
            $this->write('/returns', ['serial' => 'VY-00-0000', 'complaint' => 'x', 'failedOn' => '2026-11-01']),
            422,
            'no unit with the serial',
            '/serial',
        );
    }

    public function test_evidence_can_be_given_changed_and_taken_back(): void
    {
        $number = $this->returned();
        $see = fn (string $feature, ?string $value, int $version) => $this->write("/returns/$number/observations", [
            'feature' => $feature,
            'value' => $value,
            'version' => $version,
        ]);
        $start = $this->onCard('returns.cases.0.ranking');
        $card = $see('oil-level', 'empty', 1)->assertOk();
        $this->assertSame('lost-oil', $card->json('returns.cases.0.ranking.0.verdict'));
        $card = $see('planet-colour', 'blue or purple', 2)->assertOk();
        $this->assertGreaterThan(
            0.8,
            $card->json('returns.cases.0.ranking.0.posterior'),
            'dry plates and purple pinions: ran without oil (common practice, no source)',
        );
        $see('planet-colour', null, 3)->assertOk();
        $card = $see('oil-level', null, 4)->assertOk();
        $this->assertEqualsWithDelta(
            array_column($start, 'posterior', 'verdict'),
            array_column($card->json('returns.cases.0.ranking'), 'posterior', 'verdict'),
            1e-12,
        );
        $this->assertProblem($see('oil-level', 'purple', 5), 422, 'choose one of', '/value');
        $this->assertProblem($see('moon', 'full', 5), 422, 'no evidence', '/feature');
        $this->assertProblem($see('oil-level', 'low', 2), 409, 'Somebody else changed');
    }

    public function test_the_record_is_evidence_where_nobody_looked(): void
    {
        $number = $this->returned();
        $case = fn () => $this->onCard('returns.cases.0');
        $this->assertSame(['depth'], array_keys($case()['known']), 'nobody reported the fitting or measured anything');
        $this->assertSame('not on file', $case()['known']['depth']['value']);

        $return = UnitReturn::query()->where('number', $number)->sole();
        $return->update(['installed_on' => '2026-10-01']);
        $this->assertSame('under 8 weeks', $case()['known']['weeks']['value']);
        $return->update(['installed_on' => '2025-10-01']);
        $this->assertSame('over a year', $case()['known']['weeks']['value']);

        $before = array_column($case()['ranking'], 'posterior', 'verdict');
        $this->write("/returns/$number/measurements", [
            'kind' => 'pack',
            'code' => 'C1',
            'reading' => '.091',
            'version' => 1,
        ])->assertOk();
        $built = collect($case()['thenAndNow'])->firstWhere('code', 'C1');
        $edge = 0.15 * ($built['max'] - $built['min']);
        $inside = $edge <= $built['value'] - $built['min'] && $edge <= $built['max'] - $built['value'];
        $known = $case()['known']['record'];
        $this->assertSame($inside ? 'well inside' : 'near the limit', $known['value']);
        $this->assertStringContainsString('now .091', $known['says']);
        $after = array_column($case()['ranking'], 'posterior', 'verdict');
        $this->assertSame($inside, $after['part'] > $before['part'], 'a clearance well inside speaks for the part');
        $this->assertSame($inside, $after['workmanship'] < $before['workmanship']);

        // The shop holds the whole window to be near its edge; a person may know better than the record.
        $this->house('near-limit', '50');
        $this->assertSame('near the limit', $case()['known']['record']['value']);
        $this->write("/returns/$number/observations", ['feature' => 'record', 'value' => 'wrong part', 'version' => 2]);
        $told = array_column($case()['ranking'], 'posterior', 'verdict');
        $this->assertGreaterThan($after['workmanship'], $told['workmanship']);
        $this->write("/returns/$number/verdict", [
            'verdict' => 'workmanship',
            'note' => 'The wrong plate was in it.',
            'split' => ['shop' => 100],
            'version' => 3,
        ])->assertOk();
        $this->assertEqualsWithDelta(
            $told['workmanship'],
            array_column($case()['ranking'], 'posterior', 'verdict')['workmanship'],
            1e-12,
            'the verdict is kept with the weights that were seen',
        );
    }

    public function test_what_is_counted_as_it_happens_is_what_a_count_of_everything_gives(): void
    {
        $counts = fn () => \DB::table('field_counts')
            ->where('shipped', '>', 0)
            ->orderByRaw('variant_id, package_id, builder_id')
            ->get(['variant_id', 'package_id', 'builder_id', 'shipped', 'returned'])
            ->map(fn ($r) => array_map(intval(...), (array) $r))
            ->all();
        $this->returned();
        $this->shipped('C-9002');
        $kept = $counts();
        $this->assertSame(2, array_sum(array_column($kept, 'shipped')));
        $this->assertSame(1, array_sum(array_column($kept, 'returned')));
        $this->assertGreaterThan(0, $kept[0]['builder_id'], 'who signed the assembly first');
        \App\Insight\Queries\FieldKeys::recount(\DB::connection());
        $this->assertSame($kept, $counts());
    }

    public function test_the_complaint_is_never_overwritten_by_findings(): void
    {
        $number = $this->returned();
        $this->write("/returns/$number/observations", [
            'feature' => 'plates',
            'value' => 'none',
            'version' => 1,
        ])->assertOk();
        $this->assertSame('No drive', $this->onCard('returns.cases.0.complaint'));
        $this->assertSame('No third or fourth', $this->onCard('receiving.complaint'));
    }

    public function test_a_verdict_against_the_evidence_needs_a_reason_and_ends_the_case(): void
    {
        $number = $this->returned();
        $this->write("/returns/$number/observations", [
            'feature' => 'oil-level',
            'value' => 'empty',
            'version' => 1,
        ])->assertOk();
        $decide = fn (array $change) => $this->write(
            "/returns/$number/verdict",
            $change + ['verdict' => 'no-fault', 'split' => ['owner' => 100], 'version' => 2],
        );
        $this->assertProblem($decide([]), 422, 'evidence speaks for something else', '/note');
        $this->assertProblem($decide(['verdict' => 'witchcraft']), 422, 'no verdict', '/verdict');
        $card = $decide([
            'note' => 'Refilled and ran for an hour',
            'split' => ['owner' => 50, 'shop' => 50],
        ])->assertOk();
        $this->assertSame(['owner' => 50, 'shop' => 50], $card->json('returns.cases.0.split'));
        $this->assertProblem($decide(['note' => 'again', 'version' => 3]), 409, 'already given');
        $this->assertProblem(
            $this->write("/returns/$number/measurements", [
                'kind' => 'pack',
                'code' => 'C1',
                'reading' => '.03',
                'version' => 3,
            ]),
            409,
            'already given',
        );
        $this->write("/returns/$number/rebuild")->assertCreated();
        $this->assertProblem($this->write("/returns/$number/rebuild"), 409, 'ordering');
    }

    public function test_then_and_now_checks_the_kind_of_the_reading(): void
    {
        $number = $this->returned();
        $measure = fn (array $change) => $this->write(
            "/returns/$number/measurements",
            $change + ['kind' => 'pack', 'code' => 'C1', 'reading' => '.041', 'version' => 1],
        );
        $this->assertProblem($measure(['reading' => '3 psi']), 422, 'this field takes a length', '/reading');
        $this->assertProblem($measure(['code' => 'C7']), 422, 'to measure', '/code');
        $this->assertProblem($measure(['reading' => '-.01']), 422, 'below zero', '/reading');
        $row = collect(
            $measure(['reading' => '1.05 mm'])
                ->assertOk()
                ->json('returns.cases.0.thenAndNow'),
        )->firstWhere('code', 'C1');
        $this->assertEqualsWithDelta(1.05 / 25.4, $row['now']['value'], 1e-8);
        $this->assertSame('1.05 mm', $row['now']['typed']);
    }

    public function test_return_rates_carry_exact_intervals(): void
    {
        $this->shipped('C-9002');
        $this->returned();
        $group = collect($this->read('/insight/return-rates')->assertOk()->json('groups'))->firstWhere(
            'by',
            'package',
        );
        $this->assertSame(
            ['Daily', 2, 1],
            [$group['rows'][0]['name'], $group['rows'][0]['units'], $group['rows'][0]['failures']],
        );
        // 1 of 2, Clopper-Pearson: sqrt(1 - 0.975) and its mirror
        $this->assertEqualsWithDelta(
            [1 - sqrt(0.975), sqrt(0.975)],
            [$group['rows'][0]['lower'], $group['rows'][0]['upper']],
            1e-8,
        );
    }
}
