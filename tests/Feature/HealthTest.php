<?php

namespace Tests\Feature;

use App\Kernel\Ledger\Anchors;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** The manager's view of the machine behind the shop says what is wrong, what that stops and what to do. */
final class HealthTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $state = sys_get_temp_dir().'/yard-health-'.bin2hex(random_bytes(6));
        mkdir("$state/run", 0755, true);
        mkdir("$state/sealed");
        mkdir("$state/app/anchors", 0755, true);
        config(['yard.state' => $state]);
    }

    /** @return array<string, string> name => state and sentence */
    private function vitals(): array
    {
        $vitals = $this->as('manager')->read('/health')->assertOk()->json('vitals');
        $ranks = array_map(fn (array $v) => array_search($v['state'], ['bad', 'weak', 'good'], true), $vitals);
        $sorted = $ranks;
        sort($sorted);
        $this->assertSame($sorted, $ranks, 'what is wrong comes first');

        return array_column(array_map(fn (array $v) => [$v['name'], "{$v['state']}: {$v['says']}"], $vitals), 1, 0);
    }

    public function test_only_the_manager_sees_it(): void
    {
        $this->assertProblem($this->as('builder')->read('/health'), 403, 'manager');
    }

    public function test_a_process_that_is_gone_is_told_with_what_stops(): void
    {
        file_put_contents(config('yard.state').'/run/queue.pid', (string) getmypid());
        file_put_contents(config('yard.state').'/run/imports.pid', '4194305'); // above what the system gives out
        file_put_contents(config('yard.state').'/run/gateway.pid', (string) getmypid());
        $port = $this->freePort();
        config(['yard.gateway_port' => $port]);
        $found = $this->vitals();
        $this->assertSame('good: Runs.', $found['Analyses']);
        $this->assertSame('bad: Does not run: packs and price lists wait.', $found['Imports']);
        $this->assertSame('bad: Runs, but does not answer: dyno runs are not recorded.', $found['Live data']);
        $socket = stream_socket_server("tcp://127.0.0.1:$port");
        $this->assertSame('good: Runs.', $this->vitals()['Live data']);
        fclose($socket);
    }

    public function test_work_that_waits_or_failed_is_counted(): void
    {
        $this->assertSame('good: Nothing waits.', $this->vitals()['Waiting work']);
        $job = fn (int $ago) => DB::table('jobs')->insert([
            'queue' => 'imports',
            'payload' => '{}',
            'attempts' => 0,
            'available_at' => time() - $ago,
            'created_at' => time() - $ago,
        ]);
        $job(20);
        $this->assertStringStartsWith('good: 1 waiting, the longest for 2', $this->vitals()['Waiting work']);
        $job(400);
        $this->assertStringStartsWith('bad: 2 waiting, the longest for 40', $this->vitals()['Waiting work']);
    }

    public function test_backups_and_the_seal_are_looked_at(): void
    {
        $this->assertStringStartsWith('weak: None', $this->vitals()['Last backup']);
        $backup = fn (int $hours) => file_put_contents(config('yard.state').'/run/last-backup.json', json_encode([
            'at' => now()->subHours($hours)->toIso8601ZuluString(),
            'file' => 'yard-x.tar.gz',
            'bytes' => 2_340_000,
        ]));
        $backup(3);
        $this->assertSame('good: 3 hours ago: yard-x.tar.gz, 2.3 MB.', $this->vitals()['Last backup']);
        $backup(72);
        $this->assertStringStartsWith('bad: 3 days ago', $this->vitals()['Last backup']);

        $this->assertStringStartsWith('weak: The seal belongs', $this->vitals()['Sealed heads']);
        file_put_contents(Anchors::path(), "x\n");
        touch(Anchors::path(), time() - 60);
        $this->assertStringStartsWith('bad: New heads', $this->vitals()['Sealed heads']);
    }

    private function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $port = (int) substr(strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);

        return $port;
    }
}
