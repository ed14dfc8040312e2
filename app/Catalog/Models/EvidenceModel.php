<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/**
 * Hypotheses and features for evidence.rank, kept as data.
 *
 * @property int $id
 * @property string $code
 * @property array<mixed> $body
 * @property string $source
 * @property int|null $changed_by
 */
final class EvidenceModel extends Record
{
    protected $table = 'evidence_models';

    protected $fillable = [
        'code',
        'body',
        'source',
        'changed_by',
    ];

    protected $casts = ['body' => 'array'];
}
