<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** How somebody came into a section. */
enum EnrollmentSource: string
{
    case List = 'list';
    case Code = 'code';
    case Hand = 'hand';
    case Invitation = 'invitation';
    case Rollover = 'rollover';
    case Request = 'request';
    case Move = 'move';
    case Reserve = 'reserve';
}
