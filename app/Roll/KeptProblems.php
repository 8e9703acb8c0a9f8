<?php

declare(strict_types=1);

namespace App\Roll;

use App\Platform\SchoolDay;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Records\BadgeState;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Roll\AccountFacts;
use Vantrel\Core\Roll\AccountProblem;

/**
 * Who has which problem, kept in a table, so that a list or a count of 50,000 need not be worked out when it is looked
 * at. It follows every entry within its transaction, the first sign-in of somebody, and the day.
 */
final class KeptProblems
{
    private const CHUNK = 2000;

    private const ATTEMPTS = 3;

    /** How many of a school have one, after {@see today()}. */
    public function count(string $schoolId, AccountProblem $problem): int
    {
        return DB::table('roll_problems')->where('school_id', $schoolId)->where('problem', $problem->value)->count();
    }

    /** @return array<string, array{int, string}> how many of a school have each, and the longest since when */
    public function standing(string $schoolId): array
    {
        $this->today($schoolId);
        $standing = [];
        foreach (
            DB::table('roll_problems')
                ->where('school_id', $schoolId)
                ->groupBy('problem')
                ->selectRaw('problem, count(*) n, min(since) s')
                ->get()
            as $of
        ) {
            $standing[(string) $of->problem] = [(int) $of->n, (string) $of->s];
        }

        return $standing;
    }

    /** Works out those who are marked, whichever school they are or were at. */
    public function settle(): void
    {
        Stale::Problems->settle($this->follow(...));
    }

    /** @param  Collection<int, string>  $ids of people, some of whom may be gone */
    private function follow(Collection $ids): void
    {
        $people = DB::table('people')
            ->whereIn('id', $ids)
            ->get(['id', 'kind', 'school_id', 'plain_number'])
            ->keyBy('id');
        $this->of(
            // Of guardians and staff there is nothing to keep; of who is gone, to forget.
            $ids
                ->map(
                    fn(string $id): stdClass => $people[$id] ??
                        (object) ['id' => $id, 'kind' => 'student', 'school_id' => null, 'plain_number' => null],
                )
                ->where('kind', 'student')
                ->values(),
        );
    }

    /** Somebody has signed in for the first time, which no entry says. */
    public function signedIn(string $personId): void
    {
        $never = DB::table('roll_problems')
            ->where('person_id', $personId)
            ->where('problem', AccountProblem::NeverSignedIn->value);
        // To look first locks nothing.
        if ((clone $never)->exists()) {
            $never->delete();
        }
    }

    /**
     * Before it is read: works out whom an entry has marked, and a school anew where a day has begun since; who is
     * placed, and how old they are, goes by the day.
     */
    public function today(string $schoolId): void
    {
        $kept = DB::query()
            ->selectSub(DB::table('roll_days')->where('school_id', $schoolId)->select('day'), 'day')
            ->selectSub(Stale::Problems->first(), 'stale')
            ->first();
        if ($kept?->day !== SchoolDay::today($schoolId)) {
            $this->all($schoolId);
        }
        if ($kept?->stale !== null) {
            $this->settle();
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
        $gone = $people->whereNull('school_id')->pluck('id');
        // Who is gone was perhaps the other bearer of a number.
        $left = DB::table('roll_problems')
            ->whereIn('person_id', $gone)
            ->where('problem', AccountProblem::NumberTwice->value)
            ->distinct()
            ->pluck('school_id');
        foreach ($people->groupBy(fn(stdClass $p): string => (string) $p->school_id) as $school => $students) {
            $school = (string) $school;
            $today = $school === '' ? '' : SchoolDay::today($school);
            foreach ($students->pluck('id')->chunk(self::CHUNK) as $ids) {
                $this->keep(
                    $school === '' ? [] : $this->found($school, $today, $ids),
                    fn(Builder $q): Builder => $q
                        ->whereIn('person_id', $ids)
                        ->where(
                            fn(Builder $or) => $or
                                ->where('problem', '!=', AccountProblem::NumberTwice->value)
                                ->orWhere('school_id', '!=', $school),
                        ),
                    $today,
                );
            }
            $this->numbers($school, $today, $students->pluck('plain_number')->filter());
        }
        foreach ($left as $school) {
            $this->numbers((string) $school, SchoolDay::today((string) $school), collect());
        }
    }

    /**
     * One number twice is a matter of two: whoever shares the number of somebody touched, or did, is looked at too.
     *
     * @param  Collection<int, mixed>  $numbers
     */
    private function numbers(string $school, string $today, Collection $numbers): void
    {
        $problem = AccountProblem::NumberTwice;
        $was = fn(Builder $q): Builder => $q->where('school_id', $school)->where('problem', $problem->value);
        $bearers = collect();
        foreach ([...$numbers->unique()->chunk(self::CHUNK), $this->numbersOf($was)] as $some) {
            $bearers = $bearers->concat(
                DB::table('people')
                    ->where('school_id', $school)
                    ->where('kind', 'student')
                    ->where('state', '!=', PersonState::Merged->value)
                    ->whereIn('plain_number', $some)
                    ->get(['id', 'state', 'plain_number']),
            );
        }
        $is = [];
        foreach ($bearers->unique('id')->groupBy('plain_number') as $same) {
            foreach ($same->count() > 1 ? $same : [] as $p) {
                if ($p->state === $problem->state()->value) {
                    $is[] = ['school_id' => $school, 'problem' => $problem->value, 'person_id' => (string) $p->id];
                }
            }
        }
        $this->keep($is, $was, $today);
    }

    /**
     * @param  Closure(Builder): Builder  $was
     * @return Collection<int, mixed> plain numbers of those kept so far
     */
    private function numbersOf(Closure $was): Collection
    {
        return DB::table('people')
            ->whereIn('id', $was(DB::table('roll_problems'))->pluck('person_id'))
            ->whereNotNull('plain_number')
            ->pluck('plain_number');
    }

    /**
     * What everybody of a chunk is judged by, each read once for all of them: in the transaction of a first list the
     * database takes its tables for empty, and would go through them once for everybody.
     *
     * @param  Collection<int, mixed>  $ids
     * @return list<array{school_id: string, problem: string, person_id: string}> who of them has which problem
     */
    private function found(string $school, string $today, Collection $ids): array
    {
        $placed = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.person_id', $ids)
            ->where(SchoolDay::inForce('e', $today))
            ->where('s.state', 'open')
            ->pluck('e.person_id')
            ->flip();
        $signedIn = DB::table('sign_ins')
            ->whereIn('person_id', $ids)
            ->whereNotNull('last_signed_in_at')
            ->pluck('person_id')
            ->flip();
        $guardians = $cards = $reached = [];
        foreach (
            DB::table('guardianships as g')
                ->join('people as c', 'c.id', '=', 'g.guardian_id')
                ->whereIn('g.student_id', $ids)
                ->get(['g.student_id', 'g.state', 'c.email', 'c.phone'])
            as $g
        ) {
            $guardians[$g->student_id][$g->state] = true;
            if ($g->state !== GuardianshipState::Ended->value && ($g->email !== null || $g->phone !== null)) {
                $reached[$g->student_id] = true;
            }
        }
        $badges = DB::table('sign_ins as i')
            ->join('badges as b', 'b.sign_in_id', '=', 'i.id')
            ->whereIn('i.person_id', $ids)
            ->get(['i.person_id', 'b.state']);
        foreach ($badges as $b) {
            $cards[$b->person_id][$b->state] = true;
        }
        $domains = (array) json_decode(
            (string) DB::table('schools')->where('id', $school)->value('mail_domains'),
            true,
        );
        $found = [];
        $people = DB::table('people')
            ->whereIn('id', $ids)
            ->get(['id', 'state', 'email', 'birth_date', 'grade']);
        foreach ($people as $p) {
            $id = (string) $p->id;
            $domain = substr((string) strrchr((string) $p->email, '@'), 1);
            $facts = new AccountFacts(
                PersonState::from($p->state),
                isset($placed[$id]),
                isset($signedIn[$id]),
                array_diff_key($guardians[$id] ?? [], [GuardianshipState::Ended->value => true]) !== [],
                isset($guardians[$id][GuardianshipState::Connected->value]),
                isset($reached[$id]),
                isset($cards[$id][BadgeState::Live->value]),
                isset($cards[$id][BadgeState::Lost->value]),
                $p->email !== null && $domains !== [] && !in_array($domain, $domains, true),
                false,
                $p->birth_date,
                $p->grade,
                $today,
            );
            foreach (AccountProblem::cases() as $problem) {
                if ($problem->isOf($facts)) {
                    $found[] = ['school_id' => $school, 'problem' => $problem->value, 'person_id' => $id];
                }
            }
        }

        return $found;
    }

    /**
     * Writes what is other than before, and locks nothing else: many come in at once.
     *
     * @param  list<array{school_id: string, problem: string, person_id: string}>  $is
     * @param  Closure(Builder): Builder  $where whose rows these are instead of
     * @param  string  $today since when whoever had it not before has it, YYYY-MM-DD
     */
    private function keep(array $is, Closure $where, string $today): void
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
            DB::table('roll_problems')->insertOrIgnore(
                $rows->map(fn(array $row): array => [...$row, 'since' => $today])->all(),
            );
        }
    }
}
