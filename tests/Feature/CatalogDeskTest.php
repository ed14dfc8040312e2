<?php

namespace Tests\Feature;

use App\Catalog\Exchange\ExportPack;
use App\Catalog\Exchange\ImportPack;
use App\Catalog\Exchange\PackShorthand;
use App\Catalog\Exchange\PackUpgrade;
use App\Catalog\Exchange\RunCsvImport;
use App\Catalog\Models\CsvImport;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** The catalog desk: editing with history, packs out and in, CSV files. */
final class CatalogDeskTest extends TestCase
{
    public function test_a_pack_goes_through_an_empty_database_without_a_difference(): void
    {
        $first = ExportPack::encode(app(ExportPack::class)->export('House', '2026'));
        $this->assertSame(
            [],
            app(\App\Catalog\Edit\CatalogHistory::class)::changes(
                self::plain(self::inFull((string) file_get_contents(database_path('demo/catalog.json')))),
                self::plain(json_decode($first)),
            ),
            'the export says what the file said',
        );
        $default = DB::getDefaultConnection();
        config(['database.connections.owner.database' => 'yard_empty']);
        DB::purge('owner');
        try {
            Artisan::call('migrate:fresh', ['--database' => 'owner', '--force' => true]);
            DB::setDefaultConnection('owner');
            $this->assertSame(0, DB::table('parts')->count());
            $counts = app(ImportPack::class)->import($first, fn () => null);
            $this->assertSame(
                [0, 0],
                [array_sum(array_column($counts, 'changed')), array_sum(array_column($counts, 'same'))],
                'everything was new',
            );
            $this->assertSame($first, ExportPack::encode(app(ExportPack::class)->export('House', '2026')));
        } finally {
            DB::setDefaultConnection($default);
            config(['database.connections.owner.database' => config('database.connections.yard.database')]);
            DB::purge('owner');
        }
    }

    public function test_a_program_gone_through_says_how_long_its_stall_may_last(): void
    {
        $this->as('manager');
        $stall = fn (string $family, float $seconds): string => $this->write('/catalog/program-plan', [
            'family' => $family,
            'body' => ['steps' => [['t' => 0, 'gear' => '1', 'hold' => 'on', 'throttle' => 1.0]], 'end' => $seconds],
        ])->assertOk()->json('cautions.0');
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $this->assertMatchesRegularExpression(
                '/for 1\.0 s; [4-8]\.\d s are allowed, by its heat/',
                $stall($family, 1),
            );
            $this->assertStringContainsString('it takes harm', $stall($family, 20));
        }
        $this->assertProblem($this->write('/catalog/program-plan', ['family' => 'X', 'body' => []]), 422, 'body');
    }

    private static function inFull(string $json): \stdClass
    {
        $pack = json_decode($json);
        PackShorthand::expand($pack);

        return $pack;
    }

    /**
     * The parts of a pack that carry meaning, in an order of their own: empty optional fields and list order of keyed
     * entries do not count.
     */
    private static function plain(mixed $node): mixed
    {
        if ($node instanceof \stdClass) {
            unset($node->format, $node->version, $node->name, $node->edition, $node->note);
            foreach ((array) $node as $key => $value) {
                if (in_array($value, [[], '', false, null], true) || ($key === 'steering' && $value === 'either')) {
                    unset($node->{$key});
                } else {
                    $node->{$key} =
                        is_array($value) &&
                        isset($value[0]) &&
                        $value[0] instanceof \stdClass &&
                        in_array(
                            $key,
                            [
                                'parts',
                                'kits',
                                'partSets',
                                'supersessions',
                                'equalParts',
                                'vehicles',
                                'applications',
                                'partFits',
                                'conversions',
                            ],
                            true,
                        )
                            ? self::sorted($value)
                            : self::plain($value);
                }
            }
        }

        return is_array($node) ? array_map(self::plain(...), $node) : $node;
    }

    private static function sorted(array $list): array
    {
        $list = array_map(self::plain(...), $list);
        usort($list, fn ($a, $b) => json_encode($a) <=> json_encode($b));

        return $list;
    }

    public function test_an_edited_window_can_be_seen_as_it_was(): void
    {
        $this->leaveTransaction(); // history is written at commit
        try {
            $entry = $this->as('manager')
                ->read('/catalog/entry?kind=packs&key='.rawurlencode('RD4|C1'))
                ->assertOk()
                ->json();
            $before = (string) DB::selectOne('SELECT NOW(6) AS t')->t;
            usleep(20_000);
            $node = json_decode(
                $this->getJson('/api/catalog/entry?kind=packs&key='.rawurlencode('RD4|C1'))->getContent(),
            )->node;
            $window = clone $node->body->window;
            $node->body->window->max = 0.034;
            $saved = $this->write('/catalog/entry', [
                'kind' => 'packs',
                'family' => 'RD4',
                'key' => 'RD4|C1',
                'seen' => $entry['seen'],
                'node' => $node,
            ])
                ->assertOk()
                ->json();
            $this->assertSame(0.034, $saved['node']['body']['window']['max']);
            $this->assertSame(
                (float) $window->max,
                (float) $this->read(
                    '/catalog/entry?kind=packs&key='.
                        rawurlencode('RD4|C1').
                        '&asOf='.
                        rawurlencode(str_replace(' ', 'T', $before).'Z'),
                )->json('node.body.window.max'),
                'as of before',
            );
            $versions = $this->read('/catalog/entry/history?kind=packs&key='.rawurlencode('RD4|C1'))
                ->assertOk()
                ->json('versions');
            $this->assertSame(
                [['at' => '/body/window/max', 'before' => $window->max, 'after' => 0.034]],
                $versions[0]['changes'],
            );
            $this->assertNotNull($versions[0]['by'], 'who changed it');
            $diff = $this->read(
                '/catalog/diff?from='.
                    rawurlencode(str_replace(' ', 'T', $before).'Z').
                    '&to='.
                    rawurlencode(now()->addMinute()->toIso8601ZuluString()),
            )
                ->assertOk()
                ->json('entries');
            $this->assertSame(
                [['packs', 'RD4|C1', 'changed']],
                array_map(fn (array $e) => [$e['kind'], $e['key'], $e['change']], $diff),
            );
            // two people: the second one, still on the old version, is told
            $this->assertProblem(
                $this->write('/catalog/entry', [
                    'kind' => 'packs',
                    'family' => 'RD4',
                    'key' => 'RD4|C1',
                    'seen' => $entry['seen'],
                    'node' => $node,
                ]),
                409,
                'Somebody else changed',
            );
        } finally {
            $node->body->window = $window ?? $node->body->window;
            DB::table('specs')
                ->where('kind', 'pack')
                ->where('code', 'C1')
                ->where('family_id', DB::table('families')->where('code', 'RD4')->value('id'))
                ->update(['body' => json_encode($node->body), 'changed_by' => null]);
            $this->sweep();
            DB::beginTransaction();
        }
    }

    private function leaveTransaction(): void
    {
        DB::rollBack();
        \Tools\Demo\DemoShop::furnish(4);
    }

    /** What a test committed on purpose is taken out again, for the tests that count rows. */
    private function sweep(): void
    {
        $house = ['house_rules', 'gauge_checks', 'gauges', 'special_tools', 'customers', 'people'];
        $tables = ['idempotency_keys', 'csv_imports', 'stock_lots', ...$house];
        array_map(fn (string $table) => DB::table($table)->delete(), $tables);
    }

    public static function badEntries(): array
    {
        return [
            'window upside down' => ['packs', 'RD4|C1', fn ($n) => ($n->body->window->min = 0.9), '/body/window'],
            'unknown part' => [
                'packs',
                'RD4|C1',
                fn ($n) => ($n->body->fixed[0]->part = 'NOPE'),
                '/body/fixed/0/part',
            ],
            'years backwards' => ['vehicles', 'HW-TR3', fn ($n) => ($n->toYear = 1990), '/toYear'],
            'negative price' => ['parts', 'BP-180', fn ($n) => ($n->price = -1), '/price'],
            'unknown variant' => ['conversions', 'RD4-E-M', fn ($n) => ($n->to = 'XX9'), '/to'],
            'option that needs nothing known' => [
                'options',
                'RD4|deep-pan',
                fn ($n) => ($n->body->requires = ['wings']),
                '/body/requires/0',
            ],
            'teeth that cannot be' => [
                'families',
                'RD4',
                fn ($n) => ($n->train->sets[0]->sunTeeth = 0),
                '/train/sets/0/sunTeeth',
            ],
            'hardware of a variant' => [
                'variants',
                'TX6|TX6-F2',
                fn ($n) => ($n->hardware->capacities->F1->torque_nm = 0),
                '/hardware/capacities/F1/torque_nm',
            ],
            'a converter that makes power' => [
                'options',
                'RD4|converter-stock',
                fn ($n) => ($n->body->converter->points[6]->torqueRatio = 1.3),
                '/body/converter/points/6/torqueRatio',
            ],
            'operation after one that is not there' => [
                'teardown',
                'RD4|outside',
                fn ($n) => ($n->body->after = ['nowhere']),
                '/body/after/0',
            ],
            'tag pattern that is none' => [
                'families',
                'RD4',
                fn ($n) => ($n->body->tagPatterns[0]->pattern = '('),
                '/body/tagPatterns/0/pattern',
            ],
        ];
    }

    #[DataProvider('badEntries')]
    public function test_a_bad_entry_is_refused_at_its_place_and_nothing_changes(
        string $kind,
        string $key,
        callable $break,
        string $pointer,
    ): void {
        $answer = json_decode(
            $this->as('manager')
                ->getJson("/api/catalog/entry?kind=$kind&key=".rawurlencode($key))
                ->assertOk()
                ->getContent(),
        );
        $node = json_decode(json_encode($answer->node));
        $break($node);
        $body = [
            'kind' => $kind,
            'family' => str_contains($key, '|') ? explode('|', $key)[0] : null,
            'key' => $key,
            'seen' => $answer->seen,
            'node' => $node,
        ];
        $this->assertProblem($this->write('/catalog/entry', $body), 422, '', $pointer);
        $this->assertEquals(
            $answer->node,
            json_decode($this->getJson("/api/catalog/entry?kind=$kind&key=".rawurlencode($key))->getContent())
                ->node,
        );
    }

    public function test_entries_are_written_found_and_taken_out_by_the_manager_only(): void
    {
        $part = [
            'number' => 'ZZ-900',
            'name' => 'Vent cap',
            'kind' => 'outside',
            'price' => 12.5,
            'aliases' => ['breather lid'],
        ];
        $this->as('receiver')
            ->write('/catalog/entry', ['kind' => 'parts', 'node' => $part])
            ->assertForbidden();
        $this->as('manager')
            ->write('/catalog/entry', ['kind' => 'parts', 'node' => $part])
            ->assertOk()
            ->assertJsonPath('key', 'ZZ-900');
        $this->assertProblem($this->write('/catalog/entry', ['kind' => 'parts', 'node' => $part]), 422, 'already');
        $this->assertSame(
            ['ZZ-900'],
            array_column($this->read('/catalog/entries?kind=parts&q=vent+cap')->json('entries'), 'key'),
        );
        $this->write('/catalog/entry', [
            'kind' => 'kits',
            'node' => ['kit' => 'ZZ-900', 'items' => [['part' => 'BP-180', 'count' => 2]]],
        ])->assertOk();
        $this->assertProblem(
            $this->write('/catalog/entry', ['kind' => 'parts', 'key' => 'ZZ-900'], null, 'DELETE'),
            409,
            'still refer',
        );
        $this->write('/catalog/entry', ['kind' => 'kits', 'key' => 'ZZ-900'], null, 'DELETE')->assertOk();
        $this->write('/catalog/entry', ['kind' => 'parts', 'key' => 'ZZ-900'], null, 'DELETE')->assertOk();
        $this->assertProblem(
            $this->write('/catalog/entry', ['kind' => 'parts', 'key' => 'BP-180'], null, 'DELETE'),
            409,
            'BP-180',
        );
        $this->assertProblem($this->read('/catalog/entries?kind=dreams'), 422, 'no kind', '/kind');
        foreach ($this->read('/catalog/kinds')->json('kinds') as $kind) {
            $first = $this->read("/catalog/entries?kind={$kind['kind']}")
                ->assertOk()
                ->json('entries.0.key');
            $this->assertNotNull(
                $this->read("/catalog/entry?kind={$kind['kind']}&key=".rawurlencode($first))
                    ->assertOk()
                    ->json('node'),
                $kind['kind'],
            );
        }
    }

    public function test_pages_of_entries_follow_each_other_without_a_gap(): void
    {
        $seen = [];
        $after = null;
        do {
            $page = $this->as('viewer')
                ->read('/catalog/entries?kind=parts'.($after === null ? '' : "&after=$after"))
                ->json();
            $seen = [...$seen, ...array_column($page['entries'], 'key')];
            $after = $page['after'];
        } while ($after !== null);
        $this->assertSame(DB::table('parts')->orderBy('id')->pluck('number')->all(), $seen);
    }

    public function test_of_two_specifications_the_house_picks_one_and_signs_it(): void
    {
        $entry = $this->as('manager')
            ->read('/catalog/entry?kind=endPlays&key='.rawurlencode('RD4|front'))
            ->assertOk()
            ->json();
        [$old, $rival] = [$entry['node']['body']['window'], $entry['node']['claims'][0]['body']['window']];
        $this->assertNotSame($old, $rival, 'both are kept, never averaged');
        $choice = ['kind' => 'endPlays', 'key' => 'RD4|front', 'claim' => 0, 'seen' => $entry['seen']];
        $this->assertProblem(
            $this->write('/catalog/entry/choice', $choice + ['reason' => '']),
            422,
            'Say why',
            '/reason',
        );
        $this->assertProblem(
            $this->write('/catalog/entry/choice', ['claim' => 7, 'reason' => 'x'] + $choice),
            422,
            'no such claim',
            '/claim',
        );
        $after = $this->write('/catalog/entry/choice', $choice + ['reason' => 'Twelve dry fits measured.'])
            ->assertOk()
            ->json('node');
        $this->assertSame(
            [$rival, $old, 'Twelve dry fits measured.'],
            [$after['body']['window'], $after['claims'][0]['body']['window'], $after['signed']['reason']],
        );
    }

    private function send(string $kind, string $csv): \Illuminate\Testing\TestResponse
    {
        Queue::fake();

        return $this->as('manager')->post(
            '/api/catalog/uploads',
            ['kind' => $kind, 'file' => UploadedFile::fake()->createWithContent('list.csv', $csv)],
            ['Idempotency-Key' => uniqid('', true), 'Accept' => 'application/json'],
        );
    }

    private function checked(string $kind, string $csv): CsvImport
    {
        $import = CsvImport::query()->findOrFail($this->send($kind, $csv)->assertCreated()->json('id'));
        app()->call([new RunCsvImport($import->id), 'handle']);

        return $import->refresh();
    }

    public function test_a_csv_file_is_checked_shown_and_then_written(): void
    {
        $import = $this->checked(
            'parts',
            "\xEF\xBB\xBFnumber;name;kind;price;aliases\nBP-180;\"Forward backing plate "
                .".180\";selective;21;\nZZ-1;\"Cap; vent\";outside;3.50;lid|cap\nBP-195;Forward backing plate "
                .".195;selective;25.00;\n",
        );
        $this->assertSame(
            ['ready', 3, 1, 1, 1],
            [$import->state, $import->total, $import->new_rows, $import->changed_rows, $import->same_rows],
        );
        $changed = collect($import->preview)->firstWhere('change', 'changed');
        $this->assertSame(['21.00', '25'], [$changed['before']['price'], $changed['row']['price']]);
        $this->assertSame(0, DB::table('parts')->where('number', 'ZZ-1')->count(), 'nothing is written yet');
        $this->write("/catalog/uploads/$import->id/confirm")
            ->assertOk()
            ->assertJsonPath('state', 'importing');
        app()->call([new RunCsvImport($import->id), 'handle']);
        $this->assertSame('done', $import->refresh()->state);
        $this->assertSame(
            [['lid', 'cap'], '25.00'],
            [
                json_decode(DB::table('parts')->where('number', 'ZZ-1')->value('aliases')),
                DB::table('parts')->where('number', 'BP-195')->value('price'),
            ],
        );
        $this->assertProblem($this->write("/catalog/uploads/$import->id/confirm"), 409, 'cannot be written now');
    }

    public static function badCsv(): array
    {
        return [
            'decimal comma' => ['prices', "number;price\nBP-180;21,50\n", 2, '21.50, not 21,50'],
            'no number' => ['prices', "number,price\nBP-180,dear\n", 2, 'must be a number'],
            'unknown part' => ['prices', "number,price\nBP-180,1\nXX,2\n", 3, 'no part "XX"'],
            'fields missing' => ['prices', "number,price\nBP-180\n", 2, '1 fields, the header has 2'],
            'twice' => ['prices', "number,price\nBP-180,1\nbp-180,2\n", 3, 'twice'],
            'unknown kind' => ['parts', "number,name,kind,price\nA,B,soap,1\n", 2, 'choose one of'],
            'thickness without unit' => [
                'parts',
                "number,name,kind,price,thickness\nA,B,soft,1,0.1\n",
                2,
                'needs its unit',
            ],
            'not UTF-8' => ['parts', "number,name,kind,price\nA,\xE4,soft,1\n", 2, 'UTF-8'],
            'years backwards' => [
                'applications',
                "variant,vehicle,from_year,to_year,source,confidence\nRD4-E,HW-TR3,2009,2004,x,recalled\n",
                2,
                'run forward',
            ],
            'unknown vehicle' => [
                'applications',
                "variant,vehicle,from_year,to_year,source,confidence\nRD4-E,NONE,2004,2005,x,recalled\n",
                2,
                'no vehicle',
            ],
            'negative stock' => [
                'stock',
                "part,lot,quantity,received_on\nBP-180,L1,-3,2026-01-01\n",
                2,
                'whole number',
            ],
            'date' => ['stock', "part,lot,quantity,received_on\nBP-180,L1,3,2026-02-30\n", 2, 'date like'],
        ];
    }

    #[DataProvider('badCsv')]
    public function test_a_bad_line_is_named_and_nothing_is_taken(
        string $kind,
        string $csv,
        int $line,
        string $part,
    ): void {
        $import = $this->checked($kind, $csv);
        $this->assertSame('refused', $import->state);
        $this->assertSame($line, $import->errors[0]['line']);
        $this->assertStringContainsString($part, $import->errors[0]['detail']);
        $this->assertProblem($this->write("/catalog/uploads/$import->id/confirm"), 409, 'refused');
    }

    public function test_bad_headers_empty_files_and_cancelling(): void
    {
        foreach (
            [
                '' => 'empty',
                "price\n1\n" => '"number" is missing',
                "number,price,colour\n" => '"colour" is not known',
                "number,price,price\n" => 'twice',
                "number,price\n" => 'no line',
            ] as $csv => $part
        ) {
            $import = $this->checked('prices', (string) $csv);
            $this->assertSame('refused', $import->state, (string) $csv);
            $this->assertStringContainsString($part, $import->failure);
        }
        $import = $this->checked('prices', "number,price\nBP-180,1\n");
        $this->write("/catalog/uploads/$import->id/cancel")
            ->assertOk()
            ->assertJsonPath('state', 'cancelled');
        $this->assertProblem($this->write("/catalog/uploads/$import->id/cancel"), 409, 'already over');
    }

    public function test_fifty_thousand_rows_need_little_memory_and_can_be_cancelled_half_way(): void
    {
        $this->leaveTransaction(); // progress is seen over a second connection only when the file's record is committed
        config(['yard.progress_connection' => 'progress']);
        try {
            $file = UploadedFile::fake()->create('big.csv');
            $handle = fopen($file->getRealPath(), 'w');
            fwrite($handle, "number,name,kind,price\n");
            for ($i = 0; $i < 50_000; $i++) {
                fwrite($handle, "BIG-$i,Part number $i,soft,".$i % 900 .".25\n");
            }
            fclose($handle);
            Queue::fake();
            $id = $this->as('manager')
                ->post(
                    '/api/catalog/uploads',
                    ['kind' => 'parts', 'file' => $file],
                    ['Idempotency-Key' => uniqid('', true), 'Accept' => 'application/json'],
                )
                ->assertCreated()
                ->json('id');
            $job = fn () => app()->call([new RunCsvImport($id), 'handle']);
            gc_collect_cycles();
            memory_reset_peak_usage();
            $floor = memory_get_usage();
            $job();
            $this->assertLessThan(48_000_000, memory_get_peak_usage() - $floor, 'a check holds chunks, not the file');
            $import = CsvImport::query()->findOrFail($id);
            $this->assertSame(['ready', 50_000, 50_000], [$import->state, $import->new_rows, $import->done]);
            $import->update(['state' => 'importing', 'cancel_requested' => true]);
            $job();
            $this->assertSame('cancelled', $import->refresh()->state);
            $this->assertGreaterThan(0, $import->done, 'it had begun');
            $this->assertSame(
                0,
                DB::table('parts')->where('number', 'like', 'BIG-%')->count(),
                'nothing half-imported',
            );
        } finally {
            $this->sweep();
            DB::beginTransaction();
        }
    }

    public function test_export_and_import_through_the_doors(): void
    {
        $response = $this->as('manager')->get('/api/catalog/pack')->assertOk();
        $this->assertStringContainsString('attachment', (string) $response->headers->get('Content-Disposition'));
        $counts = $this->post(
            '/api/catalog/pack',
            ['pack' => UploadedFile::fake()->createWithContent('pack.json', $response->getContent())],
            ['Idempotency-Key' => uniqid('', true), 'Accept' => 'application/json'],
        )
            ->assertOk()
            ->json('kinds');
        $this->assertSame(
            0,
            array_sum(array_column($counts, 'new')) + array_sum(array_column($counts, 'changed')),
            'the same again changes nothing',
        );
        $broken = json_decode($response->getContent());
        $broken->applications[0]->vehicle = 'NONE';
        $this->assertProblem(
            $this->post(
                '/api/catalog/pack',
                ['pack' => UploadedFile::fake()->createWithContent('pack.json', json_encode($broken))],
                ['Idempotency-Key' => uniqid('', true), 'Accept' => 'application/json'],
            ),
            422,
            'no vehicle',
            '/applications/0/vehicle',
        );
        $file = tempnam(sys_get_temp_dir(), 'pack');
        $this->assertSame(0, $this->command('catalog:export', ['file' => $file])[0]);
        $this->assertSame(PackUpgrade::VERSION, json_decode((string) file_get_contents($file))->version);
        $this->assertSame(2, $this->command('catalog:export', ['file' => '/nowhere/at/all.json'])[0]);
    }
}
