<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Spc\Capability;
use Yard\Core\Spc\ControlChart;

/** spc.capability: whether what a process does by itself fits its window, and how many did not. */
final class SpcCapability implements Calculator
{
    public function calculate(Input $in): array
    {
        $limits = array_map(
            static fn (string $field): ?float => $in->has($field) ? $in->number($field) : null,
            ['lower' => 'lower', 'upper' => 'upper'],
        );
        if ($limits['lower'] === null && $limits['upper'] === null) {
            throw $in->fail('missing', 'Give "lower", "upper" or both.');
        }
        if ($limits['lower'] !== null && $limits['upper'] !== null && $limits['lower'] >= $limits['upper']) {
            throw $in->at('upper')->fail('range', 'The upper limit must lie above the lower one.');
        }
        if ($in->choice('chart', ['xbar-r', 'individuals', 'summary']) === 'summary') {
            return self::indices($in->number('mean'), $in->number('sigma', above: 0.0), $limits, ['Cp', 'Cpk']);
        }

        return self::measured($in, $limits);
    }

    /**
     * @param  array{lower: float|null, upper: float|null}  $limits
     * @return array<string, mixed>
     */
    private static function measured(Input $in, array $limits): array
    {
        $chart = ControlChart::read($in);
        $values = $chart->size === 1
            ? $chart->points
            : array_merge(...array_map(
                static fn (Input $g): array => array_map(static fn (Input $v): float => $v->asNumber(), $g->asList()),
                $in->list('subgroups'),
            ));
        $mean = array_sum($values) / count($values);
        $spread = array_sum(array_map(static fn (float $v): float => ($v - $mean) ** 2, $values));
        $overall = sqrt($spread / (count($values) - 1));
        if ($chart->sigma() <= 0.0 || $overall <= 0.0) {
            throw $in->fail('range', 'All values are the same, so there is no spread to compare with.');
        }
        $out = static fn (callable $is): int => count(array_filter($values, $is));

        return self::indices($mean, $chart->sigma(), $limits, ['Cp', 'Cpk']) +
            self::indices($mean, $overall, $limits, ['Pp', 'Ppk']) + [
                'n' => count($values),
                'mean' => $mean,
                'sigma' => $chart->sigma(),
                'overallSigma' => $overall,
                'below' => $limits['lower'] === null ? 0 : $out(static fn (float $v) => $v < $limits['lower']),
                'above' => $limits['upper'] === null ? 0 : $out(static fn (float $v) => $v > $limits['upper']),
            ];
    }

    /**
     * @param  array{lower: float|null, upper: float|null}  $limits
     * @param  array{string, string}  $names
     * @return array<string, float>
     */
    private static function indices(float $mean, float $sigma, array $limits, array $names): array
    {
        $fit = new Capability($mean, $sigma, $limits['lower'], $limits['upper']);
        $width = $fit->potential();

        return ($width === null ? [] : [$names[0] => $width]) + [$names[1] => $fit->actual()];
    }
}
