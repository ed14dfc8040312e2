<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\Element;
use Yard\Core\Drivetrain\SolvedGear;
use Yard\Core\Drivetrain\Train;
use Yard\Core\Maths\Subsets;

/**
 * A train with elements that do not do what they are told. One-way clutches that name a direction work by themselves:
 * one holds where it can with a torque it can deliver, or overruns with a slip it allows.
 */
final class FaultedTrain
{
    /** Every combination of one-ways is tried. */
    public const MOST_ONE_WAYS = 8;

    public const MOST_FAULTS = 4;

    /** Driven comes first: the load holds the output, so a one-way that can drive it does. */
    private const PREFERRED = ['driven' => 0, 'neutral' => 1, 'held' => 2, 'locked' => 3];

    /** @var array<string, Element> one-ways that work by themselves */
    private array $free = [];

    /** @var list<list<string>> every combination of them that may hold, the fewest first */
    private array $combinations;

    /**
     * @param  array<string, string>  $faults  element => stuck-on, stuck-off; of a one-way locked, free, reversed
     *
     * @throws BadInput at /elements when there are more one-ways than combinations can be tried
     */
    public function __construct(private readonly Train $train, private readonly array $faults)
    {
        foreach ($train->elements as $id => $element) {
            $fault = $faults[$id] ?? null;
            if ($element->locks !== null && ! in_array($fault, ['locked', 'free'], true)) {
                $this->free[$id] = $fault === 'reversed' ? $element->reversed() : $element;
            }
        }
        if (count($this->free) > self::MOST_ONE_WAYS) {
            $most = self::MOST_ONE_WAYS;
            throw new BadInput('too-many', "No more than $most one-way clutches can be looked at.", '/elements');
        }
        $this->combinations = Subsets::of(array_map(strval(...), array_keys($this->free)));
    }

    /** @param  list<string>  $commanded  elements the gear asks for */
    public function gear(array $commanded): SolvedGear
    {
        $held = $this->held($commanded);
        $best = null;
        foreach ($this->combinations as $holding) {
            $solved = $this->train->solve([...$held, ...$holding]);
            if (! $this->isConsistent($solved, $holding)) {
                continue;
            }
            if ($best === null || self::PREFERRED[$solved->state] < self::PREFERRED[$best->state]) {
                $best = $solved;
            }
            if ($best->state === 'driven') {
                break;
            }
        }

        return $best ?? new SolvedGear('locked');
    }

    /**
     * What is on whatever turns: what is asked for and not dead, and what is stuck.
     *
     * @param  list<string>  $commanded
     * @return list<string>
     */
    private function held(array $commanded): array
    {
        $held = [];
        foreach (array_keys($this->train->elements) as $id) {
            $id = (string) $id;
            $on = match ($this->faults[$id] ?? null) {
                'stuck-on', 'locked' => true,
                'stuck-off', 'free' => false,
                default => ! isset($this->free[$id]) && in_array($id, $commanded, true),
            };
            if ($on) {
                $held[] = $id;
            }
        }

        return $held;
    }

    /**
     * A one-way whose share beside another element is not determined need not hold: the combination without it is
     * looked at too, and turns alike.
     *
     * @param  list<string>  $holding
     */
    private function isConsistent(SolvedGear $solved, array $holding): bool
    {
        if ($solved->state === 'locked') {
            return false;
        }
        foreach ($this->free as $id => $element) {
            $holds = in_array((string) $id, $holding, true);
            if (! $holds && isset($solved->slip[$id]) && $element->refuses($solved->slip[$id])) {
                return false;
            }
            $torque = $solved->elementTorque[$id] ?? null;
            if ($holds && $solved->state === 'driven' && ($torque === null || ! $element->canDeliver($torque))) {
                return false;
            }
        }

        return true;
    }
}
