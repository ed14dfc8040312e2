<?php

namespace App\Kernel;

/** What was typed on a command line, as text. */
final class Option
{
    /** @param  array<mixed>|string|float|int|bool|null  $typed */
    public static function text(array|string|float|int|bool|null $typed): string
    {
        return is_string($typed) ? $typed : '';
    }
}
