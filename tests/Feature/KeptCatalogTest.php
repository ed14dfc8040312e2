<?php

namespace Tests\Feature;

use App\Catalog\Kept\KeptCatalog;
use App\Catalog\Models\JobType;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** What the catalog said is not read again, and never outlives a change of the catalog. */
final class KeptCatalogTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Cache::flush();
        $this->as('manager');
    }

    /** Names of the job types as the receiving form has them; how many questions about the catalog that took. */
    private function form(): array
    {
        DB::enableQueryLog();
        DB::flushQueryLog();
        $types = $this->read('/receiving/form')->assertOk()->json('jobTypes');
        // Parts are kept where a bill of them is asked for, not for the form.
        $tables = '/from `(?:'.implode('|', array_diff(KeptCatalog::TABLES, ['parts'])).')`/';
        $asked = array_filter(DB::getQueryLog(), fn (array $q): bool => preg_match($tables, $q['query']) === 1);

        return [array_column($types, 'name', 'code')['rebuild'], count($asked)];
    }

    /** As the next request finds the application, in a process that has written nothing. */
    private function afresh(): void
    {
        $this->app->forgetScopedInstances();
        DB::connection()->flushQueryLog();
    }

    public function test_what_was_read_is_kept_until_the_catalog_changes(): void
    {
        [$name, $asked] = $this->form();
        $this->assertGreaterThan(2, $asked);
        $this->assertSame([$name, 0], $this->form(), 'nothing is asked twice');
        $this->afresh();
        $this->assertSame([$name, 0], $this->form(), 'nor by another process');

        $this->rename('Rebuilt whole');
        $this->assertSame('Rebuilt whole', $this->form()[0], 'the one who wrote sees it');
        $this->afresh();
        [$name, $asked] = $this->form();
        $this->assertSame('Rebuilt whole', $name, 'and so does another process');
        $this->assertGreaterThan(2, $asked);
        $this->assertSame(['Rebuilt whole', 0], $this->form());
    }

    private function rename(string $name): void
    {
        $at = '/api/catalog/entry?kind=jobTypes&key=rebuild';
        $entry = json_decode((string) $this->getJson($at)->assertOk()->getContent());
        $entry->node->name = $name;
        $this->write('/catalog/entry', [
            'kind' => 'jobTypes',
            'key' => 'rebuild',
            'seen' => $entry->seen,
            'node' => $entry->node,
        ])->assertOk();
    }

    public function test_what_is_written_past_the_ledger_is_seen_by_the_one_who_writes(): void
    {
        $this->form();
        DB::table('job_types')->where('code', 'rebuild')->update(['name' => 'By hand']);
        $this->assertSame('By hand', $this->form()[0]);
    }

    public function test_a_disk_that_takes_nothing_any_more_answers_all_the_same(): void
    {
        $full = new class()
        {
            public int $refused = 0;

            public function get(): mixed
            {
                return null;
            }

            public function put(): never
            {
                $this->refused++;
                throw new \ErrorException('No space left on device');
            }
        };
        Cache::swap($full);
        $this->assertSame($this->form(), $this->form(), 'and asks again each time');
        $this->assertGreaterThan(4, $full->refused);
    }

    public function test_a_question_that_looks_at_other_tables_is_asked_each_time(): void
    {
        app(KeptCatalog::class)->begin();
        $units = fn (): int => JobType::query()->selectRaw('(SELECT COUNT(*) FROM units) AS n')->toBase()->first()->n;
        $before = $units();
        $this->receive();
        app(KeptCatalog::class)->begin();
        $this->assertSame($before + 1, $units());
    }

    public function test_commands_and_workers_read_the_tables(): void
    {
        $this->form();
        DB::flushQueryLog();
        JobType::query()->where('code', 'rebuild')->sole();
        JobType::query()->where('code', 'rebuild')->sole();
        $this->assertCount(2, DB::getQueryLog());
    }
}
