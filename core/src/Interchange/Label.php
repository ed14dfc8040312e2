<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

/** How far a search has come: the node, the facts in force there, what it cost and the way. */
final readonly class Label
{
    public int $length;

    /** @param  array<string, true>  $facts */
    public function __construct(
        public string $node,
        public array $facts,
        public float $total,
        private ?Step $step,
        private ?Label $before,
    ) {
        $this->length = $before === null ? 0 : $before->length + 1;
    }

    public function state(): string
    {
        $facts = array_keys($this->facts);
        sort($facts);

        return $this->node."\0".implode("\0", $facts);
    }

    /** @return list<Step> */
    public function steps(): array
    {
        $steps = [];
        for ($label = $this; $label !== null && $label->step !== null; $label = $label->before) {
            $steps[] = $label->step;
        }

        return array_reverse($steps);
    }

    /** @return list<string> */
    public function ids(): array
    {
        return array_map(static fn (Step $s): string => $s->id, $this->steps());
    }
}
