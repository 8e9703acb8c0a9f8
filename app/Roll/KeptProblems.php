<?php

declare(strict_types=1);

namespace App\Roll;

use App\Ledger\Touched;
use App\Models\School;
use App\Platform\SchoolDay;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Roll\AccountProblem;

/**
 * Who has which problem, kept in a table, so that a list or a count of 50,000 need not be worked out when it is looked
 * at. It follows every entry within its transaction, the first sign-in of somebody, and the day.
 */
final class KeptProblems
{
    private const CHUNK = 2000;

    private const ATTEMPTS = 3;

    /** @return array<string, int> how many of a school have each */
    public function counts(School $school): array
    {
        $this->today($school->id);

        return array_map(
            intval(...),
            DB::table('roll_problems')
                ->where('school_id', $school->id)
                ->groupBy('problem')
                ->selectRaw('problem, count(*) n')
                ->pluck('n', 'problem')
                ->all(),
        );
    }

    /** For those an entry has touched. */
    public function follow(int $seq): void
    {
        $touched = Touched::people(
            $seq,
            Entity::Person,
            Entity::Enrollment,
            Entity::Section,
            Entity::SignIn,
            Entity::Badge,
            Entity::Guardianship,
            Entity::School,
        );
        $this->of(
            DB::query()
                ->fromSub($touched, 't')
                ->leftJoin('people as p', 'p.id', '=', 't.id')
                ->whereNotNull('t.id')
                ->where(fn(Builder $q) => $q->whereNull('p.id')->orWhere('p.kind', 'student'))
                ->get(['t.id', 'p.school_id', 'p.plain_number']),
        );
    }

    /** Somebody has signed in, which no entry says. */
    public function signedIn(string $personId): void
    {
        $never = DB::table('roll_problems')
            ->where('person_id', $personId)
            ->where('problem', AccountProblem::NeverSignedIn->value);
        if ((clone $never)->exists()) {
            $never->delete();
        }
    }

    /** Works a school out anew where a day has begun since: who is placed, and how old they are, goes by the day. */
    public function today(string $schoolId): void
    {
        $today = SchoolDay::today($schoolId);
        if (DB::table('roll_days')->where('school_id', $schoolId)->value('day') !== $today) {
            $this->all($schoolId);
        }
    }

    /** A whole school. */
    public function all(string $schoolId): void
    {
        $today = SchoolDay::today($schoolId);
        DB::transaction(function () use ($schoolId, $today): void {
            $this->of(
                DB::table('people')
                    ->where('school_id', $schoolId)
                    ->where('kind', 'student')
                    ->get(['id', 'school_id', 'plain_number']),
            );
            DB::table('roll_days')->upsert([['school_id' => $schoolId, 'day' => $today]], ['school_id']);
        }, self::ATTEMPTS);
    }

    /** @param  Collection<int, stdClass>  $people id, school and plain number; no school for those who are gone */
    private function of(Collection $people): void
    {
        foreach ($people->groupBy(fn(stdClass $p): string => (string) $p->school_id) as $school => $students) {
            $school = (string) $school;
            $today = $school === '' ? '' : SchoolDay::today($school);
            foreach ($students->pluck('id')->chunk(self::CHUNK) as $ids) {
                $is = [];
                foreach ($school === '' ? [] : AccountProblem::cases() as $problem) {
                    if ($problem !== AccountProblem::NumberTwice) {
                        $is = [...$is, ...$this->found($school, $problem, $today, $ids)];
                    }
                }
                $this->keep(
                    $is,
                    fn(Builder $q): Builder => $q
                        ->whereIn('person_id', $ids)
                        ->when(
                            $school !== '',
                            fn(Builder $q) => $q->where(
                                fn(Builder $or) => $or
                                    ->where('problem', '!=', AccountProblem::NumberTwice->value)
                                    ->orWhere('school_id', '!=', $school),
                            ),
                        ),
                );
            }
            $this->numbers($school, $today, $students->pluck('plain_number')->filter());
        }
    }

    /**
     * One number twice is a matter of two: whoever shares the number of somebody touched, or did, is looked at too.
     *
     * @param  Collection<int, mixed>  $numbers
     */
    private function numbers(string $school, string $today, Collection $numbers): void
    {
        $was = fn(Builder $q): Builder => $q
            ->where('school_id', $school)
            ->where('problem', AccountProblem::NumberTwice->value);
        $twice = DB::table('people')
            ->where('school_id', $school)
            ->where('kind', 'student')
            ->where('state', '!=', PersonState::Merged->value)
            ->when(
                $numbers->count() <= self::CHUNK,
                fn(Builder $q) => $q->where(
                    fn(Builder $or) => $or
                        ->whereIn('plain_number', $numbers->unique())
                        ->orWhereIn('id', $was(DB::table('roll_problems'))->pluck('person_id')),
                ),
                fn(Builder $q) => $q->whereIn(
                    'plain_number',
                    DB::table('people')
                        ->where('school_id', $school)
                        ->where('kind', 'student')
                        ->groupBy('plain_number')
                        ->havingRaw('count(*) > 1')
                        ->select('plain_number'),
                ),
            )
            ->pluck('id');
        $this->keep($this->found($school, AccountProblem::NumberTwice, $today, $twice), $was);
    }

    /**
     * @param  Collection<int, mixed>  $ids
     * @return list<array{school_id: string, problem: string, person_id: string}> who of them has the problem
     */
    private function found(string $school, AccountProblem $problem, string $today, Collection $ids): array
    {
        $query = DB::table('people as p')->whereIn('p.id', $ids);
        Problems::with($query, $problem, $today);

        return array_values(
            $query
                ->pluck('p.id')
                ->map(
                    fn(mixed $id): array => [
                        'school_id' => $school,
                        'problem' => $problem->value,
                        'person_id' => (string) $id,
                    ],
                )
                ->all(),
        );
    }

    /**
     * Writes what is other than before, and locks nothing else: many come in at once.
     *
     * @param  list<array{school_id: string, problem: string, person_id: string}>  $is
     * @param  Closure(Builder): Builder  $where whose rows these are instead of
     */
    private function keep(array $is, Closure $where): void
    {
        $key = fn(array $row): string => implode(' ', $row);
        $was = $where(DB::table('roll_problems'))
            ->get(['school_id', 'problem', 'person_id'])
            ->map(fn(stdClass $row): array => (array) $row)
            ->keyBy($key);
        $is = collect($is)->keyBy($key);
        foreach ($was->diffKeys($is)->groupBy(['school_id', 'problem']) as $school => $problems) {
            foreach ($problems as $problem => $rows) {
                DB::table('roll_problems')
                    ->where('school_id', $school)
                    ->where('problem', $problem)
                    ->whereIn('person_id', $rows->pluck('person_id')->sort()->values())
                    ->delete();
            }
        }
        foreach ($is->diffKeys($was)->sortKeys()->values()->chunk(500) as $rows) {
            DB::table('roll_problems')->insertOrIgnore($rows->all());
        }
    }
}
