<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\Variant;
use Yard\Core\Calculators;

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
                $patterns[] = ['family' => $family->code, 'letters' => (object) $pattern['letters']] + $pattern;
            }
        }
        $variants = Variant::query()
            ->get(['code', 'name', 'from_year', 'to_year'])
            ->keyBy('code');
        $out = Calculators::call('tag.parse', [
            'text' => $text,
            'thisYear' => now()->year,
            'patterns' => $patterns,
            'variants' => (object) $variants
                ->map(fn (Variant $v) => ['fromYear' => $v->from_year, 'toYear' => $v->to_year])
                ->all(),
        ]);

        return [
            'text' => $out['text'],
            'candidates' => array_map(
                fn (array $c) => [
                    'name' => $variants[$c['variant']]?->name,
                    'made' => $variants[$c['variant']]?->from_year.'-'.$variants[$c['variant']]?->to_year,
                ] + $c,
                $out['candidates'],
            ),
        ];
    }
}
