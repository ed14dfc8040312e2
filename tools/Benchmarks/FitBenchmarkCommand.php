<?php

namespace Tools\Benchmarks;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\Process;
use Yard\Core\Calculator\Calculators;

/** Packs fitted from the shelf, one by one and twelve out of one bin, against a mixed-integer program in a process. */
final class FitBenchmarkCommand extends Command
{
    private const BUILDS = 12;

    private const PACKS = 4;

    private const WINDOW = 0.05;

    /** Seconds after which the reference stops with the best it has. */
    private const PATIENCE = 20;

    /** What no answer may take at the usual effort, in ms. */
    private const MOST_MS = 2000.0;

    protected $signature = 'bench:fit';

    protected $description = 'fit.stack and fit.batch beside glpsol on the same data: optimum and time';

    private bool $ok = true;

    public function handle(): int
    {
        mt_srand(77);
        $rows = [];
        foreach (['one brand' => 1, 'two brands' => 2] as $what => $brands) {
            $packs = array_map(fn (int $n): array => self::pack($brands, $n), range(1, self::PACKS));
            $rows[] = $this->stacks(sprintf('fit.stack, %s, %d packs', $what, self::PACKS), $packs);
        }
        $stock = [];
        $builds = array_map(fn (int $n): array => self::pack(1, $n), range(1, self::BUILDS));
        foreach ($builds[0]['slots'] as $slot) {
            foreach ($slot['options'] as $option) {
                $stock[$option['part']] = mt_rand(6, 18);
            }
        }
        $rows[] = $this->batch(['builds' => $builds, 'stock' => $stock]);
        $this->table(['What', 'Ours, ms', 'glpsol, ms', 'Ratio', 'Optimum'], $rows);

        return $this->ok ? 0 : 1;
    }

    /** @return array<string, mixed> 5 frictions, 6 steels, a ring; each of four thicknesses a brand */
    private static function pack(int $brands, int $n): array
    {
        $options = function (string $name, float $from, float $step) use ($brands): array {
            $out = [];
            for ($b = 0; $b < $brands; $b++) {
                for ($k = 0; $k < 4; $k++) {
                    $thickness = round($from + $k * $step + $b * 0.013, 3);
                    $out[] = ['part' => "$name-$b-$k", 'thickness' => $thickness, 'cost' => 2 + $k];
                }
            }

            return $out;
        };

        return [
            'unit' => 'mm',
            'depth' => 24.3113 + 0.0371 * ($n % 7) - 0.0217 * ($n % 5),
            'slots' => [
                ['name' => 'plates', 'pick' => 5, 'options' => $options('F', 1.6, 0.11)],
                ['name' => 'steels', 'pick' => 6, 'options' => $options('S', 1.8, 0.17)],
                ['name' => 'ring', 'pick' => 1, 'options' => $options('R', 1.5, 0.29)],
            ],
            'window' => ['min' => 1.0 - self::WINDOW, 'max' => 1.0 + self::WINDOW],
            'target' => 1.0,
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $packs
     * @return list<string>
     */
    private function stacks(string $what, array $packs): array
    {
        $ours = $theirs = $sum = 0.0;
        $same = true;
        foreach ($packs as $pack) {
            [$answer, $took] = self::timed(fn (): array => Calculators::call('fit.stack', $pack));
            [$least, $reference] = self::solve(self::program([$pack], [], 1));
            $ours += $took;
            $theirs += $reference;
            $sum += (float) $answer['best']['deviation'];
            // Where the reference ran out of time its best is no better than ours.
            $off = (float) $answer['best']['deviation'] - $least;
            $same = $same && ($off < 1e-6 && (abs($off) < 1e-6 || self::ranOut($reference)));
        }

        return $this->row($what, $ours, $theirs, $same, sprintf('%.4f mm in all', $sum));
    }

    /**
     * @param  array{builds: list<array<string, mixed>>, stock: array<string, int>}  $in
     * @return list<string>
     */
    private function batch(array $in): array
    {
        [$answer, $ours] = self::timed(fn (): array => Calculators::call('fit.batch', $in));
        [$most, $first] = self::solve(self::program($in['builds'], $in['stock'], null));
        $assigned = (int) round($most);
        [$least, $second] = self::solve(self::program($in['builds'], $in['stock'], $assigned));
        $same = $answer['assigned'] === $assigned && abs($answer['totalDeviation'] - $least) < 1e-5;
        $told = sprintf('%d builds, %.4f mm', $answer['assigned'], $answer['totalDeviation']);

        return $this->row(
            sprintf('fit.batch, %d builds%s', self::BUILDS, $answer['optimal'] ? '' : ', stopped with a bound'),
            $ours,
            $first + $second,
            $same || self::ranOut($first) || self::ranOut($second),
            $told,
        );
    }

    /** @return list<string> */
    private function row(string $what, float $ours, float $theirs, bool $same, string $told): array
    {
        $this->ok = $this->ok && $same && $ours < $theirs && $ours < self::MOST_MS;
        $ratio = sprintf('%.2f', $ours / $theirs);

        $told .= $same ? ', the same' : ', NOT the same';

        return [$what, sprintf('%.0f', $ours), sprintf('%.0f', $theirs), $ratio, $told];
    }

    private static function ranOut(float $ms): bool
    {
        return $ms >= self::PATIENCE * 1000.0;
    }

    /**
     * @param  callable(): array<string, mixed>  $work
     * @return array{array<string, mixed>, float} what it gave, and its ms
     */
    private static function timed(callable $work): array
    {
        $start = hrtime(true);
        $answer = $work();

        return [json_decode((string) json_encode($answer), true), (hrtime(true) - $start) / 1e6];
    }

    /**
     * Whole pieces n, a build in or out y, its deviation d: the most builds, or with so many the least deviation.
     *
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, int>  $stock
     * @return string in the CPLEX LP format
     */
    private static function program(array $builds, array $stock, ?int $assigned): string
    {
        $rows = $use = $whole = [];
        foreach ($builds as $b => $build) {
            $stack = '';
            foreach ($build['slots'] as $s => $slot) {
                $pieces = [];
                foreach ($slot['options'] as $o => $option) {
                    $whole[] = $pieces[] = "n{$b}_{$s}_$o";
                    $use[$option['part']][] = "n{$b}_{$s}_$o";
                    $stack .= " + {$option['thickness']} n{$b}_{$s}_$o";
                }
                $rows[] = implode(' + ', $pieces)." - {$slot['pick']} y$b = 0";
            }
            $aim = $build['depth'] - $build['target'];
            [$low, $high] = [$aim - self::WINDOW, $aim + self::WINDOW];
            array_push($rows, "$stack - $low y$b >= -1e-7", "$stack - $high y$b <= 1e-7");
            array_push($rows, "$stack - $aim y$b - d$b <= 0", "$stack - $aim y$b + d$b >= 0");
        }
        foreach ($stock as $part => $pieces) {
            $rows[] = implode(' + ', $use[$part]).' <= '.$pieces;
        }
        $all = fn (string $letter): array => array_map(fn (int $b): string => "$letter$b", array_keys($builds));
        if ($assigned !== null) {
            $rows[] = implode(' + ', $all('y'))." = $assigned";
        }
        $goal = ($assigned === null ? "Maximize\n g: " : "Minimize\n g: ").
            implode(' + ', $all($assigned === null ? 'y' : 'd'));

        return "$goal\nSubject To\n ".implode("\n ", $rows)."\nGeneral\n ".implode("\n ", $whole).
            "\nBinary\n ".implode(' ', $all('y'))."\nEnd\n";
    }

    /** @return array{float, float} the optimum, or the best within the patience, and the ms of the process */
    private static function solve(string $program): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'lp');
        file_put_contents($file, $program);
        $start = hrtime(true);
        Process::timeout(2 * self::PATIENCE)
            ->run(['glpsol', '--lp', $file, '-o', "$file.out", '--tmlim', (string) self::PATIENCE]);
        $taken = (hrtime(true) - $start) / 1e6;
        preg_match('/Objective:\s+g = (\S+)/', (string) file_get_contents("$file.out"), $m);
        array_map(unlink(...), [$file, "$file.out"]);

        return [(float) ($m[1] ?? NAN), $taken];
    }
}
