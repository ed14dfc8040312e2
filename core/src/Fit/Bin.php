<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/**
 * One bin of selective parts shared out so that most builds land in their windows, as near their targets as can be.
 *
 * @phpstan-import-type Choice from BatchBuild
 *
 * @phpstan-type Pick array{slot: string, part: string, count: int}
 */
final readonly class Bin
{
    /**
     * @param  list<StackUp>  $stacks
     * @param  array<string, int>  $stock
     * @param  array<int, Choice>  $given  build => how its parts are picked
     * @param  array{int, int}  $bound  builds and total deviation that no plan can beat
     */
    private function __construct(
        private array $stacks,
        private array $stock,
        private array $given,
        private int $places,
        public bool $optimal,
        private array $bound,
        private float $effort,
    ) {
    }

    /**
     * @param  list<StackUp>  $stacks  in one unit
     * @param  array<string, int>  $stock  pieces by part
     * @param  float  $effort  share of the usual work
     *
     * @throws BadInput where numbers or choices are too many
     */
    public static function share(array $stacks, array $stock, float $effort): self
    {
        $places = max([1, ...array_map(static fn (StackUp $s): int => $s->places(), $stacks)]);
        $scarce = self::scarce($stacks, $stock);
        $builds = array_map(
            static fn (StackUp $s): BatchBuild => new BatchBuild($s, $stock, $scarce, $places, count($stacks)),
            $stacks,
        );
        $left = [];
        foreach ($scarce as $part => $number) {
            $left[$number] = $stock[$part];
        }
        $plan = new BatchPlan($builds, $left, $effort);
        $given = $plan->assigned();
        $reached = [count($given), (int) array_sum(array_column($given, 'deviation'))];

        return new self(
            $stacks,
            $stock,
            $given,
            $places,
            $plan->isOptimal(),
            $plan->isOptimal() ? $reached : $plan->bound(),
            $effort,
        );
    }

    public function assigned(): int
    {
        return count($this->given);
    }

    public function totalDeviation(): float
    {
        return Decimal::unscale((int) array_sum(array_column($this->given, 'deviation')), $this->places);
    }

    /** @return array{assigned: int, totalDeviation: float} */
    public function bound(): array
    {
        [$assigned, $deviation] = $this->bound;

        return ['assigned' => $assigned, 'totalDeviation' => Decimal::unscale($deviation, $this->places)];
    }

    /**
     * What a build gets; null: it goes without.
     *
     * @return array{clearance: float, deviation: float, picks: list<Pick>}|null
     */
    public function of(int $build): ?array
    {
        $choice = $this->given[$build] ?? null;
        if ($choice === null) {
            return null;
        }
        $picks = [];
        foreach ($choice['picks'] as $key => $count) {
            [$slot, $part] = explode("\n", $key, 2);
            $name = $this->stacks[$build]->slots[(int) $slot]->name;
            $picks[] = ['slot' => $name, 'part' => $part, 'count' => $count];
        }

        return [
            'clearance' => Decimal::unscale($choice['clearance'], $this->places),
            'deviation' => Decimal::unscale($choice['deviation'], $this->places),
            'picks' => $picks,
        ];
    }

    /**
     * What one more piece of a part would bring: builds that land in their windows beyond those that do now.
     *
     * @param  list<string>  $parts  asked for
     * @return array<string, int> only parts that bring something
     *
     * @throws BadInput
     */
    public function oneMore(array $parts): array
    {
        $gains = [];
        foreach ($parts as $part) {
            $more = [$part => ($this->stock[$part] ?? 0) + 1] + $this->stock;
            $gain = self::share($this->stacks, $more, $this->effort)->assigned() - $this->assigned();
            $gain > 0 && $gains[$part] = $gain;
        }

        return $gains;
    }

    /**
     * Parts of which the builds together could want more than there are.
     *
     * @param  list<StackUp>  $stacks
     * @param  array<string, int>  $stock
     * @return array<string, int> part => its number
     */
    private static function scarce(array $stacks, array $stock): array
    {
        $wanted = [];
        foreach ($stacks as $stack) {
            foreach ($stack->slots as $slot) {
                foreach ($slot->options as $option) {
                    $wanted[$option->part] = ($wanted[$option->part] ?? 0) + $slot->pick;
                }
            }
        }
        $short = array_filter(
            $wanted,
            static fn (int $pieces, string|int $part): bool => isset($stock[$part]) && $pieces > $stock[$part],
            ARRAY_FILTER_USE_BOTH,
        );
        $out = [];
        foreach (array_keys($short) as $number => $part) {
            $out[(string) $part] = $number;
        }

        return $out;
    }
}
