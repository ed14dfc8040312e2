<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/**
 * How often what is seen goes with what is wrong: the house table of core/data/diagnosis.json, whose source stands in
 * it.
 *
 * @phpstan-type Shares array<string, array<string, float>>
 * @phpstan-type Rows array{source: string, gear: Shares, shift: Shares, pressure: Shares, lockup: Shares, code: Shares,
 *     prior: array<string, float>, reliability: array<string, float>}
 */
final readonly class LikelihoodTable
{
    /**
     * @param  Rows  $rows
     */
    private function __construct(public array $rows)
    {
    }

    public static function house(): self
    {
        $text = (string) file_get_contents(dirname(__DIR__, 2).'/data/diagnosis.json');
        /**
         * @var Rows $rows
         */
        $rows = json_decode($text, true, 16, JSON_THROW_ON_ERROR);

        return new self($rows);
    }

    /** @return list<string> what a trouble code can mean */
    public function codeMeanings(): array
    {
        return array_keys($this->rows['code']);
    }

    /** @return array<string, float> state seen => share */
    public function likelihoods(string $kind, string $row): array
    {
        return match ($kind) {
            'gear' => $this->rows['gear'][$row],
            'shift' => $this->rows['shift'][$row],
            'lockup' => $this->rows['lockup'][$row],
            default => $this->rows['pressure'][$row],
        };
    }

    /** How often a code of this meaning is stored. */
    public function stored(string $means, string $row): float
    {
        return $this->rows['code'][$means][$row];
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
