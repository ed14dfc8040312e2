<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

/** Parts, work, time and money of a base build with the options chosen. */
final readonly class Bill
{
    /** @var array<string, int> part => count */
    private array $parts;

    /** @var list<array{part: string, because: string}> */
    private array $omitted;

    /** @param  list<CatalogOption>  $options */
    public function __construct(private BaseBuild $base, private array $options)
    {
        $parts = $base->parts;
        foreach ($options as $option) {
            foreach ($option->adds as ['part' => $part, 'count' => $count]) {
                $parts[$part] = ($parts[$part] ?? 0) + $count;
            }
        }
        $omitted = [];
        foreach ($options as $option) {
            foreach (array_filter($option->omits, static fn (string $part): bool => isset($parts[$part])) as $part) {
                $omitted[] = [
                    'part' => $part,
                    'because' => $option->omitWhy !== ''
                            ? $option->omitWhy
                            : "\"$option->name\" takes its place or does not go with it.",
                ];
                unset($parts[$part]);
            }
        }
        $this->parts = $parts;
        $this->omitted = $omitted;
    }

    public function price(): float|int
    {
        return ($this->base->price + array_sum(array_column($this->options, 'price'))) / 100;
    }

    public function hours(): float
    {
        return $this->base->hours + array_sum(array_column($this->options, 'hours'));
    }

    /**
     * @return array{bom: list<array{part: string, count: int}>, omitted: list<array{part: string, because: string}>,
     *     operations: list<string>, checks: list<string>, finalChecks: list<string>, fluid_l: float}
     */
    public function toArray(): array
    {
        return [
            'bom' => array_map(
                static fn (string|int $part, int $count): array => ['part' => (string) $part, 'count' => $count],
                array_keys($this->parts),
                $this->parts,
            ),
            'omitted' => $this->omitted,
            'operations' => array_merge(...array_column($this->options, 'operations')),
            'checks' => array_merge(...array_column($this->options, 'checks')),
            'finalChecks' => array_merge(...array_column($this->options, 'finalChecks')),
            'fluid_l' => $this->base->fluid + array_sum(array_column($this->options, 'fluid')),
        ];
    }
}
