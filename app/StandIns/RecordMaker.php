<?php

declare(strict_types=1);

namespace App\StandIns;

use App\Models\School;
use App\OneRoster\Source;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;
use Vantrel\Core\OneRoster\Values;

/**
 * The data of the stand-in for a school's record: the school as it stands, under ids of the record's own, and some of
 * it unlike the Roll, as a record is that others keep: children who have just come, a family that moved, one who left.
 */
final class RecordMaker
{
    private const BEFORE = '2026-08-15T06:00:00.000Z';

    /** @var array<string, string> our id to the record's */
    private array $ids = [];

    /**
     * @param  string  $since from when on what is unlike the Roll was changed, as an instant of the standard
     * @return array<string, list<array<string, mixed>>>
     */
    public function of(School $school, string $since): array
    {
        $source = new Source($school, [Scope::Roster, Scope::Demographics], '', 'stand-in');
        $records = [];
        foreach (Kind::cases() as $kind) {
            [$all] = $source->page($kind, [], new Query(1_000_000, 0, null, false, null, []));
            $records[$kind->value] = array_values(
                array_filter($all, fn(array $r): bool => ($r['status'] ?? '') === 'active'),
            );
        }
        foreach ($records as $kind => $all) {
            foreach ($all as $i => $record) {
                $this->ids[(string) $record['sourcedId']] ??= sprintf('%s-%05d', substr($kind, 0, 4), $i + 1);
            }
        }
        /** @var array<string, list<array<string, mixed>>> $records */
        $records = array_map(
            fn(array $all): array => array_map(
                fn(array $r): array => [...(array) $this->renamed($r), 'dateLastModified' => self::BEFORE],
                $all,
            ),
            $records,
        );

        return $this->unlike($records, $since);
    }

    /** Every id in it is the record's own. */
    private function renamed(mixed $value): mixed
    {
        if (is_array($value)) {
            $value = array_map($this->renamed(...), $value);
            if (isset($value['href'], $value['sourcedId'])) {
                $value['href'] = "urn:record:$value[sourcedId]";
            }

            return $value;
        }

        return is_string($value) && isset($this->ids[$value]) ? $this->ids[$value] : $value;
    }

    /**
     * @param  array<string, list<array<string, mixed>>>  $records
     * @return array<string, list<array<string, mixed>>>
     */
    private function unlike(array $records, string $since): array
    {
        $students = array_keys(
            array_filter($records['users'], fn(array $u): bool => Values::of($u, 'roles.role') === ['student']),
        );
        $guardians = array_keys(
            array_filter($records['users'], fn(array $u): bool => Values::of($u, 'roles.role') === ['guardian']),
        );
        // A family has another address, a child goes into another grade, one has left.
        foreach (array_slice($guardians, 3, 2) as $i) {
            $records['users'][$i]['email'] = "moved.$i@harborpost.example";
            $records['users'][$i]['dateLastModified'] = $since;
        }
        if (isset($students[5], $students[9])) {
            $records['users'][$students[5]]['familyName'] .= '-Brandt';
            $records['users'][$students[5]]['dateLastModified'] = $since;
            $records['users'][$students[9]]['status'] = 'tobedeleted';
            $records['users'][$students[9]]['dateLastModified'] = $since;
        }
        $org = $records['orgs'][0]['sourcedId'] ?? '';
        $class = $records['classes'][0] ?? ['sourcedId' => '', 'grades' => ['01']];
        $to = fn(mixed $id, string $type): array => ['href' => "urn:record:$id", 'sourcedId' => $id, 'type' => $type];
        foreach (
            [
                ['Ottoline', 'Farrow', '031901', 'Basil'],
                ['Dario', 'Quillon', '031902', 'Renata'],
                ['Mei', 'Tanaka-Holt', '031903', 'Akira'],
            ]
            as $n => [$given, $family, $number, $parent]
        ) {
            [$student, $guardian] = ["new-$n", "new-guardian-$n"];
            $user = fn(string $id, string $name, string $role): array => [
                'sourcedId' => $id,
                'status' => 'active',
                'dateLastModified' => $since,
                'enabledUser' => 'true',
                'givenName' => $name,
                'familyName' => $family,
                'roles' => [['roleType' => 'primary', 'role' => $role, 'org' => $to($org, 'org')]],
            ];
            $records['users'][] = [
                ...$user($student, $given, 'student'),
                'identifier' => $number,
                'agents' => [$to($guardian, 'user')],
                'grades' => $class['grades'] ?? ['01'],
            ];
            $records['users'][] = [
                ...$user($guardian, $parent, 'guardian'),
                'email' => strtolower("$parent.$family") . '@shoremail.example',
                'phone' => "+1202555013$n",
                'agents' => [$to($student, 'user')],
            ];
            $records['enrollments'][] = [
                'sourcedId' => "new-enrollment-$n",
                'status' => 'active',
                'dateLastModified' => $since,
                'user' => $to($student, 'user'),
                'class' => $to($class['sourcedId'], 'class'),
                'school' => $to($org, 'org'),
                'role' => 'student',
            ];
            $records['demographics'][] = [
                'sourcedId' => $student,
                'status' => 'active',
                'dateLastModified' => $since,
                'birthDate' => '2019-0' . ($n + 3) . '-14',
            ];
        }

        return $records;
    }
}
