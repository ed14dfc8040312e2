<?php

namespace App\Stations\Dyno;

use React\Socket\ConnectionInterface;

/** Browsers that watch runs: server-sent events, behind a signed address. */
final class LiveViewers
{
    /** @var \SplObjectStorage<ConnectionInterface, int> viewer => run */
    private \SplObjectStorage $viewers;

    /** A request without an end is not listened to any longer, bytes. */
    private const LONGEST_REQUEST = 8192;

    private const HEAD = "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nCache-Control: no-store\r\nConnection: "
        ."close\r\n\r\n";

    private const REFUSAL = "HTTP/1.1 403 Forbidden\r\nContent-Type: text/plain\r\nContent-Length: 0\r\nConnection: "
        ."close\r\n\r\n";

    /** @param  \Closure(int): list<array{string, array<string, mixed>}>  $first  what a viewer is told first */
    public function __construct(private readonly \Closure $first)
    {
        $this->viewers = new \SplObjectStorage();
    }

    public function greet(ConnectionInterface $viewer): void
    {
        $request = '';
        $viewer->on('data', function (string $data) use ($viewer, &$request): void {
            $request .= $data;
            if (! str_contains($request, "\r\n\r\n") && strlen($request) < self::LONGEST_REQUEST) {
                return;
            }
            $viewer->removeAllListeners('data');
            $run = self::asked($request);
            $run === null ? $viewer->end(self::REFUSAL) : $this->seat($viewer, $run);
        });
    }

    /** @param  array<string, mixed>  $data */
    public function tell(int $run, string $name, array $data): void
    {
        foreach ($this->viewers as $viewer) {
            if ($this->viewers[$viewer] === $run) {
                $viewer->write(self::event($name, $data));
            }
        }
    }

    /** So that nobody between takes the line for dead. */
    public function keepAwake(): void
    {
        foreach ($this->viewers as $viewer) {
            $viewer->write(": still here\n\n");
        }
    }

    private static function asked(string $request): ?int
    {
        $line = '#^GET /live/runs/(\d+)\?until=(\d+)&sign=([0-9a-f]{64}) HTTP/1\.[01]\r\n#';
        $ok = preg_match($line, $request, $m) === 1 && LiveToken::valid((int) $m[1], (int) $m[2], $m[3]);

        return $ok ? (int) $m[1] : null;
    }

    private function seat(ConnectionInterface $viewer, int $run): void
    {
        $viewer->write(self::HEAD);
        $this->viewers[$viewer] = $run;
        $viewer->on('close', fn () => $this->viewers->detach($viewer));
        foreach (($this->first)($run) as [$name, $data]) {
            $viewer->write(self::event($name, $data));
        }
    }

    /** @param  array<string, mixed>  $data */
    private static function event(string $name, array $data): string
    {
        return "event: $name\ndata: ".json_encode($data)."\n\n";
    }
}
