<?php

namespace Tools\Benchmarks;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Every view of a shop grown to years, against the bare route, and against the same view of a small shop. */
final class VolumeBenchmarkCommand extends Command
{
    use MeasuresRatios;

    protected $signature = 'bench:volume {--rounds=25 : requests of each kind} {--save=} {--against=}';

    protected $description = 'Print how the views of a grown shop compare with a bare route, and how they grew';

    private const GOAL = 4.0;

    private const GROWTH = 1.5;

    public function handle(): int
    {
        $this->enter();
        $units = DB::table('units')->count();
        $this->line("A shop of $units units.");
        $this->compare('Reads against a bare route with one indexed SELECT', self::GOAL, $this->bare(), $this->reads());
        $now = $this->measured;
        $this->compare('Writes against a bare route with one INSERT', self::GOAL, $this->insert(), $this->writes());
        $now += $this->measured;
        if ($this->option('save')) {
            file_put_contents((string) $this->option('save'), json_encode($now, JSON_THROW_ON_ERROR));
        }
        if ($this->option('against')) {
            $small = json_decode((string) file_get_contents((string) $this->option('against')), true);
            $this->growth($small, $now);
        }

        return 0;
    }

    private function bare(): callable
    {
        return fn () => $this->send('GET', '/bench/select');
    }

    private function insert(): callable
    {
        return fn () => $this->send('POST', '/bench/insert');
    }

    /** @return array<string, callable> */
    private function reads(): array
    {
        $grown = DB::table('units')->where('core_tag', 'like', 'K-%');
        $tags = $grown->inRandomOrder()->limit(400)->pluck('core_tag')->all();
        $n = 0;
        $any = function () use ($tags, &$n): string {
            return $tags[$n++ % count($tags)];
        };
        $first = DB::table('units')->where('core_tag', $tags[0])->value('id');
        $serial = (string) DB::table('builds')->where('unit_id', $first)->value('serial');
        $vin = (string) DB::table('units')->where('core_tag', $tags[1])->value('vin');
        $customer = (string) DB::table('customers')->where('code', 'like', 'GR-%')->orderBy('id')->value('code');
        $lot = (string) DB::table('stock_lots')->where('lot', 'like', 'L25-069-%')->orderBy('id')->value('lot');
        $deep = (int) DB::table('units')->max('id') / 2;
        $get = fn (string $path) => fn () => $this->send('GET', "/api$path");

        return [
            'card, one unit' => $get("/units/$tags[0]"),
            'card, random units' => fn () => $this->send('GET', '/api/units/'.$any()),
            'card, assembly of random units' => fn () => $this->send('GET', '/api/units/'.$any().'?sections=assembly'),
            'history' => fn () => $this->send('GET', '/api/units/'.$any().'/history'),
            'yard board' => $get('/yard'),
            'yard plan' => $get('/yard/plan'),
            'day of the manager' => $get('/yard/day'),
            'units' => $get('/units'),
            'units, deep page' => $get('/units?before='.(int) $deep),
            'units of a customer' => $get("/units?customer=$customer"),
            'scan line, serial' => $get("/find?q=$serial"),
            'scan line, end of a VIN' => $get('/find?q='.substr($vin, -6)),
            'stock' => $get('/stock'),
            'stock, searched' => $get('/stock?q=plate'),
            'lot page' => $get("/lots/$lot"),
            'return rates' => $get('/insight/return-rates'),
            'core balances' => $get('/money/core-balances'),
            'statement' => $get("/money/customers/$customer/statement"),
            'quote' => $get('/units/C-0220/ordering/quote'),
            'interchange, part' => $get('/interchange/part?number=ST-069'),
            'interchange, core' => $get('/interchange/cores/C-0217'),
            'receiving form' => $get('/receiving/form'),
            'session' => $get('/session'),
        ];
    }

    /** @return array<string, callable> */
    private function writes(): array
    {
        $n = 0;

        return [
            'answer a clue' => function () use (&$n) {
                return $this->send('POST', '/api/units/C-0222/identification/clues', [
                    'feature' => 'connector-colour',
                    'value' => ['black', 'grey', 'blue'][$n++ % 3],
                ]);
            },
            'record a reading' => fn () => $this->send('POST', '/api/units/C-0215/assembly/measurements', [
                'kind' => 'air-check',
                'code' => 'C1',
                'reading' => '2 psi',
                'gauge' => 'P-01',
            ]),
            'receive a core' => fn () => $this->send('POST', '/api/receiving', [
                'coreTag' => 'B-'.strtoupper(\Illuminate\Support\Str::random(10)),
                'jobType' => 'rebuild',
                'ownership' => 'exchange',
                'grade' => 'A',
                'complaint' => 'bench',
                'family' => 'RD4',
            ]),
        ];
    }

    /**
     * @param  array<string, array{float, float}>  $small  name => ratios p50 and p95
     * @param  array<string, array{float, float}>  $now
     */
    private function growth(array $small, array $now): void
    {
        $this->line('');
        $this->line(sprintf('Growth of the ratios (goal: at most %.1f)', self::GROWTH));
        foreach ($now as $name => [$p50]) {
            if (isset($small[$name])) {
                $grown = $p50 / $small[$name][0];
                $this->line(sprintf('  %-32s x%.2f   %s', $name, $grown, $grown <= self::GROWTH ? 'ok' : 'OVER'));
            }
        }
    }
}
