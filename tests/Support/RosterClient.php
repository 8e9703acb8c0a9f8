<?php

declare(strict_types=1);

namespace Tests\Support;

use Illuminate\Testing\TestResponse;

/**
 * A program that knows the standard and nothing of Vantrel: it asks for a token, follows the Link header from page to
 * page, and holds what it gets against lists of fields of its own (written down here once more, on purpose, and from
 * memory: "OneRoster Rostering Service Information Model", 1.2, sections on each class).
 */
final class RosterClient
{
    /** Class of record: field to [type, least, most]. `1..*` is a list of at least one. */
    public const MODEL = [
        // Section "Org Class".
        'org' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'name' => ['string', 1, 1],
            'type' => ['department|school|district|local|state|national', 1, 1],
            'identifier' => ['string', 0, 1],
            'parent' => ['ref:org', 0, 1],
            'children' => ['ref:org', 0, -1],
        ],
        // Section "AcademicSession Class".
        'academicSession' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'title' => ['string', 1, 1],
            'startDate' => ['date', 1, 1],
            'endDate' => ['date', 1, 1],
            'type' => ['gradingPeriod|semester|schoolYear|term', 1, 1],
            'parent' => ['ref:academicSession', 0, 1],
            'children' => ['ref:academicSession', 0, -1],
            'schoolYear' => ['year', 1, 1],
        ],
        // Section "Course Class".
        'course' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'title' => ['string', 1, 1],
            'schoolYear' => ['ref:academicSession', 0, 1],
            'courseCode' => ['string', 0, 1],
            'grades' => ['string', 0, -1],
            'subjects' => ['string', 0, -1],
            'org' => ['ref:org', 1, 1],
            'subjectCodes' => ['string', 0, -1],
            'resources' => ['ref:resource', 0, -1],
        ],
        // Section "Class Class".
        'class' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'title' => ['string', 1, 1],
            'classCode' => ['string', 0, 1],
            'classType' => ['homeroom|scheduled', 1, 1],
            'location' => ['string', 0, 1],
            'grades' => ['string', 0, -1],
            'subjects' => ['string', 0, -1],
            'course' => ['ref:course', 1, 1],
            'school' => ['ref:org', 1, 1],
            'terms' => ['ref:academicSession', 1, -1],
            'subjectCodes' => ['string', 0, -1],
            'periods' => ['string', 0, -1],
            'resources' => ['ref:resource', 0, -1],
        ],
        // Section "User Class".
        'user' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'userMasterIdentifier' => ['string', 0, 1],
            'username' => ['string', 0, 1],
            'userIds' => ['object', 0, -1],
            'enabledUser' => ['true|false', 1, 1],
            'givenName' => ['string', 1, 1],
            'familyName' => ['string', 1, 1],
            'middleName' => ['string', 0, 1],
            'preferredFirstName' => ['string', 0, 1],
            'preferredMiddleName' => ['string', 0, 1],
            'preferredLastName' => ['string', 0, 1],
            'pronouns' => ['string', 0, 1],
            'roles' => ['role', 1, -1],
            'userProfiles' => ['object', 0, -1],
            'primaryOrg' => ['ref:org', 0, 1],
            'identifier' => ['string', 0, 1],
            'email' => ['string', 0, 1],
            'sms' => ['string', 0, 1],
            'phone' => ['string', 0, 1],
            'agents' => ['ref:user', 0, -1],
            'grades' => ['string', 0, -1],
            'password' => ['string', 0, 1],
            'resources' => ['ref:resource', 0, -1],
        ],
        // Section "Enrollment Class".
        'enrollment' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'user' => ['ref:user', 1, 1],
            'class' => ['ref:class', 1, 1],
            'school' => ['ref:org', 1, 1],
            'role' => ['administrator|proctor|student|teacher', 1, 1],
            'primary' => ['true|false', 0, 1],
            'beginDate' => ['date', 0, 1],
            'endDate' => ['date', 0, 1],
        ],
        // Section "Demographics Class"; of its flags on descent none is kept here.
        'demographics' => [
            'sourcedId' => ['string', 1, 1],
            'status' => ['active|tobedeleted', 1, 1],
            'dateLastModified' => ['datetime', 1, 1],
            'metadata' => ['object', 0, 1],
            'birthDate' => ['date', 0, 1],
            'sex' => ['male|female|unspecified|other', 0, 1],
        ],
    ];

    /** Section "RoleEnum". */
    private const ROLES =
        '/^(aide|counselor|districtAdministrator|guardian|parent|principal|proctor|relative|siteAdministrator|' .
        'student|systemAdministrator|teacher)$/';

    private string $token = '';

    public function __construct(private readonly ServerTestCase $test) {}

    public function signIn(string $id, string $secret, string $scope = ''): TestResponse
    {
        $answer = $this->test
            ->withHeaders(['Authorization' => 'Basic ' . base64_encode("$id:$secret")])
            ->post('/ims/oneroster/token', [
                'grant_type' => 'client_credentials',
                ...$scope === '' ? [] : ['scope' => $scope],
            ]);
        $this->token = (string) ($answer->json('access_token') ?? '');

        return $answer;
    }

    public function get(string $path): TestResponse
    {
        return $this->test
            ->withHeaders(['Authorization' => "Bearer $this->token", 'Accept' => 'application/json'])
            ->get(str_starts_with($path, 'http') ? $path : "/ims/oneroster/rostering/v1p2/$path");
    }

    /**
     * All of a collection, page by page.
     *
     * @return list<array<string, mixed>>
     */
    public function all(string $path): array
    {
        $found = [];
        $pages = 0;
        for ($next = $path; $next !== null && $pages < 1000; $pages++) {
            $answer = $this->get($next)->assertOk();
            $body = (array) $answer->json();
            expect(array_keys($body))->toHaveCount(1);
            array_push($found, ...array_values((array) reset($body)));
            $next =
                preg_match('/<([^>]+)>;\s*rel="next"/', (string) $answer->headers->get('Link'), $m) === 1
                    ? $m[1]
                    : null;
            $total = (int) $answer->headers->get('X-Total-Count');
        }
        expect(count($found))->toBe($total ?? -1, $path);

        return $found;
    }

    /** @return list<string> what of a record is not as the standard has it */
    public static function problems(string $class, array $record): array
    {
        $model = self::MODEL[$class];
        $problems = array_map(fn(string $f): string => "$f is no field", array_keys(array_diff_key($record, $model)));
        foreach ($model as $field => [$type, $least, $most]) {
            $value = $record[$field] ?? null;
            if ($value === null) {
                $problems = $least === 0 ? $problems : [...$problems, "$field is missing"];

                continue;
            }
            $all = $most === -1 ? $value : [$value];
            if (!is_array($all) || ($most === -1 && !array_is_list($all)) || count($all) < $least) {
                $problems[] = "$field has the wrong number";

                continue;
            }
            foreach ($all as $one) {
                if (!self::is($type, $one)) {
                    $problems[] = "$field is " . json_encode($one);
                }
            }
        }

        return $problems;
    }

    private static function is(string $type, mixed $value): bool
    {
        return match (true) {
            $type === 'string' => is_string($value) && $value !== '',
            $type === 'date' => is_string($value) && preg_match('/^\d{4}-\d\d-\d\d$/', $value) === 1,
            $type === 'year' => is_string($value) && preg_match('/^\d{4}$/', $value) === 1,
            $type === 'datetime' => is_string($value) &&
                preg_match('/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/', $value) === 1,
            $type === 'object' => is_array($value),
            $type === 'role' => is_array($value) &&
                in_array($value['roleType'] ?? '', ['primary', 'secondary'], true) &&
                preg_match(self::ROLES, (string) ($value['role'] ?? '')) === 1 &&
                self::is('ref:org', $value['org'] ?? null),
            str_starts_with($type, 'ref:') => is_array($value) &&
                array_keys($value) === ['href', 'sourcedId', 'type'] &&
                filter_var($value['href'], FILTER_VALIDATE_URL) !== false &&
                $value['type'] === substr($type, 4) &&
                str_ends_with($value['href'], (string) $value['sourcedId']),
            default => in_array($value, explode('|', $type), true),
        };
    }
}
