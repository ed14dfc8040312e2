<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Evidence\Reliability;
use Yard\Core\Input;

/** evidence.reliability: how often an observation tells the truth, learned from confirmed cases. */
final class EvidenceReliability implements Calculator
{
    public function calculate(Input $in): array
    {
        $prior = $in->at('prior');
        $learned = Reliability::learn(
            $prior->number('reliability', max: 1.0, above: 0.0),
            $prior->number('weight', min: 0.0),
            array_map(
                static fn (Input $case): array => [
                    $case->number('expected', min: 0.0, max: 1.0),
                    $case->integer('values', 2),
                ],
                $in->list('cases'),
            ),
        );

        return [
            'reliability' => $learned->share,
            'cases' => $learned->cases,
            'iterations' => $learned->iterations,
        ];
    }
}
