<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whom a join code lets in. Students with an account always are; the cases say what becomes of those without one. */
enum CodeUse: string
{
    case Accounts = 'accounts';
    case Domain = 'domain';
    case Approval = 'approval';
}
