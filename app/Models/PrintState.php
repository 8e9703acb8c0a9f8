<?php

declare(strict_types=1);

namespace App\Models;

/** How far something is that a job does: a print, invitations. */
enum PrintState: string
{
    case Waiting = 'waiting';
    case Working = 'working';
    case Done = 'done';
    case Failed = 'failed';
}
