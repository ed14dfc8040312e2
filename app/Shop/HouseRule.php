<?php

namespace App\Shop;

/** A question practitioners disagree on, and the choice in force here. */
final class HouseRule extends Record
{
    protected $table = 'house_rules';

    protected $casts = ['choices' => 'array'];

    /** @return list<array{question: string, choice: string, reason: string}> what is in force, for the place where it matters */
    public static function inForce(string ...$codes): array
    {
        return self::query()->whereIn('code', $codes)->orderBy('id')->get()->map(fn (self $r) => ['question' => $r->question, 'choice' => $r->choice, 'reason' => $r->reason])->all();
    }
}
