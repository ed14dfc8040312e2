<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Maths\LinearSystem;

/**
 * Coupled planetary sets with their shift elements. Speeds follow from the Willis equations (R. Willis, Principles of
 * Mechanism, 1841) and the ties of the applied elements; torques from the balance at every shaft, loss-free and steady.
 */
final class Train
{
    public const CASE = 'case';

    /** @var array<string, int> */
    private array $index = [];

    /**
     * @param  list<PlanetarySet>  $sets
     * @param  array<string, Element>  $elements
     */
    private function __construct(
        public readonly string $input,
        public readonly string $output,
        public readonly array $sets,
        public readonly array $elements,
    ) {
        foreach ($sets as $set) {
            $this->addNodes($set->sun, $set->ring, $set->carrier);
        }
        foreach ($elements as $element) {
            $this->addNodes($element->a, $element->b);
        }
    }

    /** The same train with a sun of one set that has a few teeth more, as when parts of two units are mixed. */
    public function mixed(string $set): self
    {
        return new self(
            $this->input,
            $this->output,
            array_map(
                static fn (PlanetarySet $s): PlanetarySet => $s->id === $set ? $s->withSun($s->sunTeeth + 2) : $s,
                $this->sets,
            ),
            $this->elements,
        );
    }

    public static function read(Input $in): self
    {
        $sets = [];
        foreach ($in->list('sets') as $item) {
            $set = PlanetarySet::read($item);
            if (isset($sets[$set->id])) {
                throw $item->at('id')->fail('duplicate', "The set \"$set->id\" is listed twice.");
            }
            $sets[$set->id] = $set;
        }
        $elements = [];
        foreach ($in->list('elements') as $item) {
            $element = Element::read($item);
            if (isset($elements[$element->id])) {
                throw $item->at('id')->fail('duplicate', "The element \"$element->id\" is listed twice.");
            }
            $elements[$element->id] = $element;
        }
        $train = new self($in->name('input'), $in->name('output'), array_values($sets), $elements);
        foreach (['input' => $train->input, 'output' => $train->output] as $key => $node) {
            if ($node === self::CASE) {
                throw $in->at($key)->fail('case', "The $key shaft cannot be the case.");
            }
            if (! isset($train->index[$node])) {
                throw $in->at($key)->fail('unknown-node', "No set and no element has a shaft called \"$node\".");
            }
        }

        return $train;
    }

    /**
     * @param  list<string>  $applied  element ids
     *
     * @throws BadInput for an unknown element
     */
    public function solve(array $applied): SolvedGear
    {
        $held = $this->held($applied);
        $system = $this->speedSystem($held);
        if (! $system->consistent) {
            return new SolvedGear('locked');
        }
        $speeds = array_filter(
            array_map(static fn (int $i): ?float => $system->value([$i => 1.0]), $this->index),
            static fn (?float $speed): bool => $speed !== null,
        );
        $out = $speeds[$this->output] ?? null;
        $slips = $this->slips($system, $held);
        $driven = $out !== null && abs($out) >= LinearSystem::TOLERANCE;
        // Without a driven output the input torque finds no reaction through the train: nothing is determined.
        $torques = $driven ? $this->torqueSystem($held) : null;

        return new SolvedGear(
            self::state($out, $driven),
            $driven ? 1.0 / $out : null,
            $speeds,
            $this->pinionSpeeds($system),
            $onElements = $torques === null ? [] : $this->elementTorques($torques, $held),
            $torques?->value([count($this->sets) + count($held) => 1.0]),
            $torques === null ? [] : $this->setTorques($torques),
            $slips,
            $this->consistent($onElements),
            $this->wouldLock($slips),
        );
    }

    /**
     * The torques of elements for an input torque of 1, whatever turns.
     *
     * @param  list<string>  $applied
     * @return array<string, float>|null on node a, where it is determined; null where nothing can balance the input
     */
    public function balance(array $applied): ?array
    {
        $held = $this->held($applied);
        $torques = $this->torqueSystem($held);

        return $torques->consistent ? $this->elementTorques($torques, $held) : null;
    }

    /**
     * Whether the output can turn at all, driven from either end.
     *
     * @param  list<string>  $applied
     */
    public function turns(array $applied): bool
    {
        return $this->speedSystem($this->held($applied), null)->value([$this->index[$this->output] => 1.0]) === null;
    }

    /** @return 'driven'|'held'|'neutral' */
    private static function state(?float $output, bool $driven): string
    {
        if ($output === null) {
            return 'neutral';
        }

        return $driven ? 'driven' : 'held';
    }

    /**
     * @param  list<string>  $applied
     * @return array<string, Element>
     */
    private function held(array $applied): array
    {
        $held = [];
        foreach ($applied as $id) {
            $held[$id] =
                $this->elements[$id] ??
                throw new BadInput('unknown-element', "The element \"$id\" is not in the list of elements.");
        }

        return $held;
    }

    /**
     * @param  array<string, Element>  $held
     * @return array<string, float> released element => relative speed
     */
    private function slips(LinearSystem $speeds, array $held): array
    {
        $slips = [];
        foreach (array_diff_key($this->elements, $held) as $id => $element) {
            $slip = $speeds->value($this->difference($element->a, $element->b));
            $slips += $slip === null ? [] : [$id => $slip];
        }

        return $slips;
    }

    /**
     * @param  array<string, float>  $slips
     * @return list<string> released one-ways that slip the way they refuse
     */
    private function wouldLock(array $slips): array
    {
        $out = [];
        foreach ($slips as $id => $slip) {
            if ($this->elements[$id]->kind === 'one-way' && $this->elements[$id]->refuses($slip)) {
                $out[] = (string) $id;
            }
        }

        return $out;
    }

    /**
     * @param  array<string, Element>  $held
     * @return array<string, float>
     */
    private function elementTorques(LinearSystem $torques, array $held): array
    {
        $out = [];
        foreach (array_values($held) as $j => $element) {
            $torque = $torques->value([count($this->sets) + $j => 1.0]);
            $out += $torque === null ? [] : [$element->id => $torque];
        }

        return $out;
    }

    /**
     * @param  array<string, float>  $torques
     * @return array<string, bool> one-way => can it deliver what it is asked for
     */
    private function consistent(array $torques): array
    {
        $out = [];
        foreach ($torques as $id => $torque) {
            if ($this->elements[$id]->kind === 'one-way' && $this->elements[$id]->locks !== null) {
                $out[$id] = $this->elements[$id]->canDeliver($torque);
            }
        }

        return $out;
    }

    /** @return array<string, array{sun: float, ring: float, carrier: float}> */
    private function setTorques(LinearSystem $torques): array
    {
        $out = [];
        foreach ($this->sets as $j => $set) {
            $level = $torques->value([$j => 1.0]);
            if ($level !== null) {
                [$sun, $ring, $carrier] = $set->willis();
                $out[$set->id] = ['sun' => $level * $sun, 'ring' => $level * $ring, 'carrier' => $level * $carrier];
            }
        }

        return $out;
    }

    /** @return array<string, int> the shafts as keys, the case among them */
    public function shafts(): array
    {
        return [self::CASE => 1] + array_fill_keys(array_map(strval(...), array_keys($this->index)), 1);
    }

    /**
     * @param  array<string, Element>  $held
     * @param  float|null  $input  speed of the input; null: not given
     */
    private function speedSystem(array $held, ?float $input = 1.0): LinearSystem
    {
        $n = count($this->index);
        $rows = [];
        foreach ($this->sets as $set) {
            $rows[] = $this->row($n, array_map(null, [$set->sun, $set->ring, $set->carrier], $set->willis()), 0.0);
        }
        foreach ($held as $element) {
            $rows[] = $this->row($n, [[$element->a, 1.0], [$element->b, -1.0]], 0.0);
        }
        if ($input !== null) {
            $rows[] = $this->row($n, [[$this->input, 1.0]], $input);
        }

        return new LinearSystem($n, $rows);
    }

    /**
     * Unknowns: one torque level a set, one torque an applied element (on its node a), the output torque.
     *
     * @param  array<string, Element>  $held
     */
    private function torqueSystem(array $held): LinearSystem
    {
        $unknowns = count($this->sets) + count($held) + 1;
        $balance = array_fill(0, count($this->index), array_fill(0, $unknowns + 1, 0.0));
        $add = function (string $node, int $unknown, float $coefficient) use (&$balance): void {
            if ($node !== self::CASE) {
                $balance[$this->index[$node]][$unknown] += $coefficient;
            }
        };
        foreach ($this->sets as $j => $set) {
            foreach (
                array_map(null, [$set->sun, $set->ring, $set->carrier], $set->willis()) as [$node, $coefficient]
            ) {
                $add($node, $j, $coefficient);
            }
        }
        foreach (array_values($held) as $j => $element) {
            $add($element->a, count($this->sets) + $j, 1.0);
            $add($element->b, count($this->sets) + $j, -1.0);
        }
        $add($this->output, $unknowns - 1, -1.0);
        $add($this->input, $unknowns, -1.0); // the external +1 moves to the right-hand side

        return new LinearSystem($unknowns, $balance);
    }

    /** @return array<string, float|list<float>> relative to the carrier; a double set has two planets */
    private function pinionSpeeds(LinearSystem $speeds): array
    {
        $out = [];
        foreach ($this->sets as $set) {
            if ($set->planetTeeth === []) {
                continue;
            }
            $sun = $speeds->value($this->difference($set->sun, $set->carrier));
            if ($sun === null) {
                continue;
            }
            $onSun = (-$set->sunTeeth / $set->planetTeeth[0]) * $sun;
            $out[$set->id] = $set->double
                ? [$onSun, (-$onSun * $set->planetTeeth[0]) / $set->planetTeeth[1]]
                : $onSun;
        }

        return $out;
    }

    /** @return array<int, float> wa - wb as a function of the unknown speeds */
    private function difference(string $a, string $b): array
    {
        $out = [];
        foreach ([[$a, 1.0], [$b, -1.0]] as [$node, $sign]) {
            if ($node !== self::CASE) {
                $out[$this->index[$node]] = $sign;
            }
        }

        return $out;
    }

    /**
     * @param  list<array{string, float}>  $terms
     * @return non-empty-array<int, float>
     */
    private function row(int $n, array $terms, float $rightHandSide): array
    {
        $row = array_fill(0, $n, 0.0);
        foreach ($terms as [$node, $coefficient]) {
            if ($node !== self::CASE) {
                $row[$this->index[$node]] += $coefficient;
            }
        }
        $row[] = $rightHandSide;

        return $row;
    }

    private function addNodes(string ...$nodes): void
    {
        foreach ($nodes as $node) {
            if ($node !== self::CASE) {
                $this->index[$node] ??= count($this->index);
            }
        }
    }
}
