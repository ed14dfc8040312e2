<?php

namespace Tests\Feature;

use App\Catalog\Models\Part;
use App\Kernel\Tally;
use App\Shop\Models\Customer;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** No list is cut without a word, and what a list shows is found again by the numbers people read out. */
final class ListsTest extends TestCase
{
    public function test_a_recall_names_every_place_however_many_there_are(): void
    {
        $this->tampered = true;
        $build = $this->bringTo('dyno')->currentBuild;
        $row = (array) DB::table('installed_parts')->where('build_id', $build->id)->whereNotNull('lot_id')->first();
        unset($row['id']);
        $lot = DB::table('stock_lots')->where('id', $row['lot_id'])->value('lot');
        $before = $this->as('viewer')->read("/lots/$lot")->json('total');
        DB::table('installed_parts')->insert(array_fill(0, 2345, ['place' => '=1+1', 'count' => 2] + $row));

        $seen = 0;
        $after = '';
        do {
            $page = $this->read("/lots/$lot?after=$after");
            $seen += count($page->json('units'));
            $after = $page->json('after');
        } while ($after !== null && $seen < 10000);
        $this->assertSame($before['places'] + 2345, $seen);
        $this->assertSame(
            ['units' => $before['units'], 'places' => $seen, 'pieces' => $before['pieces'] + 2 * 2345],
            $page->json('total'),
        );

        $file = $this->get("/api/lots/$lot/units.csv")->assertOk();
        $lines = explode("\r\n", trim((string) $file->streamedContent()));
        $this->assertCount(1 + $seen, $lines);
        $this->assertStringStartsWith('serial,core_tag,station,customer,part', $lines[0]);
        $this->assertStringContainsString("'=1+1", end($lines), 'no cell of the file runs as a formula');
    }

    public function test_a_statement_adds_up_more_than_it_prints(): void
    {
        $this->tampered = true;
        $unit = $this->bringTo('ordering');
        $customer = Customer::query()->where('code', 'WS-PIER')->firstOrFail();
        $build = [
            'unit_id' => $unit->id,
            'package_id' => DB::table('packages')->value('id'),
            'duty' => 'daily',
            'spec' => '{}',
            'price' => 1,
            'hours' => 1,
            'state' => 'shipped',
            'created_by' => DB::table('people')->min('id'),
            'created_at' => now(),
        ];
        foreach (range(1, 620) as $n) {
            $own = ['serial' => sprintf('VY-88-%04d', $n), 'generation' => $n + 1];
            $id = DB::table('builds')->insertGetId($own + $build);
            DB::table('core_debts')->insert([
                'customer_id' => $customer->id,
                'build_id' => $id,
                'family_id' => $unit->family_id,
                'core_charge' => 100.25,
                'charged_on' => now()->subDays(40),
                'due_on' => now()->subDays($n <= 600 ? 10 : -10),
            ]);
        }
        $statement = $this->as('receiver')->read('/money/customers/WS-PIER/statement')->json();
        $this->assertCount(500, $statement['debts']);
        $this->assertSame(
            [620, 620, 62155, 600],
            [
                $statement['totals']['units'],
                $statement['totals']['owed'],
                $statement['totals']['charged'],
                $statement['totals']['overdue'],
            ],
        );
        $row = collect($this->read('/money/core-balances')->json('balances'))
            ->firstWhere('customer.code', 'WS-PIER');
        $this->assertSame([620, 600], [$row['owed'], $row['overdue']]);
    }

    public function test_core_accounts_are_paged_with_their_true_total(): void
    {
        foreach (['WS-LOW', 'WS-PIER'] as $i => $code) {
            $this->receive("C-900$i", ['customer' => $code]);
        }
        $all = $this->as('receiver')->read('/money/core-balances')->json();
        $this->assertNull($all['after']);
        $this->assertCount($all['total'], $all['balances']);
        config(['yard.page_size' => 1]);
        $first = $this->read('/money/core-balances')->json();
        $second = $this->read("/money/core-balances?after={$first['after']}")->json();
        $this->assertSame($all['total'], $first['total']);
        $this->assertSame(
            array_slice(array_column(array_column($all['balances'], 'customer'), 'code'), 0, 2),
            array_column(array_column([...$first['balances'], ...$second['balances']], 'customer'), 'code'),
        );
    }

    /** @return array<string, array{string, string, string, list<string>}> list, its rows, its names, orders */
    public static function sortedLists(): array
    {
        return [
            'units' => ['/units', 'units', 'coreTag', ['coreTag', 'station', 'grade', 'promisedOn']],
            'stock' => ['/stock?q=plate', 'parts', 'number', ['number', 'name', 'price']],
            'balances' => ['/money/core-balances', 'balances', 'customer', ['customer', 'owed', 'charged', 'overdue']],
        ];
    }

    /** @param  list<string>  $orders */
    #[DataProvider('sortedLists')]
    public function test_the_database_sorts_every_page_of_a_list(
        string $list,
        string $rows,
        string $name,
        array $orders,
    ): void {
        foreach (['2027-01-03', null, '2026-12-24', '2027-01-03', null] as $i => $promised) {
            $this->receive("C-900$i", ['customer' => $i % 2 ? 'WS-LOW' : 'WS-PIER'])->assertCreated();
            $unit = Unit::byNumber("C-900$i");
            $unit->promised_on = $promised;
            $unit->station_since = now()->subHours(7 * $i % 5);
            $unit->save();
        }
        $with = fn (string $more): string => $list.(str_contains($list, '?') ? '&' : '?').$more;
        foreach ($orders as $order) {
            $walked = [];
            foreach (['', '-'] as $minus) {
                config(['yard.page_size' => 2]);
                $after = null;
                $paged = [];
                do {
                    $page = $this->as('manager')
                        ->read($with("sort=$minus$order".($after === null ? '' : '&after='.urlencode((string) $after))))
                        ->json();
                    $paged = [...$paged, ...array_column($page[$rows], null)];
                    $after = $page['after'];
                } while ($after !== null && count($paged) < 500);
                config(['yard.page_size' => 500]);
                $whole = $this->read($with("sort=$minus$order"))->json($rows);
                $this->assertSame($whole, $paged, "$list by $minus$order: no gap, no double");
                $this->assertCount($page['total'], $paged);
                $walked[$minus] = $paged;
            }
            $value = fn (array $row): mixed => match ($order) {
                'station' => -(int) strtotime($row['stationSince']),
                'promisedOn' => $row['promisedOn'] ?? '9999-12-31',
                'customer' => $row['customer']['name'],
                default => $row[$order],
            };
            $up = array_map($value, $walked['']);
            if ($order !== 'station' && $order !== 'name' && $order !== 'customer') {
                $this->assertSame(Collection::make($up)->sort()->values()->all(), $up, "$list by $order");
            }
            $this->assertEqualsCanonicalizing(
                array_column($walked[''], $name),
                array_column($walked['-'], $name),
                'turned round it is the same list',
            );
        }
        $this->assertProblem($this->read($with('sort=luck')), 422, 'This list is sorted by', '/sort');
    }

    public function test_a_place_of_another_list_is_refused_by_name(): void
    {
        $this->receive('C-9001');
        foreach (['nonsense', base64_encode('{"parts.number":"A"}')] as $place) {
            $page = $this->as('viewer')->read("/units?after=$place");
            $this->assertProblem($page, 422, 'no place in this list', '/after');
        }
    }

    public function test_the_scan_line_leads_to_the_units_of_a_customer_and_no_others(): void
    {
        $this->receive('C-9001', ['customer' => 'WS-PIER']);
        $this->receive('C-9002', ['customer' => 'WS-LOW']);
        $name = Customer::query()->where('code', 'WS-PIER')->value('name');
        $hit = collect($this->as('viewer')->read('/find?q='.rawurlencode($name))->json('hits'))
            ->firstWhere('kind', 'Customer');
        $list = $this->read($hit['to'])->json();
        $this->assertSame($name, $list['customer']['name']);
        $this->assertContains('C-9001', array_column($list['units'], 'coreTag'));
        $this->assertNotContains('C-9002', array_column($list['units'], 'coreTag'));
        $customer = Customer::query()->where('code', 'WS-PIER')->value('id');
        $this->assertSame(
            Unit::query()
                ->where('customer_id', $customer)
                ->orWhereHas('builds', fn ($b) => $b->where('customer_id', $customer))
                ->count(),
            $list['total'],
        );
        $this->assertProblem($this->read('/units?customer=NOBODY'), 422, 'No customer has the code', '/customer');
    }

    public function test_the_last_characters_of_a_vin_a_tag_or_a_serial_find_the_unit(): void
    {
        $this->tampered = true;
        $serial = (string) $this->bringTo('dyno', 'C-98765')->currentBuild->serial;
        Unit::query()->where('core_tag', 'C-98765')->update(['vin' => '9ZZHT5A11RA047731']);
        $found = fn (string $q) => array_column($this->as('viewer')->read("/find?q=$q")->json('hits'), 'to', 'kind');
        $this->assertSame('/units/C-98765', $found('047731')['VIN'] ?? null);
        $this->assertSame('/units/C-98765', $found('ra047731')['VIN'] ?? null);
        $this->assertSame('/units/C-98765', $found('8765')['Core tag'] ?? null);
        $this->assertSame('/units/C-98765', $found(substr($serial, -6))['Unit serial'] ?? null);
        $this->assertArrayNotHasKey('VIN', $found('04773'), 'the middle of a number is no tail');
        $this->read('/find?q='.rawurlencode('ÅÖ漢字'))->assertOk();
    }

    public function test_stock_says_its_total_and_finds_numbers_and_names(): void
    {
        $all = $this->as('viewer')->read('/stock')->json();
        $this->assertSame(DB::table('parts')->count(), $all['total']);
        $named = $this->read('/stock?q=sprag')->json();
        $this->assertSame(count($named['parts']), $named['total']);
        $number = $all['parts'][0]['number'];
        $this->assertContains($number, array_column($this->read("/stock?q=$number")->json('parts'), 'number'));
        $this->assertSame([], $this->read('/stock?q='.rawurlencode('%'))->json('parts'));
    }

    public function test_parts_are_the_same_whether_looked_up_or_walked_to(): void
    {
        foreach (['plate', 'ST-0', 'seal ring', 'sprag', 'nothing of the kind'] as $typed) {
            $looked = Part::called($typed)->orderBy('number')->pluck('number')->all();
            $this->assertSame($looked, Part::calledAmongAll($typed)->orderBy('number')->pluck('number')->all(), $typed);
            $this->assertSame(count($looked), Part::countCalled($typed), $typed);
        }
        $this->assertGreaterThan(50, Part::countCalled('plate'));
    }

    public function test_customers_are_found_however_many_there_are(): void
    {
        foreach (range(1, 600) as $n) {
            Customer::query()->create([
                'code' => "T-$n",
                'name' => sprintf('Tamsin %04d', $n),
                'kind' => 'workshop',
                'city' => 'Anmouth',
            ]);
        }
        $asked = fn (string $q) => $this->as('receiver')->read("/customers?q=$q")->assertOk()->json();
        $some = $asked('Tam');
        $this->assertSame([20, true], [count($some['customers']), $some['more']]);
        $this->assertSame(
            ['customers' => [['code' => 'T-587', 'name' => 'Tamsin 0587', 'city' => 'Anmouth']], 'more' => false],
            $asked('tamsin%200587'),
        );
        $this->assertSame('Tamsin 0599', $asked('t-599')['customers'][0]['name'], 'by the code, too');
        $this->assertSame(['customers' => [], 'more' => false], $asked('%25'), 'a sign is a sign');
    }

    public function test_tallies_are_the_counts(): void
    {
        $counted = fn () => [
            'units' => Unit::query()->count(),
            'units:ordering' => Unit::query()->where('station', 'ordering')->count(),
            'units:dyno' => Unit::query()->where('station', 'dyno')->count(),
            'parts' => Part::query()->count(),
        ];
        $tallies = fn () => array_map(Tally::of(...), array_combine(array_keys($counted()), array_keys($counted())));
        $before = $counted();
        $this->assertSame($before, $tallies());
        $this->bringTo('dyno');
        $this->bringTo('ordering', 'C-9002');
        Part::query()->create(['number' => 'ZZ-1', 'name' => 'x', 'kind' => 'hard', 'price' => 1, 'aliases' => []]);
        $this->assertSame($counted(), $tallies());
        $this->assertSame($before['units'] + 2, $tallies()['units']);
        $this->assertSame(Unit::query()->count(), $this->as('viewer')->read('/units')->json('total'));
        Part::query()->where('number', 'ZZ-1')->delete();
        $this->assertSame($counted(), $tallies());
    }
}
