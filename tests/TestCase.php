<?php

namespace Tests;

use App\Catalog\Kept\KeptCatalog;
use App\Kernel\Ledger\Anchors;
use App\Kernel\Ledger\VerifyState;
use App\Shop\HouseRules;
use App\Shop\Models\HouseRule;
use App\Shop\Models\Person;
use App\Stations\Dyno\Models\Run;
use App\Work\Bench;
use App\Work\ProofKind;
use App\Work\Queries\BenchWork;
use App\Yard\Models\Unit;
use Illuminate\Foundation\Testing\DatabaseTransactions;
use Illuminate\Foundation\Testing\TestCase as LaravelTestCase;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Yaml;
use Tools\Demo\BenchHands;
use Tools\Demo\DemoShop;

/**
 * Feature tests run against a real MariaDB that `./yard test feature` has set up with the demo catalog, as the
 * application's own database account. Each test is rolled back. Every API answer is held against docs/openapi.yaml.
 */
abstract class TestCase extends LaravelTestCase
{
    use DatabaseTransactions;

    /** A test that writes behind the application's back, where the ledger cannot know of it. */
    protected bool $tampered = false;

    /** @var array<string, mixed>|null */
    private static ?array $contract = null;

    protected function setUp(): void
    {
        parent::setUp();
        // What a test changes past the ledger is not to be seen by the next one.
        app(KeptCatalog::class)->watch();
        $this->furnish();
        config(['yard.progress_connection' => null]); // a second connection would wait for the test's own transaction
        self::anchorWhatIsThere();
    }

    /** Whatever a test did: the ledger can say how every row came to be as it is. */
    protected function assertPostConditions(): void
    {
        $found = $this->tampered ? [] : app(VerifyState::class)->verify()['differences'];
        $this->assertSame([], array_map(fn (array $d) => "{$d['where']}: {$d['what']}", $found));
    }

    /** The anchor file of earlier tests knows events that were rolled back. */
    protected static function anchorWhatIsThere(): void
    {
        @unlink(Anchors::path());
        foreach (DB::table('ledger_streams')->where('seq', '>', 0)->get() as $head) {
            Anchors::add($head->stream, $head->seq, $head->hash);
        }
    }

    protected function furnish(): void
    {
        DemoShop::furnish(4);
    }

    public function createApplication()
    {
        $app = require dirname(__DIR__).'/bootstrap/app.php';
        $app->make(\Illuminate\Contracts\Console\Kernel::class)->bootstrap();

        return $app;
    }

    protected function as(string $role): static
    {
        return $this->actingAs(Person::query()->where('role', $role)->orderBy('id')->firstOrFail(), 'badge');
    }

    protected function read(string $path): TestResponse
    {
        return $this->held('get', $path, $this->getJson("/api$path"));
    }

    /** @param  string  $path  begins with the section: teardown.work.operations */
    protected function onCard(string $path, string $tag = 'C-9001'): mixed
    {
        return $this->read("/units/$tag?sections=".Str::before($path, '.'))->assertOk()->json($path);
    }

    /** @param  array<string, mixed>  $body */
    protected function write(
        string $path,
        array $body = [],
        ?string $key = null,
        string $method = 'POST',
    ): TestResponse {
        return $this->held(
            strtolower($method),
            $path,
            $this->json($method, "/api$path", $body, ['Idempotency-Key' => $key ?? (string) Str::uuid()]),
        );
    }

    /** @param  array<string, mixed>  $more */
    protected function receive(string $tag = 'C-9001', array $more = []): TestResponse
    {
        return $this->as('receiver')->write(
            '/receiving',
            $more + [
                'coreTag' => $tag,
                'jobType' => 'rebuild',
                'ownership' => 'exchange',
                'family' => 'RD4',
                'customer' => 'WS-LOW',
                'vehicle' => 'Hallowmere Trusty 5',
                'vin' => '',
                'odometer' => '98000 km',
                'complaint' => 'No third or fourth',
                'codes' => ['P0730'],
                'clues' => ['fluid-colour' => 'black'],
                'missing' => [['part' => 'OU-01', 'count' => 1]],
                'failedHard' => [],
                'repairHours' => 1.5,
                'grade' => 'B',
                'gradeReason' => '',
                'sender' => 'own',
            ],
        );
    }

    protected function unit(string $tag = 'C-9001'): Unit
    {
        return Unit::query()->where('core_tag', $tag)->firstOrFail();
    }

    /** What the analysis of a run found, one limited value. */
    protected function check(Run $run, ?float $value, bool $pass): void
    {
        $run->checks()->create([
            'position' => $run->checks()->count(),
            'name' => 'Flare',
            'place' => '2-3',
            'value' => $value,
            'unit' => 'rev/min',
            'most' => 80.0,
            'pass' => $pass,
        ]);
    }

    /** The shop has decided a house rule. */
    protected function house(string $code, string $choice, string $reason = ''): void
    {
        HouseRule::query()->updateOrCreate(
            ['code' => $code],
            ['choice' => $choice, 'reason' => $reason, 'version' => 1],
        );
        app(HouseRules::class)->forget();
    }

    /** Takes a fresh core to a station through the API, the shortest legal way. */
    protected function bringTo(string $station, string $tag = 'C-9001', string $package = 'daily'): Unit
    {
        $this->receive($tag)->assertCreated();
        if ($station === 'identification') {
            return $this->unit($tag);
        }
        foreach (
            ['connector-colour' => 'black', 'connector-cavities' => '16', 'pan-bolts' => '14'] as $feature => $value
        ) {
            $this->write("/units/$tag/identification/clues", ['feature' => $feature, 'value' => $value])->assertOk();
        }
        $this->write("/units/$tag/identification", ['variant' => 'RD4-M'])->assertOk();
        if ($station === 'ordering') {
            return $this->unit($tag);
        }
        $this->as('manager')
            ->write("/units/$tag/ordering", ['package' => $package, 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->write("/units/$tag/ordering/release", [
            'version' => 1,
            'acknowledged' => ['pressure-raised', 'lockup-firm'],
        ])->assertOk();
        if ($station === 'teardown') {
            return $this->unit($tag);
        }
        $this->as('teardown');
        $this->workThrough($tag, 'teardown');
        $this->write("/units/$tag/teardown/complete")->assertOk();
        if ($station === 'assembly') {
            return $this->unit($tag);
        }
        $this->assembleEverything($tag);
        $this->write("/units/$tag/assembly/sign-off")->assertCreated();

        return $this->unit($tag);
    }

    /** A run on the dyno that passes everything, without the rig. */
    protected function passDyno(string $tag): void
    {
        $id = $this->as('dyno')
            ->write("/units/$tag/dyno/runs", ['cell' => 'A'])
            ->assertCreated()
            ->json('id');
        $run = Run::query()->findOrFail($id);
        $run->update(['state' => 'analysed']);
        $this->check($run, 70.0, true);
        $this->write("/dyno/runs/$id/verdict", ['verdict' => 'pass'])->assertOk();
    }

    protected function assembleEverything(string $tag): void
    {
        $this->workThrough($tag, 'assembly');
        BenchHands::signSubs($this->unit($tag), Person::query()->where('badge', '103')->firstOrFail());
        $this->as('builder');
    }

    /** Every operation of a bench but these and what comes after them, each proven as it asks. */
    protected function workThrough(string $tag, string $bench, string ...$except): void
    {
        $badge = ['teardown' => '102', 'assembly' => '103', 'dispatch' => '100', 'returns' => '105'][$bench];
        $hands = new BenchHands(
            Bench::from($bench),
            fn () => Person::query()->where('badge', $badge)->firstOrFail(),
            ['high-frictions' => ['condition' => 'black', 'disposition' => 'replace', 'role' => 'cause']],
            3,
        );
        $hands->work($this->unit($tag), PHP_INT_MAX, $except);
    }

    /** @param  array<string, mixed>  $answer */
    protected function prove(
        string $tag,
        string $bench,
        string $operation,
        string $proof,
        array $answer = [],
        string $note = '',
    ): TestResponse {
        return $this->write("/units/$tag/$bench/operations/$operation/proofs/$proof", [
            'answer' => $answer,
            'note' => $note,
        ]);
    }

    /**
     * A reading, in the operation that takes it.
     *
     * @param  array{kind: string, code: string, reading: string, gauge: ?string}  $reading
     */
    protected function measure(string $tag, array $reading): TestResponse
    {
        foreach (BenchWork::of($this->unit($tag), Bench::Assembly)->operations as $operation) {
            foreach ($operation->proofs as $proof) {
                $measured = in_array($proof->kind, [ProofKind::Reading, ProofKind::Torque, ProofKind::Air], true);
                if (
                    $measured &&
                    $proof->reading()->value === $reading['kind'] &&
                    $proof->place() === $reading['code']
                ) {
                    return $this->prove($tag, 'assembly', $operation->code, $proof->code, $reading);
                }
            }
        }
        $this->fail("No operation measures {$reading['kind']} {$reading['code']}.");
    }

    /**
     * @param  array<string, mixed>  $arguments
     * @return array{int, string} exit status and output
     */
    protected function command(string $name, array $arguments = []): array
    {
        return [Artisan::call($name, $arguments), Artisan::output()];
    }

    /** A problem document (RFC 9457) with a sentence, at the field when one is given. */
    protected function assertProblem(TestResponse $response, int $status, string $part, ?string $pointer = null): void
    {
        $response->assertStatus($status);
        $this->assertSame('application/problem+json', $response->headers->get('Content-Type'));
        $this->assertStringContainsStringIgnoringCase($part, (string) $response->getContent());
        if ($pointer !== null) {
            $this->assertContains($pointer, array_column($response->json('errors'), 'pointer'));
        }
    }

    protected function held(string $method, string $path, TestResponse $response): TestResponse
    {
        self::$contract ??= Yaml::parseFile(dirname(__DIR__).'/docs/openapi.yaml');
        $path = explode('?', $path)[0];
        foreach (self::$contract['paths'] as $template => $operations) {
            if (
                isset($operations[$method]) &&
                preg_match(
                    '#^'.preg_replace('/\\\\\{\w+\\\\\}/', '[^/]+', preg_quote($template, '#')).'$#',
                    $path,
                ) === 1
            ) {
                $answers = $operations[$method]['responses'];
                $status = $response->getStatusCode();
                $answer = $answers[$status] ?? $answers[intdiv($status, 100).'XX'];
                $schema = (isset($answer['$ref']) ? self::$contract['components']['responses']['Problem'] : $answer)[
                    'content'
                ];
                $schema =
                    ($schema['application/json'] ?? ($schema['application/problem+json'] ?? null))['schema'] ?? null;
                if ($schema !== null) {
                    $this->assertObeys($schema, $response, "$method $path");
                }

                return $response;
            }
        }
        if ($response->getStatusCode() !== 404) {
            $this->fail("docs/openapi.yaml does not describe $method $path");
        }

        return $response;
    }

    /** @param  array<string, mixed>  $schema */
    private function assertObeys(array $schema, TestResponse $response, string $what): void
    {
        $document = json_decode((string) json_encode($schema + ['components' => self::$contract['components']]));
        $result = (new Validator())->validate(json_decode((string) $response->getContent()), $document);
        $this->assertTrue(
            $result->isValid(),
            "$what answers outside the contract: ".
                ($result->error() === null ? '' : json_encode((new ErrorFormatter())->format($result->error()))),
        );
    }
}
