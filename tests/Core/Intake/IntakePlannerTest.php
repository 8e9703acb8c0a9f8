<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Table\DelimitedText;

/** A school with Noor in 3 Heron, a sibling, and Kai at another school. */
function smallSchool(): Snapshot
{
    $person = fn(string $id, string $given, string $family, array $more = []): Person => new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'student',
        'given_name' => $given,
        'family_name' => $family,
        'search_name' => strtolower("$given $family"),
        'birth_date' => null,
        'number' => null,
        'grade' => '03',
        'email' => null,
        'phone' => null,
        'language' => null,
        'preferred_name' => null,
        'state' => 'active',
        'merged_into' => null,
        ...$more,
    ]);
    $people = [
        'noor' => $person('noor', 'Noor', 'Haddad', ['number' => '020417', 'birth_date' => '2018-03-08']),
        'amal' => $person('amal', 'Amal', 'Haddad', ['number' => '020418', 'birth_date' => '2018-03-08']),
        'kai' => $person('kai', 'Kai', 'Wu', [
            'number' => '020500',
            'birth_date' => '2018-01-01',
            'school_id' => 'other',
        ]),
        'gone' => $person('gone', 'Léa', 'Marchetti', [
            'number' => '020600',
            'birth_date' => '2018-05-05',
            'state' => 'left',
        ]),
        'ann' => $person('ann', 'Ann', 'Haddad', ['kind' => 'guardian', 'email' => 'ann@x.example', 'grade' => null]),
    ];
    for ($i = 0; $i < 80; $i++) {
        $people["c$i"] = $person("c$i", 'Child' . chr(97 + ($i % 26)), 'Other' . chr(97 + intdiv($i, 4)), [
            'number' => sprintf('03%04d', $i),
        ]);
    }
    $section = fn(string $name, string $kind): array => [
        'school_id' => 'school',
        'school_year_id' => 'year',
        'name' => $name,
        'kind' => $kind,
        'grade' => '03',
        'state' => 'open',
        'archived_on' => null,
        'carried_from' => null,
    ];
    $enrollment = fn(string $section, string $person): array => [
        'section_id' => $section,
        'person_id' => $person,
        'role' => 'student',
        'begins_on' => '2026-08-24',
        'ends_on' => null,
        'source' => 'list',
    ];

    return new Snapshot(
        [
            'people' => $people,
            'sections' => [
                'heron' => new Section('heron', 1, $section('3 Heron', 'homeroom')),
                'plover' => new Section('plover', 1, $section('3 Plover', 'homeroom')),
                'art' => new Section('art', 1, $section('Art 3', 'class')),
                'away' => new Section('away', 1, [...$section('6 Tern', 'homeroom'), 'school_id' => 'other']),
            ],
            'enrollments' => [
                'e1' => new Enrollment('e1', 1, $enrollment('heron', 'noor')),
                'e2' => new Enrollment('e2', 1, $enrollment('away', 'kai')),
            ],
            'guardianships' => [
                'g1' => new Guardianship('g1', 1, [
                    'student_id' => 'noor',
                    'guardian_id' => 'ann',
                    'relationship' => null,
                    'state' => 'listed',
                    'restriction' => null,
                    'state_at' => null,
                    'state_by' => null,
                ]),
            ],
        ],
        ['school' => 'Here', 'other' => 'Elsewhere'],
    );
}

/** @param  array<string, string>  $answers */
function listPlan(string $csv, array $answers = [], array $own = []): Plan
{
    return IntakePlanner::plan(
        Lists::contents($csv, $answers),
        smallSchool(),
        new IntakeWish('List', 'school', 'year', '2026-10-01', $answers, own: $own),
        new Ids('01K3CNQ0000000000000000000'),
        new UserNames([], []),
    );
}

/** @return list<Change> */
function changesTo(Plan $plan, Entity $entity): array
{
    return array_values(array_filter($plan->changes, fn(Change $c): bool => $c->entity === $entity));
}

it('says nothing of a student who is as the list has them', function (): void {
    $plan = listPlan(
        "No,Name,Grade,Homeroom,Guardian,Guardian email\n020417,Noor Haddad,3,3 Heron,Ann Haddad,ann@x.example\n",
    );
    expect($plan->isEmpty())
        ->toBeTrue()
        ->and($plan->rows[0]->verdict->value)
        ->toBe('same')
        ->and($plan->sentence)
        ->toContain('Nothing to apply');
});

it('adds a new student with sign-in, homeroom, class and guardian', function (): void {
    $plan = listPlan(
        "Name,Grade,Homeroom,Section,Guardian,Guardian email\nUma Rao,3,3 Heron,Art 3,Bo Rao,bo@x.example\n",
    );
    expect($plan->rows[0]->verdict->value)
        ->toBe('new')
        ->and(changesTo($plan, Entity::Person))
        ->toHaveCount(2)
        ->and(changesTo($plan, Entity::Enrollment))
        ->toHaveCount(2)
        ->and(changesTo($plan, Entity::SignIn)[0]->after['user_name'])
        ->toBe('uma.rao')
        ->and($plan->sentence)
        ->toBe('Apply adds 1 student and 1 guardian.');
});

it('moves a student between homerooms, and adds a class without leaving any', function (): void {
    $plan = listPlan("No,Name,Homeroom,Section\n020417,Noor Haddad,3 Plover,Art 3\n");
    $ended = array_values(array_filter(changesTo($plan, Entity::Enrollment), fn(Change $c): bool => !$c->inserts()));
    expect($ended)
        ->toHaveCount(1)
        ->and($ended[0]->id)
        ->toBe('e1')
        ->and($ended[0]->after)
        ->toBe(['ends_on' => '2026-10-01'])
        ->and(changesTo($plan, Entity::Enrollment))
        ->toHaveCount(3)
        ->and($plan->rows[0]->cells['Section']->before)
        ->toBe('3 Heron')
        ->and($plan->rows[0]->why)
        ->toBe('changes homeroom');
});

it('never overwrites with a blank', function (): void {
    $plan = listPlan("No,Name,Grade,DOB\n020417,Noor Haddad,,\n");
    expect($plan->isEmpty())->toBeTrue();
});

it(
    'asks about a student of another school of the coordinator’s: transfer, also enroll, or another person',
    function (): void {
        $csv = "No,Name,Grade,Homeroom\n020500,Kai Wu,3,3 Heron\n";
        $question = listPlan($csv, own: ['other'])->questions[0];
        expect($question->text)
            ->toBe('Is row 2 Kai Wu?')
            ->and(array_map(fn($c): string => $c->key, $question->choices))
            ->toBe(['is:kai:transfer', 'is:kai:also', 'is:kai:leave', 'other', 'skip']);
        $transfer = listPlan($csv, [$question->id => 'is:kai:transfer'], ['other']);
        expect(
            array_map(
                fn(Change $c): string => $c->id,
                array_filter(changesTo($transfer, Entity::Enrollment), fn(Change $c): bool => !$c->inserts()),
            ),
        )
            ->toContain('e2')
            ->and(changesTo($transfer, Entity::Person)[0]->after['school_id'])
            ->toBe('school');
        $also = listPlan($csv, [$question->id => 'is:kai:also'], ['other']);
        expect(changesTo($also, Entity::Person))->toBe([])->and(changesTo($also, Entity::Enrollment))->toHaveCount(1);
        $other = listPlan($csv, [$question->id => 'other'], ['other']);
        expect(changesTo($other, Entity::Person)[0]->inserts())->toBeTrue();
        expect(listPlan($csv, [$question->id => 'skip'], ['other'])->isEmpty())->toBeTrue();
        expect(listPlan($csv, [$question->id => 'is:somebody-else'], ['other'])->questions[0]->open())->toBeTrue();
    },
);

it('writes nobody of another school, and shows nothing of them: that school is asked', function (): void {
    // A name is not enough to hear that there is somebody.
    expect(listPlan("Name,Grade\nKai Wu,3\n")->questions)
        ->toBe([])
        ->and(listPlan("Name,Grade\nKai Wu,3\n")->rows[0]->matchId)
        ->toBeNull();
    $csv = "No,Name,Grade,DOB,Homeroom\n020500,Kai Wu,4,2018-01-01,3 Heron\n";
    $question = listPlan($csv)->questions[0];
    expect($question->text)
        ->toBe('Is row 2 a student of Elsewhere?')
        ->and(array_map(fn($c): string => $c->key, $question->choices))
        ->toBe(['is:kai:ask-transfer', 'is:kai:ask-also', 'other', 'skip'])
        ->and(array_filter(array_map(fn($e): string => $e->right, $question->evidence)))
        ->toBe([]);
    $asked = listPlan($csv, [$question->id => 'is:kai:ask-transfer']);
    expect(array_map(fn(Change $c): string => $c->entity->value, $asked->changes))
        ->toBe(['transfer_requests'])
        ->and($asked->changes[0]->after)
        ->toMatchArray([
            'person_id' => 'kai',
            'from_school_id' => 'other',
            'to_school_id' => 'school',
            'kind' => 'transfer',
            'state' => 'waiting',
        ])
        ->and(json_decode((string) $asked->changes[0]->after['said'], true))
        ->toMatchArray([
            'given_name' => 'Kai',
            'family_name' => 'Wu',
            'birth_date' => '2018-01-01',
            'grade' => '04',
            'sections' => ['heron'],
        ]);
    $row = $asked->rows[0];
    expect($row->matchId)
        ->toBeNull()
        ->and($row->matchNumber)
        ->toBeNull()
        ->and($row->why)
        ->toBe('Elsewhere is asked')
        ->and($row->cells['Grade']->before)
        ->toBe('4');
    // Answers for one's own school do not work on another's, whoever writes them.
    foreach (['is:kai:transfer', 'is:kai:also', 'is:kai:leave', 'is:kai'] as $forged) {
        expect(listPlan($csv, [$question->id => $forged])->changes)->toBe([]);
    }
    expect(
        listPlan("Name,Grade\nKai Wu,3\n", [
            substr(hash('sha256', 'who|' . 'x'), 0, 20) => 'is:kai',
        ])->changes[0]->inserts(),
    )->toBeTrue();
});

it('takes an account key for its own school’s students only', function (): void {
    $plan = listPlan("Account key,Name,Guardian,Guardian email\nkai,Kai Wu,Eve Wu,eve@evil.example\n");
    expect(
        array_filter(changesTo($plan, Entity::Guardianship), fn(Change $c): bool => $c->after['student_id'] === 'kai'),
    )->toBe([]);
});

it('does not put an address nobody has confirmed in the place of one that is, without a question', function (): void {
    $snapshot = smallSchool();
    $ann = new Person('ann', 1, [
        ...$snapshot->find(Person::class, 'ann')->values,
        'email_state' => 'confirmed',
        'email_by' => 'mail',
        'email_at' => null,
    ]);
    $known = new Snapshot(
        [
            'people' => [...$snapshot->all(Person::class), 'ann' => $ann],
            'guardianships' => $snapshot->all(Guardianship::class),
        ],
        ['school' => 'Here'],
    );
    $plan = fn(array $answers): Plan => IntakePlanner::plan(
        Lists::contents("Account key,Name,Guardian,Guardian email\nnoor,Noor Haddad,Ann Haddad,eve@evil.example\n"),
        $known,
        new IntakeWish('List', 'school', 'year', '2026-10-01', $answers),
        new Ids('01K3CNQ0000000000000000000'),
        new UserNames([], []),
    );
    $question = $plan([])->questions[0];
    expect($question->text)
        ->toBe('Does Ann Haddad have another address now (row 2)?')
        ->and(changesTo($plan([]), Entity::Person))
        ->toBe([])
        ->and(changesTo($plan([$question->id => 'keep']), Entity::Person))
        ->toBe([])
        ->and(changesTo($plan([$question->id => 'take']), Entity::Person)[0]->after)
        ->toMatchArray(['email' => 'eve@evil.example', 'email_state' => 'claimed', 'email_by' => 'list']);
});

it('brings back a student who had left', function (): void {
    $plan = listPlan("No,Name,Grade,DOB,Homeroom\n020600,Léa Marchetti,3,2018-05-05,3 Heron\n");
    expect($plan->rows[0]->why)
        ->toBe('had left, is back')
        ->and(changesTo($plan, Entity::Person)[0]->after['state'])
        ->toBe('active');
});

it('does not take a twin for the one who is known', function (): void {
    $plan = listPlan("Name,Grade,DOB,Guardian,Guardian email\nSami Haddad,3,2018-03-08,Ann Haddad,ann@x.example\n");
    expect($plan->rows[0]->verdict->value)
        ->toBe('new')
        ->and(changesTo($plan, Entity::Guardianship)[0]->after['guardian_id'])
        ->toBe('ann');
});

it('gives brothers and sisters in one list one guardian', function (): void {
    $plan = listPlan(
        "Name,Grade,Guardian,Guardian email\nUma Rao,3,Bo Rao,bo@x.example\nIda Rao,1,Bo Rao,bo@x.example\n",
    );
    expect(array_filter(changesTo($plan, Entity::Person), fn(Change $c): bool => $c->after['kind'] === 'guardian'))
        ->toHaveCount(1)
        ->and(changesTo($plan, Entity::Guardianship))
        ->toHaveCount(2);
});

it('keeps two parents who share an address apart', function (): void {
    $plan = listPlan(
        "Name,Grade,Guardian 1,Guardian 1 email,Guardian 2,Guardian 2 email\n" .
            "Uma Rao,3,Bo Rao,rao@x.example,Ila Rao,rao@x.example\n",
    );
    expect(
        array_filter(changesTo($plan, Entity::Person), fn(Change $c): bool => $c->after['kind'] === 'guardian'),
    )->toHaveCount(2);
});

it('asks whether a section one letter off is meant, once for all its rows', function (): void {
    $csv = "Name,Grade,Homeroom\nUma Rao,3,3 Herom\nIda Bo,3,3 Herom\n";
    $plan = listPlan($csv);
    expect(array_unique(array_map(fn(PlanRow $r): string => $r->verdict->value, $plan->rows)))
        ->toBe(['ask'])
        ->and(array_unique(array_map(fn($q): string => $q->id, $plan->questions)))
        ->toHaveCount(1);
    $answered = listPlan($csv, [$plan->questions[0]->id => 'use']);
    expect(changesTo($answered, Entity::Section))
        ->toBe([])
        ->and(changesTo($answered, Entity::Enrollment)[0]->after['section_id'])
        ->toBe('heron');
    expect(changesTo(listPlan($csv, [$plan->questions[0]->id => 'make']), Entity::Section))->toHaveCount(1);
});

it('makes the sections a list needs and says which', function (): void {
    $plan = listPlan("Name,Grade,Homeroom\nUma Rao,4,4 Wren\nIda Bo,4,4 Wren\n");
    expect(changesTo($plan, Entity::Section))->toHaveCount(1)->and($plan->warnings[0])->toContain('4 Wren');
});

it('keeps out rows that cannot be read, with the cell, and rows that stand twice', function (): void {
    $plan = listPlan(
        "No,Name,Grade,Guardian email\n1,Uma Rao,99,\n2,Ida Bo,3,nope\n3,Ed Ek,3,\n3,Edna Ek,3,\n,Al Po,3,\n" .
            ",Al Po,3,\n",
    );
    expect(array_map(fn(PlanRow $r): string => $r->verdict->value, $plan->rows))
        ->toBe(['cannot', 'cannot', 'new', 'cannot', 'new', 'cannot'])
        ->and($plan->rows[0]->problems[0]->column)
        ->toBe('Grade')
        ->and($plan->rows[3]->why)
        ->toBe('same number as row 4');
});

it('asks when two people fit alike', function (): void {
    $namesakes = smallSchool();
    $grid = DelimitedText::grid("Name,Grade\nNoor Haddad,3\n");
    $people = $namesakes->all(Person::class);
    $people['noor2'] = new Person('noor2', 1, [
        ...$people['noor']->values,
        'number' => '020999',
        'birth_date' => '2018-09-09',
    ]);
    $plan = IntakePlanner::plan(
        Lists::contents($grid),
        new Snapshot(['people' => $people], []),
        new IntakeWish('List', 'school', 'year', '2026-10-01'),
        new Ids('01K3CNQ0000000000000000000'),
        new UserNames([], []),
    );
    expect($plan->rows[0]->verdict->value)
        ->toBe('ask')
        ->and($plan->rows[0]->why)
        ->toBe('two people fit alike')
        ->and(array_map(fn($c): string => $c->key, $plan->questions[0]->choices))
        ->toContain('is:noor')
        ->toContain('is:noor2');
});
