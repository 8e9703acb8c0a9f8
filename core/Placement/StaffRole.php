<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

/** What an adult is in a section. A co-teacher can do all but archive it; an assistant sees the roster and prints cards. */
enum StaffRole: string
{
    case Lead = 'lead';
    case CoTeacher = 'co_teacher';
    case Assistant = 'assistant';

    public function label(): string
    {
        return match ($this) {
            self::Lead => 'lead',
            self::CoTeacher => 'co-teacher',
            self::Assistant => 'assistant',
        };
    }
}
