<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\Tyre;

/** tyre.size: the radius of a tyre from the size on its flank. */
final class TyreSize implements Calculator
{
    public function calculate(Input $in): array
    {
        $size = $in->name('size');
        $tyre = $in->at('size')->within(static fn (): Tyre => Tyre::of($size));
        $factor = $in->numberIf('rollingFactor', min: 2.5, max: M_PI);

        return [
            'rollingRadius_mm' => $tyre->rollingRadius($factor ?? Tyre::ROLLING_FACTOR),
            'diameter_mm' => $tyre->diameter,
            'assumed' => (object) ($factor === null ? ['rollingFactor' => Tyre::ROLLING_FACTOR] : []),
        ];
    }
}
