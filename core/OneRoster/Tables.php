<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/**
 * Records of the REST service as tables of the CSV binding (OneRoster 1.2), which lists are read from: one way in for
 * both.
 */
final class Tables
{
    /** Columns of the CSV binding of OneRoster 1.2, table by table. */
    public const HEADERS = [
        'orgs' => ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
        'academicSessions' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'title',
            'type',
            'startDate',
            'endDate',
            'parentSourcedId',
            'schoolYear',
        ],
        'courses' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'schoolYearSourcedId',
            'title',
            'courseCode',
            'grades',
            'orgSourcedId',
            'subjects',
            'subjectCodes',
        ],
        'classes' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'title',
            'grades',
            'courseSourcedId',
            'classCode',
            'classType',
            'location',
            'schoolSourcedId',
            'termSourcedIds',
            'subjects',
            'subjectCodes',
            'periods',
        ],
        'users' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'enabledUser',
            'username',
            'userIds',
            'givenName',
            'familyName',
            'middleName',
            'identifier',
            'email',
            'sms',
            'phone',
            'agentSourcedIds',
            'grades',
            'password',
            'userMasterIdentifier',
            'preferredGivenName',
            'preferredMiddleName',
            'preferredFamilyName',
            'primaryOrgSourcedId',
            'pronouns',
        ],
        'roles' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'userSourcedId',
            'roleType',
            'role',
            'beginDate',
            'endDate',
            'orgSourcedId',
            'userProfileSourcedId',
        ],
        'enrollments' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'classSourcedId',
            'schoolSourcedId',
            'userSourcedId',
            'role',
            'primary',
            'beginDate',
            'endDate',
        ],
        'demographics' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'birthDate',
            'sex',
            'americanIndianOrAlaskaNative',
            'asian',
            'blackOrAfricanAmerican',
            'nativeHawaiianOrOtherPacificIslander',
            'white',
            'demographicRaceTwoOrMoreRaces',
            'hispanicOrLatinoEthnicity',
            'countryOfBirthCode',
            'stateOfBirthAbbreviation',
            'cityOfBirth',
        ],
    ];

    /** Where a column is not called as the field is. */
    private const FIELDS = [
        'parentSourcedId' => 'parent.sourcedId',
        'courseSourcedId' => 'course.sourcedId',
        'schoolSourcedId' => 'school.sourcedId',
        'termSourcedIds' => 'terms.sourcedId',
        'agentSourcedIds' => 'agents.sourcedId',
        'classSourcedId' => 'class.sourcedId',
        'userSourcedId' => 'user.sourcedId',
        'orgSourcedId' => 'org.sourcedId',
        'primaryOrgSourcedId' => 'primaryOrg.sourcedId',
        'preferredGivenName' => 'preferredFirstName',
        'preferredMiddleName' => 'preferredMiddleName',
        'preferredFamilyName' => 'preferredLastName',
        'schoolYearSourcedId' => 'schoolYear.sourcedId',
    ];

    /**
     * @param  array<string, list<array<string, mixed>>>  $records name of a {@see Kind} to records
     * @return array<string, list<list<string>>> table to rows, the header first
     */
    public static function of(array $records): array
    {
        $tables = [];
        foreach (self::HEADERS as $table => $header) {
            $tables[$table] = [$header];
            foreach ($table === 'roles' ? [] : $records[$table] ?? [] as $record) {
                $tables[$table][] = array_map(
                    fn(string $c): string => implode(',', Values::of($record, self::FIELDS[$c] ?? $c)),
                    $header,
                );
            }
        }
        foreach ($records['users'] ?? [] as $user) {
            $id = Values::of($user, 'sourcedId')[0] ?? '';
            foreach (is_array($user['roles'] ?? null) ? $user['roles'] : [] as $i => $role) {
                if (is_array($role)) {
                    /** @var array<string, mixed> $role */
                    $named = [
                        'sourcedId' => "$id-$i",
                        'status' => Values::of($user, 'status')[0] ?? '',
                        'dateLastModified' => Values::of($user, 'dateLastModified')[0] ?? '',
                        'userSourcedId' => $id,
                        'roleType' => Values::of($role, 'roleType')[0] ?? 'primary',
                        'role' => Values::of($role, 'role')[0] ?? '',
                        'orgSourcedId' => Values::of($role, 'org.sourcedId')[0] ?? '',
                    ];
                    $tables['roles'][] = array_map(fn(string $c): string => $named[$c] ?? '', self::HEADERS['roles']);
                }
            }
        }

        return $tables;
    }
}
