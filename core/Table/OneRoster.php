<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * A bulk export after OneRoster 1.1 or 1.2 (IMS Global / 1EdTech, CSV tables), joined into lists as people make them:
 * students with their classes and guardians, staff with theirs, and the classes. Row numbers are those of users.csv and
 * classes.csv.
 */
final class OneRoster
{
    private const STUDENTS = [
        'Student number',
        'Given name',
        'Middle name',
        'Family name',
        'Birth date',
        'Grade',
        'Student e-mail',
        'Homeroom',
        'Section',
    ];

    private const GUARDIAN_ROLES = ['parent', 'guardian', 'relative'];

    private const STAFF_ROLES = [
        'teacher' => 'lead',
        'aide' => 'assistant',
        'proctor' => 'assistant',
        'administrator' => 'lead',
        'principal' => 'lead',
        'counselor' => 'lead',
    ];

    /** @var array<string, array<string, array<string, string>>> file without its ending to sourcedId to columns */
    private array $tables = [];

    /** @var array<string, int> user's or class's sourcedId to its row */
    private array $rows = [];

    /** @var array<string, list<array{string, string, string}>> user's sourcedId to role, school and kind of role */
    private array $roles = [];

    /** @param  array<string, iterable<Line>>  $files name of a CSV file, without its ending, to its lines */
    private function __construct(array $files)
    {
        foreach ($files as $name => $lines) {
            $header = null;
            $this->tables[$name] = [];
            foreach ($lines as $line) {
                if ($header === null) {
                    $header = array_map(fn(string $c): string => strtolower(trim($c)), $line->cells);

                    continue;
                }
                $row = [];
                foreach ($header as $i => $column) {
                    $row[$column] = $line->bare($i);
                }
                // A bulk file lists what is; a row marked for deletion is not.
                if (in_array(strtolower($row['status'] ?? ''), ['tobedeleted', 'inactive'], true) || $line->isBlank()) {
                    continue;
                }
                $id = $row['sourcedid'] ?? (string) $line->number;
                $this->tables[$name][$id] = $row;
                if ($name === 'users' || $name === 'classes') {
                    $this->rows["$name $id"] = $line->number;
                }
            }
        }
        $this->readRoles();
    }

    /**
     * @param  array<string, iterable<Line>>  $files name of a CSV file, without its ending, to its lines
     * @param  string  $schoolName the school whose people are wanted, where the export holds several
     * @return list<Sheet>
     *
     * @throws UnreadableList where a table that is needed is missing, or none of the schools is meant
     */
    public static function sheets(array $files, string $schoolName, string $schoolCode): array
    {
        foreach (['users'] as $needed) {
            if (!isset($files[$needed])) {
                throw new UnreadableList(
                    "This looks like a OneRoster export, and $needed.csv is not in it. Export all tables and " .
                        'drop the zip in again.',
                );
            }
        }
        $roster = new self($files);
        $school = $roster->school($schoolName, $schoolCode);
        $sheets = array_values(
            array_filter([$roster->classSheet($school), $roster->staffSheet($school), $roster->studentSheet($school)]),
        );
        if ($sheets === []) {
            throw new UnreadableList(
                'The OneRoster export holds nobody of this school. Check that its users have the role ' .
                    'student, and drop the right zip in.',
            );
        }

        return $sheets;
    }

    private function readRoles(): void
    {
        foreach ($this->tables['users'] as $id => $user) {
            if (($user['role'] ?? '') !== '') {
                foreach (self::list($user['orgsourcedids'] ?? '') ?: [''] as $org) {
                    $this->roles[(string) $id][] = [strtolower($user['role']), $org, 'primary'];
                }
            }
        }
        foreach ($this->tables['roles'] ?? [] as $role) {
            $this->roles[$role['usersourcedid'] ?? ''][] = [
                strtolower($role['role'] ?? ''),
                $role['orgsourcedid'] ?? '',
                strtolower($role['roletype'] ?? 'primary'),
            ];
        }
    }

    /** The organisation that is this school; null where the export has one only, or none. */
    private function school(string $name, string $code): ?string
    {
        $schools = array_filter(
            $this->tables['orgs'] ?? [],
            fn(array $o): bool => strtolower($o['type'] ?? 'school') === 'school',
        );
        if (count($schools) <= 1) {
            return null;
        }
        foreach ($schools as $id => $org) {
            if (
                in_array(NameKey::of($org['name'] ?? ''), [NameKey::of($name)], true) ||
                in_array(NameKey::of($org['identifier'] ?? ''), [NameKey::of($code), NameKey::of($name)], true)
            ) {
                return (string) $id;
            }
        }
        $names = array_slice(array_map(fn(array $o): string => $o['name'] ?? '', array_values($schools)), 0, 6);

        throw new UnreadableList(
            'The OneRoster export holds several schools (' .
                implode(', ', $names) .
                "), and none is called $name. Export this school by itself, or give it the same name in both places.",
        );
    }

    private function studentSheet(?string $school): ?Sheet
    {
        $demographics = $this->tables['demographics'] ?? [];
        $classes = $this->enrollmentsOf('student');
        $header = self::STUDENTS;
        foreach (['', ' 2', ' 3', ' 4'] as $n) {
            array_push(
                $header,
                "Guardian$n given name",
                "Guardian$n family name",
                "Guardian$n e-mail",
                "Guardian$n phone",
            );
        }
        // Where nobody has a number of the school's own, the export's own keys are the next best.
        $numbered = array_filter($this->tables['users'], fn(array $u): bool => ($u['identifier'] ?? '') !== '') !== [];
        $lines = [new Line(1, $header)];
        foreach ($this->users($school, ['student']) as $id => $user) {
            $homeroom = $sections = [];
            foreach ($classes[$id] ?? [] as $class) {
                $this->isHomeroom($class) ? ($homeroom[] = $this->title($class)) : ($sections[] = $this->title($class));
            }
            $cells = [
                $numbered ? $user['identifier'] ?? '' : $id,
                $user['givenname'] ?? '',
                $user['middlename'] ?? '',
                $user['familyname'] ?? '',
                $demographics[$id]['birthdate'] ?? '',
                self::list($user['grades'] ?? '')[0] ?? '',
                $user['email'] ?? '',
                $homeroom[0] ?? '',
                implode('; ', [...array_slice($homeroom, 1), ...$sections]),
            ];
            foreach (array_slice($this->agents($id, $user), 0, 4) as $agent) {
                array_push(
                    $cells,
                    $agent['givenname'] ?? '',
                    $agent['familyname'] ?? '',
                    $agent['email'] ?? '',
                    $agent['sms'] ?? '' ?: $agent['phone'] ?? '',
                );
            }
            $lines[] = new Line($this->rows["users $id"] ?? 0, $cells);
        }

        return count($lines) === 1 ? null : new Sheet('students', Grid::of($lines));
    }

    private function staffSheet(?string $school): ?Sheet
    {
        $lines = [new Line(1, ['Staff name', 'E-mail', 'Role', 'Section'])];
        $classes = $this->enrollmentsOf('teacher') + $this->enrollmentsOf('aide');
        foreach ($this->users($school, array_keys(self::STAFF_ROLES)) as $id => $user) {
            $role = $this->roles[$id][0][0] ?? 'teacher';
            $lines[] = new Line($this->rows["users $id"] ?? 0, [
                ($user['familyname'] ?? '') . ', ' . ($user['givenname'] ?? ''),
                $user['email'] ?? '',
                self::STAFF_ROLES[$role] ?? 'lead',
                implode('; ', array_map($this->title(...), $classes[$id] ?? [])),
            ]);
        }

        return count($lines) === 1 ? null : new Sheet('staff', Grid::of($lines));
    }

    private function classSheet(?string $school): ?Sheet
    {
        $lines = [new Line(1, ['Homeroom', 'Section', 'Grade'])];
        foreach ($this->tables['classes'] ?? [] as $id => $class) {
            if ($school !== null && ($class['schoolsourcedid'] ?? '') !== $school) {
                continue;
            }
            $grades = self::list($class['grades'] ?? '');
            $home = $this->isHomeroom((string) $id);
            $lines[] = new Line($this->rows["classes $id"] ?? 0, [
                $home ? $this->title((string) $id) : '',
                $home ? '' : $this->title((string) $id),
                count($grades) === 1 ? $grades[0] : '',
            ]);
        }

        return count($lines) === 1 ? null : new Sheet('classes', Grid::of($lines));
    }

    /**
     * @param  list<string>  $wanted
     * @return iterable<string, array<string, string>>
     */
    private function users(?string $school, array $wanted): iterable
    {
        foreach ($this->tables['users'] as $id => $user) {
            $id = (string) $id;
            if (in_array(strtolower($user['enableduser'] ?? 'true'), ['false', '0'], true)) {
                continue;
            }
            foreach ($this->roles[$id] ?? [] as [$role, $org]) {
                if (in_array($role, $wanted, true) && ($school === null || $org === $school)) {
                    yield $id => $user;

                    continue 2;
                }
            }
        }
    }

    /** @return array<string, list<string>> user's sourcedId to those of classes */
    private function enrollmentsOf(string $role): array
    {
        $found = [];
        foreach ($this->tables['enrollments'] ?? [] as $enrollment) {
            if (
                strtolower($enrollment['role'] ?? '') === $role &&
                isset($this->tables['classes'][$enrollment['classsourcedid'] ?? ''])
            ) {
                $found[$enrollment['usersourcedid'] ?? ''][] = (string) $enrollment['classsourcedid'];
            }
        }

        return $found;
    }

    /**
     * A student's guardians: the agents the student names, and those who name the student.
     *
     * @param  array<string, string>  $student
     * @return list<array<string, string>>
     */
    private function agents(string $id, array $student): array
    {
        $this->agentsOf ??= $this->readAgents();
        $agents = [];
        foreach (
            array_unique([...self::list($student['agentsourcedids'] ?? ''), ...$this->agentsOf[$id] ?? []])
            as $agent
        ) {
            $user = $this->tables['users'][$agent] ?? null;
            if (
                $user !== null &&
                array_filter(
                    $this->roles[$agent] ?? [],
                    fn(array $r): bool => in_array($r[0], self::GUARDIAN_ROLES, true),
                ) !== []
            ) {
                $agents[] = $user;
            }
        }

        return $agents;
    }

    /** @var array<string, list<string>>|null student's sourcedId to those of guardians who name the student */
    private ?array $agentsOf = null;

    /** @return array<string, list<string>> */
    private function readAgents(): array
    {
        $found = [];
        foreach ($this->tables['users'] as $id => $user) {
            if (
                array_filter(
                    $this->roles[(string) $id] ?? [],
                    fn(array $r): bool => in_array($r[0], self::GUARDIAN_ROLES, true),
                ) !== []
            ) {
                foreach (self::list($user['agentsourcedids'] ?? '') as $student) {
                    $found[$student][] = (string) $id;
                }
            }
        }

        return $found;
    }

    private function isHomeroom(string $class): bool
    {
        return strtolower($this->tables['classes'][$class]['classtype'] ?? '') === 'homeroom';
    }

    private function title(string $class): string
    {
        $row = $this->tables['classes'][$class] ?? [];

        return str_replace([';', '|'], ',', $row['title'] ?? '' ?: ($row['classcode'] ?? '' ?: $class));
    }

    /** @return list<string> lists are comma-separated within one cell */
    private static function list(string $cell): array
    {
        return array_values(array_filter(array_map(trim(...), explode(',', $cell)), fn(string $s): bool => $s !== ''));
    }
}
