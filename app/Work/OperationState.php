<?php

namespace App\Work;

/** How far one operation has come; one without a row has not been touched. */
enum OperationState: string
{
    case Open = 'open';
    case Running = 'running';
    case Paused = 'paused';
    case Done = 'done';
    case Jammed = 'jammed';
}
