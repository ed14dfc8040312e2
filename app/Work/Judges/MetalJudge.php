<?php

namespace App\Work\Judges;

use App\Catalog\Read\MetalPairs;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;

/** What the bolts in hand are made of, before they go into the case. */
final class MetalJudge extends KeepsProofs
{
    private ?MetalPairs $pairs = null;

    protected function missing(ProofSpec $proof): string
    {
        return 'Say what the bolts in hand are made of: a magnet tells.';
    }

    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        return $last->satisfied ? null : $last->answer['against'];
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $pairs = $this->pairs ??= MetalPairs::known();
        $metal = $answer->string('choice');
        if (! in_array($metal, MetalPairs::METALS, true)) {
            throw Refusal::at('/answer/choice', $this->missing($proof));
        }
        $places = ReadingKind::Torque->places($work->build()?->frozen() ?? []);
        $hole = array_column($places, 'into', 'code')[$proof->of] ?? '';
        $against = $pairs->against($metal, $hole);
        $this->keep($work, $proof, $answer, $by, ['choice' => $metal, 'against' => $against], $against === null);
    }
}
