<?php

namespace App\Work\Queries;

use App\Kernel\Refusal;
use App\Work\Bench;
use App\Yard\Models\Unit;
use Yard\Core\BadInput;

/** The least work that leads to a part: its operations in order, hours, what is renewed on the way, and where. */
final class ReachPlan
{
    /** @return array<string, mixed> */
    public function of(Unit $unit, Bench $bench, string $part): array
    {
        $work = BenchWork::of($unit, $bench);
        $plan = $work->plan();
        try {
            $reach = $plan->reach($part);
        } catch (BadInput) {
            throw Refusal::at('/part', "No operation of this $bench->value takes off a part \"$part\".");
        }
        $steps = fn (array $places): array => array_map(
            fn (string $code): array => [
                'code' => $code,
                'name' => $work->operations[$code]->name,
                'hours' => (float) ($work->operations[$code]->body['hours'] ?? 0),
                'parts' => $work->operations[$code]->body['parts'] ?? [],
            ],
            $plan->graph->ids($places),
        );

        return [
            'part' => $part,
            'possible' => $reach->possible,
            'operations' => $steps($reach->places),
            'hours' => round($reach->hours, 3),
            'inVehicle' => $reach->inVehicle,
            'renews' => $reach->renews,
            'because' => $steps($reach->because),
            'optimal' => $reach->optimal,
            'bound' => round($reach->bound, 3),
        ];
    }
}
