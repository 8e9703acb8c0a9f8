<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Comparator;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Population;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;

/**
 * The levels of two, of whom only this is known, in one line.
 *
 * @param  array<string, mixed>  $a
 * @param  array<string, mixed>  $b
 */
function levelsOf(array $a, array $b): string
{
    $nobody = ['id' => 'x', 'given' => '', 'family' => ''];
    $levels = (new Comparator(Weights::published(), new Population()))->levels(
        new Subject(...[...$nobody, ...$a]),
        new Subject(...[...$nobody, ...$b]),
    );

    return implode('; ', array_map(fn(string $f, string $l): string => "$f: $l", array_keys($levels), $levels));
}

it('tells how given names agree', function (string $a, string $b, string $level): void {
    expect(levelsOf(['given' => $a], ['given' => $b]))
        ->toBe($level)
        ->and(levelsOf(['given' => $b], ['given' => $a]))
        ->toBe($level);
})->with([
    ['Noor', 'Noor', 'given name: alike'],
    ['NOOR', 'noor', 'given name: alike'],
    ['Noor', '', ''],
    ['N', 'N', 'given name: alike'],
    ['N', 'Noor', 'given initial: initial only'],
    ['K', 'Noor', 'given initial: differs'],
    ['K', 'N', 'given initial: differs'],
    ['Bob', 'Robert', 'given name: other form'],
    ['Jürgen', 'Juergen', 'given name: near'],
    ['Anne Marie', 'Annemarie', 'given name: other form'],
    ['Mhmd', 'Muhammad', 'given name: other form'],
    // Not so where both are written with vowels, or little is left without them.
    ['Karin', 'Koran', 'given name: sounds alike'],
    ['Ina', 'Ani', 'given name: differs'],
    ['Wilhel', 'Wilhelmina', 'given name: near'],
    ['Gus', 'Gustavo', 'given name: other form'],
    ['Gu', 'Gustavo', 'given name: akin'],
    ['Topher', 'Ristopher', 'given name: akin'],
    ['Seun', 'Oluwaseun', 'given name: akin'],
    ['Eun', 'Oluwaseun', 'given name: differs'],
    ['Ada Lin', 'Ada', 'given name: part of it'],
    ['Ada Lin', 'Bob Robert', 'given name: differs'],
    ['Lin Bob', 'Kai Robert', 'given name: part of it'],
    ['Ada L', 'Kim L', 'given name: differs'],
    ['Marta', 'Matra', 'given name: near'],
    ['Xoaquin', 'Joaquin', 'given name: near'],
    ['Noor', 'Ximena', 'given name: differs'],
]);

it('tells how family names agree', function (string $a, string $b, string $level): void {
    expect(levelsOf(['family' => $a], ['family' => $b]))
        ->toBe($level)
        ->and(levelsOf(['family' => $b], ['family' => $a]))
        ->toBe($level);
})->with([
    ['Haddad', 'Haddad', 'family name: alike'],
    ['Haddad', '', ''],
    ['Haddad Jr.', 'Haddad', 'family name: alike'],
    ['H', 'Haddad', 'family initial: initial only'],
    ['K', 'Haddad', 'family initial: differs'],
    ['C', 'de la Cruz', 'family initial: initial only'],
    // A small word that many families have is nobody's initial.
    ['D', 'de la Cruz', 'family initial: differs'],
    ['Castell Roig', 'Roig', 'family name: part of it'],
    ['de la Cruz', 'de la Vega', 'family name: differs'],
    ['Bob', 'Robert', 'family name: differs'],
    ['Gus', 'Gustavo', 'family name: differs'],
    ['Rupert', 'Robert', 'family name: sounds alike'],
    ['Seun', 'Oluwaseun', 'family name: differs'],
]);

it('takes names that are swapped for one thing, where both are', function (): void {
    expect(levelsOf(['given' => 'Noor', 'family' => 'Haddad'], ['given' => 'Haddad', 'family' => 'Noor']))
        ->toBe('names swapped: alike')
        ->and(levelsOf(['given' => 'Noor', 'family' => 'Noor'], ['given' => 'Noor', 'family' => 'Noor']))
        ->toBe('given name: alike; family name: alike')
        ->and(levelsOf(['given' => 'Noor', 'family' => 'Haddad'], ['given' => 'Haddad', 'family' => 'Ek']))
        ->toBe('given name: differs; family name: differs')
        ->and(levelsOf(['given' => '', 'family' => 'Ek'], ['given' => 'Ek', 'family' => '']))
        ->toBe('');
});

it('tells how each other field agrees, and nothing of one that a side lacks', function (
    array $a,
    array $b,
    string $level,
): void {
    expect(levelsOf($a, $b))->toBe($level);
})->with(function (): iterable {
    $born = fn(string $day): array => ['birthDate' => $day];
    yield [$born('2015-08-03'), $born('2015-08-03'), 'birth date: alike'];
    yield [$born('2015-08-03'), $born('2015-03-08'), 'birth date: turned'];
    yield [$born('2015-08-03'), $born('2015-08-13'), 'birth date: one digit'];
    yield [$born('2015-08-12'), $born('2015-08-21'), 'birth date: one digit'];
    yield [$born('2015-08-03'), $born('1998-08-03'), 'birth date: another year'];
    yield [$born('2015-08-03'), $born('2015-11-26'), 'birth date: same year'];
    yield [$born('2015-08-03'), $born('2011-11-26'), 'birth date: differs'];
    yield [$born('2015-08-03'), $born('2015'), 'birth date: differs'];
    yield [$born('2015-08-03'), $born(''), ''];
    yield [$born(''), $born('2015-08-03'), ''];
    $number = fn(string $number, string $school = ''): array => ['number' => $number, 'schoolId' => $school];
    yield [$number('20417'), $number('20417'), 'student number: alike'];
    yield [$number('20417'), $number('20471'), 'student number: one digit'];
    yield [$number('20417'), $number('20741'), 'student number: differs'];
    yield [$number('20417'), $number('2041'), 'student number: differs'];
    yield [$number('20417'), $number(''), ''];
    yield [$number(''), $number('20417'), ''];
    yield [$number('20417', 's'), $number('20417'), 'student number: alike'];
    yield [$number('20417', 's'), $number('20417', 's'), 'student number: alike; school: alike'];
    yield [$number('20417', 's'), $number('20417', 't'), 'student number: alike, elsewhere; school: differs'];
    yield [$number('20417', 's'), $number('20471', 't'), 'student number: differs, elsewhere; school: differs'];
    $mail = fn(string $mail): array => ['email' => $mail];
    yield [$mail('noor@a.example'), $mail('noor@a.example'), 'e-mail: alike'];
    $claimed = ['email' => 'noor@a.example', 'claimed' => true];
    yield [$mail('noor@a.example'), $claimed, 'e-mail: alike, claimed'];
    yield [$mail('noor@a.example'), $mail('noor@b.example'), 'e-mail: same local part'];
    yield [$mail('noor@a.example'), $mail('kai@a.example'), 'e-mail: differs'];
    yield [$mail('noor@a.example'), $mail(''), ''];
    yield [$mail(''), $mail('noor@a.example'), ''];
    $family = fn(array $contacts, array $names = []): array => ['contacts' => $contacts, 'guardians' => $names];
    yield [$family(['x', 'a@x.example']), $family(['a@x.example']), 'guardian contact: alike'];
    yield [$family(['a@x.example']), $family(['b@x.example']), 'guardian contact: differs'];
    yield [$family(['a@x.example'], ['ann ek']), $family(['b@x.example'], ['ann ek']), 'guardian contact: same name'];
    yield [$family([], ['ann ek']), $family([], ['ann ek']), 'guardian contact: same name'];
    yield [$family([], ['ann ek']), $family([], ['jo ek']), 'guardian contact: differs'];
    yield [$family(['a@x.example']), $family([], ['ann ek']), ''];
    yield [$family([]), $family(['a@x.example'], ['ann ek']), ''];
    $grade = fn(string $grade): array => ['grade' => $grade];
    yield [$grade('04'), $grade('04'), 'grade: alike'];
    yield [$grade('05'), $grade('04'), 'grade: next'];
    yield [$grade('04'), $grade('05'), 'grade: differs'];
    yield [$grade('06'), $grade('04'), 'grade: differs'];
    yield [$grade('01'), $grade('KG'), 'grade: next'];
    yield [$grade('KG'), $grade('PK'), 'grade: next'];
    yield [$grade('01'), $grade('PK'), 'grade: differs'];
    yield [$grade('04'), $grade(''), ''];
    yield [$grade(''), $grade('04'), ''];
    $in = fn(array $sections, string $school = ''): array => ['sections' => $sections, 'schoolId' => $school];
    yield [$in(['3 heron', 'art']), $in(['art']), 'section: alike'];
    yield [$in(['3 heron']), $in(['art']), 'section: differs'];
    yield [$in(['art']), $in([]), ''];
    yield [$in([]), $in(['art']), ''];
    // Sections of two schools that bear one name are two.
    yield [$in(['art'], 's'), $in(['art'], 't'), 'school: differs'];
});

it('shows each field with both sides, and those that one side lacks without weight', function (): void {
    $comparator = new Comparator(Weights::published(), new Population());
    $lines = fn(Subject $a, Subject $b): array => array_map(
        fn(Evidence $e): string => "$e->field: $e->left / $e->right: $e->level" .
            ($e->weight === 0.0 ? ', no weight' : ''),
        $comparator->evidence($a, $b),
    );
    $a = new Subject(
        'a',
        'Noor',
        'Haddad',
        '2015-08-03',
        '',
        '',
        '04',
        's',
        ['x@x.example', 'y@x.example'],
        [],
        ['art'],
    );
    $b = new Subject('b', 'N', 'Haddad', '', '20417', '', '04', 's', ['z@x.example', 'y@x.example'], [], ['3 heron']);
    expect($lines($a, $b))->toBe([
        'given initial: Noor / N: initial only',
        'family name: Haddad / Haddad: alike',
        'birth date: 2015-08-03 / : not known, no weight',
        'student number:  / 20417: not known, no weight',
        'guardian contact: y@x.example / y@x.example: alike',
        'grade: 04 / 04: alike',
        'section: art / 3 heron: differs',
        'school: this school / this school: alike',
    ]);
    $swapped = new Subject('c', 'Haddad', 'Noor', guardians: ['ann ek'], schoolId: 't');
    expect($lines(new Subject('a', 'Noor', 'Haddad', schoolId: 's', guardians: ['jo ek']), $swapped))->toBe([
        'names swapped: Noor Haddad / Haddad Noor: alike',
        'guardian contact: jo ek / ann ek: differs',
        'school: this school / another school: differs',
    ]);
    expect($lines(new Subject('a', '', 'Ek'), new Subject('b', 'Jo', 'E')))->toBe([
        'given name:  / Jo: not known, no weight',
        'family initial: Ek / E: initial only',
    ]);
});
