<?php

namespace App\Kernel\Ledger;

/** What became of a row, as it stands in an event: [table, key, columns or null]. */
final readonly class Change implements \JsonSerializable
{
    /** @param  array<string, mixed>|null  $set  columns and their new values; null: the row is gone */
    public function __construct(public string $table, public int $id, public ?array $set)
    {
    }

    /** @return array{string, int, ?array<string, mixed>} */
    public function jsonSerialize(): array
    {
        $written = fn (mixed $v): mixed => $v instanceof \DateTimeInterface ? $v->format('Y-m-d H:i:s') : $v;

        return [$this->table, $this->id, $this->set === null ? null : array_map($written, $this->set)];
    }
}
