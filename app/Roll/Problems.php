<?php

declare(strict_types=1);

namespace App\Roll;

use App\Platform\SchoolDay;
use Closure;
use Illuminate\Database\Query\Builder;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Roll\AccountProblem;
use Vantrel\Core\Values\GradeLevel;

/** The problems of accounts as conditions of a query over people (`p`); what each is, {@see AccountProblem} says. */
final class Problems
{
    /** @param  string  $today the day at the school */
    public static function with(Builder $query, AccountProblem $problem, string $today): void
    {
        $query->where('p.kind', 'student')->where('p.state', $problem->state()->value);
        $guardianships = fn(Builder $q): Builder => $q->from('guardianships as g')->whereColumn('g.student_id', 'p.id');
        match ($problem) {
            AccountProblem::Unplaced => $query->whereNotExists(self::placed($today)),
            AccountProblem::LeftEnrolled => $query->whereExists(self::placed($today)),
            AccountProblem::NeverSignedIn => $query->whereNotExists(
                fn(Builder $q) => $q
                    ->from('sign_ins as i')
                    ->whereColumn('i.person_id', 'p.id')
                    ->whereNotNull('i.last_signed_in_at'),
            ),
            AccountProblem::NoGuardian => $query->whereNotExists(
                fn(Builder $q) => $guardianships($q)->where('g.state', '!=', 'ended'),
            ),
            AccountProblem::NotConnected => $query->whereNotExists(
                fn(Builder $q) => $guardianships($q)->where('g.state', 'connected'),
            ),
            AccountProblem::NoCard => $query->whereNotExists(self::card('live')),
            AccountProblem::CardLost => $query->whereNotExists(self::card('live'))->whereExists(self::card('lost')),
            AccountProblem::OutsideDomain => $query
                ->whereNotNull('p.email')
                ->whereExists(
                    fn(Builder $q) => $q
                        ->from('schools as o')
                        ->whereColumn('o.id', 'p.school_id')
                        ->whereRaw('json_length(o.mail_domains) > 0')
                        ->whereRaw("not json_contains(o.mail_domains, json_quote(substring_index(p.email, '@', -1)))"),
                ),
            AccountProblem::NoBirthDate => $query->whereNull('p.birth_date'),
            AccountProblem::NumberTwice => $query
                ->whereNotNull('p.plain_number')
                ->whereExists(
                    fn(Builder $q) => $q
                        ->from('people as o')
                        ->whereColumn('o.school_id', 'p.school_id')
                        ->where('o.kind', 'student')
                        ->whereColumn('o.plain_number', 'p.plain_number')
                        ->whereColumn('o.id', '!=', 'p.id')
                        ->where('o.state', '!=', PersonState::Merged->value),
                ),
            AccountProblem::GradeUnlikeAge => $query->where(function (Builder $any) use ($today): void {
                foreach (GradeLevel::codes() as $code) {
                    [$old, $young] = AccountProblem::bornUnlike(
                        GradeLevel::read($code) ?? throw new \LogicException("$code is no grade."),
                        $today,
                    );
                    $any->orWhere(
                        fn(Builder $q) => $q
                            ->where('p.grade', $code)
                            ->where(
                                fn(Builder $born) => $born
                                    ->where('p.birth_date', '<=', $old)
                                    ->orWhere('p.birth_date', '>', $young),
                            ),
                    );
                }
            }),
        };
    }

    /** @return Closure(Builder): void */
    private static function placed(string $today): Closure
    {
        return function (Builder $q) use ($today): void {
            $q->from('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->whereColumn('e.person_id', 'p.id')
                ->where(SchoolDay::inForce('e', $today))
                ->where('s.state', 'open');
        };
    }

    /** @return Closure(Builder): void */
    private static function card(string $state): Closure
    {
        return function (Builder $q) use ($state): void {
            $q->from('sign_ins as i')
                ->join('badges as b', 'b.sign_in_id', '=', 'i.id')
                ->whereColumn('i.person_id', 'p.id')
                ->where('b.state', $state);
        };
    }
}
