<?php

declare(strict_types=1);

namespace App\Roll;

use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Vantrel\Core\Roll\AccountProblem;

/** The problems of accounts as conditions of a query over people (`p`); what each is, {@see AccountProblem} says. */
final class Problems
{
    /** @param  string  $today the day at the school */
    public static function with(Builder $query, AccountProblem $problem, string $today): void
    {
        $query->where('p.kind', 'student');
        match ($problem) {
            AccountProblem::Unplaced => $query->whereNotExists(
                fn(Builder $q) => $q
                    ->from('enrollments as e')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->whereColumn('e.person_id', 'p.id')
                    ->where(SchoolDay::inForce('e', $today))
                    ->where('s.state', 'open'),
            ),
            AccountProblem::NeverSignedIn => $query->whereNotExists(
                fn(Builder $q) => $q
                    ->from('sign_ins as i')
                    ->whereColumn('i.person_id', 'p.id')
                    ->whereNotNull('i.last_signed_in_at'),
            ),
            AccountProblem::NoGuardian => $query->whereNotExists(
                fn(Builder $q) => $q
                    ->from('guardianships as g')
                    ->whereColumn('g.student_id', 'p.id')
                    ->where('g.state', '!=', 'ended'),
            ),
            AccountProblem::NoCard => $query->whereNotExists(
                fn(Builder $q) => $q
                    ->from('sign_ins as i')
                    ->join('badges as b', 'b.sign_in_id', '=', 'i.id')
                    ->whereColumn('i.person_id', 'p.id')
                    ->where('b.state', 'live'),
            ),
        };
    }
}
