<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A homeroom, in which a student is once, or a class. */
enum SectionKind: string
{
    case Homeroom = 'homeroom';
    case ClassSection = 'class';
}
