<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/**
 * A solver of planetary trains of the tests' own: Willis' equation for each set, one equation for each element that
 * holds, brought to echelon form; torques from the transposed equations. It shares nothing with the core.
 */
final class TrainReference
{
    private const ZERO = 1e-9;

    /** @var list<string> every shaft but the case */
    private array $nodes;

    /** @param  array<string, mixed>  $train  sets and elements as geartrain.solve takes them, without double sets */
    public function __construct(private readonly array $train)
    {
        $named = [$train['input'], $train['output']];
        foreach ($train['sets'] as $set) {
            array_push($named, $set['sun'], $set['ring'], $set['carrier']);
        }
        foreach ($train['elements'] as $element) {
            array_push($named, $element['a'], $element['b']);
        }
        $this->nodes = array_values(array_diff(array_unique($named), ['case']));
    }

    /**
     * @param  list<string>  $held  elements that hold
     * @return array{state: string, ratio: ?float, torque: array<string, float>} |torque| of each held element for an
     *     input torque of 1, of a gear that drives and whose torques are determined
     */
    public function gear(array $held): array
    {
        [$input, $output] = [$this->at($this->train['input']), $this->at($this->train['output'])];
        $rows = $this->equations($held);
        $count = count($this->nodes);
        $drive = array_fill(0, $count + 1, 0.0);
        $drive[$input] = $drive[$count] = 1.0;
        $echelon = self::echelon([...array_map(fn (array $r): array => [...$r, 0.0], $rows), $drive], $count);
        if ($echelon === null) {
            return ['state' => 'locked', 'ratio' => null, 'torque' => []];
        }
        $row = $echelon[$output] ?? null;
        $alone = $row !== null && array_filter(
            $row,
            fn (float $v, int $n): bool => $n !== $output && $n < $count && abs($v) > self::ZERO,
            ARRAY_FILTER_USE_BOTH,
        ) === [];
        if (! $alone) {
            return ['state' => 'neutral', 'ratio' => null, 'torque' => []];
        }

        return abs($row[$count]) < self::ZERO
            ? ['state' => 'held', 'ratio' => null, 'torque' => []]
            : ['state' => 'driven', 'ratio' => 1.0 / $row[$count], 'torque' => $this->torques($rows, $held)];
    }

    /**
     * @param  list<string>  $held
     * @return list<list<float>>
     */
    private function equations(array $held): array
    {
        $rows = [];
        foreach ($this->train['sets'] as $set) {
            $row = array_fill(0, count($this->nodes), 0.0);
            $this->add($row, $set['sun'], $set['sunTeeth']);
            $this->add($row, $set['ring'], $set['ringTeeth']);
            $this->add($row, $set['carrier'], -$set['sunTeeth'] - $set['ringTeeth']);
            $rows[] = $row;
        }
        foreach ($held as $id) {
            $element = array_column($this->train['elements'], null, 'id')[$id];
            $row = array_fill(0, count($this->nodes), 0.0);
            $this->add($row, $element['a'], 1.0);
            $this->add($row, $element['b'], -1.0);
            $rows[] = $row;
        }

        return $rows;
    }

    /**
     * Every shaft in balance: what the equations' reactions put on it, the input's 1 and the load.
     *
     * @param  list<list<float>>  $rows
     * @param  list<string>  $held
     * @return array<string, float>
     */
    private function torques(array $rows, array $held): array
    {
        $unknown = count($rows) + 1; // a reaction for each equation, and the load
        $balance = [];
        foreach ($this->nodes as $n => $name) {
            $line = array_map(fn (array $row): float => $row[$n], $rows);
            $line[] = $name === $this->train['output'] ? 1.0 : 0.0;
            $line[] = $name === $this->train['input'] ? -1.0 : 0.0;
            $balance[] = $line;
        }
        $solved = self::echelon($balance, $unknown) ?? [];
        $torque = [];
        foreach (array_values($held) as $k => $id) {
            $torque[$id] = abs($solved[count($this->train['sets']) + $k][$unknown] ?? 0.0);
        }

        return $torque;
    }

    /** @param  list<float>  $row */
    private function add(array &$row, string $node, float $by): void
    {
        if ($node !== 'case') {
            $row[$this->at($node)] += $by;
        }
    }

    private function at(string $node): int
    {
        return (int) array_search($node, $this->nodes, true);
    }

    /**
     * Reduced rows by their leading column; null where the equations contradict each other.
     *
     * @param  list<list<float>>  $rows  coefficients and, last, the right-hand side
     * @return array<int, list<float>>|null
     */
    private static function echelon(array $rows, int $unknowns): ?array
    {
        $out = [];
        for ($column = 0; $column < $unknowns; $column++) {
            $best = null;
            foreach ($rows as $n => $row) {
                if (abs($row[$column]) > max(self::ZERO, abs($best === null ? 0.0 : $rows[$best][$column]))) {
                    $best = $n;
                }
            }
            if ($best === null) {
                continue;
            }
            $pivot = array_map(fn (float $v): float => $v / $rows[$best][$column], $rows[$best]);
            unset($rows[$best]);
            $clear = fn (array $row): array => array_map(
                fn (float $v, float $p): float => $v - $row[$column] * $p,
                $row,
                $pivot,
            );
            $rows = array_map($clear, $rows);
            $out = array_map($clear, $out);
            $out[$column] = $pivot;
        }
        foreach ($rows as $row) {
            if (abs($row[$unknowns]) > self::ZERO) {
                return null;
            }
        }

        return $out;
    }
}
