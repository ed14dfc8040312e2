<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\MetalPairs;
use Yard\Core\BadInput;
use Yard\Core\Fasteners\Thread;
use Yard\Core\Fasteners\Tightening;

/** Bolts: of a metal that may go into its hole, and as many by length as there are. */
final class CheckFasteners
{
    /**
     * @param  list<\stdClass>  $vocabularies
     * @return list<array{pointer: string, detail: string}>
     */
    public static function errors(\stdClass $family, array $vocabularies, string $at): array
    {
        $words = array_column($vocabularies, null, 'code')['metal-pairs'] ?? null;
        $pairs = new MetalPairs($words->body->pairs ?? []);
        $errors = [];
        foreach ($family->fasteners as $i => $entry) {
            $body = (array) $entry->body;
            $fault = self::fault($body, "$at/fasteners/$i/body");
            $fault === null || $errors[] = $fault;
            $against = isset($body['metal']) && $words !== null
                ? $pairs->against($body['metal'], $body['into'])
                : null;
            if ($against !== null) {
                $errors[] = ['pointer' => "$at/fasteners/$i/body/metal", 'detail' => $against];
            }
            $lengths = array_sum((array) ($body['lengths'] ?? []));
            if (isset($body['lengths']) && $lengths !== $body['count']) {
                $errors[] = [
                    'pointer' => "$at/fasteners/$i/body/lengths",
                    'detail' => "By length there are $lengths bolts, in all {$body['count']}.",
                ];
            }
        }

        return $errors;
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array{pointer: string, detail: string}|null a thread that is none, or a grade it does not come in
     */
    private static function fault(array $body, string $at): ?array
    {
        try {
            $thread = Thread::of($body['thread'], '/thread');
            ($body['metal'] ?? 'steel') === 'steel' && Tightening::of($thread, $body['grade'], 1, 1);
        } catch (BadInput $e) {
            return ['pointer' => $at.$e->path, 'detail' => $e->getMessage()];
        }

        return null;
    }
}
