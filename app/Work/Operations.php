<?php

namespace App\Work;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Read\OperationsOfOld;
use App\Yard\Models\Unit;

/** The operations of a unit at a bench: those of its family, as far as they belong to its job. */
final class Operations
{
    /** @return array<string, OperationSpec> by code; assembly uses those frozen with the release */
    public static function of(Unit $unit, Bench $bench): array
    {
        $frozen = $unit->currentBuild->spec ?? [];
        [$bodies, $scopes] = match ($bench) {
            Bench::Teardown => [self::ofFamily($unit), $unit->jobType->scopes],
            Bench::Assembly => [OperationsOfOld::frozen($frozen), $frozen['scopes'] ?? []],
        };

        return self::ofJob(array_map(OperationSpec::read(...), $bodies), $scopes);
    }

    /**
     * @param  list<OperationSpec>  $operations
     * @param  list<string>  $scopes  what the job takes on; none: everything
     * @return array<string, OperationSpec>
     */
    private static function ofJob(array $operations, array $scopes): array
    {
        $all = array_combine(array_map(fn (OperationSpec $o) => $o->code, $operations), $operations);
        $in = array_filter(
            $all,
            fn (OperationSpec $o): bool => $scopes === [] || in_array($o->body['scope'] ?? 'inside', $scopes, true),
        );

        return array_map(fn (OperationSpec $o) => $o->within($all, $in), $in);
    }

    /** @return list<array<string, mixed>> */
    private static function ofFamily(Unit $unit): array
    {
        return array_values(
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', Bench::Teardown->list())
                ->orderBy('position')
                ->get()
                ->map(fn (FamilySpec $s) => ['code' => $s->code, 'name' => $s->name] + $s->body)
                ->all(),
        );
    }
}
