<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/** When nobody can be in two sections at once. */
final class Periods
{
    /**
     * Whether two periods are the same hour: as they are written, in small or capital letters; none is never another’s.
     */
    public static function same(?string $a, ?string $b): bool
    {
        $key = fn(?string $period): string => mb_strtolower(trim((string) $period));

        return $key($a) !== '' && $key($a) === $key($b);
    }

    /** Whether two sections meet at once: both open, in the same school year, in the same period. */
    public static function clash(Section $a, Section $b): bool
    {
        return $a->id !== $b->id &&
            $a->state() === SectionState::Open &&
            $b->state() === SectionState::Open &&
            $a->schoolYearId() === $b->schoolYearId() &&
            self::same($a->period(), $b->period());
    }
}
