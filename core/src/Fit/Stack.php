<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\Calculator;
use Yard\Core\Decimal;
use Yard\Core\Input;

/** Chooses selective parts so that depth - fixed - picked lands in its window; exact, in whole decimals. */
final class Stack implements Calculator
{
    public const UNITS = ['in', 'mm', 'um'];

    private const ALTERNATIVES = 10;

    public function calculate(Input $in): array
    {
        $in->choice('unit', self::UNITS);
        $depth = $in->at('depth')->asDecimal();
        $decimals = [$depth];
        $fixed = [];
        foreach ($in->optional('fixed')?->asList() ?? [] as $item) {
            $item->name('name');
            $fixed[] = [($thickness = $item->at('thickness')->asDecimal(0.0)), $item->integer('count', 0, 10000)];
            $decimals[] = $thickness;
        }
        [$slots, $stock] = self::readSlots($in, $decimals);
        $window = $in->at('window');
        $minimum = $window->at('min')->asDecimal();
        $maximum = $window->at('max')->asDecimal();
        $target = $in->optional('target')?->asDecimal();
        // One more place than typed, doubled, so that the middle of the window is a whole number too.
        $places =
            max(
                array_map(static fn (Decimal $d): int => $d->places, [
                    ...$decimals,
                    $minimum,
                    $maximum,
                    ...$target === null ? [] : [$target],
                ]),
            ) + 1;
        [$low, $high] = [$minimum->scaled($places), $maximum->scaled($places)];
        if ($low > $high) {
            throw $window->fail('window', 'The window ends before it begins: min must not be greater than max.');
        }
        $aim = $target?->scaled($places) ?? intdiv($low + $high, 2);
        if ($aim < $low || $aim > $high) {
            throw $in->at('target')->fail('window', 'The target lies outside the window.');
        }
        $space = $depth->scaled($places);
        foreach ($fixed as [$thickness, $count]) {
            $space -= $count * $thickness->scaled($places);
        }
        $search = new StackSearch($slots, $stock, $space, $places);
        if (! $search->stockSuffices()) {
            return ['feasible' => false, 'reason' => 'stock', 'alternatives' => []];
        }
        $found = $search->best(self::ALTERNATIVES + 1, $low, $high, $aim);
        if ($found === []) {
            $nearest = $search->nearest($low, $high, $aim);

            return ['feasible' => false, 'reason' => 'window', 'alternatives' => [], 'nearest' => $nearest];
        }

        return ['feasible' => true, 'best' => $found[0], 'alternatives' => array_slice($found, 1)];
    }

    /**
     * @param  list<Decimal>  $decimals  receives every thickness read
     * @return array{list<array{name: string, pick: int, options: list<array{part: string, thickness: Decimal,
     *     cost: ?float}>}>, array<string, int>}
     */
    private static function readSlots(Input $in, array &$decimals): array
    {
        $slots = [];
        $stock = [];
        $thicknessOf = [];
        $names = [];
        foreach ($in->list('slots') as $slotIn) {
            $slot = ['name' => $slotIn->name('name'), 'pick' => $slotIn->integer('pick', 0, 1000), 'options' => []];
            if (isset($names[$slot['name']])) {
                throw $slotIn->at('name')->fail('duplicate', "The slot \"{$slot['name']}\" is listed twice.");
            }
            $names[$slot['name']] = true;
            $inSlot = [];
            foreach ($slotIn->list('options') as $optionIn) {
                $part = $optionIn->name('part');
                if (isset($inSlot[$part])) {
                    throw $optionIn
                        ->at('part')
                        ->fail('duplicate', "The part \"$part\" is offered twice in one slot.");
                }
                $inSlot[$part] = true;
                $thickness = $optionIn->at('thickness')->asDecimal(0.0);
                $known = $thicknessOf[$part] ??= $thickness;
                if (
                    $known->places !== $thickness->places ||
                    $known->scaled($known->places) !== $thickness->scaled($known->places)
                ) {
                    throw $optionIn
                        ->at('thickness')
                        ->fail('conflict', "The part \"$part\" has two different thicknesses.");
                }
                if ($optionIn->has('stock')) {
                    $have = $optionIn->integer('stock', 0);
                    if (($stock[$part] ?? $have) !== $have) {
                        throw $optionIn
                            ->at('stock')
                            ->fail(
                                'conflict',
                                "The part \"$part\" has two different stock counts; stock is shared by all slots.",
                            );
                    }
                    $stock[$part] = $have;
                }
                $slot['options'][] = [
                    'part' => $part,
                    'thickness' => $thickness,
                    'cost' => $optionIn->has('cost') ? $optionIn->number('cost', min: 0.0) : null,
                ];
                $decimals[] = $thickness;
            }
            if ($slot['pick'] > 0 && $slot['options'] === []) {
                throw $slotIn
                    ->at('options')
                    ->fail('too-few', "The slot \"{$slot['name']}\" offers no part to pick from.");
            }
            $slots[] = $slot;
        }

        return [$slots, $stock];
    }
}
