<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

enum WorkState: string
{
    case Done = 'done';
    case Missing = 'missing';
    case Excused = 'excused';
}
