<?php

namespace Tests\Feature;

use App\Kernel\Ledger\AccountedRecord;
use App\Kernel\Ledger\AccountedTables;
use App\Kernel\Ledger\VerifyState;
use App\Kernel\Papers;
use App\Stations\Assembly\Models\Measurement;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Finder\Finder;
use Tests\TestCase;

/** What is in the yard's tables and files is what the events of the ledger led to: anything else is found. */
final class StateTest extends TestCase
{
    protected bool $tampered = true;

    /** Behind the events' back, as whoever has the application's account could. */
    public static function tampering(): array
    {
        return [
            'a measurement altered' => [
                fn () => DB::table('measurements')->limit(1)->update(['value' => 0.123456]),
                '/^measurements \d+: value is "0\.123456\d*", by the events "/',
            ],
            'a measurement altered by less than its column shows' => [
                fn () => DB::table('measurements')->where('kind', 'pack')->limit(1)->update([
                    'si' => DB::raw('si + 0.000000001'),
                ]),
                '/^measurements \d+: si is /',
            ],
            'a unit moved' => [
                fn () => DB::table('units')->where('core_tag', 'C-9001')->update(['station' => 'field']),
                '/^units \d+: station is "field", by the events "dyno"$/',
            ],
            'a credit raised' => [
                fn () => DB::table('units')->where('core_tag', 'C-9001')->update(['credit' => 9000]),
                '/^units \d+: credit is "9000\.00", by the events "/',
            ],
            'a frozen specification edited' => [
                fn () => DB::table('builds')->limit(1)->update([
                    'spec' => DB::raw("JSON_SET(spec, '$.variant', 'nothing')"),
                ]),
                '/^builds \d+: spec is /',
            ],
            'a shared text that is not what its name says' => [
                function (): void {
                    DB::table('papers')->insert(['sha256' => str_repeat('a', 64), 'body' => '{}']);
                    self::nameAPaper(str_repeat('a', 64));
                },
                '/^builds \d+: what it shares was altered$/',
            ],
            'a default nobody wrote, changed' => [
                fn () => DB::table('sign_offs')->limit(1)->update(['loop_no' => 7]),
                '/^sign_offs \d+: loop_no is "7", by the events "1"$/',
            ],
            'a sign-off deleted' => [
                fn () => DB::table('sign_offs')->where('what', 'assembly')->delete(),
                '/^sign_offs \d+: the events lead to this row, but it is gone$/',
            ],
            'a row of a list deleted' => [
                fn () => DB::table('credit_lines')->limit(1)->delete(),
                '/^credit_lines \d+: the events lead to this row, but it is gone$/',
            ],
            'a hold put in' => [
                fn () => DB::table('holds')->insert([
                    'unit_id' => DB::table('units')->value('id'),
                    'kind' => 'manual',
                    'reason' => 'x',
                    'lift_role' => 'manager',
                    'placed_by' => DB::table('people')->value('id'),
                    'placed_at' => now(),
                ]),
                '/^holds \d+: no event led to this row$/',
            ],
            'a picture painted over' => [
                fn (string $file) => file_put_contents($file, 'x', FILE_APPEND),
                '/^photos \d+: its file photos\/.* was altered$/',
            ],
            'a picture thrown away' => [
                fn (string $file) => unlink($file),
                '/^photos \d+: its file photos\/.* is gone$/',
            ],
        ];
    }

    private static function nameAPaper(string $sha): void
    {
        Build::query()->firstOrFail()->update(['spec' => ['variant' => 'RD4-M', 'papers' => [$sha]]]);
    }

    public function test_builds_of_one_kind_share_what_is_the_same_word_for_word(): void
    {
        foreach (['C-9001', 'C-9002'] as $tag) {
            $this->bringTo('assembly', $tag);
        }
        $specs = DB::table('builds')->pluck('spec')->map(fn (string $spec): array => json_decode($spec, true));
        $this->assertCount(2, $specs);
        $this->assertSame($specs[0]['papers'], $specs[1]['papers']);
        $this->assertCount(2, $specs[0]['papers']);
        $this->assertArrayNotHasKey('packs', $specs[0]);
        $this->assertSame(1, DB::table('papers')->where('sha256', $specs[0]['papers'][0])->count());
        $build = $this->unit('C-9002')->currentBuild;
        $this->assertNotSame([], $build?->frozen()['packs']);
        $this->assertArrayNotHasKey('papers', $build->frozen());
        $this->assertNull(Papers::fingerprint(str_repeat('b', 64)), 'one that is gone is seen to be gone');
        $this->expectExceptionMessageMatches('/denied/');
        DB::table('papers')->update(['body' => '{}']);
    }

    #[DataProvider('tampering')]
    public function test_what_no_event_led_to_is_found(callable $tamper, string $expected): void
    {
        $this->bringTo('dyno');
        $photo = $this->as('receiver')->post(
            '/api/units/C-9001/photos',
            ['photo' => UploadedFile::fake()->image('a.jpg', 60, 40), 'place' => 'pan'],
            ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json'],
        );
        $file = config('yard.state').'/app/'.DB::table('photos')->where('id', $photo->json('id'))->value('path');
        $this->assertSame([], app(VerifyState::class)->verify()['differences'], 'before anybody touched it');
        $tamper($file);
        $found = app(VerifyState::class)->verify();
        $this->assertSame(1, $found['found']);
        $this->assertMatchesRegularExpression($expected, "{$found['differences'][0]['where']}: ".
            $found['differences'][0]['what']);
        [$status, $said] = $this->command('ledger:verify', ['--state' => true]);
        @unlink($file);
        $this->assertSame(1, $status);
        $this->assertStringContainsString('1 difference(s)', $said);
    }

    public function test_a_row_that_changed_without_an_event_of_its_own_gets_one(): void
    {
        $this->bringTo('assembly');
        Measurement::query()->create($this->reading(0.5))->update(['note' => 'once more']);
        $this->assertSame(['rows.changed', 'rows.changed'], $this->lastKinds(2));
        $this->assertSame([], app(VerifyState::class)->verify()['differences']);
    }

    public function test_the_list_of_tables_is_whole(): void
    {
        $tables = [];
        foreach ((new Finder())->in(app_path())->path('Models')->name('*.php') as $file) {
            $class = 'App\\'.strtr(substr($file->getRelativePathname(), 0, -4), '/', '\\');
            if (is_subclass_of($class, AccountedRecord::class)) {
                $tables[] = (new $class())->getTable();
            }
        }
        $this->assertEqualsCanonicalizing($tables, AccountedTables::ALL);
    }

    public function test_every_table_that_hangs_on_a_unit_is_in_it(): void
    {
        $hanging = DB::table('information_schema.key_column_usage')
            ->where('table_schema', DB::getDatabaseName())
            ->whereIn('referenced_table_name', AccountedTables::ALL)
            ->distinct()
            ->pluck('table_name');
        $this->assertEqualsCanonicalizing(
            ['stock_lots', 'trainer_rounds'],
            $hanging->diff(AccountedTables::ALL)->values()->all(),
            'the shelf, where a lot may come out of a core, and a game',
        );
    }

    public function test_what_was_taken_back_leaves_no_event(): void
    {
        $before = DB::table('ledger')->count();
        $this->receive('C-9001', ['grade' => 'Z'])->assertUnprocessable();
        Unit::query()->where('core_tag', 'C-9001')->doesntExist() || $this->fail('nothing came in');
        $this->assertSame($before, DB::table('ledger')->count());
    }

    /** @return array<string, mixed> */
    private function reading(float $value): array
    {
        return [
            'build_id' => $this->unit()->current_build_id,
            'kind' => 'pack',
            'code' => 'probe',
            'value' => $value,
            'unit' => 'mm',
            'typed' => (string) $value,
            'si' => $value / 1000,
            'inside' => true,
            'note' => '',
            'measured_by' => DB::table('people')->value('id'),
            'measured_at' => now(),
        ];
    }

    /** @return list<string> */
    private function lastKinds(int $count): array
    {
        return DB::table('ledger')->latest('id')->limit($count)->pluck('kind')->all();
    }
}
