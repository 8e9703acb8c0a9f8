<?php

declare(strict_types=1);

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\Legibility;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Sections\ManySections;
use Vantrel\Core\Sections\NewSection;
use Vantrel\Core\Sections\NewSections;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Values\GradeLevel;

$ids = new Ids('01K3CNQ0000000000000000000');
$heron = place('h', '3 Heron');
$plover = place('p', '3 Plover', ['seats' => 2, 'period' => '2']);
$art = place('a', 'Art', ['period' => '2']);

it('names sections by a pattern, and lets empty places go', function (
    string $pattern,
    array $values,
    string $name,
): void {
    expect(SectionNames::fill(SectionNames::check($pattern), $values))->toBe($name);
})->with([
    ['{subject} {grade}{group}', ['subject' => 'Marine science', 'grade' => '8', 'group' => 'A'], 'Marine science 8A'],
    ['{subject} {grade}{group}', ['subject' => 'Choir'], 'Choir'],
    ['{grade} {group} ({period})', ['grade' => '3', 'group' => 'Heron'], '3 Heron'],
    ['{subject} - {year}', ['subject' => 'Art', 'year' => '2026-27'], 'Art - 2026-27'],
    ['{subject} - {year}', ['subject' => 'Art'], 'Art'],
]);

it('refuses patterns with places that are none, or without any', function (): void {
    expect(fn() => SectionNames::check('{teacher}'))
        ->toThrow(Refusal::class, '“{teacher}” is not a place')
        ->and(fn() => SectionNames::check('Class'))
        ->toThrow(Refusal::class, 'at least one place');
    expect(
        array_column(
            SectionNames::series(
                '{subject} {grade}{group}',
                'Art',
                [GradeLevel::of(1), GradeLevel::of(2)],
                ['A', 'B'],
                '',
                '',
            ),
            0,
        ),
    )
        ->toBe(['Art 1A', 'Art 1B', 'Art 2A', 'Art 2B'])
        ->and(array_column(SectionNames::series('{subject} {grade}{group}', 'Choir', [], [], '', ''), 0))
        ->toBe(['Choir']);
});

it('makes many sections from a pasted list, each once, with leads it can tell', function () use ($ids): void {
    $staff = [
        new Person('t1', 1, [
            'given_name' => 'Petra',
            'family_name' => 'Okonjo',
            'email' => 'petra@lanternfield.example',
        ]),
        new Person('t2', 1, ['given_name' => 'Jo', 'family_name' => 'Ek', 'email' => null]),
        new Person('t3', 1, ['given_name' => 'Jo', 'family_name' => 'Ek', 'email' => null]),
    ];
    $wanted = ManySections::fromText(
        "Art 8A\t8\t2\t24\tPetra Okonjo\nart 8a\n\nMusic 8A;8;;;petra@lanternfield.example\nDrama;;;;Jo Ek\n3 Heron",
        'class',
    );
    $plan = ManySections::plan(
        new NewSections('school', 'y', $wanted, '2026-08-24'),
        [place('h', '3 Heron')],
        $staff,
        [],
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100),
        $ids,
        '2026-08-20 10:00:00',
    );
    $made = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->entity === Entity::Section));
    expect(
        array_map(
            fn(Change $c): array => [$c->after['name'], $c->after['grade'], $c->after['period'], $c->after['seats']],
            $made,
        ),
    )
        ->toBe([['Art 8A', '08', '2', 24], ['Music 8A', '08', null, null], ['Drama', null, null, null]])
        ->and($plan->countOf(Entity::Enrollment))
        ->toBe(2)
        ->and($plan->countOf(Entity::JoinCode))
        ->toBe(3)
        ->and($plan->rows[3]->problems[0]->message)
        ->toContain('Several are called “Jo Ek”')
        ->and(array_map(fn($r): string => $r->verdict->value, $plan->rows))
        ->toBe(['new', 'same', 'new', 'new', 'same']);
    expect(fn() => ManySections::fromText("Art\tgrade q", 'class'))
        ->toThrow(Refusal::class, 'Line 1')
        ->and(fn() => ManySections::fromText("Art\n\nB;8;;lots", 'class'))
        ->toThrow(Refusal::class, 'Line 3');
});

it('takes last year’s sections with their teachers and without substitutes', function () use ($ids): void {
    $old = place('old', 'Art 8A', ['grade' => '08', 'kind' => 'class']);
    $teachers = [
        'old' => [
            new Enrollment('e1', 1, ['person_id' => 't1', 'role' => 'lead']),
            new Enrollment('e2', 1, ['person_id' => 't2', 'role' => 'substitute']),
        ],
    ];
    $plan = ManySections::plan(
        new NewSections('school', 'y2', [new NewSection('Art 8A', 'class', '08', null, null, '', $old)], '2027-08-23'),
        [],
        [],
        $teachers,
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100),
        $ids,
        '2026-08-20 10:00:00',
    );
    expect($plan->changes[0]->after['carried_from'])
        ->toBe('old')
        ->and($plan->countOf(Entity::Enrollment))
        ->toBe(1)
        ->and($plan->changes[1]->after)
        ->toMatchArray(['person_id' => 't1', 'role' => 'lead', 'begins_on' => '2027-08-23']);
});

it('sums up how large letters must be for the back row', function (): void {
    // 2 x 8 m x tan(11') = 51.2 mm: eight metres want capitals of five centimetres.
    expect(round(Legibility::capitalHeight(8.0), 1))
        ->toBe(51.2)
        ->and(round(Legibility::distance(Legibility::capitalHeight(8.0)), 6))
        ->toBe(8.0);
    foreach ([8, 9, 11] as $symbols) {
        expect(Legibility::codeReadableFrom($symbols, 1.5))->toBeGreaterThan(8.0);
    }
    expect(Legibility::typeSize(8) * 8 * Legibility::ADVANCE)
        ->toEqualWithDelta(Legibility::FILLED, 1e-9)
        ->and(fn() => Legibility::capitalHeight(0))
        ->toThrow(InvalidArgumentException::class);
});
