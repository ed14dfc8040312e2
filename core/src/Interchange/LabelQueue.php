<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

/**
 * Cheapest label first; among equals the one with fewer steps, then the earlier step names.
 *
 * @extends \SplPriorityQueue<Label, Label>
 */
final class LabelQueue extends \SplPriorityQueue
{
    public function compare(mixed $priority1, mixed $priority2): int
    {
        return $priority2->total <=> $priority1->total ?:
            $priority2->length <=> $priority1->length ?:
            $priority2->ids() <=> $priority1->ids();
    }
}
