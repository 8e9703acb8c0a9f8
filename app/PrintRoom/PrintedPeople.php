<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Models\School;
use App\Platform\SchoolDay;
use App\Roll\KeptProblems;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\PrintRoom\Printed;
use Vantrel\Core\Roll\AccountProblem;

/** Reads the students that something is printed for, in the order of sections and names. */
final readonly class PrintedPeople
{
    public const MOST = 1500;

    public function __construct(private KeptProblems $problems) {}

    /**
     * @param  string  $what in one word: "cards"
     * @return Collection<int, stdClass> each student once, with the section they are sorted under
     *
     * @throws Refusal where there is nobody, or too many at once
     */
    public function of(School $school, Whom $whom, string $what): Collection
    {
        $people = $this->query($school, $whom)
            ->orderBy('s.kind')
            ->orderBy('s.name')
            ->orderBy('p.family_name')
            ->orderBy('p.given_name')
            ->orderBy('p.id')
            ->get([
                'p.id',
                'p.called_name as given_name',
                'p.family_name',
                'p.name_shown',
                'p.grade',
                'p.language',
                DB::raw("ifnull(s.name, '') as section"),
            ])
            ->unique('id')
            ->values();
        if ($people->isEmpty()) {
            throw new Refusal(
                $whom->printed === Printed::Everyone
                    ? 'There are no students in what was chosen.'
                    : 'Nobody in what was chosen is like that. Choose other sections, or print for everyone.',
            );
        }
        if ($people->count() > self::MOST) {
            throw new Refusal(
                "These are {$people->count()} $what; up to " .
                    self::MOST .
                    ' are printed at once. Choose fewer sections.',
            );
        }

        return $people;
    }

    public function count(School $school, Whom $whom): int
    {
        return (int) $this->query($school, $whom)->distinct()->count('p.id');
    }

    /**
     * What it is called in the ledger.
     *
     * @param  Collection<int, stdClass>  $people
     */
    public static function named(Collection $people, Whom $whom): string
    {
        $names = $people->pluck('section')->unique();

        return match (true) {
            $whom->sectionIds === [] => Words::count($people->count(), 'student'),
            $names->count() === 1 => (string) $names->first(),
            default => "{$names->count()} sections",
        };
    }

    private function query(School $school, Whom $whom): Builder
    {
        $today = SchoolDay::today($school->id);
        $problem = match ($whom->printed) {
            Printed::NeverSignedIn => AccountProblem::NeverSignedIn,
            Printed::NoCard => AccountProblem::NoCard,
            Printed::CardLost => AccountProblem::CardLost,
            default => null,
        };
        if ($problem !== null) {
            $this->problems->today($school->id);
        }

        return DB::table('people as p')
            ->leftJoin(
                'enrollments as e',
                fn(JoinClause $on) => $on
                    ->on('e.person_id', '=', 'p.id')
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', $today)),
            )
            ->leftJoin(
                'sections as s',
                fn(JoinClause $on) => $on->on('s.id', '=', 'e.section_id')->where('s.school_id', $school->id),
            )
            // A student of another school who comes here too has the card of that school.
            ->where('p.school_id', $school->id)
            ->where('p.kind', 'student')
            ->whereIn('p.state', ['active', 'reserve'])
            ->when(
                $whom->sectionIds !== [] || $whom->personIds === [],
                fn(Builder $q) => $q->whereIn('s.id', $whom->sectionIds),
            )
            ->when($whom->personIds !== [], fn(Builder $q) => $q->whereIn('p.id', $whom->personIds))
            ->when(
                $problem !== null,
                fn(Builder $q) => $q->whereIn(
                    'p.id',
                    fn(Builder $k) => $k
                        ->select('person_id')
                        ->from('roll_problems')
                        ->where('school_id', $school->id)
                        ->where('problem', $problem?->value),
                ),
            )
            ->when(
                $whom->printed === Printed::Since,
                fn(Builder $q) => $q->where('e.begins_on', '>=', (string) $whom->since),
            )
            ->when(
                $whom->printed === Printed::SlipOut,
                fn(Builder $q) => $q
                    ->whereExists(fn(Builder $l) => self::letters($l))
                    ->whereNotExists(fn(Builder $l) => self::letters($l)->whereNotNull('l.returned_at')),
            );
    }

    private static function letters(Builder $query): Builder
    {
        return $query->selectRaw('1')->from('family_letters as l')->whereColumn('l.student_id', 'p.id');
    }
}
