<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/** Chooses selective parts so that depth - fixed - picked lands in its window; exact, in whole decimals. */
final readonly class StackUp
{
    public const UNITS = ['in', 'mm', 'um'];

    private const ALTERNATIVES = 10;

    /** @var array<string, int> part => pieces on the shelf */
    private array $stock;

    /**
     * @param  list<FixedPart>  $fixed
     * @param  list<Slot>  $slots
     *
     * @throws BadInput at /slots for what is named twice, or is said two ways
     */
    public function __construct(
        private Decimal $depth,
        private array $fixed,
        public array $slots,
        public Window $window,
    ) {
        $names = [];
        foreach ($slots as $n => $slot) {
            isset($names[$slot->name]) &&
                throw new BadInput('duplicate', "The slot \"$slot->name\" is listed twice.", "/slots/$n/name");
            $names[$slot->name] = true;
            $slot->pick === 0 ||
                $slot->options !== [] ||
                throw new BadInput(
                    'too-few',
                    "The slot \"$slot->name\" offers no part to pick from.",
                    "/slots/$n/options",
                );
            self::assertOnce($slot, "/slots/$n/options");
        }
        $this->stock = self::shelf($slots);
    }

    /**
     * @return array<string, mixed> feasible; best and alternatives, or the reason (stock, window) and the nearest
     *
     * @throws BadInput at /window, /target, or where the numbers or the choices are too many
     */
    public function solve(): array
    {
        $places = $this->places();
        [$low, $high, $aim] = $this->window->scaled($places);
        $search = new StackSearch($this->slots, $this->stock, $this->space($places), $places, self::ALTERNATIVES + 1);
        if (! $search->stockSuffices()) {
            return ['feasible' => false, 'reason' => 'stock', 'alternatives' => []];
        }
        $found = $search->best($low, $high, $aim);

        return $found === []
            ? [
                'feasible' => false,
                'reason' => 'window',
                'alternatives' => [],
                'nearest' => $search->nearest($low, $high, $aim),
            ]
            : ['feasible' => true, 'best' => $found[0], 'alternatives' => array_slice($found, 1)];
    }

    /** Decimals to reckon in: one more than typed, so that the middle of the window is a whole number too. */
    public function places(): int
    {
        $numbers = [$this->depth, ...$this->window->numbers(), ...array_column($this->fixed, 'thickness')];
        foreach ($this->slots as $slot) {
            array_push($numbers, ...array_column($slot->options, 'thickness'));
        }

        return max(array_map(static fn (Decimal $d): int => $d->places, $numbers)) + 1;
    }

    /** What the depth leaves for the picked parts and the clearance, in whole 10^-places. */
    public function space(int $places): int
    {
        $space = $this->depth->scaled($places);
        foreach ($this->fixed as $part) {
            $space -= $part->count * $part->thickness->scaled($places);
        }

        return $space;
    }

    private static function assertOnce(Slot $slot, string $at): void
    {
        $seen = [];
        foreach ($slot->options as $n => $option) {
            isset($seen[$option->part]) &&
                throw new BadInput(
                    'duplicate',
                    "The part \"$option->part\" is offered twice in one slot.",
                    "$at/$n/part",
                );
            $seen[$option->part] = true;
        }
    }

    /**
     * @param  list<Slot>  $slots
     * @return array<string, int>
     */
    private static function shelf(array $slots): array
    {
        $stock = $thickness = [];
        foreach ($slots as $n => $slot) {
            foreach ($slot->options as $m => $option) {
                $part = $option->part;
                ($thickness[$part] ??= $option->thickness)->equals($option->thickness) ||
                    throw new BadInput(
                        'conflict',
                        "The part \"$part\" has two different thicknesses.",
                        "/slots/$n/options/$m/thickness",
                    );
                if ($option->stock !== null) {
                    ($stock[$part] ??= $option->stock) === $option->stock ||
                        throw new BadInput(
                            'conflict',
                            "The part \"$part\" has two different stock counts; stock is shared by all slots.",
                            "/slots/$n/options/$m/stock",
                        );
                }
            }
        }

        return $stock;
    }
}
