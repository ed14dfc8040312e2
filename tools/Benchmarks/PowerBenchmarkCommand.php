<?php

namespace Tools\Benchmarks;

use App\Catalog\Read\VariantHardware;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Process;
use Yard\Core\Calculator\Calculators;
use Yard\Core\Drivetrain\Train;
use Yard\Core\Faults\FaultedTrain;
use Yard\Core\Input;

/** Gear trains, margins and packages against references in the same run. */
final class PowerBenchmarkCommand extends Command
{
    protected $signature = 'bench:power {--rounds=200}';

    protected $description = 'Train solving, margins and package resolution as ratios to references';

    public function handle(): int
    {
        $this->train();
        $ok = $this->faults() & $this->packages() & $this->margins();

        return $ok ? 0 : 1;
    }

    /** A ratio to read; there is no goal for it. */
    private function train(): void
    {
        $train = self::tenSpeed();
        $read = Train::read(Input::fromJson((string) json_encode($train)));
        $rounds = (int) $this->option('rounds');
        $solve = function () use ($read, $train, $rounds): float {
            $start = hrtime(true);
            for ($i = 0; $i < $rounds; $i++) {
                foreach ($train['gears'] as $gear) {
                    $read->solve($gear['applied']);
                }
            }

            return (hrtime(true) - $start) / 1e3 / $rounds / count($train['gears']);
        };
        $solve();
        $ours = $solve();
        $python = Process::input((string) json_encode($train))->run([
            'python3',
            base_path('deploy/bench_train.py'),
            (string) $rounds,
        ]);
        $this->line(
            sprintf(
                'Ten gears, four sets: %.0f us a gear with speeds, torques and slips%s',
                $ours,
                $python->successful()
                    ? sprintf(
                        '; x%.2f of a plain Python elimination of the speeds alone (%.0f us)',
                        $ours / (float) $python->output(),
                        (float) $python->output(),
                    )
                    : '',
            ),
        );
    }

    /** @return array<string, mixed> four simple sets, ten gears: a train of our own, made for the measurement */
    private static function tenSpeed(): array
    {
        $train = [
            'input' => 'in',
            'output' => 'out',
            'sets' => [
                self::set('P1', 's1', 'r1', 'c1', 30, 72),
                self::set('P2', 's2', 'c1', 'c2', 34, 78),
                self::set('P3', 's3', 'c2', 'c3', 33, 71),
                self::set('P4', 's4', 'c3', 'out', 38, 74),
            ],
            'elements' => [],
            'gears' => [],
        ];
        foreach (['s1', 's2', 's3', 's4', 'r1', 'c1', 'c2', 'c3'] as $node) {
            $train['elements'][] = ['id' => "C$node", 'kind' => 'clutch', 'a' => 'in', 'b' => $node];
            $train['elements'][] = ['id' => "B$node", 'kind' => 'brake', 'a' => $node, 'b' => 'case'];
        }
        foreach (self::TEN_SPEED_CHART as $i => $applied) {
            $train['gears'][] = ['name' => (string) ($i + 1), 'applied' => $applied];
        }

        return $train;
    }

    private const TEN_SPEED_CHART = [
        ['Cs1', 'Br1', 'Bs2', 'Bs3', 'Bs4'],
        ['Cs1', 'Cr1', 'Bs2', 'Bs3', 'Bs4'],
        ['Cr1', 'Bs1', 'Bs2', 'Bs3', 'Bs4'],
        ['Cc1', 'Cs2', 'Bs3', 'Bs4', 'Bs1'],
        ['Cc2', 'Bs3', 'Bs4', 'Bs1', 'Bs2'],
        ['Cc2', 'Cs3', 'Bs4', 'Bs1', 'Bs2'],
        ['Cc3', 'Bs4', 'Bs1', 'Bs2', 'Bs3'],
        ['Cc3', 'Cs4', 'Bs1', 'Bs2', 'Bs3'],
        ['Cs2', 'Bc1', 'Bs3', 'Bs4', 'Bs1'],
        ['Cs3', 'Bc2', 'Bs4', 'Bs1', 'Bs2'],
    ];

    /** @return array<string, string|int> */
    private static function set(string $id, string $sun, string $ring, string $carrier, int $s, int $r): array
    {
        return [
            'id' => $id,
            'kind' => 'simple',
            'sun' => $sun,
            'ring' => $ring,
            'carrier' => $carrier,
            'sunTeeth' => $s,
            'ringTeeth' => $r,
        ];
    }

    /** Everything that may stick or die in ten gears, alone and in pairs, in solves of the same ten gears. */
    private function faults(): bool
    {
        $chart = self::tenSpeed();
        $train = Train::read(Input::fromJson((string) json_encode($chart)));
        $gears = array_column($chart['gears'], 'applied');
        $ids = array_slice(array_column($chart['elements'], 'id'), 0, 12);
        $alone = $pairs = [];
        foreach ($ids as $n => $id) {
            foreach (['stuck-on', 'stuck-off'] as $state) {
                $alone[] = [$id => $state];
                foreach (array_slice($ids, $n + 1) as $other) {
                    array_push($pairs, [$id => $state, $other => 'stuck-on'], [$id => $state, $other => 'stuck-off']);
                }
            }
        }
        $time = function (callable $work): float {
            $start = hrtime(true);
            $work();

            return (hrtime(true) - $start) / 1e6;
        };
        $solve = fn () => array_map($train->solve(...), $gears);
        $try = fn (array $faults) => array_map((new FaultedTrain($train, $faults))->gear(...), $gears);
        $solve();
        $once = $time(fn () => array_map(fn () => $solve(), range(1, 100))) / 100;
        $of = fn (array $faults): float => $time(fn () => array_map($try, $faults)) / $once;
        [$single, $double] = [$of($alone), $of($pairs)];
        $this->line(sprintf(
            'Faults of ten gears: %d alone in %.0f solves of the train (goal 200), %d pairs in %.0f (goal 2,000)',
            count($alone),
            $single,
            count($pairs),
            $double,
        ));

        return $single <= 200.0 && $double <= 2000.0;
    }

    private function packages(): bool
    {
        mt_srand(60);
        [$options, $rows] = self::sixtyOptions();
        $ours = $theirs = [];
        $same = true;
        for ($case = 0; $case < 12; $case++) {
            $wanted = array_values(array_unique(array_map(fn (): string => 'o'.mt_rand(0, 30), range(1, 3))));
            $start = hrtime(true);
            $out = Calculators::call('package.resolve', ['options' => $options, 'wanted' => $wanted]);
            $ours[] = (hrtime(true) - $start) / 1e6;
            [$cost, $theirs[]] = self::reference(self::program($options, $rows, $wanted));
            $agrees = $out['status'] === 'ok' ? abs($out['cheapest']['cost'] - (float) $cost) < 1e-6 : $cost === null;
            $same = $same && $agrees;
        }
        sort($ours);
        sort($theirs);
        $ratio = $ours[6] / $theirs[6];
        $this->line(
            sprintf(
                'package.resolve, 60 options and 150 rules: median %.1f ms, x%.2f of glpsol as a process (%.1f ms), %s',
                $ours[6],
                $ratio,
                $theirs[6],
                $same ? 'same optimum in all 12' : 'ANOTHER OPTIMUM',
            ),
        );

        return $same && $ratio < 1.0;
    }

    /** @return array{list<array<string, mixed>>, list<string>} 150 rules as options, and as rows of a program */
    private static function sixtyOptions(): array
    {
        $options = [];
        for ($i = 0; $i < 60; $i++) {
            $options[] = [
                'code' => "o$i",
                'price' => mt_rand(4, 400),
                'requires' => [],
                'requiresAny' => [],
                'excludes' => [],
            ];
        }
        $rows = [];
        for ($k = 0; $k < 150; $k++) {
            $a = mt_rand(0, 57);
            $later = fn (): string => 'o'.mt_rand($a + 1, 59);
            if ($k % 3 === 0) {
                $options[$a]['requiresAny'][] = $any = array_values(array_unique([$later(), $later(), $later()]));
                $rows[] = "o$a - ".implode(' - ', $any).' <= 0';
            } elseif ($k % 3 === 1) {
                $options[$a]['requires'][] = $b = $later();
                $rows[] = "o$a - $b <= 0";
            } elseif ($k % 6 === 2) {
                $options[$a]['excludes'][] = $b = $later();
                $rows[] = "o$a + $b <= 1";
            }
        }

        return [$options, $rows];
    }

    /**
     * @param  list<array<string, mixed>>  $options
     * @param  list<string>  $rows
     * @param  list<string>  $wanted
     * @return string in the CPLEX LP format
     */
    private static function program(array $options, array $rows, array $wanted): string
    {
        $cost = implode(' + ', array_map(fn (array $o): string => "{$o['price']} {$o['code']}", $options));
        $all = implode("\n ", [...$rows, ...array_map(fn (string $w): string => "$w = 1", $wanted)]);
        $binary = implode(' ', array_column($options, 'code'));

        return "Minimize\n c: $cost\nSubject To\n $all\nBinary\n $binary\nEnd\n";
    }

    /** @return array{float|null, float} the optimum by glpsol, null where there is none, and its milliseconds */
    private static function reference(string $program): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'lp');
        file_put_contents($file, $program);
        $start = hrtime(true);
        Process::run(['glpsol', '--lp', $file, '-o', "$file.out"]);
        $taken = (hrtime(true) - $start) / 1e6;
        $report = (string) file_get_contents("$file.out");
        array_map(unlink(...), [$file, "$file.out"]);
        $found =
            preg_match('/INTEGER OPTIMAL/', $report) === 1 &&
            preg_match('/Objective:\s+c = (\S+)/', $report, $m) === 1;

        return [$found ? (float) $m[1] : null, $taken];
    }

    private function margins(): bool
    {
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')), true);
        $all = fn () => array_map(self::familyMargins(...), $pack['families']);
        $one = function () use ($pack): void {
            foreach ($pack['families'] as $family) {
                Calculators::call('geartrain.solve', $family['train']);
            }
        };
        $time = function (callable $work): float {
            $work();
            $start = hrtime(true);
            for ($i = 0; $i < 20; $i++) {
                $work();
            }

            return (hrtime(true) - $start) / 2e7;
        };
        [$margins, $trains] = [$time($all), $time($one)];
        $this->line(
            sprintf(
                'Margins of all gears of all five families: %.1f ms, x%.2f of solving their trains alone; a change at '
                    .'the order desk has 150 ms',
                $margins,
                $margins / $trains,
            ),
        );

        return $margins < 150.0;
    }

    /** @param  array<string, mixed>  $family */
    private static function familyMargins(array $family): void
    {
        $converter = array_values(
            array_filter($family['options'], fn (array $o) => isset($o['body']['converter'])),
        )[0]['body'];
        $hardware = VariantHardware::of($family['body']['power'], $family['train'], [
            'capacities' => $converter['power']['capacities'],
        ]);
        Calculators::call(
            'power.margin',
            $hardware + [
                'engine' => [
                    'curve' => [
                        ['speed_rpm' => 1000, 'torque_nm' => 220],
                        ['speed_rpm' => 3000, 'torque_nm' => 300],
                        ['speed_rpm' => 5500, 'torque_nm' => 250],
                    ],
                ],
                'converter' => ['points' => $converter['converter']['points']],
                'inputSpeed_rpm' => 5200,
                'limit' => 1.15,
            ],
        );
    }
}
