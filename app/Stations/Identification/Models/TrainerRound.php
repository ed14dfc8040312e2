<?php

namespace App\Stations\Identification\Models;

use App\Catalog\Models\Family;
use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * One past core dealt to a trainee.
 *
 * @property int $id
 * @property int $person_id
 * @property int $identification_id
 * @property int $family_id
 * @property array<mixed> $asked
 * @property string|null $answer
 * @property bool|null $right_answer
 * @property string|null $question_score
 * @property float $effort
 * @property string|null $engine_effort
 * @property Carbon $started_at
 * @property Carbon|null $ended_at
 * @property Identification $identification
 * @property Family $family
 */
final class TrainerRound extends Record
{
    protected $table = 'trainer_rounds';

    protected $fillable = [
        'person_id',
        'identification_id',
        'family_id',
        'asked',
        'answer',
        'right_answer',
        'question_score',
        'effort',
        'engine_effort',
        'started_at',
        'ended_at',
    ];

    protected $casts = [
        'asked' => 'array',
        'right_answer' => 'boolean',
        'effort' => 'float',
        'started_at' => 'datetime',
        'ended_at' => 'datetime',
    ];

    /** @return BelongsTo<Identification, $this> */
    public function identification(): BelongsTo
    {
        return $this->belongsTo(Identification::class);
    }

    /** @return BelongsTo<Family, $this> */
    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
