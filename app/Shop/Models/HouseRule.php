<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/** A question practitioners disagree on, and the choice in force here. */
final class HouseRule extends Record
{
    protected $table = 'house_rules';

    protected $casts = ['choices' => 'array'];

    /**
     * @return array<string, list<array{question: string, choice: string, reason: string}>> what is in force, by rule,
     *     for the places where it matters
     */
    public static function inForce(string ...$codes): array
    {
        return self::query()
            ->whereIn('code', $codes)
            ->get()
            ->mapToGroups(
                fn (self $r) => [
                    $r->code => ['question' => $r->question, 'choice' => $r->choice, 'reason' => $r->reason],
                ],
            )
            ->toArray() + array_fill_keys($codes, []);
    }
}
