<?php

declare(strict_types=1);

namespace Yard\Core\Maths;

/**
 * A small dense linear system, possibly over- or underdetermined, reduced once by Gauss-Jordan elimination with full
 * pivoting. Rows should be scaled to about 1: the rank is judged against TOLERANCE.
 */
final class LinearSystem
{
    public const TOLERANCE = 1e-9;

    /** @var array<int, non-empty-array<int, float>> pivot column => reduced row, right-hand side last */
    private array $pivotRows = [];

    public readonly bool $consistent;

    /** @param  list<non-empty-array<int, float>>  $rows coefficients of the unknowns, right-hand side last */
    public function __construct(private readonly int $unknowns, array $rows)
    {
        while ($rows !== []) {
            [$best, $bestRow, $bestColumn] = [self::TOLERANCE, -1, -1];
            foreach ($rows as $r => $row) {
                for ($c = 0; $c < $unknowns; $c++) {
                    $size = abs($row[$c]);
                    if ($size > $best) {
                        [$best, $bestRow, $bestColumn] = [$size, $r, $c];
                    }
                }
            }
            if ($bestRow < 0) {
                break;
            }
            $pivot = $rows[$bestRow][$bestColumn];
            $pivotRow = array_map(static fn (float $x): float => $x / $pivot, $rows[$bestRow]);
            $pivotRow[$bestColumn] = 1.0;
            unset($rows[$bestRow]);
            foreach ($rows as $r => $row) {
                $rows[$r] = self::eliminate($row, $pivotRow, $bestColumn);
            }
            foreach ($this->pivotRows as $c => $row) {
                $this->pivotRows[$c] = self::eliminate($row, $pivotRow, $bestColumn);
            }
            $this->pivotRows[$bestColumn] = $pivotRow;
        }
        $left = array_map(static fn (array $row): float => abs($row[$unknowns]), $rows);
        $this->consistent = $left === [] || max($left) <= self::TOLERANCE;
    }

    /**
     * The value of a linear function of the unknowns, or null when the system does not determine it.
     *
     * @param  array<int, float>  $function  unknown => coefficient
     */
    public function value(array $function): ?float
    {
        if (! $this->consistent) {
            return null;
        }
        $rest = array_fill(0, $this->unknowns, 0.0);
        foreach ($function as $c => $coefficient) {
            $rest[$c] += $coefficient;
        }
        $value = 0.0;
        foreach ($this->pivotRows as $c => $row) {
            $factor = $function[$c] ?? 0.0;
            if ($factor !== 0.0) {
                $value += $factor * $row[$this->unknowns];
                for ($i = 0; $i < $this->unknowns; $i++) {
                    $rest[$i] -= $factor * $row[$i];
                }
            }
        }
        foreach ($rest as $coefficient) {
            if (abs($coefficient) > self::TOLERANCE) {
                return null;
            }
        }

        return abs($value) < 1e-13 ? 0.0 : $value;
    }

    /**
     * @param  non-empty-array<int, float>  $row
     * @param  non-empty-array<int, float>  $pivotRow
     * @return non-empty-array<int, float>
     */
    private static function eliminate(array $row, array $pivotRow, int $column): array
    {
        $factor = $row[$column];
        if ($factor !== 0.0) {
            foreach ($pivotRow as $i => $x) {
                $row[$i] -= $factor * $x;
            }
            $row[$column] = 0.0;
        }

        return $row;
    }
}
