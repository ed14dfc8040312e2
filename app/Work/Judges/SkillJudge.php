<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Door\Caller;
use App\Shop\Door\SignIn;
use App\Shop\Models\Person;
use App\Shop\Models\PersonSkill;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** Work that asks for a skill: done by somebody who has it, or looked over and signed by somebody who has. */
final class SkillJudge extends KeepsProofs
{
    public function __construct(private readonly SignIn $door)
    {
    }

    protected function missing(ProofSpec $proof): string
    {
        return "Somebody good at $proof->of does this, or looks it over and signs.";
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $open = parent::open($work, $proofs);
        $doers = array_filter(array_map(
            fn (ProofSpec $p): ?int => ($work->rows[$p->operation] ?? null)?->done_by,
            $proofs,
        ));
        if ($doers === []) {
            return $open;
        }
        $skills = PersonSkill::query()->whereIn('person_id', $doers)->get(['person_id', 'skill']);
        foreach ($proofs as $proof) {
            $doer = ($work->rows[$proof->operation] ?? null)?->done_by;
            if ($skills->where('person_id', $doer)->where('skill', $proof->of)->isNotEmpty()) {
                unset($open[$proof->key()]);
            }
        }

        return $open;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $second = $this->door->check($answer->string('badge'), $answer->string('pin'), Caller::of(request()));
        if ($second->id === $by->id) {
            throw Refusal::at('/answer/badge', 'This must be somebody else than the person who did the work.');
        }
        if (! PersonSkill::query()->where('person_id', $second->id)->where('skill', $proof->of)->exists()) {
            throw Refusal::at('/answer/badge', "$second->name is not down as good at $proof->of.");
        }
        $this->keep($work, $proof, $answer, $second, ['for' => $by->id]);
    }
}
