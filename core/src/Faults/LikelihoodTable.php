<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/**
 * How often what is seen goes with what is wrong: the house table of core/data/diagnosis.json, whose source stands in
 * it.
 *
 * @phpstan-type Shares array<string, array<string, float>>
 * @phpstan-type Rows array{source: string, code: Shares, prior: array<string, float>,
 *     reliability: array<string, float>, gear: Shares, shift: Shares}
 */
final readonly class LikelihoodTable
{
    /**
     * @param  Rows  $rows  the file as it is
     * @param  array<string, Shares>  $seen  kind of look => row => state => share
     */
    private function __construct(public array $rows, private array $seen)
    {
    }

    public static function house(): self
    {
        $text = (string) file_get_contents(dirname(__DIR__, 2).'/data/diagnosis.json');
        /**
         * @var Rows $rows
         */
        $rows = json_decode($text, true, 16, JSON_THROW_ON_ERROR);

        /** @var array<string, Shares> $seen */
        $seen = array_diff_key($rows, array_flip(['source', 'code', 'prior', 'reliability']));

        return new self($rows, $seen);
    }

    /** @return list<string> what a trouble code can mean */
    public function codeMeanings(): array
    {
        return array_keys($this->rows['code']);
    }

    /** @return array<string, float> state seen => share */
    public function likelihoods(string $kind, string $row): array
    {
        $rows = $this->seen[$kind];

        return $rows[$row] ?? $rows[self::nothing($kind)];
    }

    /** How often a code of this meaning is stored. */
    public function stored(string $means, string $row): float
    {
        return $this->rows['code'][$means][$row] ?? $this->rows['code'][$means]['idle'];
    }

    /** The row of what has nothing to do with it: every fault that has no row of its own. */
    private static function nothing(string $kind): string
    {
        return in_array($kind, ['gear', 'shift'], true) ? 'idle' : 'other';
    }

    public function prior(string $hypothesis): float
    {
        return $this->rows['prior'][$hypothesis];
    }

    public function reliability(string $kind): float
    {
        return $this->rows['reliability'][$kind];
    }
}
