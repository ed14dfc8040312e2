<?php

namespace Tools\Benchmarks;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\Process;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;

/** Half an hour of recording read and measured, against plain Python and R that find the same ratios and shifts. */
final class TraceBenchmarkCommand extends Command
{
    protected $signature = 'bench:trace {--family=RD4}';

    protected $description = 'The analysis of a recorded run as ratios to plain Python and to R in the same run';

    private const RATE = 200;

    private const JIT = ['-dopcache.enable_cli=1', '-dopcache.jit_buffer_size=64M', '-dopcache.jit=tracing'];

    private const AGREE_S = 0.01;

    /** Each is run so often, and its quickest time counts: what else the machine does only makes one slower. */
    private const TIMES = 3;

    public function handle(): int
    {
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')), true);
        $family = array_column($pack['families'], null, 'code')[(string) $this->option('family')];
        $ratios = ApplyChart::read(Input::of($family['train']))->ratios();
        $folder = sys_get_temp_dir().'/yard-trace-'.getmypid();
        mkdir($folder);
        try {
            $once = $this->onTheRig($family, $folder);
            [$short, $long] = array_map(
                fn (int $s): array => $this->ours($folder, $once, $family, $ratios, $s),
                [60, 1800],
            );
            $this->line(sprintf(
                'One minute: %.2f s, %.0f MB; half an hour: %.2f s, %.0f MB (%d samples of five channels)',
                $short['all'],
                $short['peakMb'],
                $long['all'],
                $long['peakMb'],
                1800 * self::RATE,
            ));
            $r = 'c('.implode(',', array_map(fn ($g, $n) => "'$g'=$n", array_keys($ratios), $ratios)).')';
            $this->beside('plain Python', $long, ['python3', base_path('deploy/bench_trace.py'), "$folder/run.csv",
                (string) json_encode($ratios)]);
            $script = base_path('deploy/bench_trace.R');
            $this->beside('R', $long, ['Rscript', '--vanilla', $script, "$folder/run.csv", $r]);
        } finally {
            Process::run(['rm', '-r', $folder]);
        }

        return 0;
    }

    /**
     * @param  array<string, mixed>  $family
     * @return list<string> lines of one recorded program, the first the names
     */
    private function onTheRig(array $family, string $folder): array
    {
        $program = $family['testPrograms'][0]['body'];
        $power = $family['body']['power'];
        $travel = array_map(fn (array $c): float => $c['kind'] === 'band' ? 2.4 : 1.4, $power['capacities']);
        $specimen = \Yard\Core\Dyno\SpecimenFile::of(
            'BENCH',
            $family['code'],
            $family['train'],
            $power,
            $family['body']['control'] ?? null,
            $travel,
            $travel,
        );
        file_put_contents("$folder/asked.json", json_encode([
            'specimen' => $specimen,
            'faults' => [],
            'orders' => $program['steps'],
            'end_s' => $program['end'],
            'seed' => 1,
        ]));
        $rig = [PHP_BINARY, ...self::JIT, base_path('rig/rig.php'), '--once', "$folder/asked.json"];

        return explode("\n", trim(Process::timeout(120)->run($rig)->throw()->output()));
    }

    /**
     * The program over and over for so many seconds, written down, read and measured.
     *
     * @param  list<string>  $once
     * @param  array<string, mixed>  $family
     * @param  array<string, float>  $ratios
     * @return array<string, mixed>
     */
    private function ours(string $folder, array $once, array $family, array $ratios, int $seconds): array
    {
        $head = array_shift($once);
        $file = fopen("$folder/run.csv", 'w') ?: throw new \RuntimeException('No disk.');
        fwrite($file, "$head\n");
        $steps = [];
        for ($k = 0; $k < $seconds * self::RATE; $k++) {
            $line = $once[$k % count($once)];
            fwrite($file, $k / self::RATE.substr($line, (int) strpos($line, ','))."\n");
            foreach ($k % count($once) === 0 ? $family['testPrograms'][0]['body']['steps'] : [] as $step) {
                $at = $step['t'] + $k / self::RATE;
                $at < $seconds && $steps[] = ['t' => $at] + $step;
            }
        }
        fclose($file);
        file_put_contents("$folder/steps.json", json_encode($steps));
        $end = (string) ($seconds - 1 / self::RATE);

        return self::quickest([
            PHP_BINARY, ...self::JIT, base_path('tools/Benchmarks/trace.php'), "$folder/run.csv",
            (string) json_encode($ratios), "$folder/steps.json", $end,
        ]) ?? throw new \RuntimeException('The recording was not measured.');
    }

    /**
     * @param  list<string>  $command  prints what it found, and in how many seconds (all), as JSON
     * @return array<string, mixed>|null of the quickest run; null where it is not on this machine
     */
    private static function quickest(array $command): ?array
    {
        $best = null;
        for ($n = 0; $n < self::TIMES; $n++) {
            $run = Process::timeout(300)->run($command);
            if (! $run->successful()) {
                return null;
            }
            $found = json_decode($run->output(), true);
            $best = $best === null || $found['all'] < $best['all'] ? $found : $best;
        }

        return $best;
    }

    /**
     * @param  array<string, mixed>  $ours
     * @param  list<string>  $command
     */
    private function beside(string $name, array $ours, array $command): void
    {
        $theirs = self::quickest($command);
        if ($theirs === null) {
            $this->line("$name is not on this machine.");

            return;
        }
        $same = 0;
        foreach ($theirs['shifts'] as [$from, $to, $at, $takes]) {
            foreach ($ours['shifts'] as [$f, $t, $a, $d]) {
                $same += [$f, $t] === [$from, $to] && abs($a - $at) < self::AGREE_S && abs($d - $takes) < self::AGREE_S;
            }
        }
        $this->line(sprintf(
            'x%.2f of %s (%.2f s); %d of %d shifts alike to %g s',
            $ours['all'] / $theirs['all'],
            $name,
            $theirs['all'],
            $same,
            count($theirs['shifts']),
            self::AGREE_S,
        ));
    }
}
