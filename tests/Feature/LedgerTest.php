<?php

namespace Tests\Feature;

use App\Kernel\Ledger\AnchorLater;
use App\Kernel\Ledger\Anchors;
use App\Kernel\Ledger\Checkpoint;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Ledger\Seal;
use App\Kernel\Ledger\VerifyLedger;
use Illuminate\Support\Facades\Bus;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** The ledger's chains, its anchors outside the database, and what the application's account may not do to it. */
final class LedgerTest extends TestCase
{
    public function test_the_application_account_can_neither_change_nor_remove_events(): void
    {
        // On a connection of its own: a refused DDL statement still ends the transaction it comes in.
        config(['database.connections.probe' => config('database.connections.yard')]);
        foreach (
            [
                'UPDATE ledger SET payload = \'{}\'',
                'DELETE FROM ledger',
                'DROP TABLE ledger',
                'TRUNCATE ledger',
                'ALTER TABLE ledger DROP COLUMN hash',
            ] as $sql
        ) {
            try {
                DB::connection('probe')->unprepared($sql);
                $this->fail("the account may: $sql");
            } catch (\Illuminate\Database\QueryException $e) {
                $this->assertContains($e->errorInfo[1], [1142, 1044, 1227], $e->getMessage());
            }
        }
    }

    /** Behind the application's back: the owner account, outside the test's transaction. */
    public static function tampering(): array
    {
        return [
            'nothing' => [fn () => null, null],
            'an altered row' => [
                fn ($db) => $db
                    ->table('ledger')
                    ->where('stream', 'probe')
                    ->where('seq', 2)
                    ->update(['payload' => '{"n":99}']),
                'event 2: Event 2 (probe) was altered',
            ],
            'an altered time' => [
                fn ($db) => $db
                    ->table('ledger')
                    ->where('stream', 'probe')
                    ->where('seq', 1)
                    ->update(['at' => '2020-01-01 00:00:00']),
                'event 1: Event 1 (probe) was altered',
            ],
            'a removed row in the middle' => [
                fn ($db) => $db->table('ledger')->where('stream', 'probe')->where('seq', 2)->delete(),
                'Event 2 is missing',
            ],
            'the newest rows removed' => [
                fn ($db) => $db->table('ledger')->where('stream', 'probe')->where('seq', '>', 1)->delete(),
                'newest 2 event(s) are gone',
            ],
            'the newest rows removed and the stream table set back' => [
                function ($db): void {
                    $db->table('ledger')->where('stream', 'probe')->where('seq', 3)->delete();
                    $db->table('ledger_streams')
                        ->where('stream', 'probe')
                        ->update([
                            'seq' => 2,
                            'hash' => $db->table('ledger')->where('stream', 'probe')->where('seq', 2)->value('hash'),
                        ]);
                },
                'the anchor file knows event 3',
            ],
            'the whole chain removed' => [
                function ($db): void {
                    $db->table('ledger')->where('stream', 'probe')->delete();
                    $db->table('ledger_streams')->where('stream', 'probe')->delete();
                },
                'the anchor file knows event 3',
            ],
            'the anchor file removed' => [
                fn () => unlink(Anchors::path()),
                'the anchor file does not know it',
            ],
            'a stream the table does not know' => [
                fn ($db) => $db->table('ledger_streams')->where('stream', 'probe')->delete(),
                'the stream table does not know it',
            ],
            'a line that is no anchor' => [
                fn () => file_put_contents(Anchors::path(), "{\"seq\":1}\nnonsense\n", FILE_APPEND),
                'of the anchor file is no anchor',
            ],
            'a rewritten chain' => [
                function ($db): void {
                    $hash = Ledger::GENESIS;
                    foreach ($db->table('ledger')->where('stream', 'probe')->orderBy('seq')->get() as $row) {
                        $row = ['payload' => '{"n":0}', 'prev_hash' => $hash] + (array) $row;
                        $hash = Ledger::hash($row);
                        $db->table('ledger')
                            ->where('id', $row['id'])
                            ->update([
                                'payload' => $row['payload'],
                                'prev_hash' => $row['prev_hash'],
                                'hash' => $hash,
                            ]);
                    }
                    $db->table('ledger_streams')
                        ->where('stream', 'probe')
                        ->update(['hash' => $hash]);
                },
                'not the one that the anchor file knows',
            ],
        ];
    }

    public function test_after_a_restore_anchors_newer_than_the_backup_are_left_out_and_no_chain_is_bare(): void
    {
        foreach (['kept', 'newer', 'compacted'] as $stream) {
            foreach ([1, 2, 3] as $n) {
                app(Ledger::class)->record($stream, 'probe', ['n' => $n]);
            }
        }
        $heads = fn () => DB::table('ledger_streams')->whereIn('stream', ['kept', 'newer', 'compacted'])->get()->all();
        $restored = $heads();
        self::anchorWhatIsThere();
        $before = file_get_contents(Anchors::path());
        $hash = str_repeat('0', 64);
        file_put_contents(Anchors::path(), '');
        foreach ($restored as $head) {
            $head->stream === 'compacted' || Anchors::add($head->stream, $head->seq, $head->hash);
        }
        Anchors::add('newer', 4, $hash);
        Anchors::add('compacted', 9, $hash);
        Anchors::add('unknown to the backup', 1, $hash);
        file_put_contents(Anchors::path(), "no anchor\n", FILE_APPEND);

        $this->assertSame(['left' => 3, 'renewed' => 1], Anchors::trim($restored));
        $latest = Anchors::latest();
        $this->assertCount(1, $latest['malformed'], 'what is no anchor stays to be found');
        $this->assertEqualsCanonicalizing(
            array_column(array_map(fn ($h) => [$h->stream, $h->hash], $restored), 1, 0),
            array_map(fn (array $head) => $head['hash'], $latest['heads']),
        );
        file_put_contents(Anchors::path(), $before);
    }

    #[DataProvider('tampering')]
    public function test_verify_says_where_a_chain_breaks(callable $tamper, ?string $expected): void
    {
        DB::rollBack(); // leave the test's transaction: the owner must see what was written
        $owner = DB::connection('owner');
        $clean = function () use ($owner): void {
            $owner->table('ledger')->where('stream', 'probe')->delete();
            $owner->table('ledger_streams')->where('stream', 'probe')->delete();
            self::anchorWhatIsThere();
        };
        try {
            $clean();
            foreach ([1, 2, 3] as $n) {
                app(Ledger::class)->record('probe', 'probe', ['n' => $n]);
            }
            $tamper($owner);
            $result = app(VerifyLedger::class)->verify();
            $found = array_map(fn (array $b) => "{$b['stream']}, event {$b['seq']}: {$b['what']}", $result['breaks']);
            if ($expected === null) {
                $this->assertSame([], $found);
                [$status, $output] = $this->command('ledger:verify');
                $this->assertSame(0, $status);
                $this->assertStringContainsString('The chains hold', $output);
            } else {
                $this->assertStringContainsString($expected, implode("\n", $found));
                $this->assertSame(1, $this->command('ledger:verify')[0]);
            }
        } finally {
            $clean();
            DB::beginTransaction();
        }
    }

    public function test_a_walk_that_was_broken_off_goes_on(): void
    {
        foreach (['a', 'b', 'c'] as $stream) {
            foreach ([1, 2] as $n) {
                app(Ledger::class)->record($stream, 'probe', ['n' => $n]);
            }
        }
        $hash = (string) DB::table('ledger')->where('stream', 'b')->where('seq', 1)->value('hash');
        $from = new Checkpoint('b', 1, $hash, 3);
        $whole = app(VerifyLedger::class)->verify();
        $rest = app(VerifyLedger::class)->verify(null, $from);
        $this->assertSame([[], []], [$whole['breaks'], $rest['breaks']], 'also of the chains that were walked before');
        $before = DB::table('ledger')->where('stream', '<', 'b')->count();
        $this->assertSame($whole['events'] - $before - 1 + 3, $rest['events']);
        $altered = new Checkpoint('b', 1, str_repeat('0', 64), 3);
        $this->assertSame(
            [['stream' => 'b', 'seq' => 2, 'what' => 'Event 2 does not follow event 1.']],
            app(VerifyLedger::class)->verify(null, $altered)['breaks'],
        );
        $kept = config('yard.state').'/framework/verify.json';
        file_put_contents($kept, json_encode($from));
        $this->assertStringContainsString('after 3 events', $this->command('ledger:verify', ['--resume' => true])[1]);
        $this->assertFileDoesNotExist($kept);
    }

    public function test_every_write_leaves_an_event_with_the_person(): void
    {
        $this->receive()->assertCreated();
        $events = $this->read('/units/C-9001/history')->assertOk()->json('events');
        $this->assertSame('core.received', $events[0]['kind']);
        $this->assertSame('Joss Tarn', $events[0]['by']);
    }

    public function test_the_tablets_own_time_is_kept_beside_the_servers(): void
    {
        $this->as('receiver');
        $this->withHeader('X-Tablet-Time', '2026-11-01T07:08:09.123Z')->receive()->assertCreated();
        $row = DB::table('ledger')->where('kind', 'core.received')->first();
        $this->assertSame('2026-11-01 07:08:09.123000', $row->tablet_at);
        $this->assertNotSame($row->at, $row->tablet_at);
    }

    public function test_what_is_sealed_is_neither_lost_nor_set_back(): void
    {
        [$folder, $key] = [self::emptyFolder(), str_repeat('k', 64)];
        $inbox = "$folder/inbox";
        $sealed = "$folder/heads.jsonl";
        $seal = fn (int $large = 1_000_000) => new Seal($inbox, $folder, $key, $large);
        $anchor = fn (string $stream, int $n, string $hash) => file_put_contents(
            $inbox,
            Anchors::line($stream, $n, str_repeat($hash, 64)),
            FILE_APPEND,
        );
        $told = fn () => Anchors::told(Seal::lines($sealed));
        foreach (range(1, 50) as $n) {
            $anchor('probe', $n, 'a');
            $anchor('other', $n, 'b');
        }
        $this->assertSame(100, $seal()->take());
        $this->assertSame('', file_get_contents($inbox));
        $anchor('probe', 50, 'a');
        $seal()->take();
        $this->assertCount(100, file($sealed), 'what is known is not sealed twice');
        $before = $told();
        $anchor('other', 51, 'b');
        $seal(large: 1)->take();
        $this->assertCount(2, file($sealed), 'a line a chain is left of a long file');
        $this->assertSame(
            ['probe' => 50, 'other' => 51],
            array_map(fn (array $h) => $h['seq'], $told()['heads']),
        );
        $this->assertSame($before['heads']['probe'], $told()['heads']['probe']);
        $this->assertSame([], Seal::broken($sealed, $key));

        $anchor('probe', 50, 'f');
        file_put_contents($inbox, "nonsense\n", FILE_APPEND);
        $seal(large: 1)->take();
        $this->assertSame(['probe'], $told()['conflicts'], 'another head under the same number is evidence');
        $this->assertSame([4], $told()['malformed']);
        $this->assertSame(str_repeat('a', 64), $told()['heads']['probe']['hash']);

        $lines = file($sealed);
        file_put_contents($sealed, str_replace('aaaa', 'eeee', implode('', $lines)));
        $this->assertSame([1], Seal::broken($sealed, $key));
        file_put_contents($sealed, implode('', [$lines[0], ...array_slice($lines, 2)]));
        $this->assertSame([2], Seal::broken($sealed, $key), 'a line cut out');
        file_put_contents($sealed, implode('', $lines));
        $this->assertSame([1, 2, 3, 4], Seal::broken($sealed, str_repeat('x', 64)), 'another key');
    }

    public function test_a_head_that_finds_no_room_is_anchored_later(): void
    {
        Bus::fake();
        $state = config('yard.state');
        config(['yard.state' => '/nowhere']);
        app(Ledger::class)->record('probe', 'probe', []);
        Bus::assertDispatched(AnchorLater::class);
        $later = fn () => (new AnchorLater('probe', 1, str_repeat('a', 64)))->withFakeQueueInteractions();
        $job = $later();
        $job->handle();
        $job->assertReleased(10);
        config(['yard.state' => $state]);
        $job = $later();
        $job->handle();
        $job->assertNotReleased();
        $this->assertSame(1, Anchors::latest()['heads']['probe']['seq']);
        self::anchorWhatIsThere();
    }

    public function test_the_key_of_the_seal_is_its_owners_alone(): void
    {
        $folder = self::emptyFolder();
        $key = Seal::keyOf($folder);
        $this->assertMatchesRegularExpression('/^[0-9a-f]{64}$/', $key);
        $this->assertSame($key, Seal::keyOf($folder));
        $this->assertSame(0600, fileperms("$folder/key") & 0777);
    }

    private static function emptyFolder(): string
    {
        $folder = sys_get_temp_dir().'/yard-seal-'.bin2hex(random_bytes(6));
        mkdir($folder);

        return $folder;
    }
}
