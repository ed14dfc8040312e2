<?php

namespace App\Work;

use App\Yard\StationName;

/** Where operations are worked through, and where their list comes from. */
enum Bench: string
{
    case Teardown = 'teardown';
    case Assembly = 'assembly';
    case Dispatch = 'dispatch';
    case Returns = 'returns';

    /** Whether every family has its own operations here, or the shop one list for all of them. */
    public function isOfFamily(): bool
    {
        return $this === self::Teardown || $this === self::Assembly;
    }

    /** The kind of specification, or the vocabulary, that lists its operations. */
    public function list(): string
    {
        return $this->isOfFamily() ? "$this->value-step" : "$this->value-operations";
    }

    /** What a badge must be allowed to do to work here. */
    public function ability(): string
    {
        return match ($this) {
            self::Teardown, self::Assembly => "$this->value.work",
            self::Dispatch => 'dispatch.ship',
            self::Returns => 'returns.handle',
        };
    }

    /** @return list<StationName> where a unit must stand to be worked on here */
    public function stations(): array
    {
        return match ($this) {
            self::Teardown => [StationName::Teardown, StationName::Returns],
            self::Assembly => [StationName::Assembly],
            self::Dispatch => [StationName::Dispatch],
            self::Returns => [StationName::Returns],
        };
    }
}
