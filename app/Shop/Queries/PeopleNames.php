<?php

namespace App\Shop\Queries;

use App\Shop\Models\Person;

/** Names of the people of the shop, one query a request however many signatures a card shows. */
final class PeopleNames
{
    /** @var array<int, string>|null */
    private ?array $names = null;

    /** @return array<string, string> names by badge */
    public function byBadge(): array
    {
        return Person::query()->pluck('name', 'badge')->all();
    }

    public function of(?int $personId): ?string
    {
        $this->names ??= Person::query()->pluck('name', 'id')->all();

        return $personId === null ? null : $this->names[$personId] ?? 'somebody who left';
    }
}
