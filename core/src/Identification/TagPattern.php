<?php

declare(strict_types=1);

namespace Yard\Core\Identification;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * How a family stamps its tags: a regular expression with named groups. "letter" looks up the variants, "year" is one
 * digit (any decade) or two digits (any century).
 */
final readonly class TagPattern
{
    /** @param  array<string, list<string>>  $letters  upper case => variants */
    public function __construct(
        public string $family,
        public string $pattern,
        public array $letters,
        public string $note = '',
    ) {
    }

    public static function read(Input $in): self
    {
        $letters = [];
        foreach ($in->map('letters') as $letter => $variants) {
            $letters[strtoupper((string) $letter)] = $variants->asStrings();
        }

        return new self(
            $in->name('family'),
            $in->string('pattern'),
            $letters,
            $in->stringOr('note'),
        );
    }

    /**
     * @return array<string, string>|null named groups, null when the text does not match
     *
     * @throws BadInput when the pattern is none
     */
    public function match(string $text): ?array
    {
        $found = @preg_match('/'.str_replace('/', '\/', $this->pattern).'/u', $text, $groups);
        if ($found === false) {
            throw new BadInput('pattern', 'This is no pattern: '.lcfirst(preg_last_error_msg()).'.', '/pattern');
        }

        return $found === 0 ? null : array_filter($groups, is_string(...), ARRAY_FILTER_USE_KEY);
    }
}
