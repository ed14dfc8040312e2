<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Quantity\Unit;

/** units.convert: the same quantity in another unit. */
final class UnitsConvert implements Calculator
{
    public function calculate(Input $in): array
    {
        $value = $in->number('value');
        $from = Unit::of($in->string('from'), '/from');
        $to = Unit::of($in->string('to'), '/to');
        if ($from->kind === 'temperature' && $from->toSi($value) < 0.0) {
            throw $in->at('value')->fail('range', 'The temperature lies below absolute zero (-273.15 degC).');
        }

        return ['value' => $from->convert($value, $to, '/to'), 'unit' => $to->symbol];
    }
}
