<?php

namespace Tests\Feature;

use App\Stations\Dyno\RigLine;
use PHPUnit\Framework\TestCase;
use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\SocketServer;

/** The gateway's end of the cable, against a rig of this test's own. */
final class RigLineTest extends TestCase
{
    /** @var list<string> */
    private array $heard = [];

    /** @var list<string> */
    private array $told = [];

    /** @var list<array{string, ?string}> */
    private array $ends = [];

    private bool $hungUp = false;

    /** @param  callable(ConnectionInterface, array<string, mixed>): void  $answer */
    private function line(callable $answer, array $before = []): RigLine
    {
        $server = new SocketServer('127.0.0.1:0');
        $server->on('connection', function (ConnectionInterface $gateway) use ($answer, $server): void {
            $server->close();
            $gateway->on('close', fn () => $this->hungUp = true);
            $gateway->on('data', function (string $data) use ($gateway, $answer): void {
                foreach (explode("\n", trim($data)) as $line) {
                    $message = (array) json_decode($line, true);
                    $this->heard[] = $message['type'];
                    $answer($gateway, $message);
                }
            });
        });

        return new RigLine(
            (int) parse_url((string) $server->getAddress(), PHP_URL_PORT),
            ['type' => 'start', 'run' => '7'],
            fn (): bool => true,
            function (array $message): void {
                $this->told[] = $message['type'];
            },
            function (string $state, ?string $why): void {
                $this->ends[] = [$state, $why];
            },
            $before,
        );
    }

    private static function until(callable $is, float $seconds): void
    {
        $end = microtime(true) + $seconds;
        $look = Loop::addPeriodicTimer(0.02, fn () => ($is() || microtime(true) > $end) && Loop::stop());
        Loop::run();
        Loop::cancelTimer($look);
    }

    private static function busy(): string
    {
        return json_encode(['type' => 'error', 'code' => 'busy', 'message' => 'Run 6 is on the rig.'])."\n";
    }

    public function test_a_rig_that_still_turns_the_run_before_is_waited_for(): void
    {
        $line = $this->line(fn (ConnectionInterface $gateway) => count($this->heard) < 3
            ? $gateway->write(self::busy())
            : $gateway->write('{"type":"started","run":"7"}'."\n"));
        self::until(fn () => $this->told !== [], 3.0);
        $this->assertSame(['start', 'start', 'start'], $this->heard);
        $this->assertSame(['started'], $this->told);
        $this->assertSame([], $this->ends);
        $line->close();
        self::until(fn () => $this->hungUp, 3.0);
    }

    public function test_a_rig_that_never_comes_to_rest_ends_the_run_with_its_sentence(): void
    {
        $this->line(fn (ConnectionInterface $gateway) => $gateway->write(self::busy()));
        self::until(fn () => $this->ends !== [], 8.0);
        $this->assertSame([['failed', 'The test rig says: Run 6 is on the rig.']], $this->ends);
    }

    public function test_an_abort_reaches_the_rig_before_the_cable_is_taken_out(): void
    {
        $line = $this->line(fn (ConnectionInterface $gateway) => count($this->heard) > 1 ||
            $gateway->write('{"type":"started","run":"7"}'."\n"));
        self::until(fn () => $this->told !== [], 3.0);
        $line->send(['type' => 'abort']);
        $line->close();
        self::until(fn () => $this->hungUp, 3.0);
        $this->assertSame(['start', 'abort'], $this->heard);
        $this->assertSame([], $this->ends, 'who hung up himself is not told that the cable broke');
    }

    public function test_the_unit_is_filled_and_primed_before_the_run_begins(): void
    {
        $answers = ['fill' => 'filled', 'prime' => 'primed', 'start' => 'started'];
        $busy = true;
        $rig = function (ConnectionInterface $gateway, array $message) use ($answers, &$busy): void {
            $gateway->write($busy ? self::busy() : json_encode(['type' => $answers[$message['type']]])."\n");
            $busy = false;
        };
        $line = $this->line($rig, [['type' => 'fill', 'litres' => 9.0], ['type' => 'prime']]);
        self::until(fn () => count($this->told) > 2, 3.0);
        $this->assertSame(['fill', 'fill', 'prime', 'start'], $this->heard, 'a rig still at rest is waited for');
        $this->assertSame(['filled', 'primed', 'started'], $this->told);
        $line->close();
        self::until(fn () => $this->hungUp, 3.0);
    }

    public function test_a_pump_that_does_not_draw_ends_the_run_before_it_begins(): void
    {
        $dry = json_encode(['type' => 'error', 'message' => 'The pump does not draw.'])."\n";
        $this->line(fn (ConnectionInterface $gateway, array $message) => $gateway->write(
            $message['type'] === 'prime' ? $dry : '{"type":"filled"}'."\n",
        ), [['type' => 'fill', 'litres' => 2.0], ['type' => 'prime']]);
        self::until(fn () => $this->ends !== [], 3.0);
        $this->assertSame([['failed', 'The test rig says: The pump does not draw.']], $this->ends);
        $this->assertSame(['fill', 'prime'], $this->heard);
    }
}
