<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/**
 * A trouble code and what it means. A code is hearsay of the controller: a solenoid code often says that slip was
 * noticed, not that the solenoid is bad, so it weighs lightly and never alone.
 */
final readonly class StoredCode
{
    /**
     * @param  string  $means  one of LikelihoodTable::codeMeanings()
     * @param  string  $gear  the gear it speaks of; empty where it names none
     */
    public function __construct(public string $code, public string $means, public string $gear = '')
    {
    }
}
