<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Vocabulary;

/** Which bolt may go into which metal, and why: the vocabulary `metal-pairs` of the pack. */
final readonly class MetalPairs
{
    /** What bolts are made of. */
    public const METALS = ['steel', 'stainless', 'aluminium'];

    /**
     * @param  list<\stdClass>  $pairs  bolt, hole, allowed, reason
     * @param  list<\stdClass>  $holes  metal, shear_mpa
     */
    public function __construct(private array $pairs, private array $holes = [])
    {
    }

    /** What the thread of a hole takes, in MPa; null: nobody has said. */
    public function shearOf(string $hole): ?float
    {
        $known = array_column($this->holes, 'shear_mpa', 'metal')[$hole] ?? null;

        return $known === null ? null : (float) $known;
    }

    public static function known(): self
    {
        $known = Vocabulary::query()->where('code', 'metal-pairs')->first()?->body;

        return new self($known->pairs ?? [], $known->holes ?? []);
    }

    /** Why this bolt must not go into that hole; null: it may. */
    public function against(string $bolt, string $hole): ?string
    {
        $pair = $this->pair($bolt, $hole);

        if ($pair === null) {
            return "Nobody has said whether $bolt may go into $hole; have it written down before a bolt is turned.";
        }

        return $pair->allowed ? null : $pair->reason;
    }

    private function pair(string $bolt, string $hole): ?\stdClass
    {
        foreach ($this->pairs as $pair) {
            if ($pair->bolt === $bolt && $pair->hole === $hole) {
                return $pair;
            }
        }

        return null;
    }
}
