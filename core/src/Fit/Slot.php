<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/** A place in a stack that takes so many pieces, each one of the options. */
final readonly class Slot
{
    /** @param  list<SelectivePart>  $options */
    public function __construct(public string $name, public int $pick, public array $options)
    {
    }
}
