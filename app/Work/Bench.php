<?php

namespace App\Work;

use App\Yard\StationName;

/** Where operations are worked through, and where their list comes from. */
enum Bench: string
{
    case Teardown = 'teardown';
    case Assembly = 'assembly';

    /** The kind of specification that lists its operations. */
    public function list(): string
    {
        return "$this->value-step";
    }

    /** @return list<StationName> where a unit must stand to be worked on here */
    public function stations(): array
    {
        return $this === self::Teardown ? [StationName::Teardown, StationName::Returns] : [StationName::Assembly];
    }
}
