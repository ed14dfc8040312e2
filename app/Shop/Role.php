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
        return [self::Manager, self::Receiver, self::Teardown, self::Builder, self::Dyno, self::Returns];
    }
}
