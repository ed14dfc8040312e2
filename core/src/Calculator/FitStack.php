<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fit\FixedPart;
use Yard\Core\Fit\SelectivePart;
use Yard\Core\Fit\Slot;
use Yard\Core\Fit\StackUp;
use Yard\Core\Fit\Window;
use Yard\Core\Input;

/** fit.stack: selective parts that bring a clearance into its window. */
final class FitStack implements Calculator
{
    public function calculate(Input $in): array
    {
        return self::stack($in)->solve();
    }

    public static function stack(Input $in): StackUp
    {
        $in->choice('unit', StackUp::UNITS);
        $depth = $in->at('depth')->asDecimal();
        $fixed = array_map(
            static fn (Input $item): FixedPart => new FixedPart(
                $item->name('name'),
                $item->at('thickness')->asDecimal(0.0),
                $item->integer('count', 0, 10000),
            ),
            $in->optional('fixed')?->asList() ?? [],
        );
        $slots = array_map(
            static fn (Input $slot): Slot => new Slot(
                $slot->name('name'),
                $slot->integer('pick', 0, 1000),
                array_map(self::part(...), $slot->list('options')),
            ),
            $in->list('slots'),
        );
        $window = $in->at('window');
        $window = new Window(
            $window->at('min')->asDecimal(),
            $window->at('max')->asDecimal(),
            $in->optional('target')?->asDecimal(),
        );

        return $in->within(static fn (): StackUp => new StackUp($depth, $fixed, $slots, $window));
    }

    public static function part(Input $in): SelectivePart
    {
        return new SelectivePart(
            $in->name('part'),
            $in->at('thickness')->asDecimal(0.0),
            $in->has('stock') ? $in->integer('stock', 0) : null,
            $in->numberIf('cost', min: 0.0),
        );
    }
}
