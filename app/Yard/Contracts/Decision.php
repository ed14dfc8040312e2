<?php

namespace App\Yard\Contracts;

/** Something that waits for somebody's word before a unit can go on. */
final readonly class Decision
{
    /**
     * @param  string  $kind  "hold", "release", "verdict" or "return"
     * @param  string  $sentence  what is to be decided, a whole sentence
     * @param  string  $since  ISO 8601, UTC
     * @param  string  $link  address in the interface where it is decided
     */
    public function __construct(
        public string $kind,
        public string $coreTag,
        public string $sentence,
        public string $since,
        public string $link,
    ) {
    }
}
