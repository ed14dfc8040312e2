<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\Variant;
use Yard\Core\Identification\TagCandidate;
use Yard\Core\Identification\TagPattern;
use Yard\Core\Identification\TagReader;
use Yard\Core\Input;

/** Reads a stamped code against the tag patterns of every family: all candidates, never one guess. */
final class TagReading
{
    /** @return array<string, mixed> */
    public function read(string $text): array
    {
        $patterns = [];
        foreach (
            Family::query()
                ->orderBy('code')
                ->get(['code', 'name', 'body']) as $family
        ) {
            foreach ($family->body['tagPatterns'] ?? [] as $pattern) {
                $patterns[] = TagPattern::read(Input::of(['family' => $family->code] + $pattern));
            }
        }
        $variants = Variant::query()
            ->get(['code', 'name', 'from_year', 'to_year'])
            ->keyBy('code');
        $made = $variants->map(fn (Variant $v) => [$v->from_year, $v->to_year])->all();
        $tag = TagReader::normalise($text);

        return [
            'text' => $tag,
            'candidates' => array_map(
                fn (TagCandidate $c) => [
                    'family' => $c->family,
                    'variant' => $c->variant,
                    'name' => $variants[$c->variant]?->name,
                    'made' => $variants[$c->variant]?->from_year.'-'.$variants[$c->variant]?->to_year,
                    'years' => $c->years,
                    'yearFits' => $c->yearFits,
                    'groups' => (object) $c->groups,
                    'note' => $c->note,
                ],
                (new TagReader($patterns, $made, now()->year))->read($tag),
            ),
        ];
    }
}
