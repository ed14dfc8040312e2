<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Quantity\Quantity;

/** units.parse: what people type into a measurement field. */
final class UnitsParse implements Calculator
{
    public function calculate(Input $in): array
    {
        $quantity = Quantity::parse(
            $in->string('text'),
            $in->string('kind'),
            $in->optional('default')?->asString(),
        );

        return ['value' => $quantity->value, 'unit' => $quantity->unit->symbol, 'si' => $quantity->si()];
    }
}
