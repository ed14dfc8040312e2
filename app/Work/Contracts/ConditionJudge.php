<?php

namespace App\Work\Contracts;

/** Grades of parts, kept where parts are inspected. */
interface ConditionJudge extends ProofJudge
{
}
