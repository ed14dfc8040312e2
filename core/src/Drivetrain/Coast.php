<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\Maths\Subsets;

/**
 * A gear while the wheels drive: the input takes torque instead of giving it, so every torque turns round, and a
 * one-way clutch that held may overrun. Only one-ways the chart lists in the gear take part.
 */
final readonly class Coast
{
    private const NOTHING = 1e-9;

    /**
     * @param  list<string>  $overruns  listed one-ways that carry nothing
     * @param  array<string, float>  $elementTorque  on node a for an input torque of -1; none without engine braking
     * @param  list<string>  $carrying  clutches and brakes that carry
     */
    private function __construct(
        public bool $engineBraking,
        public array $overruns,
        public array $elementTorque,
        public array $carrying,
    ) {
    }

    /** @param  list<string>  $applied */
    public static function of(Train $train, array $applied): self
    {
        [$oneWays, $others] = self::sorted($train, $applied);
        foreach (Subsets::of($oneWays) as $holding) {
            $torques = self::turnedRound($train->balance([...$others, ...$holding]));
            $set = [...$others, ...$holding];
            if ($torques !== null && self::deliver($train, $holding, $torques) && $train->turns($set)) {
                return self::braking($others, array_values(array_diff($oneWays, $holding)), $torques);
            }
        }
        $all = self::turnedRound($train->balance($applied)) ?? [];
        $refused = array_filter(
            $oneWays,
            static fn (string $id): bool => isset($all[$id]) && ! $train->elements[$id]->canDeliver($all[$id]),
        );

        return new self(false, array_values($refused), [], []);
    }

    /**
     * @param  list<string>  $others
     * @param  list<string>  $overruns
     * @param  array<string, float>  $torques
     */
    private static function braking(array $others, array $overruns, array $torques): self
    {
        $idle = array_filter(
            $torques,
            static fn (float $t, string $id): bool => abs($t) < self::NOTHING && ! in_array($id, $others, true),
            ARRAY_FILTER_USE_BOTH,
        );
        $carrying = array_filter(
            $others,
            static fn (string $id): bool => ! isset($torques[$id]) || abs($torques[$id]) > self::NOTHING,
        );

        return new self(
            true,
            [...$overruns, ...array_map(strval(...), array_keys($idle))],
            $torques + array_fill_keys($overruns, 0.0),
            array_values($carrying),
        );
    }

    /**
     * Clutches and brakes that carry while the engine drives. Beside a one-way that agrees, that takes the whole.
     *
     * @param  list<string>  $applied
     * @return list<string>
     */
    public static function carryingInDrive(Train $train, array $applied): array
    {
        [$oneWays, $others] = self::sorted($train, $applied);
        $torques = $train->balance($applied);
        if ($torques === null) {
            return [];
        }
        $carrying = [];
        foreach ($others as $id) {
            $carries = isset($torques[$id])
                ? abs($torques[$id]) > self::NOTHING
                : ! self::oneWayTakesAll($train, $applied, $id, array_diff($oneWays, array_keys($torques)));
            if ($carries) {
                $carrying[] = $id;
            }
        }

        return $carrying;
    }

    /**
     * @param  list<string>  $applied
     * @param  array<int, string>  $beside  one-ways whose share is not determined while the element is on
     */
    private static function oneWayTakesAll(Train $train, array $applied, string $element, array $beside): bool
    {
        $without = $train->balance(array_values(array_diff($applied, [$element])));
        foreach ($without === null ? [] : $beside as $id) {
            if (isset($without[$id]) && $train->elements[$id]->canDeliver($without[$id])) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<string>  $applied
     * @return array{list<string>, list<string>} one-ways, and clutches and brakes
     */
    private static function sorted(Train $train, array $applied): array
    {
        $isOneWay = static fn (string $id): bool => $train->elements[$id]->kind === 'one-way';

        return [
            array_values(array_filter($applied, $isOneWay)),
            array_values(array_filter($applied, static fn (string $id): bool => ! $isOneWay($id))),
        ];
    }

    /**
     * @param  list<string>  $holding
     * @param  array<string, float>  $torques
     */
    private static function deliver(Train $train, array $holding, array $torques): bool
    {
        foreach ($holding as $id) {
            if (! isset($torques[$id]) || ! $train->elements[$id]->canDeliver($torques[$id])) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  array<string, float>|null  $torques
     * @return array<string, float>|null
     */
    private static function turnedRound(?array $torques): ?array
    {
        return $torques === null ? null : array_map(static fn (float $t): float => -$t, $torques);
    }
}
