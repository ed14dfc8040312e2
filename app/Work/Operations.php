<?php

namespace App\Work;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Vocabulary;
use App\Catalog\Read\OperationsOfOld;
use App\Work\Contracts\Circumstances;
use App\Work\Contracts\ObservationJudge;
use App\Yard\Models\Unit;

/** The operations of a unit at a bench: those of its family or of the shop, as far as they belong to its job. */
final class Operations
{
    /** @return array<string, OperationSpec> by code; assembly uses those frozen with the release */
    public static function of(Unit $unit, Bench $bench): array
    {
        $frozen = $unit->currentBuild->spec ?? [];
        [$bodies, $scopes] = match ($bench) {
            Bench::Teardown => [self::ofFamily($unit), $unit->jobType->scopes],
            Bench::Assembly => [OperationsOfOld::frozen($frozen), $frozen['scopes'] ?? []],
            Bench::Dispatch => [self::withLastChecks(self::ofShop($unit, $bench), $frozen), $frozen['scopes'] ?? []],
            Bench::Returns => [self::withQuestions(self::ofShop($unit, $bench)), []],
        };
        $default = $bench->isOfFamily() ? 'inside' : null;

        return self::ofJob(array_map(OperationSpec::read(...), $bodies), $scopes, $default);
    }

    /**
     * @param  list<OperationSpec>  $operations
     * @param  list<string>  $scopes  what the job takes on; none: everything
     * @param  string|null  $default  the scope of what names none; null: it belongs to every job
     * @return array<string, OperationSpec>
     */
    private static function ofJob(array $operations, array $scopes, ?string $default): array
    {
        $all = array_combine(array_map(fn (OperationSpec $o) => $o->code, $operations), $operations);
        $in = array_filter(
            $all,
            function (OperationSpec $o) use ($scopes, $default): bool {
                $scope = $o->body['scope'] ?? $default;

                return $scopes === [] || $scope === null || in_array($scope, $scopes, true);
            },
        );

        return array_map(fn (OperationSpec $o) => $o->within($all, $in), $in);
    }

    /** @return list<array<string, mixed>> */
    private static function ofFamily(Unit $unit): array
    {
        return self::here($unit, FamilySpec::bodies((int) $unit->family_id, Bench::Teardown->list()));
    }

    /**
     * @param  list<array<string, mixed>>  $bodies
     * @return list<array<string, mixed>> without what only some units need, where this is none of them
     */
    private static function here(Unit $unit, array $bodies): array
    {
        if (array_column($bodies, 'onlyIf') === []) {
            return $bodies;
        }
        $here = app(Circumstances::class)->of($unit);

        return array_values(array_filter(
            $bodies,
            fn (array $o): bool => ! isset($o['onlyIf']) || in_array($o['onlyIf'], $here, true),
        ));
    }

    /** @return list<array<string, mixed>> */
    private static function ofShop(Unit $unit, Bench $bench): array
    {
        $list = Vocabulary::query()->where('code', $bench->list())->first();

        return $list === null
            ? []
            : self::here($unit, array_values((array) json_decode((string) json_encode($list->body->operations), true)));
    }

    /**
     * What the order asks to check before the unit leaves comes before the last operation.
     *
     * @param  list<array<string, mixed>>  $operations
     * @param  array<string, mixed>  $frozen
     * @return list<array<string, mixed>>
     */
    private static function withLastChecks(array $operations, array $frozen): array
    {
        $texts = array_values(array_unique(array_column(
            array_filter($frozen['work'] ?? [], fn (array $w): bool => $w['kind'] === 'final'),
            'text',
        )));
        $checks = [];
        foreach ($texts as $n => $text) {
            $checks[] = ['code' => 'order-check-'.($n + 1), 'name' => $text, 'because' => 'Asked by the order.'];
        }
        $last = array_pop($operations);
        if ($last !== null) {
            $last['after'] = [...$last['after'] ?? [], ...array_column($checks, 'code')];
        }

        return [...$operations, ...$checks, ...($last === null ? [] : [$last])];
    }

    /**
     * What may be answered is said by the station that weighs the answers.
     *
     * @param  list<array<string, mixed>>  $operations
     * @return list<array<string, mixed>>
     */
    private static function withQuestions(array $operations): array
    {
        $questions = app(ObservationJudge::class)->questions();
        foreach ($operations as $i => $operation) {
            foreach ($operation['proofs'] ?? [] as $n => $proof) {
                if ($proof['kind'] === ProofKind::Observation->value) {
                    $operations[$i]['proofs'][$n] = $proof + ($questions[$proof['of']] ?? []);
                }
            }
        }

        return $operations;
    }
}
