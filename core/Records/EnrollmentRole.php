<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** As what somebody is in a section. */
enum EnrollmentRole: string
{
    case Student = 'student';
    case Lead = 'lead';
    case CoTeacher = 'co_teacher';
    case Assistant = 'assistant';
    case Substitute = 'substitute';

    /** As it is written in a sentence. */
    public function label(): string
    {
        return $this === self::CoTeacher ? 'co-teacher' : $this->value;
    }

    /** Whether students and their guardians are told of them as their teacher. */
    public function isTeacher(): bool
    {
        return in_array($this, [self::Lead, self::CoTeacher, self::Substitute], true);
    }

    /**
     * Whether somebody only stands in for another: they do not go along into next year, and stand in no school record.
     */
    public function standsIn(): bool
    {
        return $this === self::Substitute;
    }

    /** The one of two that may do more in a section: somebody with two accounts keeps it. */
    public function over(self $other): self
    {
        $rank = fn(self $role): int => match ($role) {
            self::Lead => 4,
            self::CoTeacher => 3,
            self::Substitute => 2,
            self::Assistant => 1,
            self::Student => 0,
        };

        return $rank($other) > $rank($this) ? $other : $this;
    }

    /**
     * @param  callable(self): bool  $which
     * @return list<string> the values of those roles, for a statement
     */
    public static function values(callable $which): array
    {
        return array_values(array_map(fn(self $role): string => $role->value, array_filter(self::cases(), $which)));
    }
}
