<?php

declare(strict_types=1);

namespace App\Roll;

use App\Models\School;
use App\Platform\SchoolDay;
use App\Roll\Http\Wishes\PeopleWish;
use App\Roll\Views\PersonLine;
use App\Roll\Views\PersonPage;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Roll\AccountProblem;
use Vantrel\Core\Values\GradeLevel;

/** Finds people: by any part of a name, number or address, and by the problems a school has with accounts. */
final class Roll
{
    public const PAGE = 200;

    private const ORDERS = [
        'name' => 'p.family_name',
        'grade' => 'p.grade_order',
        'number' => 'p.number_order',
        'email' => 'p.email_order',
    ];

    public function __construct(private readonly KeptProblems $problems) {}

    /** Those a wish asks for, a page of them; the same place is found again whatever has come or gone in between. */
    public function page(School $school, PeopleWish $wish): PersonPage
    {
        $query = $this->query($school, $wish->kind, $wish->q, $wish->grade, $wish->problems());
        $total = (clone $query)->count();
        // Each of them stands in an index behind school, kind and state; none is ever null.
        $order = array_unique([self::ORDERS[$wish->sort], 'p.family_name', 'p.given_name', 'p.id']);
        $place = array_filter((array) json_decode((string) base64_decode($wish->after, true), true), is_scalar(...));
        if (count($place) === count($order)) {
            $than = $wish->down ? '<' : '>';
            $marks = implode(', ', array_fill(0, count($order), '?'));
            // The first column by itself is what the index is entered by.
            $query
                ->where(reset($order), "$than=", reset($place))
                ->whereRaw('(' . implode(', ', $order) . ") $than ($marks)", array_values($place));
        }
        foreach ($order as $column) {
            $query->orderBy($column, $wish->down ? 'desc' : 'asc');
        }
        $people = $query
            ->addSelect(self::ORDERS[$wish->sort] . ' as place')
            ->limit(self::PAGE + 1)
            ->get();
        $page = $people->take(self::PAGE);
        $last = $page->last();

        return new PersonPage(
            $this->lines($page, $school->id),
            $people->count() > self::PAGE && $last !== null
                ? base64_encode(
                    json_encode(
                        [
                            ...$wish->sort === 'name' ? [] : [$last->place],
                            $last->family_name,
                            $last->given_name,
                            $last->id,
                        ],
                        JSON_THROW_ON_ERROR,
                    ),
                )
                : null,
            $total,
        );
    }

    /** @return list<PersonLine> the best few for the command box */
    public function find(School $school, string $text): array
    {
        return $this->lines(
            $this->query($school, null, $text, '', [])
                ->orderByRaw("p.kind = 'student' desc")
                ->orderBy('p.family_name')
                ->orderBy('p.given_name')
                ->limit(8)
                ->get(),
            $school->id,
        );
    }

    /** @param  list<AccountProblem>  $problems all of which whoever is found has */
    private function query(School $school, ?PersonKind $kind, string $text, string $grade, array $problems): Builder
    {
        $query = DB::table('people as p')
            ->where('p.school_id', $school->id)
            ->select('p.*')
            ->when($kind !== null, fn(Builder $q) => $q->where('p.kind', $kind))
            ->when($grade !== '', fn(Builder $q) => $q->where('p.grade', $grade))
            ->where('p.state', ($problems[0] ?? null)?->state()->value ?? 'active');
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
        if ($problems !== []) {
            $this->problems->today($school->id);
        }
        foreach ($problems as $i => $problem) {
            $query->join(
                "roll_problems as r$i",
                fn(JoinClause $on) => $on
                    ->on("r$i.person_id", '=', 'p.id')
                    ->where("r$i.school_id", $school->id)
                    ->where("r$i.problem", $problem->value),
            );
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
