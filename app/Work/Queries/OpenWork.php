<?php

namespace App\Work\Queries;

use App\Work\OperationSpec;
use App\Work\ProofKind;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;

/** What a gate finds open at a bench: every operation of the job that is not done, and what it lacks. */
final class OpenWork
{
    /** @return list<Blocker> */
    public static function at(BenchWork $work, Gate $gate): array
    {
        return array_merge(...array_map(fn (OperationSpec $o) => self::against($work, $o, $gate), $work->left()));
    }

    /** @return list<Blocker> */
    private static function against(BenchWork $work, OperationSpec $operation, Gate $gate): array
    {
        $bar = fn (string $code, string $sentence) => new Blocker(
            $gate,
            $code,
            $sentence,
            "/units/{$work->unit->core_tag}/{$work->bench->value}",
        );
        $blockers = [];
        foreach ($operation->proofs as $proof) {
            $open = $work->openOf($operation->code)[$proof->code] ?? null;
            if ($open === null || $proof->kind === ProofKind::Done) {
                continue;
            }
            $measured = $proof->kind->mayLapse();
            $code = match (true) {
                $proof->kind === ProofKind::Fit => "fit:$proof->of",
                // Two operations may ask the same question; each is a blocker of its own.
                ! $measured => "{$proof->kind->value}:{$proof->key()}",
                default => "reading:{$proof->reading()->value}:{$proof->place()}",
            };
            $blockers[] = $bar($code, $measured ? $open : "\"$operation->name\": $open");
        }

        return $blockers !== []
            ? $blockers
            : [$bar("step:$operation->code", "Step \"$operation->name\" is not done.")];
    }
}
