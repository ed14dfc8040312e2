<?php

namespace App\Yard\Contracts;

use App\Shop\Role;

/** A room of the house: its addresses below /api, who may do what in it, and what it knows of a scanned number. */
interface Room
{
    public static function routes(): void;

    /** @return array<string, list<Role>> ability ("room.verb") => roles */
    public static function abilities(): array;

    /** @return array<class-string, class-string> contracts this room answers for other rooms => its class */
    public static function provides(): array;

    /** @return list<ScanHit> exact hits first, a handful at most */
    public function scan(string $typed): array;
}
