<?php

declare(strict_types=1);

namespace App\Roll;

use App\Models\Person;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Roll\Http\Wishes\PeopleWish;
use App\Roll\Views\Enrolled;
use App\Roll\Views\Happening;
use App\Roll\Views\PersonDetail;
use App\Roll\Views\PersonLine;
use App\Roll\Views\PersonPage;
use App\Roll\Views\Relative;
use App\Roll\Views\UserName;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Roll\AccountProblem;
use Vantrel\Core\Values\GradeLevel;

/** Finds people: by any part of a name, number or address, and by the problems a school has with accounts. */
final class Roll
{
    public const PAGE = 200;

    /** Those a wish asks for, a page of them; the same place is found again whatever has come or gone in between. */
    public function page(School $school, PeopleWish $wish): PersonPage
    {
        $query = $this->query($school, $wish->kind, $wish->q, $wish->grade, $wish->problem);
        $total = (clone $query)->count();
        $order = [self::sort($wish->sort), 'p.family_name', 'p.given_name', 'p.id'];
        $place = array_filter((array) json_decode((string) base64_decode($wish->after, true), true), is_scalar(...));
        if (count($place) === count($order)) {
            $query->whereRaw(
                '(' . implode(', ', $order) . ') ' . ($wish->down ? '<' : '>') . ' (?, ?, ?, ?)',
                array_values($place),
            );
        }
        foreach ($order as $column) {
            $query->orderByRaw($column . ($wish->down ? ' desc' : ''));
        }
        $people = $query
            ->selectRaw("$order[0] as place")
            ->limit(self::PAGE + 1)
            ->get();
        $page = $people->take(self::PAGE);
        $last = $page->last();

        return new PersonPage(
            $this->lines($page, $school->id),
            $people->count() > self::PAGE && $last !== null
                ? base64_encode(
                    json_encode([$last->place, $last->family_name, $last->given_name, $last->id], JSON_THROW_ON_ERROR),
                )
                : null,
            $total,
        );
    }

    /** What a word of the wish sorts by, as SQL; nobody without a value is left out. */
    private static function sort(string $by): string
    {
        return match ($by) {
            'grade' => "coalesce(field(p.grade, '" . implode("', '", GradeLevel::codes()) . "'), 0)",
            'number' => "coalesce(p.number, '')",
            'email' => "coalesce(p.email, '')",
            default => 'p.family_name',
        };
    }

    /** @return list<PersonLine> the best few for the command box */
    public function find(School $school, string $text): array
    {
        return $this->lines(
            $this->query($school, null, $text, '', null)
                ->orderByRaw("p.kind = 'student' desc")
                ->orderBy('p.family_name')
                ->orderBy('p.given_name')
                ->limit(8)
                ->get(),
            $school->id,
        );
    }

    /** How many students of the school have one of the problems. */
    public function count(School $school, AccountProblem $problem): int
    {
        return $this->query($school, PersonKind::Student, '', '', $problem)->count();
    }

    /**
     * One person, as a coordinator of some schools may see them: of a guardian's children at other schools, only that
     * there are some.
     *
     * @param  list<string>  $schools  ids of the schools whose coordinator asks
     */
    public function detail(Person $person, array $schools): PersonDetail
    {
        $other = $person->kind === 'guardian' ? ['student_id', 'guardian_id'] : ['guardian_id', 'student_id'];
        $relatives = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', "g.$other[0]")
            ->join('schools as o', 'o.id', '=', 'p.school_id')
            ->where("g.$other[1]", $person->id)
            ->where('g.state', '!=', 'ended')
            ->orderBy('p.given_name')
            ->get([
                'p.id',
                'p.kind',
                'p.given_name',
                'p.family_name',
                'p.email',
                'p.phone',
                'p.school_id',
                'o.name as school',
                'g.state',
            ]);
        $enrollments = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->where('e.person_id', $person->id)
            ->orderByRaw('e.ends_on is null desc')
            ->orderByDesc('e.begins_on')
            ->orderBy('s.name')
            ->get(['s.id', 's.name', 's.state', 'e.role', 'e.begins_on', 'e.ends_on']);
        $signIns = DB::table('sign_ins as i')
            ->leftJoin('badges as b', fn($j) => $j->on('b.sign_in_id', '=', 'i.id')->where('b.state', 'live'))
            ->where('i.person_id', $person->id)
            ->groupBy('i.id', 'i.user_name', 'i.last_signed_in_at')
            ->selectRaw(
                'i.user_name, i.last_signed_in_at last, count(b.id) cards, max(i.password is not null) own, ' .
                    'max(i.passphrase is not null) printed',
            )
            ->orderBy('i.user_name')
            ->get();
        $history = DB::table('ledger_changes as c')
            ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
            ->where('c.row_id', $person->id)
            ->whereExists(
                fn(Builder $q) => $q
                    ->from('ledger_schools as l')
                    ->whereColumn('l.entry_seq', 'e.seq')
                    ->whereIn('l.school_id', $schools),
            )
            ->orderByDesc('c.id')
            ->limit(20)
            ->get(['e.id', 'e.title', 'c.reason', 'e.made_at']);

        return new PersonDetail(
            $person->id,
            $person->fullName(),
            PersonKind::from($person->kind),
            PersonState::from($person->state),
            GradeLevel::read((string) $person->grade)?->short() ?? '',
            (string) $person->number,
            (string) $person->birth_date,
            (string) $person->email,
            (string) $person->phone,
            School::query()->findOrFail($person->school_id)->name,
            array_values(
                $enrollments
                    ->map(
                        fn(object $e): Enrolled => new Enrolled(
                            $e->id,
                            $e->name,
                            EnrollmentRole::from($e->role)->label(),
                            $e->begins_on,
                            $e->ends_on,
                            $e->state === 'archived',
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $relatives
                    ->map(
                        fn(object $r): Relative => $r->kind === 'student' && !in_array($r->school_id, $schools, true)
                            ? new Relative('', "A student of $r->school", '', '', GuardianshipState::from($r->state))
                            : new Relative(
                                $r->id,
                                trim("$r->given_name $r->family_name"),
                                (string) $r->email,
                                (string) $r->phone,
                                GuardianshipState::from($r->state),
                            ),
                    )
                    ->all(),
            ),
            array_values(
                $signIns
                    ->map(
                        fn(object $i): UserName => new UserName(
                            $i->user_name,
                            (int) $i->own === 1
                                ? 'own password'
                                : ((int) $i->printed === 1
                                    ? 'passphrase on a card'
                                    : 'no card yet'),
                            (int) $i->cards,
                            Instant::isoOrNull($i->last),
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $history
                    ->map(
                        fn(object $h): Happening => new Happening(
                            $h->id,
                            $h->title,
                            $h->reason,
                            Instant::iso($h->made_at),
                        ),
                    )
                    ->all(),
            ),
        );
    }

    private function query(
        School $school,
        ?PersonKind $kind,
        string $text,
        string $grade,
        ?AccountProblem $problem,
    ): Builder {
        $query = DB::table('people as p')
            ->where('p.school_id', $school->id)
            ->select('p.*')
            ->when($kind !== null, fn(Builder $q) => $q->where('p.kind', $kind))
            ->when($grade !== '', fn(Builder $q) => $q->where('p.grade', $grade))
            ->where('p.state', 'active');
        $raw = trim($text);
        if ($raw !== '') {
            $like = addcslashes($raw, '%_\\');
            $words = array_filter(explode(' ', NameKey::of($raw)));
            $query->where(function (Builder $q) use ($like, $words): void {
                $q->where('p.number', 'like', "$like%")->orWhere('p.email', 'like', "%$like%");
                if ($words !== []) {
                    $q->orWhere(function (Builder $n) use ($words): void {
                        foreach ($words as $word) {
                            $n->where(
                                fn(Builder $w) => $w
                                    ->where('p.search_name', 'like', "$word%")
                                    ->orWhere('p.search_name', 'like', "% $word%"),
                            );
                        }
                    });
                }
            });
        }
        if ($problem !== null) {
            Problems::with($query, $problem, SchoolDay::today($school->id));
        }

        return $query;
    }

    /**
     * @param  Collection<int, \stdClass>  $people
     * @return list<PersonLine>
     */
    private function lines(Collection $people, string $schoolId): array
    {
        $ids = $people->pluck('id');
        $sections = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.person_id', $ids)
            ->where(SchoolDay::inForce('e', SchoolDay::today($schoolId)))
            ->where('s.state', 'open')
            ->groupBy('e.person_id')
            ->selectRaw("e.person_id, group_concat(s.name order by s.kind, s.name separator ', ') n")
            ->pluck('n', 'person_id');
        $signIns = DB::table('sign_ins')
            ->whereIn('person_id', $ids)
            ->groupBy('person_id')
            ->selectRaw('person_id, min(user_name) n, max(last_signed_in_at) last')
            ->get()
            ->keyBy('person_id');
        $guardians = DB::table('guardianships')
            ->whereIn('student_id', $ids)
            ->where('state', '!=', 'ended')
            ->groupBy('student_id')
            ->selectRaw('student_id, count(*) n')
            ->pluck('n', 'student_id');

        return array_values(
            $people
                ->map(
                    fn(stdClass $p): PersonLine => new PersonLine(
                        $p->id,
                        trim("$p->given_name $p->family_name"),
                        PersonKind::from($p->kind),
                        GradeLevel::read((string) $p->grade)?->short() ?? '',
                        (string) $p->number,
                        (string) ($sections[$p->id] ?? ''),
                        (string) ($signIns[$p->id]->n ?? ''),
                        (string) $p->email,
                        PersonState::from($p->state),
                        ($signIns[$p->id]->last ?? null) !== null,
                        (int) ($guardians[$p->id] ?? 0),
                    ),
                )
                ->all(),
        );
    }
}
