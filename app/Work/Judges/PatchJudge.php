<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\HouseRules;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use Yard\Core\BadInput;
use Yard\Core\Hydraulics\PatchCount;

/** The rinse of a cleaned unit through a membrane: particles counted, coded by ISO 4406, held against the house. */
final class PatchJudge extends KeepsProofs
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    protected function missing(ProofSpec $proof): string
    {
        return "Count the patch of the $proof->of: the house asks for {$this->rules->choice('rinse-cleanliness')}.";
    }

    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        $code = $last->answer['code'];

        return $last->satisfied
            ? null
            : "The rinse is $code; the house asks for {$last->answer['target']}. Wash again and take another patch.";
    }

    /** A shop without the kit proves it by cloth and air alone. */
    public function open(BenchWork $work, array $proofs): array
    {
        return $this->rules->choice('patch-test') === 'none' ? [] : parent::open($work, $proofs);
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $counts = [];
        foreach (PatchCount::SIZES as $size) {
            $typed = $answer->string($size);
            if ($typed === '' && $size === 'um4') {
                continue; // a microscope counts two sizes only
            }
            is_numeric($typed) ||
                throw Refusal::at("/answer/$size", 'Type how many particles of this size a millilitre holds.');
            $counts[$size] = (float) $typed;
        }
        $target = $this->rules->choice('rinse-cleanliness');
        try {
            $patch = PatchCount::of($counts);
        } catch (BadInput $e) {
            throw Refusal::at("/answer$e->path", $e->getMessage());
        }
        $kept = ['counts' => $counts, 'code' => $patch->code(), 'target' => $target];
        $this->keep($work, $proof, $answer, $by, $kept, $patch->over($target) === []);
    }
}
