<?php

namespace App\Yard;

use App\Yard\Contracts\Station;

/**
 * Where a unit can be: the eight stations in the order of the work, then with the customer, then at the end of its
 * route. This is the one list of stations; each has its folder below app/Stations and its class in it.
 */
enum StationName: string
{
    case Receiving = 'receiving';
    case Identification = 'identification';
    case Ordering = 'ordering';
    case Teardown = 'teardown';
    case Assembly = 'assembly';
    case Dyno = 'dyno';
    case Dispatch = 'dispatch';
    case Returns = 'returns';
    case Field = 'field';
    case Closed = 'closed';

    /** @return list<self> the stations of the house */
    public static function inHouse(): array
    {
        return array_slice(self::cases(), 0, -2);
    }

    /** @return list<self> the stations where units wait for work */
    public static function working(): array
    {
        return array_slice(self::inHouse(), 1);
    }

    /** @return class-string<Station> */
    public function station(): string
    {
        $class = "App\\Stations\\$this->name\\{$this->name}Station";

        return is_subclass_of($class, Station::class)
            ? $class
            : throw new \LogicException("$this->name is no station of the house.");
    }

    /** As a sentence names it: "the unit is at ...". */
    public function inWords(): string
    {
        return match ($this) {
            self::Assembly => 'the assembly bench',
            self::Dyno => 'the dyno',
            self::Field => 'the customer',
            self::Closed => 'the end of its route',
            default => $this->value,
        };
    }
}
