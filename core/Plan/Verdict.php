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

    /** Whether applying the plan does something to the line. */
    public function acts(): bool
    {
        return match ($this) {
            self::New, self::Update, self::Leaving, self::Archived => true,
            self::Same, self::Ask, self::Cannot => false,
        };
    }

    /** Whether somebody has to do something before the line can be taken. */
    public function waits(): bool
    {
        return $this === self::Ask || $this === self::Cannot;
    }
}
