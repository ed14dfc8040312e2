<?php

namespace App\Work\Contracts;

/** What is seen of a unit, as one answer of a few; the station that weighs the answers says which there are. */
interface ObservationJudge extends ProofJudge
{
    /** @return array<string, array{ask: string, choices: list<string>}> by what is looked at */
    public function questions(): array;
}
