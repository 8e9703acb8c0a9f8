<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

/** What is done with many students of the Roll at once. */
enum ManyKind: string
{
    case Grade = 'grade';
    /** They are of the school no more; what they are in ends today. */
    case Leave = 'leave';
    /** They are back; into which section is decided by itself. */
    case Back = 'back';
    /** What was read as the given name is the family name, and the other way round. */
    case Turn = 'turn';
    /** Their families are written to in a language. */
    case Language = 'language';
    /** How much of their names others read. */
    case Shown = 'shown';
    /** Names all in capitals, or all without any, are written as a person would. */
    case Mend = 'mend';
}
