<?php

namespace App\Stations\Dyno;

/** How a rig stands, as far as the gateway knows. */
enum RigState: string
{
    case Ready = 'ready';
    case Stopped = 'stopped';
    case Silent = 'silent';

    /** The gateway itself was not heard of. */
    case Unwatched = 'unwatched';
}
