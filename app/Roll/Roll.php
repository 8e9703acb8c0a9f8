<?php

declare(strict_types=1);

namespace App\Roll;

use App\Models\Realm;
use App\Platform\SchoolDay;
use App\Roll\Http\Wishes\PeopleWish;
use App\Roll\Views\PersonLine;
use App\Roll\Views\PersonPage;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
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

    private const INDEXES = [
        'name' => 'people_roll',
        'grade' => 'people_by_grade_order',
        'number' => 'people_by_number_order',
        'email' => 'people_by_email_order',
    ];

    /** From here on a problem is common: a page of those who have it is found soonest in the order asked for. */
    private const MANY = 1000;

    /** Found in the command box. */
    private const FEW = 8;

    public function __construct(private readonly KeptProblems $problems, private readonly Search $search) {}

    /** Those a wish asks for, a page of them; the same place is found again whatever has come or gone in between. */
    public function page(Realm $realm, PeopleWish $wish): PersonPage
    {
        $realm = $wish->school === '' ? $realm : $realm->only($wish->school);
        foreach ($wish->problems() === [] ? [] : $realm->ids as $school) {
            $this->problems->today($school);
        }
        $among = $this->among($realm->ids, $wish->kind, $wish->grade, $wish->problems(), $wish->left);
        $place = array_filter((array) json_decode((string) base64_decode($wish->after, true), true), is_scalar(...));
        $fits = trim($wish->q) === '' ? null : $this->search->ids($wish->q, $among);
        if ($fits !== null && $wish->sort === 'best') {
            $at = count($place) === 1 ? max(0, (int) reset($place)) : 0;

            return new PersonPage(
                $this->byId(array_slice($fits, $at, self::PAGE), $realm),
                count($fits) > $at + self::PAGE ? self::place([$at + self::PAGE]) : null,
                count($fits),
            );
        }
        // Each of them stands in an index behind school, kind and state; none is ever null.
        $sort = self::ORDERS[$wish->sort] ?? self::ORDERS['name'];
        $order = array_values(array_unique([$sort, 'p.family_name', 'p.given_name', 'p.id']));
        $total = 0;
        $pages = [];
        foreach ($realm->ids as $school) {
            $query = $this->among([$school], $wish->kind, $wish->grade, $wish->problems(), $wish->left)(
                DB::table('people as p'),
            )->when($fits !== null, fn(Builder $q) => $q->whereIn('p.id', $fits));
            $of = $this->total($school, $wish, clone $query);
            $total += $of;
            self::go($query, $wish, $of);
            $pages[] = self::after($query, $place, $order, $wish->down)
                ->addSelect("$sort as place")
                ->limit(self::PAGE + 1);
        }
        $people = $pages === [] ? collect() : self::together($pages, $order, $wish->down, $realm);
        $page = $people->take(self::PAGE);
        $last = $page->last();
        $next = fn(stdClass $p): array => [$p->family_name, $p->given_name, $p->id];

        return new PersonPage(
            self::lines($page),
            $people->count() > self::PAGE && $last !== null
                ? self::place([...count($order) === 3 ? [] : [$last->place], ...$next($last)])
                : null,
            $total,
        );
    }

    /**
     * The page after a place, in order.
     *
     * @param  array<array-key, bool|float|int|string>  $place values of the columns; of another count for the first one
     * @param  list<string>  $order columns of people (`p`)
     */
    private static function after(Builder $query, array $place, array $order, bool $down): Builder
    {
        if (count($place) === count($order)) {
            $than = $down ? '<' : '>';
            $marks = implode(', ', array_fill(0, count($order), '?'));
            // The first column by itself is what the index is entered by.
            $query
                ->where($order[0], "$than=", reset($place))
                ->whereRaw('(' . implode(', ', $order) . ") $than ($marks)", array_values($place));
        }
        foreach ($order as $column) {
            $query->orderBy($column, $down ? 'desc' : 'asc');
        }

        return $query;
    }

    /**
     * A page of each school made one page: each is read along its own index, and what is put in order is a few hundred
     * rows, not all there are.
     *
     * @param  non-empty-list<Builder>  $pages with the first column of the order as `place`
     * @param  list<string>  $order
     * @return Collection<int, stdClass>
     */
    private static function together(array $pages, array $order, bool $down, Realm $realm): Collection
    {
        $all = null;
        foreach ($pages as $page) {
            $one = DB::query()->fromSub($page, 'o');
            $all = $all?->unionAll($one) ?? $one;
        }
        $query = DB::query()->fromSub(count($pages) === 1 ? $pages[0] : $all, 'p');
        // The first column may be one that `*` leaves out.
        foreach (['p.place', ...array_slice($order, 1)] as $column) {
            $query->orderBy($column, $down ? 'desc' : 'asc');
        }

        return self::told($query->limit(self::PAGE + 1), $realm)->get();
    }

    /** How many there are: of a problem alone, without looking at anybody. */
    private function total(string $schoolId, PeopleWish $wish, Builder $query): int
    {
        $problems = $wish->problems();

        return count($problems) === 1 && $wish->grade === '' && $wish->q === '' && $wish->kind === PersonKind::Student
            ? $this->problems->count($schoolId, $problems[0])
            : $query->count();
    }

    /**
     * By which way the database goes: it does not know how many have two problems at once, or that a page is filled
     * long before everybody has been looked at.
     */
    private static function go(Builder $query, PeopleWish $wish, int $total): void
    {
        $index = match (true) {
            $wish->problem === '' || $wish->q !== '' || $wish->kind === null => null,
            $wish->grade !== '' => 'people_grade',
            $total > self::MANY => self::INDEXES[$wish->sort] ?? self::INDEXES['name'],
            default => null,
        };
        $index === null ? $query->select('p.*') : $query->forceIndex($index)->selectRaw('straight_join p.*');
    }

    /** @return list<PersonLine> the best few for the command box */
    public function find(Realm $realm, string $text): array
    {
        $ids = $this->search->ids($text, $this->among($realm->ids, null, '', []));

        return $this->byId(array_slice($ids, 0, self::FEW), $realm);
    }

    /** @param  list<string|int>  $of values that the next page begins after */
    private static function place(array $of): string
    {
        return base64_encode(json_encode($of, JSON_THROW_ON_ERROR));
    }

    /**
     * @param  list<string>  $ids
     * @return list<PersonLine> in the order of the ids
     */
    public function byId(array $ids, Realm $realm): array
    {
        $people = self::told(DB::table('people as p')->whereIn('p.id', $ids), $realm)
            ->get()
            ->keyBy('id');

        return self::lines(collect($ids)->map(fn(string $id): ?stdClass => $people[$id] ?? null)->filter());
    }

    /**
     * @param  list<string>  $schools
     * @param  list<AccountProblem>  $problems all of which whoever is found has; what state they are in goes by these
     * @return Closure(Builder): Builder over people (`p`)
     */
    private function among(
        array $schools,
        ?PersonKind $kind,
        string $grade,
        array $problems,
        bool $left = false,
    ): Closure {
        $state = ($problems[0] ?? null)?->state()->value ?? ($left ? 'left' : 'active');

        return function (Builder $query) use ($schools, $kind, $grade, $problems, $state): Builder {
            foreach ($problems as $i => $problem) {
                $query->join(
                    "roll_problems as r$i",
                    fn(JoinClause $on) => $on
                        ->on("r$i.person_id", '=', 'p.id')
                        ->on("r$i.school_id", '=', 'p.school_id')
                        ->where("r$i.problem", $problem->value),
                );
            }

            return $query
                ->whereIn('p.school_id', $schools)
                ->when($kind !== null, fn(Builder $q) => $q->where('p.kind', $kind))
                ->when($grade !== '', fn(Builder $q) => $q->where('p.grade', $grade))
                ->where('p.state', $state);
        };
    }

    /** With what stands elsewhere of the few people (`p`) a page shows: a look into an index for each. */
    private static function told(Builder $query, Realm $realm): Builder
    {
        $signIns = fn(string $what): Builder => DB::table('sign_ins as i')
            ->whereColumn('i.person_id', 'p.id')
            ->selectRaw($what);

        return $query
            ->addSelect('p.*')
            ->selectSub(
                DB::table('enrollments as e')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->whereColumn('e.person_id', 'p.id')
                    ->where(SchoolDay::inForce('e', $realm->today()))
                    ->where('s.state', 'open')
                    ->selectRaw("GROUP_CONCAT(s.name ORDER BY s.kind, s.name SEPARATOR ', ')"),
                'sections',
            )
            ->selectSub($signIns('MIN(i.user_name)'), 'user_name')
            ->selectSub($signIns('MAX(i.last_signed_in_at)'), 'last_signed_in_at')
            ->selectSub(
                DB::table('guardianships as g')
                    ->whereColumn('g.student_id', 'p.id')
                    ->where('g.state', '!=', 'ended')
                    ->selectRaw('COUNT(*)'),
                'guardians',
            );
    }

    /**
     * @param  Collection<int, stdClass>  $people as {@see told()} reads them
     * @return list<PersonLine>
     */
    private static function lines(Collection $people): array
    {
        return array_values(
            $people
                ->map(
                    fn(stdClass $p): PersonLine => new PersonLine(
                        $p->id,
                        trim("$p->given_name $p->family_name"),
                        (string) $p->preferred_name,
                        PersonKind::from($p->kind),
                        GradeLevel::read((string) $p->grade)?->short() ?? '',
                        (string) $p->number,
                        (string) $p->sections,
                        (string) $p->user_name,
                        (string) $p->email,
                        PersonState::from($p->state),
                        $p->last_signed_in_at !== null,
                        (int) $p->guardians,
                        $p->school_id,
                    ),
                )
                ->all(),
        );
    }
}
