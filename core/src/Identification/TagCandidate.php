<?php

declare(strict_types=1);

namespace Yard\Core\Identification;

/** What a tag may mean. */
final readonly class TagCandidate
{
    /**
     * @param  list<int>  $years  it can have been made in
     * @param  bool  $yearFits  the variant was made in one of these years, or the tag names none
     * @param  array<string, string>  $groups  what the pattern found
     */
    public function __construct(
        public string $family,
        public string $variant,
        public array $years,
        public bool $yearFits,
        public array $groups,
        public string $note,
    ) {
    }
}
