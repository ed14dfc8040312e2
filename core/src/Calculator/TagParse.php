<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Identification\TagCandidate;
use Yard\Core\Identification\TagPattern;
use Yard\Core\Identification\TagReader;
use Yard\Core\Input;

/** tag.parse: what a stamped tag code may mean. */
final class TagParse implements Calculator
{
    public function calculate(Input $in): array
    {
        $text = TagReader::normalise($in->string('text'));
        $made = [];
        foreach ($in->map('variants') as $code => $variant) {
            $made[(string) $code] = [
                $variant->integer('fromYear', 1900, 2200),
                $variant->integer('toYear', 1900, 2200),
            ];
        }
        $reader = new TagReader(
            array_map(TagPattern::read(...), $in->list('patterns')),
            $made,
            $in->integer('thisYear', TagReader::FIRST_YEAR, 2200),
        );

        return [
            'text' => $text,
            'candidates' => array_map(
                static fn (TagCandidate $c): array => ['groups' => (object) $c->groups] + get_object_vars($c),
                $reader->read($text),
            ),
        ];
    }
}
