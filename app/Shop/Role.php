<?php

namespace App\Shop;

/** What somebody is in the shop; abilities are given to roles. */
enum Role: string
{
    case Manager = 'manager';
    case Receiver = 'receiver';
    case Teardown = 'teardown';
    case Builder = 'builder';
    case Dyno = 'dyno';
    case Returns = 'returns';
    case Viewer = 'viewer';

    /** @return list<self> everybody who works on units */
    public static function hands(): array
    {
        return array_values(array_filter(self::cases(), fn (self $r) => $r !== self::Viewer));
    }
}
