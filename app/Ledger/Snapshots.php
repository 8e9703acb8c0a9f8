<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records;
use Vantrel\Core\Records\Entity;

/**
 * Reads records as the core sees them. Each method reads what one kind of plan is made from, in a handful of queries.
 */
final class Snapshots
{
    private const IN = 1000;

    /**
     * What the plan of an intake is made from: the people its rows may be or name, and all that hangs on them. A list
     * can meet anyone of the district; sections are those that are open.
     */
    public function forIntake(string $schoolId, IntakeNeeds $needs): Snapshot
    {
        $students =
            $this->rowsIn(
                Records\Person::class,
                'id',
                $needs->students,
                fn(Builder $q): Builder => $q->where('kind', 'student')->where('state', '!=', 'merged'),
            ) +
            $this->rowsIn(
                Records\Person::class,
                'number',
                $needs->numbers,
                fn(Builder $q): Builder => $q
                    ->where('school_id', $schoolId)
                    ->where('kind', 'student')
                    ->where('state', '!=', 'merged'),
            );
        if ($needs->everyone !== null) {
            $students += $this->rows(
                Records\Person::class,
                fn(Builder $q): Builder => $this->inScope($q, $schoolId, $needs->everyone),
            );
        }
        // A student this very list made may have been merged since: then the row is the survivor.
        $merged = $this->rowsIn(
            Records\Person::class,
            'id',
            $needs->own,
            fn(Builder $q): Builder => $q->where('state', 'merged')->whereNotNull('merged_into'),
        );
        $students +=
            $merged +
            $this->rowsIn(
                Records\Person::class,
                'id',
                array_values(array_map(fn(Records\Person $p): string => (string) $p->mergedInto(), $merged)),
                fn(Builder $q): Builder => $q->where('state', '!=', 'merged'),
            );
        $ids = array_map(strval(...), array_keys($students));
        $open = fn(Builder $s) => $s->select('id')->from('sections')->where('state', 'open');
        $enrollments = $this->rowsIn(
            Records\Enrollment::class,
            'person_id',
            $ids,
            fn(Builder $q): Builder => $q->whereNull('ends_on')->where('role', 'student')->whereIn('section_id', $open),
        );
        $guardianships = $this->rowsIn(Records\Guardianship::class, 'student_id', $ids, fn(Builder $q): Builder => $q);
        $known = array_values(
            array_unique(array_map(fn(Records\Guardianship $g): string => $g->guardianId(), $guardianships)),
        );
        $isGuardian = fn(Builder $q): Builder => $q->where('kind', 'guardian')->where('state', '!=', 'merged');
        $guardians =
            // A teacher may be a guardian besides.
            $this->rowsIn(Records\Person::class, 'id', $known, fn(Builder $q) => $q->where('state', '!=', 'merged')) +
            $this->rowsIn(Records\Person::class, 'email', $needs->emails, $isGuardian) +
            $this->rowsIn(Records\Person::class, 'phone', $needs->phones, $isGuardian);
        $staff = $needs->staff
            ? $this->rows(
                Records\Person::class,
                fn(Builder $q): Builder => $q->where('kind', 'staff')->where('state', '!=', 'merged'),
            )
            : [];
        if ($needs->staff) {
            $enrollments += $this->rows(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->where('role', '!=', 'student')
                    ->whereNull('ends_on')
                    ->whereIn(
                        'section_id',
                        fn(Builder $s) => $s
                            ->select('id')
                            ->from('sections')
                            ->where('state', 'open')
                            ->where('school_id', $schoolId),
                    ),
            );
        }
        $people = $students + $guardians + $staff;
        ksort($people, SORT_STRING);

        return $this->of([
            Entity::Person->value => $people,
            // Of those archived, the ones of this year: a list may name one again.
            Entity::Section->value => $this->rows(
                Records\Section::class,
                fn(Builder $q): Builder => $q
                    ->where('state', 'open')
                    ->orWhereIn('school_year_id', fn(Builder $y): Builder => $this->years($y, $schoolId, 'current')),
            ),
            Entity::Enrollment->value => $enrollments,
            Entity::Guardianship->value => $guardianships,
            Entity::TransferRequest->value => $this->rows(
                Records\TransferRequest::class,
                fn(Builder $q): Builder => $q->where('to_school_id', $schoolId)->where('state', 'waiting'),
            ),
        ]);
    }

    private function inScope(Builder $people, string $schoolId, Scope $scope): Builder
    {
        $people->where('kind', 'student')->where('state', '!=', 'merged');

        return match (true) {
            $scope->sectionId !== null => $people->whereIn(
                'id',
                fn(Builder $q) => $q
                    ->select('person_id')
                    ->from('enrollments')
                    ->where('section_id', $scope->sectionId)
                    ->where('role', 'student')
                    ->whereNull('ends_on'),
            ),
            $scope->grade !== null => $people
                ->where('school_id', $schoolId)
                ->where('state', 'active')
                ->where('grade', $scope->grade),
            default => $people->where('school_id', $schoolId)->where('state', 'active'),
        };
    }

    /**
     * Records whose column holds one of the values, in statements of bounded size.
     *
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @param  list<string>  $values
     * @param  callable(Builder): Builder  $where
     * @return array<string, T>
     */
    private function rowsIn(string $kind, string $column, array $values, callable $where): array
    {
        $rows = [];
        foreach (array_chunk($values, self::IN) as $chunk) {
            $rows += $this->rows($kind, fn(Builder $q): Builder => $where($q)->whereIn($column, $chunk));
        }

        return $rows;
    }

    /**
     * Everything that hangs on some accounts.
     *
     * @param  list<string>  $ids
     */
    public function forMerge(array $ids): Snapshot
    {
        $any = fn(Builder $q): Builder => $q;
        [$links, $relatives] = $this->relatives($ids);

        return $this->of([
            Entity::Person->value =>
                $relatives +
                $this->rows(
                    Records\Person::class,
                    fn(Builder $q): Builder => $q->whereIn('id', $ids)->orWhereIn('merged_into', $ids),
                ),
            Entity::Coordinator->value => $this->rowsIn(Records\Coordinator::class, 'person_id', $ids, $any),
            Entity::SignIn->value => $this->rowsIn(Records\SignIn::class, 'person_id', $ids, $any),
            Entity::Identity->value => $this->rowsIn(Records\Identity::class, 'person_id', $ids, $any),
            Entity::Enrollment->value => $this->rowsIn(Records\Enrollment::class, 'person_id', $ids, $any),
            Entity::Section->value => $this->rows(
                Records\Section::class,
                fn(Builder $q): Builder => $q->whereIn(
                    'id',
                    fn(Builder $e) => $e->select('section_id')->from('enrollments')->whereIn('person_id', $ids),
                ),
            ),
            Entity::Guardianship->value => $links,
        ]);
    }

    /**
     * Students who go to another school: what they are in, their guardians with all of these one's children, requests
     * about them that wait, and who at the other school has a number they may come with.
     *
     * @param  list<string>  $ids
     * @param  list<string>  $numbers besides their own
     * @param  list<string>  $sections ids of sections they may come into
     */
    public function forTransfer(array $ids, string $toSchoolId, array $numbers = [], array $sections = []): Snapshot
    {
        $any = fn(Builder $q): Builder => $q;
        $students = $this->rowsIn(Records\Person::class, 'id', $ids, $any);
        $enrollments = $this->rowsIn(
            Records\Enrollment::class,
            'person_id',
            $ids,
            fn(Builder $q): Builder => $q->where('role', 'student')->whereNull('ends_on'),
        );
        [$links, $relatives] = $this->relatives($ids);
        $numbers = array_filter([...$numbers, ...array_map(fn(Records\Person $p): ?string => $p->number(), $students)]);
        $in = array_map(fn(Records\Enrollment $e): string => $e->sectionId(), $enrollments);

        return $this->of([
            Entity::Person->value =>
                $students +
                $relatives +
                $this->rowsIn(
                    Records\Person::class,
                    'number',
                    array_values(array_unique($numbers)),
                    fn(Builder $q): Builder => $q->where('school_id', $toSchoolId)->where('kind', 'student'),
                ),
            Entity::Section->value => $this->rowsIn(
                Records\Section::class,
                'id',
                array_values(array_unique([...$sections, ...$in])),
                $any,
            ),
            Entity::Enrollment->value => $enrollments,
            Entity::Guardianship->value => $links,
            Entity::TransferRequest->value => $this->rowsIn(
                Records\TransferRequest::class,
                'person_id',
                $ids,
                fn(Builder $q): Builder => $q->where('state', 'waiting'),
            ),
        ]);
    }

    /**
     * Who people are tied to as guardian or child, and whom their guardians are tied to besides.
     *
     * @param  list<string>  $ids
     * @return array{array<string, Records\Guardianship>, array<string, Records\Person>}
     */
    private function relatives(array $ids): array
    {
        $any = fn(Builder $q): Builder => $q;
        $links =
            $this->rowsIn(Records\Guardianship::class, 'student_id', $ids, $any) +
            $this->rowsIn(Records\Guardianship::class, 'guardian_id', $ids, $any);
        $guardians = array_map(fn(Records\Guardianship $g): string => $g->guardianId(), $links);
        $links += $this->rowsIn(
            Records\Guardianship::class,
            'guardian_id',
            array_values(array_unique($guardians)),
            $any,
        );
        $people = [];
        foreach ($links as $link) {
            $people[$link->guardianId()] = $people[$link->studentId()] = true;
        }

        return [$links, $this->rowsIn(Records\Person::class, 'id', array_map(strval(...), array_keys($people)), $any)];
    }

    /** The sections of a school year, and nothing else. */
    public function sectionsOf(string $yearId): Snapshot
    {
        return $this->of([
            Entity::Section->value => $this->rows(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $yearId),
            ),
        ]);
    }

    /** One school's year with its people, sections, teachers, codes and invitations. */
    public function forYearTurn(string $schoolId, string $yearId): Snapshot
    {
        $sections = fn(Builder $s) => $s
            ->select('id')
            ->from('sections')
            ->where('school_year_id', $yearId)
            ->where('state', 'open');

        return $this->of([
            Entity::SchoolYear->value => $this->rows(
                Records\SchoolYear::class,
                fn(Builder $q): Builder => $q->where('school_id', $schoolId),
            ),
            Entity::Person->value => $this->rows(
                Records\Person::class,
                fn(Builder $q): Builder => $q
                    ->where('school_id', $schoolId)
                    ->where('kind', 'student')
                    ->where('state', 'active'),
            ),
            // Those of years that are planned too: what has been made there already is not carried forward again.
            Entity::Section->value => $this->rows(
                Records\Section::class,
                fn(Builder $q): Builder => $q
                    ->where('school_year_id', $yearId)
                    ->orWhereIn('school_year_id', fn(Builder $y): Builder => $this->years($y, $schoolId, 'planned')),
            ),
            Entity::Enrollment->value => $this->rows(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->where('role', '!=', 'student')
                    ->whereNull('ends_on')
                    ->whereIn('section_id', $sections),
            ),
            Entity::JoinCode->value => $this->rows(
                Records\JoinCode::class,
                fn(Builder $q): Builder => $q->where('state', 'open')->whereIn('section_id', $sections),
            ),
            Entity::Invitation->value => $this->rows(
                Records\Invitation::class,
                fn(Builder $q): Builder => $q->where('state', 'invited')->whereIn('section_id', $sections),
            ),
            Entity::JoinRequest->value => $this->rows(
                Records\JoinRequest::class,
                fn(Builder $q): Builder => $q->whereIn('state', ['waiting', 'mail'])->whereIn('section_id', $sections),
            ),
            Entity::RoomPass->value => $this->rows(
                Records\RoomPass::class,
                fn(Builder $q): Builder => $q->where('state', 'live')->whereIn('section_id', $sections),
            ),
        ]);
    }

    /**
     * One record, or null.
     *
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @return T|null
     */
    public function find(string $kind, string $id): ?Records\Record
    {
        return $this->list($kind, fn(Builder $q): Builder => $q->where('id', $id))[0] ?? null;
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @param  callable(Builder): Builder  $where
     * @return list<T>
     */
    public function list(string $kind, callable $where): array
    {
        return array_values($this->rows($kind, $where));
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @param  callable(Builder): Builder  $where
     * @return array<string, T>
     */
    private function rows(string $kind, callable $where): array
    {
        $rows = [];
        // Read as arrays through PDO: 50,000 Eloquent models would take several times the memory and time.
        $query = $where(DB::table($kind::entity()->value))->orderBy('id');
        foreach ($query->cursor() as $record) {
            $values = (array) $record;
            $id = (string) $values['id'];
            $version = (int) $values['version'];
            unset($values['id'], $values['version']);
            $rows[$id] = new $kind($id, $version, $values);
        }

        return $rows;
    }

    /** @param  array<string, array<string, Records\Record>>  $tables */
    private function of(array $tables): Snapshot
    {
        return new Snapshot($tables, DB::table('schools')->pluck('name', 'id')->all());
    }

    /** The school years of a school in a state, for use inside another query. */
    private function years(Builder $query, string $schoolId, string $state): Builder
    {
        return $query->select('id')->from('school_years')->where('school_id', $schoolId)->where('state', $state);
    }
}
