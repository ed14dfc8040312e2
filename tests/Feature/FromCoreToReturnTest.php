<?php

namespace Tests\Feature;

use App\Kernel\Ledger\VerifyLedger;
use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Tests\TestCase;

/** The whole line over the API, with the real rig simulation for the trace. */
final class FromCoreToReturnTest extends TestCase
{
    /** @param  list<array<string, mixed>>  $faults  as set at the rig's console */
    private function runDyno(array $faults): array
    {
        $this->as('dyno');
        $id = $this->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated()->json('id');
        $run = Run::query()->findOrFail($id);
        $asked = tempnam(sys_get_temp_dir(), 'run');
        file_put_contents($asked, json_encode([
            'specimen' => json_decode((string) file_get_contents(
                config('yard.state')."/app/specimens/$run->specimen.json",
            )),
            'faults' => $faults,
            'orders' => $run->program['steps'],
            'end_s' => $run->program['end'],
            'seed' => $id,
        ]));
        @mkdir(dirname(Trace::path($run)), 0775, true);
        file_put_contents(
            Trace::path($run),
            Process::run([PHP_BINARY, base_path('rig/rig.php'), '--once', $asked])
                ->throw()
                ->output(),
        );
        $run->update(['state' => 'recorded']);
        app()->call([new AnalyseRun($id), 'handle']);

        return $this->read("/dyno/runs/$id")
            ->assertOk()
            ->json();
    }

    public function test_one_unit_goes_through_all_eight_stations(): void
    {
        $this->bringTo('dyno');
        $this->assertSame(\App\Yard\StationName::Dyno, $this->unit()->station);

        $bad = $this->runDyno([['fault' => 'slow-accumulator', 'where' => 'C3', 'severity' => 0.95]]);
        $outside = array_filter($bad['checks'], fn ($c) => ! $c['pass']);
        $this->assertContains('Shift delay', array_column($outside, 'check'));
        $this->assertProblem(
            $this->write("/dyno/runs/{$bad['id']}/verdict", ['verdict' => 'pass']),
            409,
            'outside its limit',
        );
        $this->assertProblem(
            $this->write("/dyno/runs/{$bad['id']}/verdict", ['verdict' => 'conditional', 'reason' => 'x']),
            403,
            'manager',
        );
        $this->assertProblem(
            $this->write("/dyno/runs/{$bad['id']}/verdict", ['verdict' => 'fail', 'reason' => 'Runs up']),
            422,
            'suspected',
            '/suspect',
        );
        $this->write("/dyno/runs/{$bad['id']}/verdict", [
            'verdict' => 'fail',
            'reason' => 'Runs up',
            'suspect' => 'C3',
        ])
            ->assertOk()
            ->assertJsonPath('station', 'assembly');

        $opened = fn (): array => $this->as('manager')->onCard('teardown');
        $teardown = $opened();
        $this->assertSame($bad['id'], $teardown['tested']['run'], 'the trace is evidence for whoever opens it again');
        $this->assertSame('delayed', $teardown['tested']['observed']['2-3']);
        $this->assertContains('C3', array_slice(array_column($teardown['suspects'], 'element'), 0, 3));

        $this->travel(1)->minutes();
        $this->assertProblem(
            $this->as('builder')->write('/units/C-9001/assembly/sign-off'),
            409,
            'measured again after the test it failed',
        );
        $this->measure('C-9001', [
            'kind' => 'pack',
            'code' => 'C3',
            'reading' => '.045',
            'gauge' => 'F-01',
        ])->assertOk();
        $this->measure('C-9001', [
            'kind' => 'air-check',
            'code' => 'C3',
            'reading' => '3 psi',
            'gauge' => 'P-01',
        ])->assertOk();
        $this->write('/units/C-9001/assembly/sign-off')->assertCreated()->assertJsonPath('station', 'dyno');

        $good = $this->runDyno([]);
        $this->assertSame(2, $good['loop']);
        $this->assertSame([], array_filter($good['checks'], fn ($c) => ! $c['pass']));
        // Ratios of the trace against the exact quotients of the teeth (38/26/74): 74/26, 74*64/(26*112), 1, 74/112.
        $ratios = array_column($good['analysis']['gears'], 'ratioMean', 'gear');
        foreach (['1' => 74 / 26, '2' => (74 * 64) / (26 * 112), '3' => 1.0, '4' => 74 / 112] as $gear => $ratio) {
            $this->assertEqualsWithDelta($ratio, $ratios[$gear], 0.002, "gear $gear");
        }
        $this->write("/dyno/runs/{$good['id']}/verdict", ['verdict' => 'pass'])
            ->assertOk()
            ->assertJsonPath('station', 'dispatch');
        $this->assertNull($opened()['tested'], 'a run that passed takes it back');
        $this->as('dyno');

        $this->workThrough('C-9001', 'dispatch');
        $card = $this->write('/units/C-9001/dispatch/shipment', ['carrier' => 'Own lorry'])->assertCreated();
        $card->assertJsonPath('station', 'field')->assertJsonPath('dispatch.sheet.converterDepth.readAtLeast', 28.5);
        $serial = $card->json('serial');
        $this->as('returns')
            ->write('/units/C-9001/dispatch/commissioning', [
                'installedOn' => '2026-10-01',
                'odometer' => '100000 km',
                'installer' => 'Pier Street',
                'items' => ['cooler'],
                'converterDepth' => '29 mm',
                'flexplateDepth' => '27 mm',
            ])
            ->assertCreated();

        $this->assertProblem(
            $this->write('/returns', [
                'serial' => $serial,
                'complaint' => 'slips',
                'installedOn' => '2026-10-01',
                'failedOn' => '2026-09-01',
            ]),
            422,
            'before it was installed',
            '/failedOn',
        );
        $card = $this->write('/returns', [
            'serial' => $serial,
            'complaint' => 'Slips again',
            'installedOn' => '2026-10-01',
            'failedOn' => '2026-11-01',
            'odometer' => '64000 mi',
        ])->assertCreated();
        $number = $card->json('returns.cases.0.number');
        $version = 1;
        foreach (
            ['plates' => 'low and reverse packs', 'codes' => 'overheat', 'oil-level' => 'right'] as $feature => $value
        ) {
            $card = $this->write("/returns/$number/observations", [
                'feature' => $feature,
                'value' => $value,
                'version' => $version++,
            ])->assertOk();
        }
        $this->assertSame(
            'abuse',
            $card->json('returns.cases.0.ranking.0.verdict'),
            'black low and reverse packs with an overheat code: rocked in snow or mud (common practice)',
        );
        $card = $this->write("/returns/$number/measurements", [
            'kind' => 'pack',
            'code' => 'C3',
            'reading' => '0.080 in',
            'version' => $version++,
        ])->assertOk();
        $then = collect($card->json('returns.cases.0.thenAndNow'))->firstWhere('code', 'C3');
        $this->assertSame(0.045, $then['value']);
        $this->assertSame(0.08, $then['now']['value']);
        $this->assertProblem($this->write("/returns/$number/rebuild"), 409, 'verdict first');
        $this->assertProblem(
            $this->write("/returns/$number/verdict", [
                'verdict' => 'abuse',
                'split' => ['owner' => 60],
                'version' => $version,
            ]),
            422,
            'add up to 100',
            '/split',
        );
        $this->write("/returns/$number/verdict", [
            'verdict' => 'abuse',
            'split' => ['owner' => 100],
            'version' => $version,
        ])->assertOk();
        $card = $this->write("/returns/$number/rebuild")->assertCreated();
        $card->assertJsonPath('station', 'ordering')->assertJsonPath('generation', 2);
        $this->read('/units/C-9001?sections=ordering')
            ->assertJsonPath('ordering.order.parentSerial', $serial)
            ->assertJsonMissingPath('receiving');

        $card = $this->as('manager')
            ->write('/units/C-9001/ordering/release', ['version' => 1])
            ->assertOk();
        $this->assertNotSame($serial, $card->json('serial'));
        $this->assertSame(
            [$serial, $card->json('serial')],
            array_column($card->json('ordering.generations'), 'serial'),
        );
        $this->assertSame([], app(VerifyLedger::class)->verify()['breaks']);
        $this->assertGreaterThan(50, DB::table('ledger')->where('unit_id', $this->unit()->id)->count());
    }
}
