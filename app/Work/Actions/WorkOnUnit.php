<?php

namespace App\Work\Actions;

use App\Kernel\Refusal;
use App\Work\Bench;
use App\Work\OperationSpec;
use App\Work\Queries\BenchWork;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;

/** The work a person may touch now: the unit stands at this bench, nothing holds it, and the operation is one of it. */
final class WorkOnUnit
{
    public function __construct(private readonly Gatekeeper $gate)
    {
    }

    public function at(Unit $unit, Bench $bench): BenchWork
    {
        Gatekeeper::at($unit, ...$bench->stations());
        Gatekeeper::noHold($unit);
        $work = BenchWork::of($unit, $bench);
        $bench === Bench::Teardown && $work->generation === 1 && $this->gate->pass($unit, Gate::FirstTool);

        return $work;
    }

    public static function operation(BenchWork $work, string $code): OperationSpec
    {
        return $work->operations[$code] ??
            throw new Refusal("There is no operation \"$code\" in this {$work->bench->value}.", 404);
    }

    /** @throws Refusal with what it waits for, or with what jams */
    public static function assertDue(BenchWork $work, OperationSpec $operation): void
    {
        $plan = $work->plan();
        $at = $plan->graph->place($operation->code, '/operation');
        if ($work->isDone($operation->code) || in_array($at, $plan->available(), true)) {
            return;
        }
        $row = $work->rows[$operation->code] ?? null;
        $names = fn (array $places): string => implode(', ', array_map(
            fn (string $code) => "\"{$work->operations[$code]->name}\"",
            $plan->graph->ids($places),
        ));
        $waits = $plan->waiting()[$at] ?? [];
        throw new Refusal(
            $waits === [] && $row !== null
                ? "\"$operation->name\" jams: $row->reason Say that it came free first."
                : "\"$operation->name\" comes after {$names($waits)}, not done yet.",
            409,
        );
    }
}
