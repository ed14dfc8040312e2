<?php

namespace Tests\Feature;

use App\Stations\Dyno\RigState;
use App\Stations\Dyno\RigWatch;
use Illuminate\Support\Facades\Cache;
use PHPUnit\Framework\Attributes\DataProvider;
use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\SocketServer;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** What the screens are told of a rig on which nothing runs. */
final class RigWatchTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Cache::forget('rig.A');
    }

    private function seen(int $port): RigState
    {
        RigWatch::look('A', $port);
        $end = microtime(true) + 5.0;
        $look = Loop::addPeriodicTimer(
            0.02,
            fn () => (RigWatch::told('A') !== RigState::Unwatched || microtime(true) > $end) && Loop::stop(),
        );
        Loop::run();
        Loop::cancelTimer($look);

        return RigWatch::told('A');
    }

    /** @return array<string, array{list<string>, RigState}> what the other end says, in pieces */
    public static function greetings(): array
    {
        return [
            'ready' => [['{"type":"hello","emerg', "ency\":false}\n"], RigState::Ready],
            'stopped' => [["{\"type\":\"hello\",\"emergency\":true}\n{\"type\":\"heartbeat\"}\n"], RigState::Stopped],
            'no rig' => [["SSH-2.0\n"], RigState::Silent],
            'not a word of it' => [["{\"type\":\"hello\",\"emergency\":\"yes\"}\n"], RigState::Silent],
            'not a word' => [[], RigState::Silent],
            'half a word' => [['{"type":"hel'], RigState::Silent],
            'a line without an end' => [[str_repeat('x', 20_000)], RigState::Silent],
        ];
    }

    /** @param  list<string>  $pieces */
    #[DataProvider('greetings')]
    public function test_a_greeting_says_how_the_rig_stands(array $pieces, RigState $state): void
    {
        $server = new SocketServer('127.0.0.1:0');
        $server->on('connection', function (ConnectionInterface $line) use ($pieces): void {
            foreach ($pieces as $n => $piece) {
                Loop::addTimer(0.05 * $n, fn () => $line->write($piece));
            }
        });
        $this->assertSame($state, $this->seen((int) parse_url((string) $server->getAddress(), PHP_URL_PORT)));
        $server->close();
    }

    public function test_a_rig_that_hangs_up_at_once_does_not_answer(): void
    {
        $server = new SocketServer('127.0.0.1:0');
        $server->on('connection', fn (ConnectionInterface $line) => $line->close());
        $port = (int) parse_url((string) $server->getAddress(), PHP_URL_PORT);
        $this->assertSame(RigState::Silent, $this->seen($port));
        $server->close();
    }

    public function test_the_button_at_the_rig_is_on_the_screen_of_its_cell(): void
    {
        $this->as('dyno')->read('/dyno/cells')->assertOk()->assertJsonPath('cells.0.rig', 'unwatched');
        $state = sys_get_temp_dir().'/rig-watch-'.getmypid();
        $free = new SocketServer('127.0.0.1:0');
        $port = (int) parse_url((string) $free->getAddress(), PHP_URL_PORT);
        $free->close();
        $this->assertSame(RigState::Silent, $this->seen($port), 'nobody is there');
        $console = function (string $said) use ($state): void {
            (new Process(['php', base_path('rig/console.php'), '--state', $state, $said]))->mustRun();
        };
        mkdir($state);
        $rig = new Process(['php', base_path('rig/rig.php'), '--port', (string) $port, '--state', $state]);
        $console('stop');
        $rig->start();
        try {
            for ($k = 0; $k < 50 && RigWatch::told('A') !== RigState::Stopped; $k++) {
                usleep(100_000);
                Cache::forget('rig.A');
                $this->seen($port);
            }
            $this->read('/dyno/cells')->assertJsonPath('cells.0.rig', 'stopped');
            $console('release');
            usleep(300_000);
            Cache::forget('rig.A');
            $this->assertSame(RigState::Ready, $this->seen($port));
        } finally {
            $rig->stop(1.0);
        }
    }

    public function test_a_run_that_has_the_cable_is_not_disturbed_and_says_that_the_rig_turns(): void
    {
        RigWatch::runs('A');
        $this->assertSame(RigState::Ready, RigWatch::told('A'));
        $this->travel(11)->seconds();
        $this->assertSame(RigState::Unwatched, RigWatch::told('A'), 'what is old is not believed');
    }
}
