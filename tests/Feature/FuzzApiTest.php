<?php

namespace Tests\Feature;

use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Yaml\Yaml;
use Tests\TestCase;

/**
 * Every write of the published contract with what tablets, scanners and broken programs may send: never a fault, always
 * a sentence.
 */
final class FuzzApiTest extends TestCase
{
    private const INSTEAD = [
        null,
        '',
        'x',
        -1,
        1e300,
        true,
        [],
        ['x'],
        ['a' => ['b' => 1]],
        "\u{1F527} \u{202E}tfel",
        'DROP',
    ];

    /**
     * Left out: signing in and out ends the session, files go in as forms, the calculators have a test of their own.
     */
    private const LEFT_OUT = ['/session', '/calc/{name}'];

    /** What a friendly client would send, by field, so that one wrong field at a time is met behind right ones. */
    private const KNOWN = [
        'package' => 'tow',
        'add' => ['deep-pan'],
        'drop' => [],
        'vehicle' => 'HW-TR5',
        'customer' => 'WS-LOW',
        'promisedOn' => '2026-12-01',
        'engineTorque' => '410',
        'engineCurve' => '1500 300, 3000 410',
        'shiftSpeed' => '5000',
        'mass' => '2000',
        'axle' => '3.5',
        'tyre' => '235/60R16',
        'coreTag' => 'C-9777',
        'jobType' => 'rebuild',
        'ownership' => 'exchange',
        'family' => 'RD4',
        'vin' => '',
        'odometer' => '98000 km',
        'complaint' => 'No third',
        'codes' => ['P0730'],
        'clues' => ['fluid-colour' => 'black'],
        'repairHours' => 1,
        'gradeReason' => 'looked at',
        'sender' => 'own',
        'tag' => 'T-77',
        'rack' => 'R1-1',
        'pallet' => '',
        'feature' => 'pan-bolts',
        'value' => '14',
        'variant' => 'RD4-M',
        'note' => 'seen',
        'part' => 'OU-01',
        'count' => 1,
        'symptoms' => ['3' => 'slips'],
        'pressures' => ['line' => 'low'],
        'condition' => 'black',
        'disposition' => 'replace',
        'role' => 'cause',
        'reading' => '0.981 in',
        'trialWasher' => null,
        'kind' => 'pack',
        'code' => 'C1',
        'gauge' => 'F-01',
        'choice' => '10 min',
        'reason' => 'So it is here',
        'version' => 1,
        'acknowledged' => ['pressure-raised', 'lockup-firm'],
        'carrier' => 'Own lorry',
        'serial' => 'VY-26-0001',
        'failedOn' => '2026-11-24',
        'installedOn' => '2026-11-01',
        'answer' => ['counts' => ['a' => 1], 'reading' => '0.981 in', 'gauge' => 'F-01'],
        'operation' => 'pack-C1',
        'proof' => 'reading-pack-c1',
        'move' => 'start',
        'at' => '2026-11-24T08:00:00Z',
        'sent' => '2026-11-24T08:00:01Z',
        'missing' => [],
        'failedHard' => [],
        'damage' => [],
        'observed' => ['pan-bolts' => '14'],
    ];

    /** Fields of one name that mean different things. */
    private const KNOWN_AT = ['duty/grade' => '12', 'grade' => 'B'];

    /** Where a unit must stand for a write to get past its door. */
    private const STATIONS = [
        'identity' => 'identification',
        'clues' => 'identification',
        'teardown' => 'teardown',
        'findings' => 'teardown',
        'symptoms' => 'teardown',
        'assembly' => 'assembly',
        'places' => 'assembly',
        'proofs' => 'assembly',
        'moves' => 'assembly',
        'sign-off' => 'assembly',
        'runs' => 'dyno',
    ];

    /** @return array<string, array{string, string, array<string, mixed>}> */
    public static function writes(): array
    {
        $contract = Yaml::parseFile(dirname(__DIR__, 2).'/docs/openapi.yaml');
        $out = [];
        foreach ($contract['paths'] as $path => $operations) {
            foreach (
                array_intersect_key($operations, ['post' => 0, 'put' => 0, 'delete' => 0]) as $method => $operation
            ) {
                $schema = $operation['requestBody']['content']['application/json']['schema'] ?? null;
                if ($schema !== null && ! in_array($path, self::LEFT_OUT, true)) {
                    $out["$method $path"] = [strtoupper($method), $path, self::sample($schema, $contract)];
                }
            }
        }

        return $out;
    }

    /**
     * A body a friendly client might send.
     *
     * @param  array<string, mixed>  $schema
     * @param  array<string, mixed>  $contract
     */
    private static function sample(array $schema, array $contract, string $at = '', int $depth = 0): mixed
    {
        $name = preg_replace('~^.*/~', '', $at);
        if (array_key_exists($at, self::KNOWN_AT) || array_key_exists($name, self::KNOWN)) {
            return self::KNOWN_AT[$at] ?? self::KNOWN[$name];
        }
        if (isset($schema['$ref'])) {
            return self::sample(
                $contract['components']['schemas'][basename($schema['$ref'])],
                $contract,
                $at,
                $depth,
            );
        }
        $schema = $schema['oneOf'][count($schema['oneOf'] ?? [0]) - 1] ?? $schema;
        $type = is_array($schema['type'] ?? null) ? $schema['type'][0] : $schema['type'] ?? 'string';

        return match (true) {
            isset($schema['enum']) => $schema['enum'][0],
            $depth > 4 => null,
            $type === 'object' => array_combine(
                array_keys($schema['properties'] ?? []),
                array_map(
                    fn (array $s, string $k): mixed => self::sample($s, $contract, ltrim("$at/$k", '/'), $depth + 1),
                    $schema['properties'] ?? [],
                    array_keys($schema['properties'] ?? []),
                ),
            ),
            $type === 'array' => [self::sample($schema['items'] ?? [], $contract, "$at/0", $depth + 1)],
            $type === 'integer', $type === 'number' => 1,
            $type === 'boolean' => true,
            default => 'x',
        };
    }

    /**
     * @param  array<int|string, mixed>  $node
     * @param  list<int|string>  $path
     * @return \Generator<list<int|string>>
     */
    private static function places(array $node, array $path = []): \Generator
    {
        foreach ($node as $key => $child) {
            yield [...$path, $key];
            if (is_array($child)) {
                yield from self::places($child, [...$path, $key]);
            }
        }
    }

    /** @param  array<string, mixed>  $sample */
    #[DataProvider('writes')]
    public function test_a_write_never_fails_on_its_body(string $method, string $path, array $sample): void
    {
        $station =
            array_values(
                array_filter(
                    self::STATIONS,
                    fn (string $word): bool => str_contains($path, $word),
                    ARRAY_FILTER_USE_KEY,
                ),
            )[0] ?? 'ordering';
        $this->bringTo($station);
        $this->as('manager');
        $url = preg_replace(
            ['/\{(hold|run|photo|id|import|round)\}/', '/\{(code|rule)\}/', '/\{place\}/', '/\{step\}/', '/\{\w+\}/'],
            ['1', 'soak-time', 'C1', 'clean', 'C-9001'],
            $path,
        );
        $tried = 0;
        foreach ([[], ...iterator_to_array(self::places($sample), false)] as $place) {
            foreach (
                $place === []
                    ? [[], $sample]
                    : array_map(fn (mixed $value): array => self::with($sample, $place, $value), self::INSTEAD) as $body
            ) {
                $tried++;
                $this->assertSentence(
                    $this->json($method, "/api$url", $body, ['Idempotency-Key' => "fuzz-$tried"]),
                    "$method $path ".json_encode($body),
                );
            }
        }
        $this->assertSentence(
            $this->call(
                $method,
                "/api$url",
                content: '{"broken',
                server: [
                    'HTTP_ACCEPT' => 'application/json',
                    'CONTENT_TYPE' => 'application/json',
                    'HTTP_IDEMPOTENCY_KEY' => 'broken',
                ],
            ),
            "$method $path with broken JSON",
        );
        $this->assertSentence($this->json($method, "/api$url", $sample), "$method $path without a key");
    }

    /**
     * @param  array<int|string, mixed>  $node
     * @param  list<int|string>  $path
     * @return array<int|string, mixed>
     */
    private static function with(array $node, array $path, mixed $value): array
    {
        $key = array_shift($path);
        $node[$key] = $path === [] ? $value : self::with($node[$key], $path, $value);

        return $node;
    }

    private function assertSentence(TestResponse $response, string $what): void
    {
        $status = $response->getStatusCode();
        $this->assertLessThan(500, $status, substr("$what: ".$response->getContent(), 0, 1500));
        if ($status >= 400) {
            $problem = json_decode((string) $response->getContent(), true);
            $this->assertSame('application/problem+json', $response->headers->get('Content-Type'), $what);
            $this->assertMatchesRegularExpression('/^\S.*[.?)!]$/su', $problem['detail'] ?? '', $what);
            $this->assertStringNotContainsString('vendor/', (string) $response->getContent(), $what);
            $this->assertDoesNotMatchRegularExpression(
                '/SQLSTATE|Exception|Undefined|must be of type/',
                (string) $response->getContent(),
                $what,
            );
        }
    }
}
