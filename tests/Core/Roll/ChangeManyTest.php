<?php

declare(strict_types=1);

use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Roll\ChangeMany;
use Vantrel\Core\Roll\ManyKind;
use Vantrel\Core\Roll\ManyWish;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** @param  array<string, string|null>  $with */
function ofMany(string $id, array $with = []): Person
{
    return new Person($id, 3, [
        'kind' => 'student',
        'given_name' => 'Noor',
        'family_name' => 'Castell',
        'search_name' => 'noor castell',
        'number' => '020417',
        'grade' => '04',
        'state' => 'active',
        'erased_on' => null,
        'language' => null,
        'name_shown' => null,
        ...$with,
    ]);
}

/** @return list<string> each row as its verdict, cells that differ and note */
function manyRows(Plan $plan): array
{
    return array_map(
        fn(PlanRow $r): string => implode(
            ' ',
            array_filter([
                $r->verdict->value,
                ...array_map(
                    fn($cell): string => $cell->differs() ? "$cell->before > $cell->after" : '',
                    array_values($r->cells),
                ),
                $r->why,
            ]),
        ),
        $plan->rows,
    );
}

it('puts many into a grade, and leaves who is in it', function (): void {
    $plan = ChangeMany::plan(
        new ManyWish(ManyKind::Grade, GradeLevel::of(5)),
        [
            ofMany('a'),
            ofMany('b', ['grade' => '05']),
            ofMany('c', ['grade' => null]),
            ofMany('g', ['kind' => 'guardian']),
        ],
        [],
        '2026-11-26',
    );
    expect(manyRows($plan))
        ->toBe(['update 4 > 5', 'same in this grade already', 'update  > 5', 'same not a student'])
        ->and($plan->sentence)
        ->toBe('Puts 2 students into grade 5. Sections stay as they are.')
        ->and($plan->title)
        ->toBe('2 students into grade 5')
        ->and($plan->tallies[0]->count)
        ->toBe(2)
        ->and($plan->changes)
        ->toHaveCount(2)
        ->and($plan->changes[0]->after)
        ->toBe(['grade' => '05']);
    $none = ChangeMany::plan(new ManyWish(ManyKind::Grade), [ofMany('a')], [], '2026-11-26');
    expect($none->changes[0]->after)
        ->toBe(['grade' => null])
        ->and($none->title)
        ->toBe('1 student into no grade');
});

it('takes off who has left, ends what they are in, and never before it begins', function (): void {
    $in = fn(string $id, string $begins): Enrollment => new Enrollment($id, 1, [
        'person_id' => 'a',
        'section_id' => 's',
        'begins_on' => $begins,
        'ends_on' => null,
    ]);
    $plan = ChangeMany::plan(
        new ManyWish(ManyKind::Leave),
        [ofMany('a'), ofMany('b', ['state' => 'left'])],
        ['a' => [$in('e1', '2026-08-24'), $in('e2', '2027-01-10')], 'b' => [$in('e3', '2026-08-24')]],
        '2026-11-26',
    );
    expect(manyRows($plan))
        ->toBe(['leaving', 'same not an active student'])
        ->and(array_map(fn($c): array => [$c->id, $c->after], $plan->changes))
        ->toBe([['a', ['state' => 'left']], ['e1', ['ends_on' => '2026-11-26']], ['e2', ['ends_on' => '2027-01-10']]])
        ->and($plan->warnings)
        ->toBe(['2 enrollments end today. Rosters of earlier days stay.']);
});

it('has back who left, and nobody else', function (): void {
    $plan = ChangeMany::plan(
        new ManyWish(ManyKind::Back),
        [ofMany('a'), ofMany('b', ['state' => 'left'])],
        [],
        '2026-11-26',
    );
    expect(manyRows($plan))
        ->toBe(['same has not left', 'update'])
        ->and($plan->changes[0]->after)
        ->toBe(['state' => 'active'])
        ->and($plan->warnings)
        ->toBe([]);
});

it('turns names round, and mends those in capitals', function (): void {
    $people = [
        ofMany('a'),
        ofMany('b', ['family_name' => '']),
        ofMany('c', ['given_name' => 'NOOR', 'family_name' => 'DE LA CRUZ']),
    ];
    $turned = ChangeMany::plan(new ManyWish(ManyKind::Turn), $people, [], '2026-11-26');
    expect($turned->rows[1]->verdict)
        ->toBe(Verdict::Same)
        ->and($turned->changes[0]->after)
        ->toBe(['given_name' => 'Castell', 'family_name' => 'Noor', 'search_name' => 'castell noor']);
    $mended = ChangeMany::plan(new ManyWish(ManyKind::Mend), $people, [], '2026-11-26');
    expect(array_map(fn(PlanRow $r): string => $r->verdict->value, $mended->rows))
        ->toBe(['same', 'same', 'update'])
        ->and($mended->changes[0]->after['family_name'])
        ->toBe('de la Cruz')
        // Done once, there is nothing left to do.
        ->and(ChangeMany::plan(new ManyWish(ManyKind::Mend), [ofMany('a')], [], '2026-11-26')->isEmpty())
        ->toBeTrue();
});

it('wants somebody', function (): void {
    ChangeMany::plan(new ManyWish(ManyKind::Back), [], [], '2026-11-26');
})->throws(Refusal::class, 'at least one');

it('notes what families are written to in, and how names are shown', function (): void {
    $people = [ofMany('a'), ofMany('b', ['language' => 'es', 'name_shown' => 'initial'])];
    $plan = ChangeMany::plan(
        new ManyWish(ManyKind::Language, language: Language::read('Spanish')),
        $people,
        [],
        '2026-11-26',
    );
    expect(manyRows($plan))
        ->toBe(['update  > Spanish', 'same so already'])
        ->and($plan->sentence)
        ->toBe('Notes that the families of 1 student are written to in Spanish.')
        ->and($plan->changes[0]->after)
        ->toBe(['language' => 'es']);
    $shown = ChangeMany::plan(new ManyWish(ManyKind::Shown, shown: NameShown::Initial), $people, [], '2026-11-26');
    expect(manyRows($shown))
        ->toBe(['update as the school has it > with the family name as a letter', 'same so already'])
        ->and($shown->sentence)
        ->toBe(
            'Shows the names of 1 student to others with the family name as a letter. What is on record stays whole.',
        );
    $back = ChangeMany::plan(new ManyWish(ManyKind::Shown), $people, [], '2026-11-26');
    expect($back->changes[0]->after)->toBe(['name_shown' => null]);
});
