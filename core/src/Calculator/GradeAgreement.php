<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Evidence\Agreement;
use Yard\Core\Input;

/** grade.agreement: whether two people mean the same by good, borderline and scrap. */
final class GradeAgreement implements Calculator
{
    public function calculate(Input $in): array
    {
        $agreement = Agreement::read($in);
        $confidence = $in->numberOr('confidence', 0.95, above: 0.0, below: 1.0);
        [$lower, $upper] = $agreement->bounds($confidence);

        return [
            'n' => $agreement->n,
            'observed' => $agreement->observed(),
            'expected' => $agreement->expected(),
            'kappa' => $agreement->kappa(),
            'stdErr' => $agreement->standardError(),
            'lower' => $lower,
            'upper' => $upper,
        ];
    }
}
