<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** Which elements are applied in which gear of a train. */
final class ApplyChart
{
    /** @var array<string, SolvedGear>|null */
    private ?array $solved = null;

    /** @var array<string, list<string>>|null */
    private ?array $turning = null;

    /**
     * @param  array<string, list<string>>  $applied  gear => elements
     *
     * @throws BadInput at /gears/N/applied/M for an unknown element or one named twice
     */
    public function __construct(public readonly Train $train, public readonly array $applied)
    {
        foreach (array_values($applied) as $n => $elements) {
            foreach ($elements as $m => $id) {
                $at = "/gears/$n/applied/$m";
                isset($train->elements[$id]) ||
                    throw new BadInput('unknown-element', "The element \"$id\" is not in the list of elements.", $at);
                array_search($id, $elements, true) === $m ||
                    throw new BadInput('duplicate', "The element \"$id\" is applied twice in this gear.", $at);
            }
        }
    }

    /** Reads a train and its gears from one place. */
    public static function read(Input $in, int $atLeast = 0): self
    {
        $train = Train::read($in);
        $applied = [];
        foreach ($in->list('gears', $atLeast) as $gear) {
            $name = $gear->name('name');
            if (isset($applied[$name])) {
                throw $gear->at('name')->fail('duplicate', "The gear \"$name\" is listed twice.");
            }
            $applied[$name] = array_map(static fn (Input $e): string => $e->asString(), $gear->list('applied'));
        }

        return $in->within(static fn (): self => new self($train, $applied));
    }

    /** @return list<string> names of the gears in the order of the chart */
    public function gears(): array
    {
        return array_map(strval(...), array_keys($this->applied));
    }

    public function has(string $gear): bool
    {
        return isset($this->applied[$gear]);
    }

    public function carries(string $gear, string $element): bool
    {
        return in_array($element, $this->applied[$gear] ?? [], true);
    }

    /** @return array<string, SolvedGear> gear => solution */
    public function solved(): array
    {
        return $this->solved ??= array_map($this->train->solve(...), $this->applied);
    }

    /** @return array<string, float> gear => ratio, of the gears that drive */
    public function ratios(): array
    {
        $out = [];
        foreach ($this->solved() as $gear => $solved) {
            if ($solved->ratio !== null) {
                $out[$gear] = $solved->ratio;
            }
        }

        return $out;
    }

    /** @return array<string, list<string>> set => gears whose ratio changes with its teeth */
    public function turning(): array
    {
        if ($this->turning === null) {
            $this->turning = [];
            foreach ($this->train->sets as $set) {
                $mixed = $this->train->mixed($set->id);
                foreach ($this->ratios() as $gear => $ratio) {
                    $other = $mixed->solve($this->applied[$gear])->ratio;
                    if ($other !== null && abs($other / $ratio - 1.0) > 1e-6) {
                        $this->turning[$set->id][] = (string) $gear;
                    }
                }
            }
        }

        return $this->turning;
    }
}
