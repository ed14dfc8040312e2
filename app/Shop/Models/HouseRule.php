<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/**
 * A question practitioners disagree on, and the choice in force here.
 *
 * @property int $id
 * @property string $code
 * @property string $question
 * @property string $choice
 * @property array<mixed> $choices
 * @property string $reason
 * @property int|null $set_by
 * @property int $version
 */
final class HouseRule extends Record
{
    protected $table = 'house_rules';

    protected $fillable = [
        'code',
        'question',
        'choice',
        'choices',
        'reason',
        'set_by',
        'version',
    ];

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
