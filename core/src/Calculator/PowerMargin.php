<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\Converter;
use Yard\Core\Power\HardwareChange;
use Yard\Core\Power\MarginReport;
use Yard\Core\Power\TrainDuty;

/** power.margin: what each element holds against what its duty asks, and what single changes would allow. */
final class PowerMargin implements Calculator
{
    public function calculate(Input $in): array
    {
        $plan = TrainDuty::read($in);
        $out = (new MarginReport($plan, $plan->hardware))->toArray();

        return $in->has('changes') ? $out + ['changes' => self::changes($in->list('changes'), $plan)] : $out;
    }

    /**
     * @param  list<Input>  $changes
     * @return list<array<string, mixed>> each single change with the input torque it allows, best first
     */
    private static function changes(array $changes, TrainDuty $plan): array
    {
        $before = $plan->evaluate($plan->hardware)->largest() ?? 0.0;
        $out = [];
        foreach ($changes as $change) {
            $converter = $change->optional('converter');
            $duty = $plan->evaluate(
                $plan->hardware->with(
                    HardwareChange::read(
                        $change,
                        $plan->chart->train,
                        $converter === null ? null : Converter::read($converter),
                    ),
                ),
            );
            $largest = $duty->largest();
            $weakest = $duty->weakest();
            $out[] = ['name' => $change->name('name'), 'holds' => $duty->holds()] +
                ($largest === null ? [] : ['largestInputTorque_nm' => $largest, 'gain_nm' => $largest - $before]) +
                ($weakest === null ? [] : ['weakest' => $weakest]);
        }
        usort(
            $out,
            static fn (array $a, array $b): int => ($b['largestInputTorque_nm'] ?? INF) <=>
                ($a['largestInputTorque_nm'] ?? INF),
        );

        return $out;
    }
}
