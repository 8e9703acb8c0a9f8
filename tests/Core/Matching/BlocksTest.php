<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Blocks;
use Vantrel\Core\Matching\Population;
use Vantrel\Core\Matching\Subject;

/** Somebody of whom only this is known. */
function knownAs(string $id, string $given = '', string $family = '', mixed ...$with): Subject
{
    return new Subject($id, $given, $family, ...$with);
}

/**
 * Ids of those a row is held against.
 *
 * @param  list<Subject>  $known
 * @return list<string>
 */
function heldAgainst(Subject $row, array $known): array
{
    $blocks = new Blocks([$row], $known, new Population());

    return array_map(fn(Subject $s): string => $s->id, [...$blocks->nearTo($row)]);
}

it('holds a row against whoever shares a block with it, and against nobody else', function (
    Subject $row,
    Subject $other,
    bool $meet,
): void {
    expect(heldAgainst($row, [knownAs('k', 'Ximena', 'Okafor', '1999-01-01'), $other]))->toBe(
        $meet ? [$other->id] : [],
    );
})->with(function (): iterable {
    $no = ['grade' => '12'];
    yield 'a number' => [knownAs('r', 'A', 'B', number: '17'), knownAs('o', 'C', 'D', number: '17'), true];
    yield 'another number' => [
        knownAs('r', 'Ada', 'Ek', number: '17'),
        knownAs('o', 'Cem', 'Diaz', number: '18'),
        false,
    ];
    yield 'an address' => [knownAs('r', 'A', 'B', email: 'a@x.example'), knownAs('o', email: 'a@x.example'), true];
    yield 'a contact' => [
        knownAs('r', 'Ada', 'Ek', contacts: ['x', 'y']),
        knownAs('o', 'Z', 'Q', contacts: ['y']),
        true,
    ];
    yield 'a number alone, no name' => [knownAs('r', number: '17'), knownAs('o', number: '17'), true];
    yield 'nothing' => [knownAs('r'), knownAs('o'), false];
    yield 'names the wrong way round' => [knownAs('r', 'Noor', 'Haddad', ...$no), knownAs('o', 'Haddad', 'Noor'), true];
    yield 'one name the same' => [knownAs('r', 'Noor', 'Haddad'), knownAs('o', 'Ximena', 'Haddad'), false];
    yield 'the whole name at any grade' => [
        knownAs('r', 'Noor', 'Haddad', ...$no),
        knownAs('o', 'Noor', 'Haddad', grade: '01'),
        true,
    ];
    $near = fn(string $grade): Subject => knownAs('o', 'Nora', 'Haddod', grade: $grade);
    $row = fn(string $grade): Subject => knownAs('r', 'Noor', 'Haddad', grade: $grade);
    yield 'beginnings at one grade' => [$row('05'), $near('05'), true];
    yield 'at the next' => [$row('05'), $near('06'), true];
    yield 'at the one before' => [$row('05'), $near('04'), true];
    yield 'two on' => [$row('05'), $near('07'), false];
    yield 'two before' => [$row('05'), $near('03'), false];
    yield 'at no grade' => [$row('05'), $near(''), true];
    yield 'a row without one' => [$row(''), $near('12'), true];
    yield 'the first grade there is, and the next' => [$row('PK'), $near('KG'), true];
    yield 'the first grade there is, and two on' => [$row('PK'), $near('01'), false];
    yield 'a grade nobody knows' => [$row('40'), $near('02'), true];
    yield 'beginnings that differ' => [$row('05'), knownAs('o', 'Nora', 'Hadid', grade: '05'), false];
    yield 'another given name' => [knownAs('r', 'Bob', 'Haddad'), knownAs('o', 'Ximena', 'Haddod'), false];
    yield 'the initial of a form' => [knownAs('r', 'Bob', 'Haddad'), knownAs('o', 'Robert', 'Haddod'), true];
    yield 'a second family name' => [knownAs('r', 'Noor', 'Haddad Roig'), knownAs('o', 'Nil', 'Roigas'), true];
    yield 'a small word of a family name' => [knownAs('r', 'Noor', 'de Roig'), knownAs('o', 'Nil', 'de Cruz'), false];
    yield 'a family name that is a small word' => [knownAs('r', 'Noor', 'Ek'), knownAs('o', 'Nil', 'Ek'), true];
    yield 'an initial for a family name' => [knownAs('r', 'Noor', 'H'), knownAs('o', 'Noor', 'Haddad'), true];
    yield 'the initial of a second one' => [knownAs('r', 'Noor', 'R'), knownAs('o', 'Noor', 'Haddad Roig'), true];
    yield 'an initial and another given name' => [knownAs('r', 'Nil', 'H'), knownAs('o', 'Noor', 'Haddad'), false];
    yield 'a first given name and an initial' => [knownAs('r', 'Noor Ada', 'H'), knownAs('o', 'Noor', 'Haddad'), true];
    yield 'no initial in a whole name' => [knownAs('r', 'Noor', 'Hadid'), knownAs('o', 'Noor', 'Hoxha'), false];
    $born = fn(string $id, string $given, string $family, string $day): Subject => knownAs($id, $given, $family, $day);
    yield 'sound of a family name and year' => [
        $born('r', 'Noor', 'Rupert', '2015-08-03'),
        $born('o', 'Ximena', 'Robert', '2015-01-12'),
        true,
    ];
    yield 'sound and another year' => [
        $born('r', 'Noor', 'Rupert', '2015-08-03'),
        $born('o', 'Ximena', 'Robert', '2014-08-03'),
        false,
    ];
    yield 'sound of a given name and day' => [
        $born('r', 'Rupert', 'Ek', '2015-08-03'),
        $born('o', 'Robert', 'Haddad', '2015-08-03'),
        true,
    ];
    yield 'sound of a given name and year' => [
        $born('r', 'Rupert', 'Ek', '2015-08-03'),
        $born('o', 'Robert', 'Haddad', '2015-08-04'),
        false,
    ];
    yield 'initials and day' => [
        $born('r', 'Noor', 'Haddad', '2015-08-03'),
        $born('o', 'Nil', 'Hoxha', '2015-08-03'),
        true,
    ];
    yield 'initials turned and day' => [
        $born('r', 'Noor', 'Haddad', '2015-08-03'),
        $born('o', 'Hil', 'Noxha', '2015-08-03'),
        true,
    ];
    yield 'a day alone' => [$born('r', 'Noor', 'Haddad', '2015-08-03'), $born('o', 'Kim', 'Soto', '2015-08-03'), false];
    yield 'given name alone and a day' => [
        $born('r', 'Noor', '', '2015-08-03'),
        $born('o', 'Noor', 'Soto', '2015-08-03'),
        true,
    ];
});

it('names each once, however many blocks they share', function (): void {
    $row = knownAs('r', 'Noor', 'Haddad', '2015-08-03', '17', 'n@x.example', '04');
    $known = [
        knownAs('a', 'Noor', 'Haddad', '2015-08-03', '17', 'n@x.example', '04'),
        knownAs('b', 'Noor', 'Haddad', '2015-08-03', '18', '', '04'),
    ];
    expect(heldAgainst($row, $known))->toBe(['a', 'b']);
});

it('splits a block that is too large by a further key, and passes over nobody who shares that', function (): void {
    // A guardian contact of an institution: a hundred people and one more.
    $crowd = fn(int $n): array => array_map(
        fn(int $i): Subject => knownAs("c$i", "Given$i", "Family$i", contacts: ['office@x.example']),
        range(1, $n),
    );
    $row = knownAs('r', 'Noor', 'Haddad', '2015-08-03', contacts: ['office@x.example']);
    expect(heldAgainst($row, $crowd(100)))->toHaveCount(100)->and(heldAgainst($row, $crowd(101)))->toBe([]);
    $in = fn(string $id, string $given, string $family, string $born = ''): Subject => knownAs(
        $id,
        $given,
        $family,
        $born,
        contacts: ['office@x.example'],
    );
    $few = [
        $in('begins alike', 'Noordin', 'Soto'),
        $in('begins otherwise', 'Nora', 'Soto'),
        $in('born that day', 'Kim', 'Soto', '2015-08-03'),
        $in('born another day', 'Kim', 'Soto', '2015-08-04'),
    ];
    expect(heldAgainst($row, [...$crowd(101), ...$few]))->toEqualCanonicalizing(['begins alike', 'born that day']);
    $bob = knownAs('r', 'Bob', 'Haddad', contacts: ['office@x.example']);
    $forms = [$in('other form', 'Robert', 'Haddad'), $in('other form, other family', 'Robert', 'Soto')];
    expect(heldAgainst($bob, [...$crowd(101), ...$forms]))->toBe(['other form']);
});

it('never splits by number or own address, and looks at a whole name in any case, to a limit', function (): void {
    $same = fn(int $n, array $with): array => array_map(
        fn(int $i): Subject => knownAs("c$i", 'Noor', 'Haddad', ...$with),
        range(1, $n),
    );
    $row = knownAs('r', 'Kim', 'Soto', '', '17', 'k@x.example');
    expect(heldAgainst($row, $same(150, ['number' => '17'])))
        ->toHaveCount(150)
        ->and(heldAgainst($row, $same(150, ['email' => 'k@x.example'])))
        ->toHaveCount(150);
    $noor = knownAs('r', 'Noor', 'Haddad', '2015-08-03');
    expect(heldAgainst($noor, $same(150, [])))
        ->toHaveCount(150)
        ->and(heldAgainst($noor, $same(400, [])))
        ->toHaveCount(300);
    $day = array_map(
        fn(int $i): Subject => knownAs("c$i", 'N' . chr(97 + ($i % 26)) . "x$i", "H$i", '2015-08-03'),
        range(1, 150),
    );
    expect(heldAgainst($noor, $day))->toHaveCount(150);
    // What begins alike and is common even among those says nothing.
    $alike = array_map(fn(int $i): Subject => knownAs("c$i", 'Noor', "Haddad$i", contacts: ['o']), range(1, 150));
    expect(heldAgainst(knownAs('r', 'Noordin', 'Soto', contacts: ['o']), $alike))
        ->toBe([])
        ->and(heldAgainst(knownAs('r', 'Noordin', 'Soto', contacts: ['o']), array_slice($alike, 0, 101)))
        ->toBe([]);
});

it('counts how many have a contact that the list names', function (): void {
    $population = new Population();
    $known = array_map(
        fn(int $i): Subject => knownAs("c$i", 'Kim', "Soto$i", contacts: ['many', 'none']),
        range(1, 40),
    );
    $known[] = knownAs('one', 'Kim', 'Ek', contacts: ['few']);
    new Blocks([knownAs('r', 'Noor', 'Haddad', contacts: ['many', 'few'])], $known, $population);
    expect($population->people)
        ->toBe(41)
        ->and($population->contact(['many']))
        ->toEqualWithDelta((40 - 6 + 0.25) / 241, 1e-12)
        ->and($population->contact(['few']))
        ->toEqualWithDelta(0.25 / 241, 1e-12)
        // Not named by the list: taken for one family's.
        ->and($population->contact(['none']))
        ->toEqualWithDelta(0.25 / 241, 1e-12);
});
