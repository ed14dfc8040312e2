<?php

namespace Tools\Benchmarks;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use Illuminate\Support\Str;
use Psr\Http\Message\ResponseInterface;

/** Requests of the demo manager, timed against a reference of the same run. */
trait MeasuresRatios
{
    private Client $http;

    private CookieJar $cookies;

    /** @var array<string, array{float, float}> ratios p50 and p95 of what was compared last */
    private array $measured = [];

    private function enter(): void
    {
        $this->cookies = new CookieJar();
        $this->http = new Client([
            'base_uri' => config('app.url'),
            'cookies' => $this->cookies,
            'http_errors' => false,
            'headers' => ['Accept' => 'application/json'],
        ]);
        $this->http->get('/api/session');
        if ($this->send('POST', '/api/session', ['badge' => '100', 'pin' => '482163'])->getStatusCode() !== 200) {
            throw new \RuntimeException('The bench instance does not let the demo manager in.');
        }
    }

    /** @param  array<string, callable>  $requests */
    private function compare(string $title, float $goal, callable $reference, array $requests): bool
    {
        $times = array_fill_keys(array_keys($requests), []);
        $base = [];
        foreach (range(1, (int) $this->option('rounds') + 5) as $round) {
            $taken = [$this->milliseconds($reference)];
            foreach ($requests as $name => $request) {
                $taken[$name] = $this->milliseconds(function () use ($request, $name): void {
                    $response = $request();
                    if ($response->getStatusCode() >= 400) {
                        throw new \RuntimeException(
                            "$name answered {$response->getStatusCode()}: ".$response->getBody(),
                        );
                    }
                });
            }
            if ($round > 5) {
                // the first ones warm the caches
                $base[] = $taken[0];
                foreach (array_keys($requests) as $name) {
                    $times[$name][] = $taken[$name];
                }
            }
        }

        return $this->rows($title, $goal, $base, $times);
    }

    /**
     * @param  list<float>  $base
     * @param  array<string, list<float>>  $times
     */
    private function rows(string $title, float $goal, array $base, array $times): bool
    {
        $quantile = function (array $x, float $q): float {
            sort($x);

            return $x[(int) floor($q * (count($x) - 1))];
        };
        [$b50, $b95] = [$quantile($base, 0.5), $quantile($base, 0.95)];
        $this->line('');
        $this->line(
            sprintf('%s (goal: within %g times; reference p50 %.1f ms, p95 %.1f ms)', $title, $goal, $b50, $b95),
        );
        $all = true;
        $this->measured = [];
        foreach ($times as $name => $list) {
            [$r50, $r95] = [$quantile($list, 0.5) / $b50, $quantile($list, 0.95) / $b95];
            $this->measured[$name] = [$r50, $r95];
            $ok = $r50 <= $goal && $r95 <= $goal;
            $all = $all && $ok;
            $this->line(sprintf('  %-32s p50 x%.2f   p95 x%.2f   %s', $name, $r50, $r95, $ok ? 'ok' : 'OVER'));
        }

        return $all;
    }

    private function milliseconds(callable $work): float
    {
        $start = hrtime(true);
        $work();

        return (hrtime(true) - $start) / 1e6;
    }

    /** @param  array<string, mixed>  $body */
    private function send(string $method, string $path, array $body = []): ResponseInterface
    {
        $token = $this->cookies->getCookieByName('XSRF-TOKEN')?->getValue();

        return $this->http->request(
            $method,
            $path,
            ['headers' => ['X-XSRF-TOKEN' => urldecode((string) $token), 'Idempotency-Key' => (string) Str::uuid()]] +
                ($method === 'GET' ? [] : ['json' => $body]),
        );
    }
}
