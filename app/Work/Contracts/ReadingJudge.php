<?php

namespace App\Work\Contracts;

/** Numbers off a gauge, kept where units are assembled. */
interface ReadingJudge extends ProofJudge
{
}
