<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** Who of those chosen is written to. */
enum Readers: string
{
    case Guardians = 'guardians';
    case Students = 'students';
    case Staff = 'staff';
}
