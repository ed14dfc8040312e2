<?php

namespace App\Work\Contracts;

/** Selective parts, chosen where units are assembled. */
interface FitJudge extends ProofJudge
{
}
