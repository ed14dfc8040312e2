<?php

namespace App\Catalog\Models;

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
final class FamilySpec extends CatalogRecord
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

    /**
     * All of a kind in their order, as plain data: a bench reads a hundred of them with every answer.
     *
     * @return list<array<string, mixed>> each body with its code and name
     */
    public static function bodies(int $family, string $kind): array
    {
        return array_values(self::query()
            ->where('family_id', $family)
            ->where('kind', $kind)
            ->orderBy('position')
            ->toBase()
            ->get(['code', 'name', 'body'])
            ->map(fn (\stdClass $s) => ['code' => $s->code, 'name' => $s->name]
                + json_decode($s->body, true, flags: JSON_THROW_ON_ERROR))
            ->all());
    }
}
