<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Models\School;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\OneRoster\Filter;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;
use Vantrel\Core\OneRoster\Term;

/** A school's own data as records of OneRoster 1.2: filtered, sorted and cut into pages by the database. */
final readonly class Source
{
    /**
     * @param  list<Scope>  $scopes
     * @param  string  $base address of the service, for references
     */
    public function __construct(private School $school, private array $scopes, private string $base) {}

    /**
     * @param  list<array{string, list<string>}>  $only fields and the values one of which they must have
     * @return array{list<array<string, mixed>>, int} the page, and how many there are
     */
    public function page(Kind $kind, array $only, Query $query): array
    {
        [$from, $places] = Columns::rows($kind);
        $columns = Columns::of($kind, $this->school->id, SchoolDay::today($this->school->id));
        $bound = array_fill(0, $places, $this->school->id);
        $where = '';
        foreach ($only as [$field, $values]) {
            $marks = implode(', ', array_fill(0, count($values), '?'));
            $where .= " AND {$columns[$field]} IN ($marks)";
            array_push($bound, ...$values);
        }
        if ($kind === Kind::Users && !Scope::seesFamilies($this->scopes)) {
            $where .= " AND p.kind <> 'guardian'";
        }
        if ($query->filter !== null) {
            [$condition, $more] = $this->condition($query->filter, $columns);
            $where .= " AND ($condition)";
            array_push($bound, ...$more);
        }
        $count = DB::selectOne("SELECT COUNT(*) AS n FROM $from$where", $bound);
        $direction = $query->down ? 'DESC' : 'ASC';
        $order =
            ($query->sort === null || !isset($columns[$query->sort])
                ? ''
                : self::fold("COALESCE({$columns[$query->sort]}, '')") . " $direction, ") .
            self::key($kind) .
            ($query->sort === null ? " $direction" : '');
        $list = [];
        foreach ($columns as $field => $expression) {
            $list[] = "$expression AS `$field`";
        }
        /** @var list<stdClass> $rows */
        $rows = DB::select(
            'SELECT ' .
                implode(', ', $list) .
                " FROM $from$where ORDER BY $order LIMIT $query->limit OFFSET $query->offset",
            $bound,
        );
        $agents = $kind === Kind::Users && Scope::seesFamilies($this->scopes) ? $this->agents($rows) : [];

        return [
            array_map(
                fn(stdClass $r): array => $query->select(
                    $this->record($kind, (array) $r, $agents[$r->sourcedId] ?? []),
                ),
                $rows,
            ),
            (int) ($count->n ?? 0),
        ];
    }

    private static function key(Kind $kind): string
    {
        return match ($kind) {
            Kind::Orgs => 'o.id',
            Kind::AcademicSessions => 'y.id',
            Kind::Courses, Kind::Classes => 's.id',
            Kind::Enrollments => 'e.id',
            Kind::Users, Kind::Demographics => 'p.id',
        };
    }

    /**
     * @param  array<string, string>  $columns
     * @return array{string, list<string>}
     */
    private function condition(Filter $filter, array $columns): array
    {
        $parts = $bound = [];
        foreach ($filter->terms as $term) {
            [$part, $values] = $this->term($term, $columns);
            $parts[] = $part;
            array_push($bound, ...$values);
        }

        return [implode($filter->all ? ' AND ' : ' OR ', $parts), $bound];
    }

    /**
     * @param  array<string, string>  $columns
     * @return array{string, list<string>}
     */
    private function term(Term $term, array $columns): array
    {
        $value = Term::fold($term->value);
        if ($term->field === 'agents.sourcedId') {
            $of = 'SELECT x.user_id FROM (' . Columns::agents() . ') x WHERE ' . self::fold('x.agent_id');
            $ids = [$this->school->id, $this->school->id, $value];

            return match ($term->predicate) {
                '!=' => ["p.id NOT IN ($of = ?)", $ids],
                '~' => ["p.id IN ($of LIKE CONCAT('%', ?, '%'))", [...array_slice($ids, 0, 2), self::escaped($value)]],
                default => ["p.id IN ($of $term->predicate ?)", $ids],
            };
        }
        $column = $columns[$term->field] ?? null;
        if ($column === null) {
            // A field of the standard that the school has nothing of.
            return [$term->predicate === '!=' ? '1' : '0', []];
        }
        // As it stands: ids are compared by their index, and case is no part of them.
        if ($term->field === 'sourcedId' && $term->predicate === '=') {
            return ["$column = ?", [strtoupper($term->value)]];
        }
        $folded = self::fold($column);

        return match ($term->predicate) {
            '!=' => ["NOT COALESCE($folded = ?, 0)", [$value]],
            '~' => ["COALESCE($folded LIKE CONCAT('%', ?, '%'), 0)", [self::escaped($value)]],
            default => ["COALESCE($folded $term->predicate ?, 0)", [$value]],
        };
    }

    private static function fold(string $expression): string
    {
        return "LOWER(CONVERT($expression USING utf8mb4)) COLLATE utf8mb4_bin";
    }

    private static function escaped(string $text): string
    {
        return addcslashes($text, '%_\\');
    }

    /**
     * @param  list<stdClass>  $rows
     * @return array<string, list<string>> user to agents
     */
    private function agents(array $rows): array
    {
        $ids = array_map(fn(stdClass $r): string => (string) $r->sourcedId, $rows);
        $found = [];
        foreach (array_chunk($ids, 1000) as $chunk) {
            $marks = implode(', ', array_fill(0, count($chunk), '?'));
            $school = $this->school->id;
            foreach (
                DB::select(
                    'SELECT x.user_id, x.agent_id FROM (' .
                        Columns::agents($marks) .
                        ') x ORDER BY x.user_id, x.agent_id',
                    [$school, ...$chunk, $school, ...$chunk],
                )
                as $row
            ) {
                $found[$row->user_id][] = $row->agent_id;
            }
        }

        return $found;
    }

    /**
     * @param  array<string, string|null>  $row
     * @param  list<string>  $agents
     * @return array<string, mixed>
     */
    private function record(Kind $kind, array $row, array $agents): array
    {
        $to = fn(?string $id, string $type, string $in): ?array => $id === null
            ? null
            : ['href' => "$this->base/$in/$id", 'sourcedId' => $id, 'type' => $type];
        $grades = $row['grades'] ?? null;
        $plain = array_filter(
            $row,
            fn(?string $v, string $k): bool => $v !== null && !str_contains($k, '.'),
            ARRAY_FILTER_USE_BOTH,
        );
        unset($plain['grades']);
        $more = match ($kind) {
            Kind::Orgs, Kind::AcademicSessions, Kind::Demographics => [],
            Kind::Courses => [
                'schoolYear' => $to($row['schoolYear.sourcedId'], 'academicSession', 'academicSessions'),
                'org' => $to($row['org.sourcedId'], 'org', 'orgs'),
            ],
            Kind::Classes => [
                'course' => $to($row['course.sourcedId'], 'course', 'courses'),
                'school' => $to($row['school.sourcedId'], 'org', 'orgs'),
                'terms' => [$to($row['terms.sourcedId'], 'academicSession', 'academicSessions')],
            ],
            Kind::Enrollments => [
                'user' => $to($row['user.sourcedId'], 'user', 'users'),
                'class' => $to($row['class.sourcedId'], 'class', 'classes'),
                'school' => $to($row['school.sourcedId'], 'org', 'orgs'),
            ],
            Kind::Users => [
                'roles' => [
                    [
                        'roleType' => 'primary',
                        'role' => $row['roles.role'],
                        'org' => $to($this->school->id, 'org', 'orgs'),
                    ],
                ],
                'primaryOrg' => $to($this->school->id, 'org', 'orgs'),
                ...$agents === []
                    ? []
                    : ['agents' => array_map(fn(string $a): ?array => $to($a, 'user', 'users'), $agents)],
            ],
        };
        if ($grades !== null) {
            $more['grades'] = [$grades];
        }
        $record = [...$plain, ...$more];
        if ($kind === Kind::Users && !Scope::seesFamilies($this->scopes)) {
            $record = array_diff_key($record, array_flip(Scope::PRIVATE));
        }

        // In the order of the standard.
        return array_filter(
            array_replace(array_map(fn(): null => null, array_intersect_key($kind->fields(), $record)), $record),
            fn(mixed $v): bool => $v !== null,
        );
    }
}
