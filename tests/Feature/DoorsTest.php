<?php

namespace Tests\Feature;

use App\Shop\Abilities;
use App\Shop\Door\SessionFiles;
use App\Shop\Models\Person;
use App\Shop\Role;
use App\Yard\Models\Unit;
use Illuminate\Filesystem\Filesystem;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Symfony\Component\Yaml\Yaml;
use Tests\TestCase;

/** Who may come in, what happens twice, how errors look, and how many queries a list costs. */
final class DoorsTest extends TestCase
{
    public function test_without_a_badge_nothing_is_shown(): void
    {
        $doors = ['/yard', '/units', '/units/C-1', '/find?q=x', '/receiving/form', '/stock', '/house-rules', '/calc'];
        foreach ($doors as $path) {
            $this->assertProblem($this->getJson("/api$path"), 401, 'badge');
        }
    }

    /** They carry a question and write nothing: a sealed round of the trainer goes back to who asked for it. */
    private const ONLY_REASON = [
        'api/calc/{name}',
        'api/catalog/program-plan',
        'api/fault-trainer',
        'api/fault-trainer/looks',
        'api/fault-trainer/verdict',
        'api/pack-trainer',
        'api/pack-trainer/verdict',
    ];

    /** @return list<Route> */
    private function writingRoutes(): array
    {
        return array_values(
            array_filter(
                app('router')->getRoutes()->getRoutes(),
                fn (Route $r) => str_starts_with($r->uri(), 'api/') &&
                    array_intersect($r->methods(), ['POST', 'PUT', 'PATCH', 'DELETE']) !== [] &&
                    ! str_starts_with($r->uri(), 'api/session') &&
                    ! in_array($r->uri(), self::ONLY_REASON, true),
            ),
        );
    }

    public function test_every_write_asks_for_an_ability_and_a_viewer_has_none(): void
    {
        $this->assertSame([], Abilities::of(Role::Viewer));
        $this->receive()->assertCreated();
        $this->as('viewer');
        foreach ($this->writingRoutes() as $route) {
            $abilities = array_values(
                array_filter($route->gatherMiddleware(), fn ($m) => is_string($m) && str_starts_with($m, 'can:')),
            );
            $this->assertCount(1, $abilities, $route->uri());
            $this->assertArrayHasKey(substr($abilities[0], 4), Abilities::all());
            $path = '/'.preg_replace(['/\{hold\}|\{run\}|\{photo\}/', '/\{\w+\}/'], ['1', 'C-9001'], $route->uri());
            $response = $this->json($route->methods()[0], $path, [], ['Idempotency-Key' => uniqid()]);
            $this->assertContains($response->getStatusCode(), [403, 404], $route->uri().' let a viewer in');
        }
    }

    public function test_every_route_is_in_the_contract_and_the_other_way_round(): void
    {
        $described = [];
        foreach (Yaml::parseFile(base_path('docs/openapi.yaml'))['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $described[] = strtoupper($method).' /api'.$path;
            }
        }
        $served = [];
        foreach (app('router')->getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/')) {
                $served[] = $route->methods()[0].' /'.$route->uri();
            }
        }
        sort($described);
        sort($served);
        $this->assertSame($served, $described);
    }

    public function test_the_same_post_twice_happens_once(): void
    {
        $this->as('receiver');
        $body = [
            'coreTag' => 'C-9001',
            'jobType' => 'rebuild',
            'ownership' => 'exchange',
            'grade' => 'A',
            'complaint' => str_repeat('Slips when hot. ', 80),
        ];
        $first = $this->write('/receiving', $body, 'same-key')->assertCreated();
        $again = $this->write('/receiving', $body, 'same-key')->assertCreated();
        $this->assertSame('true', $again->headers->get('Idempotent-Replay'));
        $this->assertSame($first->getContent(), $again->getContent());
        $this->assertGreaterThan(2000, strlen((string) $first->getContent()), 'long enough to be kept packed');
        $this->assertSame(1, Unit::query()->count());
        $this->assertProblem(
            $this->write('/receiving', ['coreTag' => 'C-9002'] + $body, 'same-key'),
            422,
            'different request',
        );
        $this->assertProblem($this->postJson('/api/receiving', $body), 400, 'Idempotency-Key');
        $this->assertProblem($this->write('/receiving', ['grade' => 'Q'] + $body, 'failed-key'), 422, 'grade');
        $this->write('/receiving', ['coreTag' => 'C-9003'] + $body, 'failed-key')->assertCreated();
    }

    public function test_errors_are_problem_documents(): void
    {
        $this->as('manager');
        $this->assertProblem($this->getJson('/api/units/NOPE'), 404, 'nothing under this number');
        $this->assertProblem(
            $this->getJson('/api/units/C-0201?sections=dyno,attic'),
            422,
            'has no section',
            '/sections',
        );
        $this->assertProblem($this->getJson('/api/nowhere'), 404, 'nothing at this address');
        $this->assertProblem($this->deleteJson('/api/units'), 405, 'does not take');
        $this->assertProblem(
            $this->postJson('/api/calc/units.convert', ['value' => 'x', 'from' => 'in', 'to' => 'mm']),
            422,
            'must be a number',
            '/value',
        );
        $this->assertProblem($this->postJson('/api/calc/nope', []), 404, 'no calculator');
        $this->assertProblem(
            $this->call(
                'POST',
                '/api/calc/units.convert',
                content: '{broken',
                server: ['HTTP_ACCEPT' => 'application/json'],
            ),
            422,
            'not valid JSON',
        );
    }

    public function test_calculators_answer_as_on_the_command_line(): void
    {
        $this->as('viewer');
        foreach ($this->getJson('/api/calc')->json('calculators') as ['name' => $name]) {
            $schema = $this->getJson("/api/calc/$name")
                ->assertOk()
                ->json();
            $input = json_encode(
                json_decode((string) file_get_contents(base_path("core/schema/$name.json")))->example->input,
            );
            $http = $this->call(
                'POST',
                "/api/calc/$name",
                content: $input,
                server: ['HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json'],
            );
            $http->assertOk();
            $this->assertSame($name, $schema['name']);
            $process = proc_open(
                [PHP_BINARY, base_path('core/bin/calc'), $name],
                [['pipe', 'r'], ['pipe', 'w']],
                $pipes,
            );
            fwrite($pipes[0], $input);
            fclose($pipes[0]);
            $this->assertJsonStringEqualsJsonString(
                (string) stream_get_contents($pipes[1]),
                (string) $http->getContent(),
                $name,
            );
            proc_close($process);
        }
    }

    public function test_lists_cost_the_same_queries_however_long_they_are(): void
    {
        $count = function (string $path): int {
            $this->as('manager');
            DB::enableQueryLog();
            DB::flushQueryLog();
            $this->read($path)->assertOk();

            return count(DB::getQueryLog());
        };
        foreach (['/units', '/yard', '/find?q=C-9', '/stock'] as $path) {
            $this->receive('C-9001');
            $this->receive('C-9002');
            $few[$path] = $count($path);
        }
        for ($i = 10; $i < 34; $i++) {
            $this->receive("C-90$i");
        }
        foreach ($few as $path => $queries) {
            $this->assertSame($queries, $count($path), $path);
        }
        $this->assertLessThan(12, $few['/units']);
    }

    public function test_units_are_paged(): void
    {
        config(['yard.page_size' => 3]);
        foreach (range(1, 7) as $i) {
            $this->receive("C-900$i");
        }
        $page = $this->read('/units');
        $this->assertSame(['C-9007', 'C-9006', 'C-9005'], array_column($page->json('units'), 'coreTag'));
        $next = $this->read('/units?after='.$page->json('after'));
        $this->assertSame(['C-9004', 'C-9003', 'C-9002'], array_column($next->json('units'), 'coreTag'));
        $last = $this->read('/units?after='.$next->json('after'));
        $this->assertSame(['C-9001'], array_column($last->json('units'), 'coreTag'));
        $this->assertNull($last->json('after'));
    }

    public function test_the_scan_line_finds_tags_serials_parts_lots_and_customers(): void
    {
        $this->bringTo('teardown');
        $serial = $this->unit()->currentBuild->serial;
        foreach (
            [
                'C-9001' => 'Core tag',
                strtolower($serial) => 'Unit serial',
                'sprag' => 'Part',
                'L25-069' => 'Lot',
                'Lowgate' => 'Customer',
                'breather' => 'Part',
            ] as $q => $kind
        ) {
            $this->assertContains(
                $kind,
                array_column($this->read('/find?q='.urlencode($q))->json('hits'), 'kind'),
                $q,
            );
        }
        $this->assertSame([], $this->read('/find?q=%25%25')->json('hits'), 'a percent sign is no wildcard');
    }

    public function test_house_rules_are_chosen_with_a_reason(): void
    {
        $rule = collect($this->as('manager')->read('/house-rules')->json('rules'))->firstWhere('code', 'soak-time');
        $this->assertProblem(
            $this->write(
                "/house-rules/{$rule['code']}",
                ['choice' => $rule['choices'][0]['value'], 'reason' => '', 'version' => 0],
                null,
                'PUT',
            ),
            422,
            'Say why',
            '/reason',
        );
        $this->assertProblem(
            $this->write(
                "/house-rules/{$rule['code']}",
                ['choice' => 'whatever', 'reason' => 'x', 'version' => 0],
                null,
                'PUT',
            ),
            422,
            'Choose one of',
            '/choice',
        );
        $this->write(
            "/house-rules/{$rule['code']}",
            ['choice' => $rule['choices'][0]['value'], 'reason' => 'Our experience', 'version' => 0],
            null,
            'PUT',
        )->assertOk();
        $this->assertProblem(
            $this->write(
                "/house-rules/{$rule['code']}",
                ['choice' => $rule['choices'][1]['value'], 'reason' => 'No', 'version' => 0],
                null,
                'PUT',
            ),
            409,
            'Somebody else changed',
        );
    }

    public function test_a_session_that_goes_while_it_is_read_is_nobodys(): void
    {
        $this->assertInstanceOf(SessionFiles::class, app('session')->driver('file')->getHandler());
        $folder = sys_get_temp_dir().'/'.Str::random();
        mkdir($folder);
        $vanishing = new class extends Filesystem
        {
            public function isFile($file): bool
            {
                return parent::isFile($file) && unlink($file);
            }
        };
        file_put_contents("$folder/kept", 'kept');
        file_put_contents("$folder/gone", 'gone');
        $this->assertSame('kept', (new SessionFiles(new Filesystem(), $folder, 10))->read('kept'));
        $this->assertSame('', (new SessionFiles($vanishing, $folder, 10))->read('gone'));
        (new Filesystem())->deleteDirectory($folder);
    }

    public function test_the_page_itself_knows_no_session_and_brings_no_cookie(): void
    {
        foreach (['/', '/units/C-1/teardown'] as $page) {
            $this->assertSame([], $this->get($page)->assertOk()->headers->getCookies(), $page);
        }
        $cookies = array_map(fn ($c) => $c->getName(), $this->getJson('/api/session')->headers->getCookies());
        $this->assertContains('yard_session', $cookies, 'it is given where it is asked for');
    }

    public function test_pins_are_kept_as_slow_hashes(): void
    {
        $person = Person::query()->where('badge', '100')->firstOrFail();
        $this->assertTrue(Hash::check('482163', $person->pin_hash));
        $this->assertStringNotContainsString('482163', $person->pin_hash);
    }

    public function test_a_weight_is_a_weight_and_no_number_is_endless(): void
    {
        foreach (['-5 kg', '0 kg', '2001 kg', '-0.0 lb'] as $weight) {
            $this->assertProblem($this->receive('C-9001', ['weight' => $weight]), 422, 'weight', '/weight');
        }
        $this->as('receiver');
        $endless = $this->call(
            'POST',
            '/api/receiving',
            content: '{"coreTag":"C-9001","repairHours":1e400}',
            server: [
                'HTTP_ACCEPT' => 'application/json',
                'CONTENT_TYPE' => 'application/json',
                'HTTP_IDEMPOTENCY_KEY' => 'endless',
            ],
        );
        $this->assertSame(422, $endless->getStatusCode());
        $this->assertStringContainsString('/repairHours', (string) $endless->getContent());
    }

    public function test_a_tablet_that_is_named_in_no_plain_letters_is_not_written_down(): void
    {
        $this->receive();
        $this->as('manager');
        foreach (["bench \xC3\x85" => null, str_repeat('a', 200) => null, 'bench-2' => 'bench-2'] as $sent => $kept) {
            $this->json(
                'POST',
                '/api/units/C-9001/holds',
                ['reason' => 'Waits for a seal.'],
                ['Idempotency-Key' => (string) Str::uuid(), 'X-Station' => $sent],
            )->assertSuccessful();
            $this->assertSame($kept, DB::table('ledger')->latest('id')->value('station'), (string) $sent);
        }
    }
}
