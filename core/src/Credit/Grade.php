<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

/** What a core is worth to the house: A the best, X no core at all. */
enum Grade: string
{
    case A = 'A';
    case B = 'B';
    case C = 'C';
    case D = 'D';
    case X = 'X';

    /** @return list<string> */
    public static function letters(): array
    {
        return array_column(self::cases(), 'value');
    }
}
