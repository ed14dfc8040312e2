<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fit\StackUp;
use Yard\Core\Fit\WasherChoice;
use Yard\Core\Fit\Window;
use Yard\Core\Input;

/** endplay.select: the selective thrust washer that brings the end play into its window. */
final class EndplaySelect implements Calculator
{
    public function calculate(Input $in): array
    {
        $in->choice('unit', StackUp::UNITS);
        $window = $in->at('window');
        $choice = new WasherChoice(
            $in->at('measured')->asDecimal(),
            $in->at('fitted')->asDecimal(0.0),
            array_map(FitStack::part(...), $in->list('options', 1)),
            new Window(
                $window->at('min')->asDecimal(),
                $window->at('max')->asDecimal(),
                $in->optional('target')?->asDecimal(),
            ),
        );

        return $choice->solve();
    }
}
