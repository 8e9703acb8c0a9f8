<?php

declare(strict_types=1);

namespace App\Models;

/** How far a print is. */
enum PrintState: string
{
    case Waiting = 'waiting';
    case Working = 'working';
    case Done = 'done';
    case Failed = 'failed';
}
