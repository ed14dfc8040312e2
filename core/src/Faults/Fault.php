<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/** One thing that may be wrong: an element and what it does, two weak elements, or something of the whole unit. */
final readonly class Fault
{
    /** What of the whole unit may be wrong, and how. */
    public const OF_THE_UNIT = [
        'line-pressure' => ['line-pressure', 'wrong'],
        'pump' => ['pump', 'worn'],
        'converter' => ['converter', 'no-drive'],
        'lock-up' => ['converter', 'lock-up'],
        'lock-up-on' => ['converter', 'stays-locked'],
        'stator-free' => ['converter', 'stator-free'],
        'stator-locked' => ['converter', 'stator-locked'],
        'hub' => ['converter', 'sheared-hub'],
        'control' => ['control', 'wrong-command'],
        'vehicle' => ['vehicle', 'outside'],
        'sound' => ['sound', 'none'],
    ];

    /**
     * @param  list<string>  $elements  one, two when a pair is weak together, none when it is of the whole unit
     * @param  string  $kind  weak, stuck-on, stuck-off, free, locked, reversed, or a key of OF_THE_UNIT
     */
    private function __construct(public array $elements, public string $kind, private bool $oneWay = false)
    {
    }

    public static function ofUnit(string $kind): self
    {
        return new self([], $kind);
    }

    public static function ofElement(string $element, string $kind, bool $oneWay): self
    {
        return new self([$element], $kind, $oneWay);
    }

    public static function weakPair(string $one, string $other): self
    {
        return new self([$one, $other], 'weak');
    }

    public function key(): string
    {
        return implode("\0", [$this->kind, ...$this->elements]);
    }

    public function isOfUnit(): bool
    {
        return $this->elements === [];
    }

    public function isWeak(): bool
    {
        return $this->kind === 'weak';
    }

    /** Whether oil works the element, so that a pressure can be read at its tap. */
    public function hasCircuit(): bool
    {
        return ! $this->isOfUnit() && ! $this->oneWay;
    }

    /** Its row among the priors of the table. */
    public function priorRow(): string
    {
        return $this->isWeak() && $this->oneWay ? 'weak one-way' : $this->kind;
    }

    /** @return list<string> what the weights of known weak points may call it */
    public function names(): array
    {
        return $this->isOfUnit() ? [$this->kind] : $this->elements;
    }

    /** @return array{element: string, fault: string}|array{elements: list<string>, fault: string} */
    public function toArray(): array
    {
        if (count($this->elements) > 1) {
            return ['elements' => $this->elements, 'fault' => $this->kind];
        }
        [$element, $fault] = $this->isOfUnit() ? self::OF_THE_UNIT[$this->kind] : [$this->elements[0], $this->kind];

        return ['element' => $element, 'fault' => $fault];
    }
}
