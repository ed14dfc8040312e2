<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/**
 * One specification of a family (window, step, torque, limit) with source, edition and confidence.
 *
 * @property int $id
 * @property int $family_id
 * @property string $kind
 * @property string $code
 * @property int $position
 * @property string $name
 * @property array<mixed> $body
 * @property string $claims
 * @property string|null $signed
 * @property string $source
 * @property string $edition
 * @property string $confidence
 * @property int|null $changed_by
 */
final class FamilySpec extends Record
{
    protected $table = 'specs';

    protected $fillable = [
        'family_id',
        'kind',
        'code',
        'position',
        'name',
        'body',
        'claims',
        'signed',
        'source',
        'edition',
        'confidence',
        'changed_by',
    ];

    protected $casts = ['body' => 'array'];
}
