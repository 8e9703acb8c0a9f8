<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\OneRoster\CodeMinor;
use Vantrel\Core\OneRoster\Fault;
use Vantrel\Core\OneRoster\Filter;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Values;

$user = [
    'sourcedId' => 'A1',
    'status' => 'active',
    'dateLastModified' => '2026-09-01T06:00:00.000Z',
    'givenName' => 'Siobhán',
    'familyName' => "O'Neill",
    'grades' => ['03', '04'],
    'roles' => [
        ['roleType' => 'primary', 'role' => 'teacher', 'org' => ['href' => 'x', 'sourcedId' => 'S', 'type' => 'org']],
        [
            'roleType' => 'secondary',
            'role' => 'guardian',
            'org' => ['href' => 'x', 'sourcedId' => 'S', 'type' => 'org'],
        ],
    ],
];
$takes = fn(string $filter): bool => Filter::parse($filter, Kind::Users)->takes(
    fn(string $field): array => Values::of($user, $field),
);

it('takes a record as the filter says', function (string $filter, bool $taken) use ($takes): void {
    expect($takes($filter))->toBe($taken);
})->with([
    ["givenName='siobhán'", true],
    ["givenName!='siobhán'", false],
    ["familyName='O''Neill'", true],
    ["familyName ~ 'neil'", true],
    ["familyName>'A' AND familyName<'P'", true],
    ["givenName='x' OR status='active'", true],
    ["givenName='x' AND status='active'", false],
    ["dateLastModified>'2026-09-01'", true],
    ["dateLastModified>='2026-09-01T08:00:00+02:00'", true],
    ["dateLastModified<'2026-09-01T05:59:59.999Z'", false],
    // All of a list of words, but any of those a list of records names.
    ["grades='03'", false],
    ["grades='04,03'", true],
    ["grades~'03'", true],
    ["roles.role='guardian'", true],
    ["roles.role!='guardian'", false],
    ["roles.role='student'", false],
    // Of what a record has not, only "is not" is true.
    ["email='x'", false],
    ["email!='x'", true],
    ["email~'x'", false],
    ["email<'x'", false],
]);

it('refuses what is no filter, and says how it is written', function (string $filter): void {
    try {
        Filter::parse($filter, Kind::Users);
        expect(true)->toBeFalse($filter);
    } catch (Fault $e) {
        expect($e->minor)->toBe(CodeMinor::InvalidFilterField)->and($e->payload()['imsx_codeMajor'])->toBe('failure');
    }
})->with([
    'givenName',
    'givenName=Noor',
    "='Noor'",
    "givenName='Noor",
    "givenName='No'or'",
    "givenName='a' and familyName='b'",
    "givenName='a' AND familyName='b' AND email='c'",
    "(givenName='a')",
    "shoeSize='41'",
    "roles='teacher'",
    "roles.shoe='x'",
    "givenName.sourcedId='x'",
    "dateLastModified>'yesterday'",
    "dateLastModified>'2026-13-01'",
    "givenName=='a'",
    '',
]);

it('reads what it writes, whatever stands in it', function (): void {
    $random = new KeyedStream('a key of sixteen bytes', 'grammar');
    $pick = fn(array $of): string => $of[$random->below(count($of))];
    $fields = ['givenName', 'familyName', 'email', 'roles.role', 'agents.sourcedId', 'primaryOrg.sourcedId', 'grades'];
    $letters = [
        'a',
        'Z',
        "'",
        "''",
        ' ',
        'AND',
        ' AND ',
        ' OR ',
        '=',
        '~',
        '>',
        'é',
        '中',
        '%',
        '\\',
        '"',
        '(',
        ')',
        '0',
    ];
    for ($i = 0; $i < 2000; $i++) {
        $terms = [];
        for ($n = 1 + $random->below(2); $n > 0; $n--) {
            $value = implode('', array_map(fn(): string => $pick($letters), array_fill(0, $random->below(7), 0)));
            $terms[] = [$pick($fields), $pick(['=', '!=', '>', '>=', '<', '<=', '~']), $value];
        }
        $joint = $pick([' AND ', ' OR ']);
        $text = implode(
            $joint,
            array_map(fn(array $t): string => "$t[0]$t[1]'" . str_replace("'", "''", $t[2]) . "'", $terms),
        );
        $filter = Filter::parse($text, Kind::Users);
        expect(array_map(fn($t): array => [$t->field, $t->predicate, $t->value], $filter->terms))->toBe($terms, $text);
        expect($filter->text())->toBe($text);
    }
});

it('reads a page, an order and fields, and names the pages beside it', function (): void {
    $query = Query::read(
        [
            'limit' => '10',
            'offset' => '20',
            'sort' => 'familyName',
            'orderBy' => 'desc',
            'fields' => 'sourcedId, email',
        ],
        Kind::Users,
    );
    expect([$query->limit, $query->offset, $query->sort, $query->down, $query->fields])
        ->toBe([10, 20, 'familyName', true, ['sourcedId', 'email']])
        ->and(Query::read(['limit' => '99999'], Kind::Users)->limit)
        ->toBe(Query::MOST)
        ->and($query->select(['sourcedId' => 'A', 'givenName' => 'B', 'email' => 'C']))
        ->toBe(['sourcedId' => 'A', 'email' => 'C']);
    $links = $query->links('https://s.example/users', ['filter' => "a='b c'"], 45);
    expect($links)
        ->toContain("<https://s.example/users?filter=a%3D%27b%20c%27&limit=10&offset=30>; rel=\"next\"")
        ->toContain('offset=10>; rel="prev"')
        ->toContain('offset=0>; rel="first"')
        ->toContain('offset=40>; rel="last"');
    expect($query->links('https://s.example/users', [], 30))->not->toContain('next');
    expect(Query::read([], Kind::Users)->links('https://s.example/users', [], 0))
        ->not->toContain('prev')
        ->not->toContain('next');
});
