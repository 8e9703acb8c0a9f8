<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** What a plan says about one line: of a list, or of the people and sections it touches. */
enum Verdict: string
{
    case New = 'new';
    case Update = 'update';
    case Same = 'same';
    case Ask = 'ask';
    case Cannot = 'cannot';
    case Leaving = 'leaving';
    case Archived = 'archived';
}
