<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\Decimal;

/** What stands in a stack whatever is picked. */
final readonly class FixedPart
{
    public function __construct(public string $name, public Decimal $thickness, public int $count)
    {
    }
}
