<?php

namespace App\Work\Contracts;

/** Tests of parts at the bench, several at a time. */
interface ValuesJudge extends ProofJudge
{
}
