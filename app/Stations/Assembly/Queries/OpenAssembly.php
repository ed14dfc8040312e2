<?php

namespace App\Stations\Assembly\Queries;

use App\Work\Bench;
use App\Work\OperationSpec;
use App\Work\ProofKind;
use App\Work\Queries\BenchWork;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** What still bars the signature of the builder: every operation of the job that is not done, and what it lacks. */
final class OpenAssembly
{
    /** @return list<Blocker> */
    public function of(Unit $unit, ?BenchWork $work = null): array
    {
        if ($unit->currentBuild === null || $unit->currentBuild->spec === null) {
            return [];
        }
        $work ??= BenchWork::of($unit, Bench::Assembly);

        return array_merge(...array_map(fn (OperationSpec $o) => $this->against($unit, $work, $o), $work->left()));
    }

    /** @return list<Blocker> */
    private function against(Unit $unit, BenchWork $work, OperationSpec $operation): array
    {
        $bar = fn (string $code, string $sentence) => new Blocker(
            Gate::SignOff,
            $code,
            $sentence,
            "/units/$unit->core_tag/assembly",
        );
        $blockers = [];
        foreach ($operation->proofs as $proof) {
            $open = $work->openOf($operation->code)[$proof->code] ?? null;
            if ($open === null || $proof->kind === ProofKind::Done) {
                continue;
            }
            $measured = $proof->kind->mayLapse();
            $code = match (true) {
                $proof->kind === ProofKind::Fit || ! $measured => "{$proof->kind->value}:$proof->of",
                default => "reading:{$proof->reading()->value}:{$proof->place()}",
            };
            $blockers[] = $bar($code, $measured ? $open : "\"$operation->name\": $open");
        }

        return $blockers !== []
            ? $blockers
            : [$bar("step:$operation->code", "Step \"$operation->name\" is not done.")];
    }
}
