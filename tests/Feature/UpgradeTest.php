<?php

namespace Tests\Feature;

use App\Kernel\Ledger\VerifyState;
use App\Shop\Models\Person;
use App\Yard\Models\Build;
use App\Yard\StationName;
use Illuminate\Foundation\Testing\TestCase as LaravelTestCase;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/**
 * A shop that was set up by the version before the rooms were rebuilt starts with this one and loses nothing. The
 * fixture is a dump of that version's demo shop (invented names put in the place of some), with its history.
 */
final class UpgradeTest extends LaravelTestCase
{
    private const DATABASE = 'yard_landed';

    public function createApplication()
    {
        $app = require dirname(__DIR__, 2).'/bootstrap/app.php';
        $app->make(\Illuminate\Contracts\Console\Kernel::class)->bootstrap();
        foreach (['owner', 'yard', 'progress'] as $connection) {
            $app['config']->set("database.connections.$connection.database", self::DATABASE);
        }

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        $dump = gzdecode((string) file_get_contents(dirname(__DIR__).'/fixtures/landed-shop.sql.gz'));
        $this->dropEverything();
        DB::connection('owner')->unprepared('SET lock_wait_timeout = 20;'.$dump);
        DB::purge('owner');
    }

    /** An earlier run leaves the shop already carried over. */
    private function dropEverything(): void
    {
        $owner = DB::connection('owner');
        $tables = $owner->select(
            'SELECT table_name AS name, table_type AS kind FROM information_schema.tables'.
                ' WHERE table_schema = ?',
            [self::DATABASE],
        );
        $owner->unprepared('SET foreign_key_checks = 0');
        foreach ($tables as $table) {
            $owner->unprepared(($table->kind === 'VIEW' ? 'DROP VIEW' : 'DROP TABLE')." `$table->name`");
        }
        $owner->unprepared('SET foreign_key_checks = 1');
    }

    protected function tearDown(): void
    {
        foreach (['owner', 'yard', 'progress'] as $connection) {
            DB::purge($connection);
        }
        parent::tearDown();
    }

    public function test_every_row_arrives_under_its_new_name(): void
    {
        $owner = DB::connection('owner');
        $count = fn (string $table) => DB::connection('owner')
            ->table($table)
            ->when($table === 'ledger', fn ($q) => $q->where('kind', '<>', 'rows.taken-over'))
            ->count();
        $kept = [
            'units',
            'builds',
            'holds',
            'photos',
            'findings',
            'measurements',
            'pack_fits',
            'sign_offs',
            'dyno_runs',
            'shipments',
            'commissionings',
            'returns',
            'installed_parts',
            'stock_lots',
            'ledger',
            'people',
            'customers',
            'clue_answers',
            'identifications',
            'core_debts',
            'trainer_rounds',
            'variants',
            'parts',
        ];
        $before = array_combine($kept, array_map($count, $kept));
        [$steps, $counted] = [$count('step_marks'), $owner->table('step_marks')->where('counts', '<>', '{}')->count()];
        $trays = [$count('baskets'), $count('basket_items')];
        $words = ['identify' => 'identification', 'desk' => 'ordering', 'bench' => 'assembly', 'cell' => 'dyno'];
        $stations = [];
        foreach ($owner->table('units')->pluck('station', 'id') as $id => $station) {
            $stations[$id] = $words[$station] ?? $station;
        }
        $serials = $owner->table('builds')->whereNotNull('serial')->max('serial');

        $this->upgrade();

        $this->assertSame($before, array_combine($kept, array_map($count, $kept)));
        $measures = $owner->table('operations')->where('code', 'like', 'measure-%')->count();
        $this->assertSame([$steps, $counted], [$count('operations') - $measures, $count('proofs')]);
        $this->assertGreaterThan(0, $measures, 'what was measured right is done');

        $state = DB::usingConnection('owner', fn () => app(VerifyState::class)->verify());
        $differ = array_filter($state['differences'], fn (array $d) => ! str_starts_with($d['what'], 'its file'));
        $this->assertSame([], $differ, 'the ledger knows every row of a shop from before');
        $this->assertGreaterThan(1000, $state['rows']);
        $this->assertSame($trays, [$count('trays'), $count('tray_items')]);
        $this->assertGreaterThan(20, count($stations));
        ksort($stations);
        $now = DB::connection('owner')->table('units')->orderBy('id')->pluck('station', 'id')->sortKeys()->all();
        $this->assertSame($stations, $now);
        $this->assertSame(1, DB::connection('owner')->table('people')->where('role', 'dyno')->count());
        $words = DB::connection('owner')->table('vocabularies');
        $this->assertSame(1, $words->where('code', 'installation')->count());
        $this->assertSame(
            (int) substr((string) $serials, 6),
            (int) DB::connection('owner')->table('number_sequences')->where('name', 'serial-26')->value('last'),
            'serials go on where they were',
        );
    }

    public function test_lists_that_were_json_are_rows_with_everything_in_them(): void
    {
        $owner = DB::connection('owner');
        $order = $owner
            ->table('builds AS b')
            ->join('packages AS p', 'p.id', '=', 'b.package_id')
            ->orderBy('b.id')
            ->first(['b.id', 'p.family_id']);
        $asked = $owner
            ->table('options')
            ->where('family_id', $order->family_id)
            ->orderBy('id')
            ->limit(3)
            ->pluck('code');
        $owner
            ->table('builds')
            ->where('id', $order->id)
            ->update([
                'order_lines' => json_encode([
                    'package' => 'daily',
                    'add' => [$asked[0], $asked[2]],
                    'drop' => [$asked[1]],
                    'duty' => ['engineTorque' => '300 N.m'],
                ]),
            ]);
        $old = fn (string $table, string $column, string $path = '$') => (int) $owner
            ->table($table)
            ->selectRaw("SUM(COALESCE(JSON_LENGTH($column, ?), 0)) AS n", [$path])
            ->value('n');
        $before = [
            'missing' => $old('units', 'missing'),
            'failed' => $old('units', 'failed_hard'),
            'codes' => $old('units', 'codes') + $old('returns', 'codes'),
            'damage' => $old('units', 'damage'),
            'credit' => $old('units', 'credit_lines') + $old('units', 'credit_revision', '$.linesBefore'),
            'options' => $old('builds', 'order_lines', '$.add') + $old('builds', 'order_lines', '$.drop'),
            'picks' => $old('pack_fits', 'picks'),
            'checks' => $old('dyno_runs', 'checks'),
            'seen' => $old('returns', 'observed', '$.features'),
            'measured' => $old('returns', 'observed', '$.now'),
        ];
        $credits = $owner->table('units')->orderBy('id')->pluck('credit', 'id')->all();

        $this->upgrade();

        $owner = DB::connection('owner');
        $rows = fn (string $table, array $where = []) => $owner->table($table)->where($where)->count();
        $this->assertSame($before, [
            'missing' => $rows('intake_parts', ['kind' => 'missing']),
            'failed' => $rows('intake_parts', ['kind' => 'failed']),
            'codes' => $rows('trouble_codes'),
            'damage' => $rows('damage_marks'),
            'credit' => $rows('credit_lines'),
            'options' => $rows('order_options'),
            'picks' => $rows('pack_fit_picks'),
            'checks' => $rows('run_checks'),
            'seen' => $rows('return_observations'),
            'measured' => $rows('return_readings'),
        ]);
        Artisan::call('db:grants');
        $this->assertSame(
            [[$asked[0], $asked[2]], [$asked[1]], ['engineTorque' => '300 N.m']],
            array_values(array_slice(Build::query()->findOrFail($order->id)->asked()->toArray(), 1)),
        );
        foreach (['missing', 'codes', 'damage', 'credit', 'options', 'picks', 'checks', 'seen'] as $list) {
            $this->assertGreaterThan(0, $before[$list], "the landed shop has $list to carry over");
        }
        // The lines still add up to the credit that was promised.
        foreach ($credits as $unit => $credit) {
            $lines = $owner->table('credit_lines')->where('unit_id', $unit)->orderBy('revision')->get();
            $this->assertEqualsWithDelta(
                (float) $credit,
                (float) $lines->where('revision', $lines->max('revision'))->sum('amount'),
                0.005,
                "unit $unit",
            );
        }
    }

    public function test_every_route_card_and_page_answers(): void
    {
        $this->upgrade();
        Artisan::call('db:grants');
        $this->actingAs(Person::query()->where('role', 'manager')->firstOrFail(), 'badge');
        $tags = DB::table('units')->pluck('core_tag');
        $this->assertGreaterThan(40, $tags->count());
        $all = implode(',', array_column(StationName::inHouse(), 'value'));
        foreach ($tags as $tag) {
            $this->getJson("/api/units/$tag?sections=$all")->assertOk();
        }
        foreach (['yard', 'yard/day', 'yard/plan', 'units', 'stock', 'house-rules', 'catalog/families'] as $page) {
            $this->getJson("/api/$page")->assertOk();
        }
        $this->assertSame(
            '100',
            collect($this->getJson('/api/house-rules')->json('rules'))->firstWhere('code', 'labour-rate')['choice'],
        );
    }

    private function upgrade(): void
    {
        $this->assertSame(
            0,
            Artisan::call('migrate', ['--force' => true, '--database' => 'owner']),
            Artisan::output(),
        );
    }
}
