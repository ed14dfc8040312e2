<?php

namespace App\Work\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * What was answered to prove an operation. Numbers off a gauge, chosen parts and grades have tables of their own.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $bench
 * @property string $operation
 * @property string $proof
 * @property string $kind
 * @property array<string, mixed> $answer
 * @property bool $satisfied
 * @property string $note
 * @property int $taken_by
 * @property Carbon $taken_at  by the server's clock
 * @property Carbon|null $tablet_at
 * @property Carbon|null $undone_at
 */
final class Proof extends AccountedRecord
{
    protected $table = 'proofs';

    protected $fillable = [
        'unit_id',
        'generation',
        'bench',
        'operation',
        'proof',
        'kind',
        'answer',
        'satisfied',
        'note',
        'taken_by',
        'taken_at',
        'tablet_at',
        'undone_at',
    ];

    protected $casts = [
        'answer' => 'array',
        'satisfied' => 'boolean',
        'taken_at' => 'datetime',
        'tablet_at' => 'datetime',
        'undone_at' => 'datetime',
    ];
}
