<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Evidence\Agreement;
use Yard\Core\Input;
use Yard\Core\Maths\Special;

/** grade.agreement: whether two people mean the same by good, borderline and scrap. */
final class GradeAgreement implements Calculator
{
    public function calculate(Input $in): array
    {
        $agreement = Agreement::read($in);
        $confidence = $in->numberOr('confidence', 0.95, above: 0.0, below: 1.0);
        $kappa = $agreement->kappa();
        $error = $agreement->standardError();
        $reach = Special::invert(Special::normalCdf(...), (1.0 + $confidence) / 2.0, 0.0, 9.0) * $error;

        return [
            'n' => $agreement->n,
            'observed' => $agreement->observed(),
            'expected' => $agreement->expected(),
            'kappa' => $kappa,
            'stdErr' => $error,
            'lower' => max(-1.0, $kappa - $reach),
            'upper' => min(1.0, $kappa + $reach),
        ];
    }
}
