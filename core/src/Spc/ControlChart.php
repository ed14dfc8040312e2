<?php

declare(strict_types=1);

namespace Yard\Core\Spc;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** Means and ranges of subgroups, or single values and their moving ranges, with three-sigma limits. */
final readonly class ControlChart
{
    /**
     * @param  list<float>  $points  means, or values
     * @param  list<float>  $ranges  of the subgroups, or from value to value
     * @param  int  $size  of a subgroup; 1: single values
     */
    private function __construct(public array $points, public array $ranges, public int $size)
    {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        return $in->choice('chart', ['xbar-r', 'individuals']) === 'xbar-r'
            ? self::ofGroups($in->list('subgroups', 2))
            : self::ofValues($in->at('values'));
    }

    /** @param  list<Input>  $groups */
    private static function ofGroups(array $groups): self
    {
        $means = $ranges = [];
        $size = count($groups[0]->asList());
        foreach ($groups as $group) {
            $values = array_map(static fn (Input $v): float => $v->asNumber(), $group->asList());
            if ($size < 2 || $size > Shewhart::LARGEST || count($values) !== $size) {
                throw $group->fail('range', 'Subgroups have the same number of values, 2 to '.Shewhart::LARGEST.'.');
            }
            $means[] = array_sum($values) / $size;
            $ranges[] = max($values) - min($values);
        }

        return new self($means, $ranges, $size);
    }

    private static function ofValues(Input $in): self
    {
        $values = array_map(static fn (Input $v): float => $v->asNumber(), $in->asList());
        if (count($values) < 2) {
            throw $in->fail('range', 'A chart of single values needs two at least.');
        }

        return self::individuals($values);
    }

    /** @param  list<float>  $values  two at least, in the order they came */
    public static function individuals(array $values): self
    {
        $ranges = [];
        foreach (array_slice($values, 1) as $i => $value) {
            $ranges[] = abs($value - $values[$i]);
        }

        return new self($values, $ranges, 1);
    }

    public function constants(): Shewhart
    {
        return Shewhart::of(max(2, $this->size));
    }

    public function centre(): float
    {
        return array_sum($this->points) / count($this->points);
    }

    public function meanRange(): float
    {
        return array_sum($this->ranges) / count($this->ranges);
    }

    /** Of single values, from the ranges. */
    public function sigma(): float
    {
        return $this->meanRange() / $this->constants()->d2;
    }

    /** Of a point of the chart. */
    public function sigmaOfPoint(): float
    {
        return $this->sigma() / sqrt($this->size);
    }

    /** @return list<array{rule: int, index: int}> */
    public function signals(): array
    {
        $sigma = $this->sigmaOfPoint();
        $centre = $this->centre();

        return $sigma === 0.0
            ? []
            : WesternElectric::signals(array_map(
                static fn (float $x): float => ($x - $centre) / $sigma,
                $this->points,
            ));
    }
}
