<?php

namespace App\Work\Queries;

use App\Work\Bench;
use App\Work\Generation;
use App\Work\Models\Proof;
use App\Work\Models\Recording;
use App\Work\Models\WorkedOperation;
use App\Work\Operations;
use App\Work\OperationSpec;
use App\Work\OperationState;
use App\Work\ProofSpec;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;
use Yard\Core\Work\Graph;
use Yard\Core\Work\Plan;

/** The work on one unit at one bench: its operations, what was done and proven of them, and what may be done now. */
final class BenchWork
{
    /** Share of two seconds that the search for the least work left may take on a screen. */
    private const EFFORT = 0.1;

    /** @var array<string, array<string, string>>|null */
    private ?array $open = null;

    private ?Plan $plan = null;

    /**
     * @param  array<string, OperationSpec>  $operations  by code
     * @param  Collection<string, WorkedOperation>  $rows  by code
     * @param  Collection<string, Proof>  $proofs  the last one that counts, by "operation/proof"
     */
    private function __construct(
        public readonly Unit $unit,
        public readonly Bench $bench,
        public readonly int $generation,
        public readonly array $operations,
        public readonly Collection $rows,
        public readonly Collection $proofs,
    ) {
    }

    public static function of(Unit $unit, Bench $bench): self
    {
        return self::read($unit, $bench, Operations::of($unit, $bench));
    }

    /** The same work as it stands after something was written; its operations are the same. */
    public function again(): self
    {
        return self::read($this->unit, $this->bench, $this->operations);
    }

    /** @param  array<string, OperationSpec>  $operations  by code */
    private static function read(Unit $unit, Bench $bench, array $operations): self
    {
        $generation = Generation::of($unit, $bench->value);
        $of = ['unit_id' => $unit->id, 'generation' => $generation, 'bench' => $bench->value];

        return new self(
            $unit,
            $bench,
            $generation,
            $operations,
            WorkedOperation::query()->where($of)->get()->keyBy('code'),
            Proof::query()
                ->where($of)
                ->whereNull('undone_at')
                ->orderBy('id')
                ->get()
                ->keyBy(fn (Proof $p) => "$p->operation/$p->proof"),
        );
    }

    public function build(): ?Build
    {
        return $this->unit->currentBuild;
    }

    /** What is kept of an operation; a new row where nobody has touched it yet. */
    public function row(string $code): WorkedOperation
    {
        return $this->rows[$code] ?? new WorkedOperation([
            'unit_id' => $this->unit->id,
            'generation' => $this->generation,
            'bench' => $this->bench->value,
            'code' => $code,
            'state' => OperationState::Open,
        ]);
    }

    public function isDone(string $code): bool
    {
        return ($this->rows[$code] ?? null)?->state === OperationState::Done && $this->openOf($code) === [];
    }

    /** @return list<string> */
    public function done(): array
    {
        return array_values(array_filter(array_keys($this->operations), $this->isDone(...)));
    }

    /** @return array<string, string> sentence by code of the proof that is missing */
    public function openOf(string $code): array
    {
        return ($this->open ??= $this->judged($this->operations))[$code] ?? [];
    }

    /** @return array<string, string> the same of an operation by itself: no other is judged for it */
    public function openNow(string $code): array
    {
        return $this->judged([$this->operations[$code]])[$code] ?? [];
    }

    public function plan(): Plan
    {
        if ($this->plan !== null) {
            return $this->plan;
        }
        $graph = new Graph(array_values(array_map(fn (OperationSpec $o) => $o->forPlan(), $this->operations)));
        $jammed = $this->rows->where('state', OperationState::Jammed)->keys()->all();

        return $this->plan = Plan::of(
            $graph,
            $graph->placesOf($this->done(), '/done'),
            $graph->placesOf(array_values(array_intersect($jammed, array_keys($this->operations))), '/jammed'),
            self::EFFORT,
        );
    }

    /** @return list<string> what may be done now */
    public function available(): array
    {
        return $this->plan()->graph->ids($this->plan()->available());
    }

    /** @return list<OperationSpec> what the job needs and nobody has done */
    public function left(): array
    {
        return array_values(array_filter(
            $this->operations,
            fn (OperationSpec $o) => ! ($o->body['alternative'] ?? false) && ! $this->isDone($o->code),
        ));
    }

    /**
     * @param  array<OperationSpec>  $operations
     * @return array<string, array<string, string>> what is missing, by operation and proof. What was done stays
     *     proven, apart from what can lapse.
     */
    private function judged(array $operations): array
    {
        $byJudge = [];
        foreach ($operations as $operation) {
            $done = ($this->rows[$operation->code] ?? null)?->state === OperationState::Done;
            foreach ($operation->proofs as $proof) {
                if (! $done || $proof->kind->mayLapse()) {
                    $byJudge[$proof->kind->judge()][] = $proof;
                }
            }
        }
        $open = [];
        foreach ($byJudge as $judge => $proofs) {
            $missing = app($judge)->open($this, $proofs);
            foreach ($proofs as $proof) {
                if (isset($missing[$proof->key()])) {
                    $open[$proof->operation][$proof->code] = $missing[$proof->key()];
                }
            }
        }

        return $open;
    }

    /** @return Collection<int, Recording> what was said at its operations */
    public function recordings(): Collection
    {
        return Recording::query()
            ->where('unit_id', $this->unit->id)
            ->where('generation', $this->generation)
            ->where('bench', $this->bench->value)
            ->orderBy('id')
            ->get();
    }

    public function last(ProofSpec $proof): ?Proof
    {
        return $this->proofs[$proof->key()] ?? null;
    }
}
