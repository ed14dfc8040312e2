<?php

namespace App\Track;

/** What one station adds to the route card. Stations read their own tables here, and nobody else does. */
interface CardSection
{
    public function key(): string;

    /** @return array<string, mixed>|null null while the station has nothing to show */
    public function of(Unit $unit): ?array;
}
