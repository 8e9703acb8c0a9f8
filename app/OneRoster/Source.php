<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Models\School;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;

/**
 * A school's own data as records of OneRoster 1.2: filtered and sorted by the database. The pages of a collection are
 * those of the list as it was when its first page was asked for, so that nobody slips from one page to another while
 * somebody reads and somebody else writes.
 */
final readonly class Source
{
    /** For how long pages go on, in seconds. */
    private const PAGES_LAST = 900;

    private const CHUNK = 1000;

    /**
     * @param  list<Scope>  $scopes
     * @param  string  $base address of the service, for references
     * @param  string  $reader whose pages they are: id of a key
     */
    public function __construct(
        private School $school,
        private array $scopes,
        private string $base,
        private string $reader,
    ) {}

    /**
     * @param  list<array{string, list<string>}>  $only fields and the values one of which they must have
     * @return array{list<array<string, mixed>>, int} the page, and how many there are
     */
    public function page(Kind $kind, array $only, Query $query): array
    {
        $list =
            'roster|' .
            hash(
                'sha256',
                serialize([
                    $this->reader,
                    $this->school->id,
                    $kind,
                    $only,
                    $query->filter?->text(),
                    $query->sort,
                    $query->down,
                    Scope::seesFamilies($this->scopes),
                ]),
            );
        $total = $query->offset === 0 ? null : Cache::get("$list|total");
        if (is_int($total)) {
            $ids = $this->kept($list, $query->offset, min($query->limit, $total - $query->offset));
        }
        if (!is_int($total) || !isset($ids)) {
            $all = $this->ids($kind, $only, $query);
            $total = count($all);
            $ids = array_slice($all, $query->offset, $query->limit);
            if ($total > $query->limit) {
                $this->keep($list, $all);
            }
        }

        return [$this->records($kind, $ids, $query), $total];
    }

    /** @param  list<string>  $ids */
    private function keep(string $list, array $ids): void
    {
        foreach (array_chunk($ids, self::CHUNK) as $i => $chunk) {
            Cache::put("$list|$i", implode(' ', $chunk), self::PAGES_LAST);
        }
        Cache::put("$list|total", count($ids), self::PAGES_LAST);
    }

    /** @return list<string>|null null where not all of it is kept any more */
    private function kept(string $list, int $offset, int $count): ?array
    {
        $ids = [];
        if ($count <= 0) {
            return [];
        }
        for ($i = intdiv($offset, self::CHUNK); $i <= intdiv($offset + $count - 1, self::CHUNK); $i++) {
            $chunk = Cache::get("$list|$i");
            if (!is_string($chunk)) {
                return null;
            }
            array_push($ids, ...explode(' ', $chunk));
        }

        return array_slice($ids, $offset % self::CHUNK, $count);
    }

    /**
     * @param  list<array{string, list<string>}>  $only
     * @return list<string> of all that are asked for, in order
     */
    private function ids(Kind $kind, array $only, Query $query): array
    {
        $named = null;
        foreach ($only as $i => [$field, $values]) {
            if ($field === 'sourcedId') {
                $named = $values;
                unset($only[$i]);
            }
        }
        [$from, $bound] = Columns::rows($kind, $this->school->id, $named);
        $columns = $this->columns($kind);
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
            [$condition, $more] = Conditions::of($query->filter, $columns, $this->school->id);
            $where .= " AND ($condition)";
            array_push($bound, ...$more);
        }
        $direction = $query->down ? 'DESC' : 'ASC';
        $by = $query->sort === null || !isset($columns[$query->sort]) ? null : $columns[$query->sort];
        $order =
            ($by === null ? '' : Conditions::fold("COALESCE($by, '')") . " $direction, ") .
            self::key($kind) .
            ($query->sort === null ? " $direction" : '');

        return array_map(
            fn(stdClass $r): string => (string) $r->id,
            array_values(DB::select('SELECT ' . self::key($kind) . " AS id FROM $from$where ORDER BY $order", $bound)),
        );
    }

    /**
     * @param  list<string>  $ids in order; who has gone meanwhile is left out
     * @return list<array<string, mixed>>
     */
    private function records(Kind $kind, array $ids, Query $query): array
    {
        // In the order of the standard; of families, only where the key may read them.
        $order = array_values(
            array_diff(
                array_keys($kind->fields()),
                $kind === Kind::Users && !Scope::seesFamilies($this->scopes) ? Scope::PRIVATE : [],
            ),
        );
        $records = [];
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            [$rows, $agents] = $kind === Kind::Users ? $this->users($chunk) : [$this->rows($kind, $chunk), []];
            foreach ($chunk as $id) {
                if (isset($rows[$id])) {
                    $records[] = $query->select($this->record($kind, $order, $rows[$id], $agents[$id] ?? []));
                }
            }
        }

        return $records;
    }

    /**
     * @param  list<string>  $ids
     * @return array<string, array<string, string|null>> by id, each by field
     */
    private function rows(Kind $kind, array $ids): array
    {
        $list = [];
        foreach ($this->columns($kind) as $field => $expression) {
            $list[] = "$expression AS `$field`";
        }
        [$from, $bound] = Columns::rows($kind, $this->school->id, $ids);
        $rows = [];
        foreach (DB::select('SELECT ' . implode(', ', $list) . " FROM $from", $bound) as $row) {
            /** @var array<string, string|null> $values */
            $values = (array) $row;
            $rows[(string) $values['sourcedId']] = $values;
        }

        return $rows;
    }

    /**
     * The same of users, as {@see Columns} says it of each, from few statements for all of a page.
     *
     * @param  list<string>  $ids
     * @return array{array<string, array<string, string|null>>, array<string, list<string>>} rows, and agents by user
     */
    private function users(array $ids): array
    {
        $people = DB::select(Columns::people($ids), $ids);
        $of = fn(string $kind): array => array_map(
            fn(stdClass $p): string => (string) $p->id,
            array_values(array_filter($people, fn(stdClass $p): bool => $p->kind === $kind)),
        );
        $agents = Scope::seesFamilies($this->scopes)
            ? $this->agents('student_id', 'guardian_id', $of('student')) +
                $this->agents('guardian_id', 'student_id', $of('guardian'))
            : [];
        $names = DB::table('sign_ins')
            ->whereIn('person_id', $ids)
            ->groupBy('person_id')
            ->selectRaw('person_id, MIN(user_name) AS n')
            ->pluck('n', 'person_id')
            ->all();
        $found = [];
        foreach ($people as $p) {
            // A guardian is there while a child is; a student who goes to another school is there no more.
            $live =
                $p->state === 'active' &&
                match ($p->kind) {
                    'guardian' => isset($agents[$p->id]),
                    'student' => $p->school_id === $this->school->id,
                    default => true,
                };
            $while = fn(?string $value): ?string => $live && $value !== '' ? $value : null;
            $found[$p->id] = [
                'sourcedId' => $p->id,
                'status' => $live ? 'active' : 'tobedeleted',
                'dateLastModified' => $p->at,
                'username' => $while($names[$p->id] ?? null),
                'enabledUser' => $live ? 'true' : 'false',
                'givenName' => $p->given_name,
                'familyName' => $p->family_name,
                'preferredFirstName' => $while($p->preferred_name),
                'roles.role' => match ($p->kind) {
                    'student', 'guardian' => $p->kind,
                    default => 'teacher',
                },
                'primaryOrg.sourcedId' => $this->school->id,
                'identifier' => $while($p->number),
                'email' => $while($p->email),
                'phone' => $while($p->phone),
                'grades' => $while($p->grade),
            ];
        }

        return [$found, $agents];
    }

    /** @return array<string, string> */
    private function columns(Kind $kind): array
    {
        return Columns::of($kind, $this->school->id, SchoolDay::today($this->school->id));
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
     * @param  string  $of column of those whose agents are asked for
     * @param  string  $to column of the agents
     * @param  list<string>  $ids
     * @return array<string, list<string>> user to agents
     */
    private function agents(string $of, string $to, array $ids): array
    {
        $found = [];
        if ($ids !== []) {
            $marks = implode(', ', array_fill(0, count($ids), '?'));
            foreach (DB::select(Columns::ties($of, $to, $marks), [$this->school->id, ...$ids]) as $row) {
                $found[$row->user_id][] = (string) $row->agent_id;
            }
        }
        foreach ($found as &$agents) {
            sort($agents);
        }

        return $found;
    }

    /**
     * @param  list<string>  $order of the fields
     * @param  array<string, string|null>  $row by field, and by field and what it refers to
     * @param  list<string>  $agents
     * @return array<string, mixed>
     */
    private function record(Kind $kind, array $order, array $row, array $agents): array
    {
        $record = [];
        foreach ($order as $field) {
            $value = $row[$field] ?? null;
            if ($value !== null) {
                $record[$field] = $field === 'grades' ? [$value] : $value;

                continue;
            }
            $more = isset($row["$field.sourcedId"]) ? $this->refer($kind, $field, $row["$field.sourcedId"]) : null;
            if ($more !== null) {
                $record[$field] = $more;
            } elseif ($field === 'roles') {
                $record[$field] = [
                    [
                        'roleType' => 'primary',
                        'role' => $row['roles.role'],
                        'org' => $this->refer($kind, 'org', $this->school->id),
                    ],
                ];
            } elseif ($field === 'agents' && $agents !== []) {
                $record[$field] = array_map(fn(string $id): array => $this->refer($kind, $field, $id), $agents);
            }
        }

        return $record;
    }

    /** @return array<int|string, mixed> a reference, or a list of one where the field is a list */
    private function refer(Kind $kind, string $field, string $id): array
    {
        [$type, $in] = match ($field) {
            'org', 'school', 'primaryOrg' => ['org', 'orgs'],
            'schoolYear', 'terms' => ['academicSession', 'academicSessions'],
            'course' => ['course', 'courses'],
            'class' => ['class', 'classes'],
            default => ['user', 'users'],
        };
        $one = ['href' => "$this->base/$in/$id", 'sourcedId' => $id, 'type' => $type];

        return $kind === Kind::Classes && $field === 'terms' ? [$one] : $one;
    }
}
