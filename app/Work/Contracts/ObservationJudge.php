<?php

namespace App\Work\Contracts;

/** What is seen of a unit, as one answer of a few; the station that weighs the answers says which there are. */
interface ObservationJudge extends ProofJudge
{
    /** @return array{ask: string, choices: list<string>} */
    public function question(string $of): array;
}
