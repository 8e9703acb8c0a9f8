<?php

declare(strict_types=1);

namespace App\OneRoster;

use Vantrel\Core\OneRoster\Kind;

/** Where the fields of OneRoster records stand in the database, as expressions of SQL. */
final class Columns
{
    /** What was there before changes were noted. */
    private const SINCE = "'2000-01-01 00:00:00.000'";

    private const LIVE = "g.state IN ('listed', 'invited', 'connected') AND g.restriction IS NULL";

    /**
     * The rows of a kind at a school: what stands behind `FROM`, up to a condition that more can be added to.
     *
     * @param  list<string>|null  $ids these rows only; null for all
     * @return array{string, list<string>} with what is bound in its places
     */
    public static function rows(Kind $kind, string $schoolId, ?array $ids): array
    {
        $touched = fn(string $alias): string => "LEFT JOIN roster_touched t ON t.row_id = $alias.id";
        if ($kind === Kind::Users) {
            return self::userRows($schoolId, $ids);
        }
        [$key, $rows] = match ($kind) {
            Kind::Orgs => ['o.id', "schools o {$touched('o')} WHERE o.id = ?"],
            Kind::AcademicSessions => ['y.id', "school_years y {$touched('y')} WHERE y.school_id = ?"],
            Kind::Courses, Kind::Classes => [
                's.id',
                'sections s JOIN school_years y ON y.id = s.school_year_id ' .
                "{$touched('s')} WHERE s.school_id = ? AND y.state <> 'planned'",
            ],
            Kind::Enrollments => [
                'e.id',
                'sections s JOIN school_years y ON y.id = s.school_year_id JOIN enrollments e ON e.section_id = s.id ' .
                "JOIN people p ON p.id = e.person_id {$touched('e')} " .
                "WHERE s.school_id = ? AND y.state <> 'planned' AND e.role <> 'substitute'",
            ],
            Kind::Demographics => [
                'p.id',
                "people p {$touched('p')} WHERE p.school_id = ? AND p.kind = 'student' AND p.state <> 'reserve' " .
                'AND p.erased_on IS NULL',
            ],
        };

        return $ids === null
            ? [$rows, [$schoolId]]
            : ["$rows AND $key IN (" . self::places($ids) . ')', [$schoolId, ...$ids]];
    }

    /**
     * Those of the school, who teaches there, and guardians of its students: each found by an index of its own where
     * all are asked for, and looked at one by one where few are.
     *
     * @param  list<string>|null  $ids
     * @return array{string, list<string>}
     */
    private static function userRows(string $schoolId, ?array $ids): array
    {
        $tie = 'FROM guardianships g JOIN people c ON c.id = g.student_id WHERE c.school_id = ?';
        $teaches =
            "FROM sections s JOIN enrollments e ON e.section_id = s.id AND e.role <> 'student' WHERE s.school_id = ?";
        [$from, $where, $bound] =
            $ids === null
                ? [
                    "(SELECT id FROM people WHERE school_id = ? AND kind IN ('student', 'staff') UNION " .
                    "SELECT g.guardian_id $tie UNION SELECT e.person_id $teaches) u JOIN people p ON p.id = u.id",
                    '1',
                    [$schoolId, $schoolId, $schoolId],
                ]
                : [
                    'people p',
                    'p.id IN (' .
                    self::places($ids) .
                    ") AND ((p.school_id = ? AND p.kind IN ('student', 'staff')) OR EXISTS (SELECT 1 $tie AND " .
                    "g.guardian_id = p.id) OR EXISTS (SELECT 1 $teaches AND e.person_id = p.id))",
                    [...$ids, $schoolId, $schoolId, $schoolId],
                ];
        // Whether somebody is there is worked out once, and most of what is told of them hangs on it.
        $live =
            "p.state = 'active' AND (p.kind <> 'guardian' OR EXISTS (SELECT 1 FROM guardianships g JOIN people c ON " .
            "c.id = g.student_id WHERE g.guardian_id = p.id AND c.school_id = '$schoolId' AND c.state = 'active' AND " .
            self::LIVE .
            '))';

        return [
            '(SELECT p.id, p.kind, p.given_name, p.family_name, p.preferred_name, p.number, p.email, p.phone, ' .
            'p.grade, t.at, (SELECT MIN(i.user_name) FROM sign_ins i WHERE i.person_id = p.id) AS user_name, ' .
            "($live) AS live " .
            "FROM $from LEFT JOIN roster_touched t ON t.row_id = p.id WHERE p.state <> 'reserve' AND $where) p WHERE 1",
            $bound,
        ];
    }

    /** @param  list<string>  $of */
    private static function places(array $of): string
    {
        return implode(', ', array_fill(0, count($of), '?'));
    }

    /**
     * Each field that can be filtered or sorted by, as text or NULL.
     *
     * @param  string  $today at the school
     * @return array<string, string>
     */
    public static function of(Kind $kind, string $schoolId, string $today): array
    {
        $section = "IF(s.state = 'open' AND y.state = 'current', 'active', 'tobedeleted')";
        $instant = self::instant($kind === Kind::Users ? 'p' : 't');
        $grade = fn(string $a): string => "NULLIF($a.grade, '')";

        return ['dateLastModified' => $instant] +
            match ($kind) {
                Kind::Orgs => [
                    'sourcedId' => 'o.id',
                    'status' => "'active'",
                    'name' => 'o.name',
                    'type' => "'school'",
                    'identifier' => 'o.code',
                ],
                Kind::AcademicSessions => [
                    'sourcedId' => 'y.id',
                    'status' => "'active'",
                    'title' => 'y.name',
                    'startDate' => 'CAST(y.begins_on AS CHAR)',
                    'endDate' => 'CAST(y.ends_on AS CHAR)',
                    'type' => "'schoolYear'",
                    'schoolYear' => 'CAST(YEAR(y.ends_on) AS CHAR)',
                ],
                Kind::Courses => [
                    'sourcedId' => 's.id',
                    'status' => $section,
                    'title' => 's.name',
                    'schoolYear.sourcedId' => 's.school_year_id',
                    'grades' => $grade('s'),
                    'org.sourcedId' => 's.school_id',
                ],
                Kind::Classes => [
                    'sourcedId' => 's.id',
                    'status' => $section,
                    'title' => 's.name',
                    'classType' => "IF(s.kind = 'homeroom', 'homeroom', 'scheduled')",
                    'grades' => $grade('s'),
                    'course.sourcedId' => 's.id',
                    'school.sourcedId' => 's.school_id',
                    'terms.sourcedId' => 's.school_year_id',
                ],
                Kind::Enrollments => [
                    'sourcedId' => 'e.id',
                    'status' =>
                        "IF((e.ends_on IS NULL OR e.ends_on > '$today') AND s.state = 'open' " .
                        "AND y.state = 'current' AND p.state = 'active', 'active', 'tobedeleted')",
                    'user.sourcedId' => 'e.person_id',
                    'class.sourcedId' => 'e.section_id',
                    'school.sourcedId' => 's.school_id',
                    'role' =>
                        "CASE e.role WHEN 'student' THEN 'student' WHEN 'assistant' THEN 'proctor' ELSE 'teacher' END",
                    'primary' => "IF(e.role = 'lead', 'true', 'false')",
                    'beginDate' => 'CAST(e.begins_on AS CHAR)',
                    'endDate' => 'CAST(e.ends_on AS CHAR)',
                ],
                Kind::Demographics => [
                    'sourcedId' => 'p.id',
                    'status' => "IF(p.state = 'active', 'active', 'tobedeleted')",
                    'birthDate' => "IF(p.state = 'active', CAST(p.birth_date AS CHAR), NULL)",
                ],
                Kind::Users => self::users($schoolId),
            };
    }

    /**
     * People by their ids, as they stand: what of them is told is worked out from it and from their ties.
     *
     * @param  list<string>  $ids
     */
    public static function people(array $ids): string
    {
        return 'SELECT p.id, p.school_id, p.kind, p.state, p.given_name, p.family_name, p.preferred_name, p.number, ' .
            'p.email, p.phone, p.grade, ' .
            self::instant('t') .
            ' AS at FROM people p LEFT JOIN roster_touched t ON t.row_id = p.id WHERE p.id IN (' .
            self::places($ids) .
            ')';
    }

    private static function instant(string $alias): string
    {
        $at = "COALESCE($alias.at, " . self::SINCE . ')';

        return "CONCAT(DATE_FORMAT($at, '%Y-%m-%dT%H:%i:%s.'), LPAD(MICROSECOND($at) DIV 1000, 3, '0'), 'Z')";
    }

    /** @return array<string, string> */
    private static function users(string $schoolId): array
    {
        // Of who is gone, nothing but what a record cannot do without.
        $while = fn(string $of): string => "IF(p.live, $of, NULL)";

        return [
            'sourcedId' => 'p.id',
            'status' => "IF(p.live, 'active', 'tobedeleted')",
            'username' => $while('p.user_name'),
            'enabledUser' => "IF(p.live, 'true', 'false')",
            'givenName' => 'p.given_name',
            'familyName' => 'p.family_name',
            'preferredFirstName' => $while("NULLIF(p.preferred_name, '')"),
            'roles.role' =>
                "CASE p.kind WHEN 'student' THEN 'student' WHEN 'guardian' THEN 'guardian' ELSE 'teacher' END",
            'roles.roleType' => "'primary'",
            'primaryOrg.sourcedId' => "'$schoolId'",
            'identifier' => $while("NULLIF(p.number, '')"),
            'email' => $while("NULLIF(p.email, '')"),
            'phone' => $while("NULLIF(p.phone, '')"),
            'grades' => $while("NULLIF(p.grade, '')"),
        ];
    }

    /** Whom users' `agents` name, as rows of `user_id` and `agent_id`; the school's id stands in both places. */
    public static function agents(): string
    {
        return self::ties('student_id', 'guardian_id', null) .
            ' UNION ALL ' .
            self::ties('guardian_id', 'student_id', null);
    }

    /**
     * Half of them: guardians of students, or the other way.
     *
     * @param  string  $of column of the users
     * @param  string  $to column of their agents
     * @param  string|null  $users places for the ids of those asked for; null for all
     */
    public static function ties(string $of, string $to, ?string $users): string
    {
        return "SELECT g.$of AS user_id, g.$to AS agent_id FROM guardianships g JOIN people c ON c.id = g.student_id " .
            'JOIN people a ON a.id = g.guardian_id WHERE ' .
            self::LIVE .
            " AND c.state = 'active' AND a.state = 'active' AND c.school_id = ?" .
            ($users === null ? '' : " AND g.$of IN ($users)");
    }
}
