<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What somebody is to the school. */
enum PersonKind: string
{
    case Student = 'student';
    case Guardian = 'guardian';
    case Staff = 'staff';
}
