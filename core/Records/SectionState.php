<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** An archived section can be read, and nothing in it changed. */
enum SectionState: string
{
    case Open = 'open';
    case Archived = 'archived';
}
