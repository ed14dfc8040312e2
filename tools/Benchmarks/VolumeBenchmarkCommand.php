<?php

namespace Tools\Benchmarks;

use GuzzleHttp\Pool;
use GuzzleHttp\Psr7\Request;
use GuzzleHttp\TransferStats;
use Illuminate\Console\Command;
use Illuminate\Pagination\Cursor;
use Illuminate\Support\Facades\DB;

/** Every view of a shop grown to years, against the bare route, and against the same view of a small shop. */
final class VolumeBenchmarkCommand extends Command
{
    use MeasuresRatios;

    /** A way round that is wrong is kept and not satisfied, so that it can be said again and again. */
    private const PROOF = '/api/units/C-0216/assembly/operations/sprag/proofs/orientation-sprag-cage';

    protected $signature = 'bench:volume {--rounds=25 : requests of each kind} {--save=} {--against=}
        {--seconds=60 : how long the tablets ask at once}';

    protected $description = 'Print how the views of a grown shop compare with a bare route, and how they grew';

    private const GOAL = 4.0;

    private const GROWTH = 1.5;

    private const CARD = '/api/units/{unit}?sections=assembly';

    /** @var list<string> some that were grown */
    private array $tags;

    public function handle(): int
    {
        $this->enter();
        $grown = DB::table('units')->where('core_tag', 'like', 'K-%');
        $this->tags = $grown->inRandomOrder()->limit(2000)->pluck('core_tag')->all();
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
            $this->tablets('20 tablets on everything', 20, array_values($this->paths()));
            $this->tablets('16 clients on random cards', 16, [self::CARD]);
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
        $n = 0;
        $any = function (string $path) use (&$n): string {
            return str_replace('{unit}', $this->tags[$n++ % count($this->tags)], $path);
        };

        return array_map(fn (string $path) => fn () => $this->send('GET', $any($path)), $this->paths());
    }

    /** @return array<string, string> what is looked at => address; {unit} stands for any unit that was grown */
    private function paths(): array
    {
        [$one, $other] = $this->tags;
        $first = DB::table('units')->where('core_tag', $one)->value('id');
        $serial = DB::table('builds')->where('unit_id', $first)->value('serial');
        $vin = substr((string) DB::table('units')->where('core_tag', $other)->value('vin'), -6);
        $customer = DB::table('customers')->where('code', 'like', 'GR-%')->orderBy('id')->value('code');
        $lot = DB::table('stock_lots')->where('lot', 'like', 'L25-069-%')->orderBy('id')->value('lot');
        $middle = intdiv((int) DB::table('units')->max('id'), 2);

        return [
            'card, one unit' => "/api/units/$one",
            'card, random units' => '/api/units/{unit}',
            'card, assembly of random units' => self::CARD,
            'history' => '/api/units/{unit}/history',
            'yard board' => '/api/yard',
            'yard plan' => '/api/yard/plan',
            'day of the manager' => '/api/yard/day',
            'units' => '/api/units',
            'units, deep page' => '/api/units?after='.(new Cursor(['units.id' => $middle]))->encode(),
            'units, by promise' => '/api/units?sort=promisedOn',
            'units of a customer' => "/api/units?customer=$customer",
            'scan line, serial' => "/api/find?q=$serial",
            'scan line, end of a VIN' => "/api/find?q=$vin",
            'stock' => '/api/stock',
            'stock, by price' => '/api/stock?sort=-price',
            'stock, searched' => '/api/stock?q=plate',
            'lot page' => "/api/lots/$lot",
            'return rates' => '/api/insight/return-rates',
            'core balances' => '/api/money/core-balances',
            'statement' => "/api/money/customers/$customer/statement",
            'quote' => '/api/units/C-0220/ordering/quote',
            'interchange, part' => '/api/interchange/part?number=ST-069',
            'interchange, core' => '/api/interchange/cores/C-0217',
            'receiving form' => '/api/receiving/form',
            'session' => '/api/session',
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
            'take a proof' => fn () => $this->send('POST', self::PROOF, ['answer' => ['choice' => 'the narrow lip']]),
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
     * Asks from many places at once, for a while.
     *
     * @param  list<string>  $paths
     */
    private function tablets(string $title, int $tablets, array $paths): void
    {
        [$times, $refused, $end] = [[], 0, microtime(true) + (int) $this->option('seconds')];
        $asked = (function () use ($paths, $end): \Generator {
            for ($n = 0; microtime(true) < $end; $n++) {
                $unit = $this->tags[array_rand($this->tags)];
                yield new Request('GET', str_replace('{unit}', $unit, $paths[$n % count($paths)]));
            }
        })();
        $pool = new Pool($this->http, $asked, [
            'concurrency' => $tablets,
            'options' => [
                'on_stats' => function (TransferStats $stats) use (&$times, &$refused): void {
                    $times[] = 1000 * $stats->getTransferTime();
                    $refused += ($stats->getResponse()?->getStatusCode() ?? 599) >= 500 ? 1 : 0;
                },
            ],
        ]);
        $pool->promise()->wait();
        sort($times);
        $this->line(sprintf(
            '%s for %d s: %d answers, %.0f a second, p50 %.0f ms, p95 %.0f ms, %d without (goal: 0)',
            $title,
            (int) $this->option('seconds'),
            count($times),
            count($times) / (int) $this->option('seconds'),
            $times[intdiv(count($times), 2)],
            $times[(int) floor(0.95 * (count($times) - 1))],
            $refused,
        ));
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
