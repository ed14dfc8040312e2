<?php

namespace App\Work\Queries;

use App\Shop\Queries\PeopleNames;
use App\Work\Contracts\EarlierWork;
use App\Work\Models\Proof;
use App\Work\Models\WorkedOperation;
use App\Work\OperationSpec;
use App\Work\OperationState;
use App\Work\ProofSpec;
use Yard\Core\Work\Plan;

/** The work at a bench as the route card shows it: each operation with its state, and what the plan says. */
final class BenchShown
{
    public function __construct(private readonly PeopleNames $names, private readonly EarlierWork $earlier)
    {
    }

    /** @return array<string, mixed> */
    public function of(BenchWork $work): array
    {
        $plan = $work->plan();
        $left = $plan->left();
        [$waiting, $barred] = [self::named($plan, $plan->waiting()), self::named($plan, $plan->unreachable())];
        $available = array_flip($work->available());
        $spoken = $this->spoken($work);
        $earlier = $this->earlier->on($work->unit);

        return [
            'family' => $work->unit->family_code ?? $work->unit->knownFamily()->code,
            'operations' => array_values(array_map(
                fn (OperationSpec $o) => $this->shown($o, $work) + [
                    'state' => self::stateOf($o->code, $work, $available),
                    'waitsFor' => $waiting[$o->code] ?? [],
                    'barredBy' => $barred[$o->code] ?? [],
                    'spoken' => $spoken[$o->code] ?? [],
                    'earlier' => self::concerning($o, $earlier),
                ],
                $work->operations,
            )),
            'hoursLeft' => round($left->set->hours, 3),
            'longestPath' => $plan->graph->ids($plan->longestPath($left->set->places)->places),
            'handover' => $this->handover($work),
        ];
    }

    /** @return array<string, list<array<string, mixed>>> recordings by operation */
    private function spoken(BenchWork $work): array
    {
        $spoken = [];
        foreach ($work->recordings() as $recording) {
            $spoken[$recording->operation][] = [
                'id' => $recording->id,
                'by' => $this->names->of($recording->spoken_by),
                'at' => $recording->spoken_at->toIso8601ZuluString(),
            ];
        }

        return $spoken;
    }

    /**
     * @param  array<string, list<string>>  $earlier  by bolts or part
     * @return list<string>
     */
    private static function concerning(OperationSpec $o, array $earlier): array
    {
        $of = [$o->body['fasteners'] ?? '', ...$o->body['removes'] ?? [], ...$o->body['installs'] ?? []];

        return array_merge(...array_values(array_intersect_key($earlier, array_flip($of))), ...[[]]);
    }

    /**
     * @param  array<int, list<int>>  $found
     * @return array<string, list<string>>
     */
    private static function named(Plan $plan, array $found): array
    {
        $shown = [];
        foreach ($found as $n => $others) {
            $shown[$plan->graph->ids([$n])[0]] = $plan->graph->ids($others);
        }

        return $shown;
    }

    /** @param  array<string, int>  $available */
    private static function stateOf(string $code, BenchWork $work, array $available): string
    {
        return match (true) {
            $work->isDone($code) => 'done',
            ($work->rows[$code] ?? null)?->state === OperationState::Jammed => 'jammed',
            isset($available[$code]) => 'open',
            default => 'waits',
        };
    }

    private const UNTOUCHED = [
        'activity' => null,
        'reason' => '',
        'note' => '',
        'worked_s' => 0,
        'by' => null,
        'at' => null,
        'tabletAt' => null,
    ];

    /** @return array<string, mixed> */
    private function done(WorkedOperation $row): array
    {
        return [
            'activity' => $row->state->value,
            'reason' => $row->reason ?? '',
            'note' => $row->note ?? '',
            'worked_s' => $row->worked(now()),
            'by' => $this->names->of($row->done_by),
            'at' => $row->done_at->toIso8601ZuluString(),
            'tabletAt' => $row->tablet_at?->toIso8601ZuluString(),
        ];
    }

    /** @return array<string, mixed> */
    private function shown(OperationSpec $operation, BenchWork $work): array
    {
        $row = $work->rows[$operation->code] ?? null;
        $open = $work->openOf($operation->code);
        $proven = [];
        foreach ($operation->proofs as $proof) {
            $proven[] = $this->proof($proof, $work) + ['open' => $open[$proof->code] ?? null];
        }

        return $operation->shown() + ($row === null ? self::UNTOUCHED : $this->done($row)) + ['proven' => $proven];
    }

    /** @return array<string, mixed> */
    private function proof(ProofSpec $proof, BenchWork $work): array
    {
        $last = $work->last($proof);

        return ['code' => $proof->code, 'answer' => $last?->answer] + $this->taken($last);
    }

    /** @return array<string, mixed> */
    private function taken(?Proof $proof): array
    {
        return [
            'by' => $this->names->of($proof?->taken_by),
            'at' => $proof?->taken_at->toIso8601ZuluString(),
            'note' => $proof->note ?? '',
        ];
    }

    /**
     * What somebody left half done: begun and not finished, with what is proven of it.
     *
     * @return list<array<string, mixed>>
     */
    private function handover(BenchWork $work): array
    {
        $half = $work->rows->filter(
            fn ($row) => in_array($row->state, [OperationState::Running, OperationState::Paused], true) &&
                isset($work->operations[$row->code]),
        );

        return array_values($half->map(function ($row) use ($work): array {
            $operation = $work->operations[$row->code];
            $open = $work->openOf($row->code);

            return [
                'operation' => $row->code,
                'name' => $operation->name,
                'activity' => $row->state->value,
                'by' => $this->names->of($row->done_by),
                'since' => $row->done_at->toIso8601ZuluString(),
                'note' => $row->note,
                'proven' => count($operation->proofs) - count($open),
                'of' => count($operation->proofs),
                'open' => array_values($open),
            ];
        })->all());
    }
}
