<?php

declare(strict_types=1);

use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Records\PersonKind;

/** @return list<array{string, string}> */
function pairsAmong(Subject ...$some): array
{
    $crowd = [];
    for ($i = 0; $i < 200; $i++) {
        $crowd[] = new Subject(
            "c$i",
            'Given' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)),
            'Family' . chr(97 + (($i * 7) % 26)) . chr(97 + ($i % 11)),
            sprintf('2015-%02d-%02d', 1 + ($i % 12), 1 + ($i % 28)),
            sprintf('1%05d', $i),
            '',
            '04',
            's',
        );
    }

    return array_map(
        fn(LookAlike $p): array => [$p->leftId, $p->rightId],
        LookAlikes::among([...$crowd, ...array_values($some)]),
    );
}

$child = fn(string $id, mixed ...$with): Subject => new Subject(
    ...[
        ...[
            'id' => $id,
            'given' => 'Noor',
            'family' => 'Haddad',
            'birthDate' => '2015-08-03',
            'number' => '020417',
            'email' => '',
            'grade' => '04',
            'schoolId' => 's',
            'contacts' => ['ann@x.example'],
        ],
        ...$with,
    ],
);

it('finds a second account of every common kind', function (array $with) use ($child): void {
    expect(pairsAmong($child('a'), $child('b', ...['number' => '', 'contacts' => [], ...$with])))->toBe([['a', 'b']]);
})->with([
    'nothing but the name' => [['birthDate' => '']],
    'birth date turned round' => [['birthDate' => '2015-03-08']],
    'no accents' => [['family' => 'Haddád']],
    'names swapped' => [['given' => 'Haddad', 'family' => 'Noor']],
    'a slip in the name' => [['given' => 'Nooor']],
]);

it('leaves twins, siblings, namesakes and numbered accounts alone', function (array $with) use ($child): void {
    expect(pairsAmong($child('a'), $child('b', ...$with)))->toBe([]);
})->with([
    'a twin' => [['given' => 'Amal', 'number' => '020418']],
    'a sibling' => [['given' => 'Amal', 'number' => '', 'birthDate' => '2017-01-01', 'grade' => '02']],
    'a namesake' => [['number' => '030000', 'birthDate' => '2015-12-24', 'contacts' => ['bo@x.example']]],
    'one digit apart in the numbers' => [['number' => '020418']],
]);

it('asks about a twin whose account has no number: it may be the same child by another name', function () use (
    $child,
): void {
    $crowd = array_map(fn(int $i): Subject => new Subject("x$i", "Given$i", "Family$i", '2014-01-01'), range(1, 50));
    $pair = fn(Subject $a, Subject $b): ?LookAlike => LookAlikes::of([$a], [...$crowd, $a, $b])[0] ?? null;
    $asked = $pair($child('a'), $child('b', given: 'Amal', number: ''));
    expect($asked?->caution)
        ->toBe('a twin, or the same child by another name')
        ->and($asked?->isClear())
        ->toBeFalse()
        // Two who both have none are as they came: brothers and sisters of a list without numbers.
        ->and($pair($child('a', number: ''), $child('b', given: 'Amal', number: '')))
        ->toBeNull();
});

it('shows three accounts of one child as one cluster, and cuts it where two of them are told apart', function () use (
    $child,
): void {
    $three = [$child('a', number: ''), $child('b', number: ''), $child('c', number: '')];
    $crowd = array_map(
        fn(int $i): Subject => new Subject(
            "x$i",
            'Given' . chr(97 + ($i % 26)) . chr(97 + ($i % 23)),
            'Family' . chr(97 + ($i % 19)) . chr(97 + ($i % 17)),
            sprintf('2014-%02d-%02d', 1 + ($i % 12), 1 + ($i % 28)),
        ),
        range(1, 200),
    );
    $ours = fn(array $apart): array => array_values(
        array_filter(
            LookAlikes::among([...$crowd, ...$three], null, $apart),
            fn(LookAlike $p): bool => strlen($p->leftId) === 1,
        ),
    );
    expect(array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId, $p->accounts], $ours([])))->toBe([
        ['a', 'b', 3],
        ['a', 'c', 3],
        ['b', 'c', 3],
    ]);
    $cut = $ours(['a b' => true, 'b a' => true]);
    expect($cut)->toHaveCount(1)->and($cut[0]->accounts)->toBe(2);
});

it('names a parent and a grown child of one name, and asks', function (): void {
    $crowd = array_map(fn(int $i): Subject => new Subject("c$i", "Given$i", "Family$i"), range(1, 100));
    $a = new Subject('a', 'Viktor', 'Underhay', email: 'vik@x.example', contacts: ['kid']);
    $b = new Subject('b', 'Viktor', 'Underhay', email: 'old.vik@y.example', contacts: ['kid']);
    $pair = LookAlikes::ofAdults(PersonKind::Guardian, [$a], [...$crowd, $a, $b])[0];
    expect($pair->caution)->toContain('a parent and a grown child of one name')->and($pair->isClear())->toBeFalse();
});

it('takes grown-ups for one by what they share, and a couple for two', function (
    PersonKind $kind,
    array $more,
    array $other,
    bool $found,
): void {
    $crowd = [];
    for ($i = 0; $i < 200; $i++) {
        $crowd[] = new Subject("c$i", 'Given' . chr(97 + ($i % 26)) . $i, "Family$i", email: "c$i@x.example");
    }
    $a = new Subject('a', ...['given' => 'Ann', 'family' => 'Castell', ...$more]);
    $b = new Subject('b', ...['given' => 'Ann', 'family' => 'Castell', ...$other]);
    $pairs = LookAlikes::ofAdults($kind, [$a], [...$crowd, $a, $b]);
    expect(array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId], $pairs))->toBe($found ? [['a', 'b']] : []);
})->with([
    'a guardian’s address' => [PersonKind::Guardian, ['email' => 'a@x.example'], ['email' => 'a@x.example'], true],
    'a child' => [PersonKind::Guardian, ['contacts' => ['kid']], ['contacts' => ['kid', 'other']], true],
    'a couple' => [
        PersonKind::Guardian,
        ['email' => 'a@x.example', 'contacts' => ['kid']],
        ['given' => 'Bo', 'email' => 'a@x.example', 'contacts' => ['kid']],
        false,
    ],
    'a namesake' => [PersonKind::Guardian, ['contacts' => ['kid']], ['contacts' => ['other']], false],
    'nothing but a name' => [PersonKind::Guardian, [], [], false],
    'a colleague with two addresses' => [
        PersonKind::Staff,
        ['email' => 'ann@school.example'],
        ['email' => 'ann@home.example'],
        true,
    ],
    'colleagues of one family name' => [PersonKind::Staff, [], ['given' => 'Leo'], false],
]);

it('is careful of two birth dates and of two addresses, and of nothing twice', function (
    PersonKind $kind,
    string $field,
    string $level,
    string $said,
): void {
    $evidence = [new Evidence($field, 'x', 'y', $level, -1.0)];
    expect(LookAlikes::careful($kind, '', $evidence))
        ->toContain($said)
        ->and(LookAlikes::careful($kind, 'the given name is another', $evidence))
        ->toBe('the given name is another');
})->with([
    [PersonKind::Student, 'birth date', 'same year', 'another birth date'],
    [PersonKind::Student, 'e-mail', 'differs', ''],
    [PersonKind::Guardian, 'e-mail', 'differs', 'a parent and a grown child'],
    [PersonKind::Staff, 'e-mail', 'same local part', 'another address'],
]);

it('finds of guardians all that looking at everybody would, by what they share alone', function (): void {
    mt_srand(7);
    $pick = fn(string ...$of): string => $of[mt_rand(0, count($of) - 1)];
    $adults = [];
    for ($i = 0; $i < 400; $i++) {
        $adults[] = new Subject(
            "g$i",
            $pick('Ann', 'Anna', 'Bruno', 'Carla', 'Karla', 'Dana', 'Emil', 'Emily'),
            $pick('Haddad', 'Hadad', 'Vale', 'Souza', 'Sousa', 'Brandt', 'Falk'),
            email: $pick('', '', 'a' . mt_rand(0, 90) . '@x.example'),
            schoolId: 's',
            contacts: $pick('', 'y') === '' ? [] : ['child' . mt_rand(0, 120), '+1202555' . mt_rand(100, 180)],
        );
    }
    $shares = fn(LookAlike $p): bool => array_filter(
        $p->evidence,
        fn(Evidence $e): bool => in_array($e->field, ['e-mail', 'guardian contact'], true) && $e->level === 'alike',
    ) !== [];
    $named = fn(LookAlike $p): bool => array_filter(
        $p->evidence,
        fn(Evidence $e): bool => in_array($e->field, ['given name', 'given initial'], true) &&
            in_array($e->level, ['differs', 'akin'], true),
    ) === [];
    $pairs = fn(array $found): array => array_map(
        fn(LookAlike $p): array => [$p->leftId, $p->rightId, $p->probability],
        $found,
    );
    $all = array_values(
        array_filter(LookAlikes::of($adults, $adults), fn(LookAlike $p): bool => $shares($p) && $named($p)),
    );
    $found = $pairs(LookAlikes::ofAdults(PersonKind::Guardian, $adults, $adults));
    sort($found);
    $should = $pairs($all);
    sort($should);
    expect($found)->toBe($should)->and(count($found))->toBeGreaterThan(30);
});
