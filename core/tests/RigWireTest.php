<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** The rig as a process at the end of a cable: nothing lost, nothing doubled, and nothing it can be told kills it. */
final class RigWireTest extends CoreTestCase
{
    private const END_S = 30.0;

    /** @var resource */
    private $rig;

    /** @var resource */
    private $cable;

    private string $state;

    private int $port;

    private string $read = '';

    protected function setUp(): void
    {
        $this->state = sys_get_temp_dir().'/wire-'.bin2hex(random_bytes(4));
        mkdir("$this->state/specimens", 0775, true);
        $file = json_encode(TestCell::specimen('RD4', 1));
        file_put_contents("$this->state/specimens/VY-1.json", $file);
        $this->port = random_int(21_000, 29_000);
        $rig = proc_open([
            PHP_BINARY, dirname(__DIR__, 2).'/rig/rig.php', '--port', (string) $this->port, '--state', $this->state,
            '--specimens', "$this->state/specimens", '--pace', '12',
        ], [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']], $pipes);
        $this->rig = is_resource($rig) ? $rig : $this->fail('The rig does not start.');
        $this->plug();
    }

    protected function tearDown(): void
    {
        proc_terminate($this->rig, 9);
        proc_close($this->rig);
    }

    private function plug(): void
    {
        for ($try = 0; $try < 50; $try++) {
            $cable = @stream_socket_client("tcp://127.0.0.1:$this->port", $code, $why, 1);
            if ($cable !== false) {
                stream_set_timeout($cable, 5);
                [$this->cable, $this->read] = [$cable, ''];
                $this->assertSame('hello', $this->next('hello')['type']);

                return;
            }
            usleep(100_000);
        }
        $this->fail('The rig does not answer.');
    }

    /** @param  array<string, mixed>  $message */
    private function say(array $message): void
    {
        fwrite($this->cable, json_encode($message)."\n");
    }

    /** @return array<string, mixed> the next message of these types */
    private function next(string ...$types): array
    {
        while (($line = fgets($this->cable)) !== false) {
            $message = json_decode($line, true);
            if (in_array($message['type'] ?? '', $types, true)) {
                return $message;
            }
        }
        $this->fail('The rig fell silent.');
    }

    private function begin(float $end = self::END_S): void
    {
        $this->say(['type' => 'start', 'run' => '1', 'serial' => 'VY-1', 'end_s' => $end]);
        $this->next('started');
        $this->say(['type' => 'order', 'n' => 0, 'at' => 1.0, 'gear' => '1', 'throttle' => 0.3]);
        $this->say(['type' => 'order', 'n' => 1, 'at' => 9.0, 'gear' => '2']);
    }

    /**
     * Takes samples until so many are there, or the run is over.
     *
     * @param  array<int, list<float>>  $rows  by number
     */
    private function take(array &$rows, int $until, bool $acknowledge = true): string
    {
        while (count($rows) < $until) {
            $message = $this->next('samples', 'ended');
            if ($message['type'] === 'ended') {
                return "$message[why] after $message[samples]";
            }
            foreach ($message['rows'] as $k => $row) {
                $this->assertArrayNotHasKey($message['seq'] + $k, $rows, 'a sample came twice');
                $rows[$message['seq'] + $k] = $row;
            }
            $acknowledge && $this->say(['type' => 'ack', 'seq' => $message['seq'] + count($message['rows']) - 1]);
        }

        return '';
    }

    public function test_a_cable_pulled_for_a_moment_costs_no_sample_and_orders_are_done_on_time(): void
    {
        $this->begin();
        $rows = [];
        $this->take($rows, 1500);
        fclose($this->cable);
        usleep(900_000);
        $this->plug();
        $this->say(['type' => 'resume', 'run' => '1', 'after' => count($rows) - 1]);
        $this->assertSame(count($rows) - 1, $this->next('resumed')['after']);
        $all = (int) (self::END_S * 200) + 1;
        $this->assertSame("end after $all", $this->take($rows, PHP_INT_MAX));
        $this->assertSame(range(0, $all - 1), array_keys($rows));
        foreach ($rows as $n => $row) {
            $this->assertEqualsWithDelta($n / 200.0, $row[0], 1e-9);
        }
        $journal = array_map(fn (string $l): array => array_map(floatval(...), explode(',', $l)), file(
            "$this->state/journal/1.csv",
            FILE_IGNORE_NEW_LINES,
        ) ?: []);
        $this->assertEquals($journal, array_values($rows), 'the journal holds the same');
    }

    public function test_a_program_that_waited_less_long_ends_when_it_is_told(): void
    {
        $this->begin();
        $this->say(['type' => 'end', 'at' => self::END_S + 100.0]);
        $this->say(['type' => 'end', 'at' => 4.0]);
        $rows = [];
        $this->assertSame('end after 801', $this->take($rows, PHP_INT_MAX));
    }

    public function test_a_cable_that_stays_out_stops_the_rig(): void
    {
        $this->begin();
        $rows = [];
        $this->take($rows, 400);
        fclose($this->cable);
        usleep(2_600_000);
        $this->plug();
        $this->say(['type' => 'resume', 'run' => '1', 'after' => count($rows) - 1]);
        $this->assertStringContainsString('not on the rig any more', $this->next('error')['message']);
        $this->begin();
        $this->say(['type' => 'abort']);
        $this->assertSame('aborted', $this->next('ended')['why'], 'the next run can be started, and aborted');
    }

    private function console(string $word): void
    {
        exec(implode(' ', array_map(escapeshellarg(...), [
            PHP_BINARY, dirname(__DIR__, 2).'/rig/console.php', '--state', $this->state, $word,
        ])), $told, $code);
        $this->assertSame(0, $code, implode("\n", $told));
    }

    public function test_the_emergency_stop_of_the_rig_asks_nobody(): void
    {
        $this->begin();
        $rows = [];
        $this->take($rows, 400);
        $this->console('stop');
        $this->assertMatchesRegularExpression('/^emergency after \d+$/', $this->take($rows, PHP_INT_MAX));
        $this->assertLessThan(self::END_S * 200, count($rows), 'it stopped long before its end');
        $this->say(['type' => 'start', 'run' => '2', 'serial' => 'VY-1', 'end_s' => self::END_S]);
        $this->assertStringContainsString('emergency stop is pressed', $this->next('error')['message']);
        $this->console('release');
        usleep(300_000);
        $this->begin();
    }

    public function test_the_emergency_stop_works_when_the_other_end_is_dead(): void
    {
        $this->begin();
        $rows = [];
        $this->take($rows, 400);
        fclose($this->cable);
        $this->console('stop');
        usleep(300_000);
        $lines = count(file("$this->state/journal/1.csv") ?: []);
        usleep(500_000);
        $this->assertCount($lines, file("$this->state/journal/1.csv") ?: [], 'nothing turns any more');
    }

    public function test_a_rig_that_nobody_listens_to_stops(): void
    {
        $this->begin(200.0);
        $rows = [];
        $this->take($rows, 200);
        sleep(6); // plugged in, and not a word
        $this->assertMatchesRegularExpression('/^unheard after \d+$/', $this->take($rows, PHP_INT_MAX, false));
    }

    public function test_nonsense_is_answered_with_a_sentence_and_the_rig_lives_on(): void
    {
        foreach (['garbage', '[]', '{"type":"dance"}', '{"type":17}'] as $line) {
            fwrite($this->cable, "$line\n");
            $this->assertStringContainsString('not understood', $this->next('error')['message']);
        }
        $this->say(['type' => 'start', 'run' => '../../etc', 'serial' => 'VY-1', 'end_s' => 5]);
        $this->assertStringContainsString('needs a name', $this->next('error')['message']);
        $this->say(['type' => 'start', 'run' => '2', 'serial' => '../VY-1', 'end_s' => 5]);
        $this->assertStringContainsString('stands on the rig', $this->next('error')['message']);
        $this->say(['type' => 'resume', 'run' => '7', 'after' => 3]);
        $this->assertStringContainsString('not on the rig', $this->next('error')['message']);
        fwrite($this->cable, str_repeat('x', 300_000));
        while (fgets($this->cable) !== false);
        $this->plug();
        $this->begin();
        $this->say(['type' => 'order', 'n' => 2, 'at' => 0.0, 'gear' => '17']);
        $this->assertStringContainsString('no gear "17"', $this->next('error')['message']);
        $this->assertSame(0, $this->next('did')['n'], 'and the run goes on');
    }

    public function test_a_unit_is_filled_and_primed_before_it_turns_under_load(): void
    {
        $file = ['fluid_l' => 9.0] + TestCell::specimen('RD4', 1);
        file_put_contents("$this->state/specimens/VY-2.json", json_encode($file));
        $start = ['type' => 'start', 'run' => '3', 'serial' => 'VY-2', 'end_s' => 4.0];
        $refused = function (array $message, string $says): void {
            $this->say($message);
            $answer = $this->next('error', 'filled', 'primed', 'started');
            $this->assertStringContainsString($says, $answer['message'] ?? $answer['type']);
        };
        $refused($start, 'it would run dry');
        $refused(['type' => 'prime', 'serial' => 'VY-2'], 'does not draw: 0.0 of 9.0 litres');
        $refused(['type' => 'fill', 'serial' => 'VY-2', 'litres' => 90], 'From 0 to 13.5 litres');
        $refused(['type' => 'fill', 'serial' => 'VY-2', 'litres' => 'much'], 'From 0 to 13.5 litres');
        $this->say(['type' => 'fill', 'serial' => 'VY-2', 'litres' => 3.0]);
        $this->assertSame(3, (int) $this->next('filled')['litres']);
        $refused(['type' => 'prime', 'serial' => 'VY-2'], 'does not draw: 3.0 of 9.0 litres');

        $this->say(['type' => 'fill', 'serial' => 'VY-2', 'litres' => 9.0]);
        $this->next('filled');
        $refused($start, 'it would run dry');
        $this->say(['type' => 'prime', 'serial' => 'VY-2']);
        $this->assertGreaterThan(90.0, $this->next('primed')['line_kpa']);
        $this->say($start);
        $this->next('started');
        $refused(['type' => 'fill', 'serial' => 'VY-2', 'litres' => 9.0], 'Run 3 is on the rig');
        $this->say(['type' => 'abort']);
        $this->assertSame('aborted', $this->next('ended')['why']);
        touch("$this->state/emergency");
        usleep(400_000);
        $refused(['type' => 'prime', 'serial' => 'VY-2'], 'emergency stop is pressed');
        unlink("$this->state/emergency");
    }
}
