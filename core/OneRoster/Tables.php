<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/**
 * Records of the REST service as tables of the CSV binding (OneRoster 1.2), which lists are read from: one way in for
 * both.
 */
final class Tables
{
    private const HEADERS = [
        'orgs' => ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
        'classes' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'title',
            'grades',
            'courseSourcedId',
            'classCode',
            'classType',
            'schoolSourcedId',
            'termSourcedIds',
        ],
        'users' => [
            'sourcedId',
            'status',
            'dateLastModified',
            'enabledUser',
            'username',
            'givenName',
            'familyName',
            'middleName',
            'identifier',
            'email',
            'sms',
            'phone',
            'agentSourcedIds',
            'grades',
        ],
        'roles' => ['sourcedId', 'status', 'dateLastModified', 'userSourcedId', 'roleType', 'role', 'orgSourcedId'],
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
        'demographics' => ['sourcedId', 'status', 'dateLastModified', 'birthDate', 'sex'],
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
                    $tables['roles'][] = [
                        "$id-$i",
                        '',
                        '',
                        $id,
                        Values::of($role, 'roleType')[0] ?? 'primary',
                        Values::of($role, 'role')[0] ?? '',
                        Values::of($role, 'org.sourcedId')[0] ?? '',
                    ];
                }
            }
        }

        return $tables;
    }
}
