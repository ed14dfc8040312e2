<?php

namespace App\Yard;

/** The points on a unit's way where it may be held back, and how a sentence names them. */
enum Gate: string
{
    case FirstTool = 'first-tool';
    case Release = 'release';
    case CloseTeardown = 'close-teardown';
    case SignOff = 'sign-off';
    case Pass = 'pass';
    case Ship = 'ship';

    public function inWords(): string
    {
        return match ($this) {
            self::FirstTool => 'No tool may touch this unit yet',
            self::Release => 'The order cannot be released',
            self::CloseTeardown => 'Teardown cannot be closed',
            self::SignOff => 'This build cannot be signed off',
            self::Pass => 'This unit cannot pass',
            self::Ship => 'This unit does not leave the house',
        };
    }
}
