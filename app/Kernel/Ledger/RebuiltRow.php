<?php

namespace App\Kernel\Ledger;

/** A row as the events say it must be. */
final readonly class RebuiltRow
{
    /** @param  array<string, mixed>  $columns  as far as events set them */
    public function __construct(public ?int $unit, public array $columns)
    {
    }

    public static function read(\stdClass $row): self
    {
        return new self($row->unit_id, json_decode($row->columns, true, flags: JSON_THROW_ON_ERROR));
    }
}
