<?php

declare(strict_types=1);

namespace Yard\Core\Identification;

use Yard\Core\BadInput;

/**
 * Reads a stamped tag code against the patterns of the families. All candidates come back, never one guess: tags are
 * swapped, and a year digit repeats each decade.
 */
final readonly class TagReader
{
    public const FIRST_YEAR = 1950;

    private const LONGEST = 40;

    /**
     * @param  list<TagPattern>  $patterns
     * @param  array<string, array{int, int}>  $made  variant => first and last year
     */
    public function __construct(private array $patterns, private array $made, private int $thisYear)
    {
    }

    /** @throws BadInput when the text has no length of a tag */
    public static function normalise(string $typed): string
    {
        $text = strtoupper((string) preg_replace('/\s+/', '', $typed));
        if ($text === '' || strlen($text) > self::LONGEST) {
            throw new BadInput('length', 'A tag code has 1 to '.self::LONGEST.' characters.', '/text');
        }

        return $text;
    }

    /**
     * @param  string  $text  as normalise() gives it
     * @return list<TagCandidate>
     *
     * @throws BadInput at a pattern that is none or names a variant there is not
     */
    public function read(string $text): array
    {
        $candidates = [];
        foreach ($this->patterns as $n => $pattern) {
            try {
                $match = $pattern->match($text);
            } catch (BadInput $e) {
                throw $e->under("/patterns/$n");
            }
            if ($match !== null) {
                $this->check($pattern, "/patterns/$n");
                foreach ($pattern->letters[$match['letter'] ?? ''] ?? [] as $variant) {
                    $candidates[] = $this->candidate($pattern, $variant, $match);
                }
            }
        }
        // A candidate whose year falls into the time the variant was made speaks louder than one whose does not.
        usort($candidates, static fn (TagCandidate $a, TagCandidate $b): int => $b->yearFits <=> $a->yearFits);

        return $candidates;
    }

    /** @param  array<string, string>  $match */
    private function candidate(TagPattern $pattern, string $variant, array $match): TagCandidate
    {
        $possible = isset($match['year']) ? $this->years($match['year']) : [];
        [$from, $to] = $this->made[$variant];
        $inside = array_values(array_filter($possible, static fn (int $y): bool => $y >= $from && $y <= $to));

        return new TagCandidate(
            $pattern->family,
            $variant,
            $inside === [] ? $possible : $inside,
            $possible === [] || $inside !== [],
            $match,
            $pattern->note,
        );
    }

    private function check(TagPattern $pattern, string $at): void
    {
        foreach ($pattern->letters as $letter => $variants) {
            foreach ($variants as $n => $variant) {
                isset($this->made[$variant]) ||
                    throw new BadInput(
                        'unknown-variant',
                        "There is no variant \"$variant\".",
                        "$at/letters/$letter/$n",
                    );
            }
        }
    }

    /** @return list<int> every year the digits can mean, oldest first */
    private function years(string $digits): array
    {
        if (! ctype_digit($digits)) {
            return [];
        }
        $span = 10 ** strlen($digits);

        return array_values(
            array_filter(
                range(self::FIRST_YEAR, $this->thisYear),
                static fn (int $y): bool => $y % $span === (int) $digits,
            ),
        );
    }
}
