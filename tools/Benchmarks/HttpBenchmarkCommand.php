<?php

namespace Tools\Benchmarks;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Illuminate\Support\Str;

/** Measures the product as ratios to a yardstick taken in the same run, so that the machine cancels out. */
final class HttpBenchmarkCommand extends Command
{
    use MeasuresRatios;

    /** A way round that is wrong is kept and not satisfied, so that it can be said again and again. */
    private const PROOF = '/api/units/C-0216/assembly/operations/sprag/proofs/orientation-sprag-cage';

    protected $signature = 'bench {--rounds=80 : requests of each kind}';

    protected $description = 'Print the benchmarks as ratios to a reference in the same run';

    public function handle(): int
    {
        $this->enter();
        $this->photograph('C-0203', 300);
        $ok = $this->reads() & $this->writes() & $this->orderDesk() & $this->calculator() & $this->firstLoad();

        return $ok ? 0 : 1;
    }

    /** So many pictures of one unit, as rows: what costs is the card that lists them. */
    private function photograph(string $unit, int $photos): void
    {
        $of = DB::table('units')->where('core_tag', $unit)->value('id');
        $by = DB::table('people')->where('badge', '100')->value('id');
        DB::table('photos')->insert(array_map(fn (int $n) => [
            'unit_id' => $of,
            'place' => 'pan',
            'station' => 'teardown',
            'path' => "photos/none-$n.jpg",
            'width' => 800,
            'height' => 600,
            'sha256' => hash('sha256', (string) $n),
            'taken_by' => $by,
            'created_at' => now(),
        ], range(1, $photos)));
    }

    private function reads(): bool
    {
        return $this->compare(
            'Thirteen reads against a bare route with one indexed SELECT',
            4.0,
            fn () => $this->send('GET', '/bench/select'),
            [
                'session' => fn () => $this->send('GET', '/api/session'),
                'yard board' => fn () => $this->send('GET', '/api/yard'),
                'units' => fn () => $this->send('GET', '/api/units'),
                'route card, summary' => fn () => $this->send('GET', '/api/units/C-0205'),
                'card, assembly' => fn () => $this->send('GET', '/api/units/C-0205?sections=assembly'),
                'card, teardown' => fn () => $this->send('GET', '/api/units/C-0218?sections=teardown'),
                'card, dispatch' => fn () => $this->send('GET', '/api/units/C-0211?sections=dispatch'),
                'card, returns' => fn () => $this->send('GET', '/api/units/C-0202?sections=returns'),
                'card of 300 photos' => fn () => $this->send('GET', '/api/units/C-0203?sections=receiving'),
                'history' => fn () => $this->send('GET', '/api/units/C-0205/history'),
                'scan line' => fn () => $this->send('GET', '/api/find?q=VY-26-0005'),
                'stock' => fn () => $this->send('GET', '/api/stock'),
                'receiving form' => fn () => $this->send('GET', '/api/receiving/form'),
            ],
        );
    }

    private function writes(): bool
    {
        $version = 1;
        $values = ['black', 'grey', 'blue'];
        $n = 0;

        return $this->compare(
            'Five writes against a bare route that commits one INSERT',
            4.0,
            fn () => $this->send('POST', '/bench/insert'),
            [
                'answer a clue' => function () use (&$n, $values) {
                    return $this->send('POST', '/api/units/C-0222/identification/clues', [
                        'feature' => 'connector-colour',
                        'value' => $values[$n++ % 3],
                    ]);
                },
                'take a proof' => fn () => $this->send('POST', self::PROOF, [
                    'answer' => ['choice' => 'the narrow lip'],
                ]),
                'record a finding' => function () use (&$version) {
                    $response = $this->send('POST', '/api/units/C-0218/teardown/findings', [
                        'part' => 'planet',
                        'condition' => 'sound',
                        'disposition' => 'reuse',
                        'role' => 'none',
                        'version' => $version,
                    ]);
                    $version = collect(
                        json_decode((string) $response->getBody(), true)['teardown']['inspection'],
                    )->firstWhere('part', 'planet')['finding']['version'];

                    return $response;
                },
                'receive a core' => fn () => $this->send('POST', '/api/receiving', [
                    'coreTag' => 'B-'.strtoupper(Str::random(10)),
                    'jobType' => 'rebuild',
                    'ownership' => 'exchange',
                    'grade' => 'A',
                    'complaint' => 'bench',
                    'family' => 'RD4',
                ]),
            ],
        );
    }

    /** A change at the order desk: package, margins of every gear and what each further option would do, over HTTP. */
    private function orderDesk(): bool
    {
        $taken = [];
        for ($i = 0; $i < (int) $this->option('rounds') + 5; $i++) {
            $taken[] = $this->milliseconds(function () use ($i): void {
                $response = $this->send('POST', '/api/units/C-0217/ordering/preview', [
                    'package' => $i % 2 === 0 ? 'daily' : 'tow',
                    'add' => $i % 3 === 0 ? ['deep-pan'] : [],
                    'duty' => ['engineTorque' => (string) (300 + 5 * ($i % 20)), 'hold' => true],
                ]);
                if ($response->getStatusCode() !== 200) {
                    throw new \RuntimeException(
                        "The order desk answered {$response->getStatusCode()}: ".$response->getBody(),
                    );
                }
            });
        }
        $taken = array_slice($taken, 5);
        sort($taken);
        $p95 = $taken[(int) floor(0.95 * (count($taken) - 1))];
        $this->line('');
        $this->line(
            sprintf(
                'A change at the order desk over HTTP: p50 %.1f ms, p95 %.1f ms (goal: under 150) %s',
                $taken[intdiv(count($taken), 2)],
                $p95,
                $p95 < 150.0 ? 'ok' : 'OVER',
            ),
        );

        return $p95 < 150.0;
    }

    private function calculator(): bool
    {
        $input = base_path('storage/bench-train.json');
        file_put_contents(
            $input,
            json_encode(
                json_decode((string) file_get_contents(base_path('core/schema/geartrain.solve.json')))->example
                    ->input,
            ),
        );
        $ours = $theirs = [];
        for ($i = 0; $i < 40; $i++) {
            $theirs[] = $this->milliseconds(fn () => Process::run(PHP_BINARY." -r ''"));
            $ours[] = $this->milliseconds(
                fn () => Process::run(PHP_BINARY.' '.base_path('core/bin/calc').' geartrain.solve < '.$input),
            );
        }

        return $this->rows("Calculator start to end against php -r ''", 3.0, $theirs, [
            'core/bin/calc geartrain.solve' => $ours,
        ]);
    }

    private function firstLoad(): bool
    {
        $manifest = json_decode((string) file_get_contents(public_path('build/manifest.json')), true);
        $files = [];
        $walk = function (string $entry) use (&$walk, &$files, $manifest): void {
            if (! isset($files[$manifest[$entry]['file']])) {
                $files[$manifest[$entry]['file']] = strlen(
                    (string) gzencode(
                        (string) file_get_contents(public_path('build/'.$manifest[$entry]['file'])),
                        9,
                    ),
                );
                array_map($walk, $manifest[$entry]['imports'] ?? []);
            }
        };
        $walk('resources/ui/main.tsx');
        $kilobytes = array_sum($files) / 1000;
        $this->line('');
        $this->line(
            sprintf(
                'JavaScript on first load: %.1f kB gzip in %d files (goal: under 200) %s',
                $kilobytes,
                count($files),
                $kilobytes < 200 ? 'ok' : 'OVER',
            ),
        );

        return $kilobytes < 200;
    }
}
