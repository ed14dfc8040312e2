<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fit\ConverterSeat;
use Yard\Core\Fit\StackUp;
use Yard\Core\Input;

/** converter.depth: is the converter fully seated. */
final class ConverterDepth implements Calculator
{
    public function calculate(Input $in): array
    {
        $seat = ConverterSeat::of(
            $in->choice('unit', StackUp::UNITS),
            $in->number('converterDepth'),
            $in->number('flexplateDepth'),
            $in->number('minPull', min: 0.0),
            $in->number('maxPull', min: 0.0),
        );

        return [
            'pull' => $seat->pull,
            'seated' => $seat->seated,
            'withinLimits' => $seat->withinLimits,
            'message' => $seat->message,
        ];
    }
}
