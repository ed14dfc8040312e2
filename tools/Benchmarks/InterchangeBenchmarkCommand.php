<?php

namespace Tools\Benchmarks;

use App\Catalog\Models\Vehicle;
use App\Interchange\Queries\VehicleSupply;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** The vehicle question on a large catalog, against the same SQL statements run bare. */
final class InterchangeBenchmarkCommand extends Command
{
    protected $signature = 'bench:interchange {--rounds=200}';

    protected $description =
        'Vehicle queries on 100,000 applications, 5,000 variants and 200,000 parts, as a ratio to '.
        'their bare SQL';

    private const GOAL = 3.0;

    /** Parts, variants of one family, and vehicles. */
    private const CATALOG = <<<'SQL'
        INSERT INTO parts (number, name, kind, price) SELECT CONCAT('BENCH-', seq),
        CONCAT('Made-up part ', seq),
        'hard',
        seq % 300 FROM seq_1_to_200000;
        INSERT INTO variants (family_id, code, name, from_year, to_year, prior, expect, core_charge,
        scrap_value) SELECT :family,
        CONCAT('BENCH-', seq),
        CONCAT('Made-up variant ', seq),
        2000,
        2020,
        1,
        '{}',
        300,
        40 FROM seq_1_to_5000;
        INSERT INTO vehicles (code, maker, model, from_year, to_year, engine, drive, wmi, engine_torque_nm,
        mass_kg, axle_ratio, facts) SELECT CONCAT('BENCH-', seq),
        'Bench',
        CONCAT('Model ', seq),
        2000,
        2020,
        '3.0 six',
        'rear',
        '5BN',
        300,
        1800,
        3.4,
        '["controller"]' FROM seq_1_to_20000;
        SQL;

    /** Five variants for every vehicle. */
    private const APPLICATIONS = <<<'SQL'
        INSERT INTO applications (variant_id, vehicle_id, from_year, to_year, source, confidence) SELECT v.id,
        w.id,
        2000 + k.seq,
        2010 + k.seq,
        'bench',
        'unverified' FROM vehicles w JOIN seq_1_to_5 k JOIN variants v ON v.code = CONCAT('BENCH-', 1 +
        (SUBSTRING(w.code, 7) * 5 + k.seq) % 5000) WHERE w.code LIKE 'BENCH-%';
        SQL;

    /** Chains of three steps between neighbouring variants. */
    private const CONVERSIONS = <<<'SQL'
        INSERT INTO conversions (code, name, from_variant_id, to_variant_id, parts, hours, cost, requires,
        source, confidence) SELECT CONCAT('BENCH-', s.seq),
        'Made-up conversion',
        a.id,
        b.id,
        CONCAT('[{"part":"BENCH-', s.seq, '","count":1}]'),
        2,
        40,
        '[{"fact":"controller",
        "why":"x"}]',
        'bench',
        'unverified' FROM seq_1_to_4999 s JOIN variants a ON a.code = CONCAT('BENCH-', s.seq) JOIN variants b
        ON b.code = CONCAT('BENCH-', s.seq + 1) WHERE s.seq % 4 <> 0;
        SQL;

    public function handle(VehicleSupply $serve): int
    {
        if (! getenv('YARD_BENCH')) {
            $this->error(
                'This fills the catalog with a hundred thousand made-up rows; it runs in the bench instance only.',
            );

            return 2;
        }
        $this->fill();
        $vehicles = Vehicle::query()
            ->where('code', 'like', 'BENCH-%')
            ->orderBy('id')
            ->limit(10_000)
            ->get()
            ->shuffle(7)
            ->take((int) $this->option('rounds') + 10)
            ->values();
        $ours = $bare = [];
        foreach ($vehicles as $i => $vehicle) {
            [$sql, $whole] = self::timed($serve, $vehicle);
            if ($i >= 10) {
                // the first ones warm the caches
                $bare[] = $sql;
                $ours[] = $whole;
            }
        }

        return $this->judge($ours, $bare) ? 0 : 1;
    }

    /** @return array{float, float} nanoseconds of the bare statements, and of the whole answer */
    private static function timed(VehicleSupply $serve, Vehicle $vehicle): array
    {
        DB::flushQueryLog();
        DB::enableQueryLog();
        $serve->of($vehicle, null);
        DB::disableQueryLog();
        $log = DB::getQueryLog();
        $pdo = DB::connection()->getPdo();
        $start = hrtime(true);
        foreach ($log as ['query' => $sql, 'bindings' => $bindings]) {
            $statement = $pdo->prepare($sql);
            $statement->execute(array_map(fn ($b) => is_bool($b) ? (int) $b : $b, $bindings));
            $statement->fetchAll(\PDO::FETCH_OBJ);
        }
        $middle = hrtime(true);
        $serve->of($vehicle, null);

        return [$middle - $start, hrtime(true) - $middle];
    }

    /**
     * @param  list<float>  $ours
     * @param  list<float>  $bare
     */
    private function judge(array $ours, array $bare): bool
    {
        sort($ours);
        sort($bare);
        $at = fn (array $x, float $q): float => $x[(int) floor($q * (count($x) - 1))] / 1e6;
        $ratio = $at($ours, 0.95) / $at($bare, 0.95);
        $this->line('');
        $this->line(
            sprintf(
                'Vehicle question on %d applications, %d variants, %d parts, %d units (goal: p95 within %g times its '
                    .'bare SQL)',
                DB::table('applications')->count(),
                DB::table('variants')->count(),
                DB::table('parts')->count(),
                DB::table('units')->count(),
                self::GOAL,
            ),
        );
        $this->line(
            sprintf(
                '  bare SQL p50 %.1f ms, p95 %.1f ms; whole answer p50 x%.2f   p95 x%.2f   %s',
                $at($bare, 0.5),
                $at($bare, 0.95),
                $at($ours, 0.5) / $at($bare, 0.5),
                $ratio,
                $ratio <= self::GOAL ? 'ok' : 'OVER',
            ),
        );

        return $ratio <= self::GOAL;
    }

    private function fill(): void
    {
        if (DB::table('vehicles')->where('code', 'like', 'BENCH-%')->exists()) {
            return;
        }
        $family = (int) DB::table('families')->value('id');
        $owner = DB::connection('owner'); // the application's account may not read the sequence engine
        foreach ([self::CATALOG, self::APPLICATIONS, self::CONVERSIONS] as $sql) {
            $owner->unprepared(str_replace(':family', (string) $family, $sql));
        }
        $this->units($family);
        $owner->unprepared('ANALYZE TABLE units, applications, variants, conversions, parts, vehicles');
    }

    /** 200,000 units in all states, four in five already with a customer. */
    private function units(int $family): void
    {
        $person = DB::table('people')->value('id');
        $job = DB::table('job_types')->value('id');
        DB::connection('owner')->unprepared(
            "INSERT INTO units (core_tag, job_type_id, ownership, station, station_since, family_id, variant_id,
                complaint, grade, credit, received_at, received_by) SELECT CONCAT('BENCH-', s.seq),
            $job,
            'exchange',
            ELT(1 + s.seq % 25,
                'identification','ordering','teardown','assembly','dyno','dispatch',
                'field','field','field','field','field','field','field','field',
                'field','field','field','field','field','field','field','closed','closed','field','field'),
            NOW(),
            $family,
            v.id,
            '',
            'A',
            1,
            NOW(),
            $person FROM seq_1_to_200000 s JOIN variants v ON v.code = CONCAT('BENCH-', 1 + s.seq * 7 % 5000)",
        );
    }
}
