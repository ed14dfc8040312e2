<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\BadInput;
use Yard\Core\Input;

interface Calculator
{
    /**
     * Reads its fields from the input and returns the result as a JSON-ready array.
     *
     * @return array<string, mixed>
     *
     * @throws BadInput
     */
    public function calculate(Input $in): array;
}
