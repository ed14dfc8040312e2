<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/**
 * A compressor, driver, puller or fixture with its place and the date it was last looked at.
 *
 * @property int $id
 * @property string $tag
 * @property string $kind  code in the vocabulary special-tools
 * @property string $name
 * @property string $place
 * @property string $inspected_until
 * @property int $version
 */
final class SpecialTool extends Record
{
    protected $table = 'special_tools';

    protected $fillable = ['tag', 'kind', 'name', 'place', 'inspected_until', 'version'];

    public function isOverdue(): bool
    {
        return $this->inspected_until < now()->format('Y-m-d');
    }

    /** @return array<string, mixed> */
    public function shown(): array
    {
        return [
            'tag' => $this->tag,
            'kind' => $this->kind,
            'name' => $this->name,
            'place' => $this->place,
            'inspectedUntil' => $this->inspected_until,
            'overdue' => $this->isOverdue(),
            'version' => $this->version,
        ];
    }
}
