<?php

namespace App\Work;

/** What became of a count that differs. */
enum Decision: string
{
    case Found = 'found';
    case CameSo = 'came-so';
    case Ours = 'ours';

    public function says(): string
    {
        return match ($this) {
            self::Found => 'It turned up; the count is right after all',
            self::CameSo => 'It came to us so',
            self::Ours => 'It was lost or mixed here',
        };
    }

    /** What turned up needs no word; the rest is told to somebody later. */
    public function needsNote(): bool
    {
        return $this !== self::Found;
    }
}
