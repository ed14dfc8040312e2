<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\BadInput;
use Yard\Core\Maths\LinearSystem;
use Yard\Core\Maths\Special;

/**
 * Whether groups fail alike: failures observed against those expected if they did, with the hypergeometric variance
 * (Mantel, Cancer Chemotherapy Reports 50, 1966; Peto & Peto 1972).
 */
final readonly class LogRank
{
    /**
     * @param  array<string, array{observed: int, expected: float}>  $groups
     */
    private function __construct(public float $chiSquare, public int $degrees, public array $groups)
    {
    }

    /**
     * @param  array<string, Lives>  $lives  by group
     *
     * @throws BadInput where fewer than two groups ever stood at risk of a failure
     */
    public static function of(array $lives): self
    {
        $names = array_map(strval(...), array_keys($lives));
        $lives = array_values($lives);
        $observed = array_map(static fn (Lives $l): int => $l->failures(), $lives);
        $expected = array_fill(0, count($lives), 0.0);
        $variance = array_fill(0, count($lives), array_fill(0, count($lives), 0.0));
        foreach (self::times($lives) as ['at' => $at, 'failed' => $d]) {
            $n = array_sum($at);
            foreach ($at as $i => $risk) {
                $expected[$i] += ($d * $risk) / $n;
                foreach ($n > 1 ? $at : [] as $j => $other) {
                    $same = $i === $j ? $n : 0;
                    $variance[$i][$j] += ($d * ($n - $d) * $risk * ($same - $other)) / ($n * $n * ($n - 1));
                }
            }
        }
        $standing = array_keys(array_filter($expected, static fn (float $e): bool => $e > 0.0));
        if (count($standing) < 2) {
            throw new BadInput('one-group', 'Fewer than two groups stood at risk when something failed.', '/groups');
        }
        $difference = array_map(static fn (int $o, float $e): float => $o - $e, $observed, $expected);
        $groups = array_map(
            static fn (int $o, float $e): array => ['observed' => $o, 'expected' => $e],
            $observed,
            $expected,
        );

        return new self(
            self::quadratic($difference, $variance, array_slice($standing, 1)),
            count($standing) - 1,
            array_combine($names, $groups),
        );
    }

    public function p(): float
    {
        return $this->chiSquare <= 0.0 ? 1.0 : Special::gammaQ($this->degrees / 2.0, $this->chiSquare / 2.0);
    }

    /**
     * @param  list<Lives>  $lives
     * @return list<array{at: list<int>, failed: int}> who stands at risk in each group at each failure
     */
    private static function times(array $lives): array
    {
        $times = $sorted = [];
        foreach ($lives as $g => $one) {
            foreach ($one->table() as ['time' => $time, 'events' => $events]) {
                $key = (string) $time;
                $times[$key] = ['time' => $time, 'failed' => ($times[$key]['failed'] ?? 0) + $events];
            }
            $sorted[$g] = $one->times;
            sort($sorted[$g]);
        }
        usort($times, static fn (array $a, array $b): int => $a['time'] <=> $b['time']);
        $gone = array_fill(0, count($lives), 0);
        $out = [];
        foreach ($times as ['time' => $time, 'failed' => $failed]) {
            $at = [];
            foreach ($sorted as $g => $of) {
                while ($gone[$g] < count($of) && $of[$gone[$g]] < $time) {
                    $gone[$g]++;
                }
                $at[] = count($of) - $gone[$g];
            }
            $out[] = ['at' => $at, 'failed' => $failed];
        }

        return $out;
    }

    /**
     * d' V^-1 d over the groups given; their rows are scaled, so that the rank is judged alike for few and many units.
     *
     * @param  list<float>  $difference
     * @param  array<int, array<int, float>>  $variance
     * @param  list<int>  $groups
     */
    private static function quadratic(array $difference, array $variance, array $groups): float
    {
        $rows = [];
        foreach ($groups as $i) {
            $scale = sqrt(max($variance[$i][$i], 1e-300));
            $row = array_map(
                static fn (int $j): float => $variance[$i][$j] / $scale / sqrt(max($variance[$j][$j], 1e-300)),
                $groups,
            );
            $rows[] = [...$row, $difference[$i] / $scale];
        }
        $system = new LinearSystem(count($groups), $rows);
        $out = 0.0;
        foreach ($groups as $k => $i) {
            $out += (($system->value([$k => 1.0]) ?? 0.0) * $difference[$i]) / sqrt(max($variance[$i][$i], 1e-300));
        }

        return $out;
    }
}
