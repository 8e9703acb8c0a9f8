<?php

declare(strict_types=1);

use Tests\Support\PlanText;
use Vantrel\Core\LookAlikes\MergedField;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\LookAlikes\ToldApart;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Standing;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\KnownApart;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;

it('keeps the account that is used: signed in last, then more sections, then a number, then the older', function (
    Snapshot $snapshot,
    string $stays,
): void {
    expect(survivorOf($snapshot)->id)->toBe($stays);
})->with([
    'signed in last' => [
        fn() => accounts(
            [account('a', ['number' => '1']), account('b')],
            [enrolled('e', 'a', 's', '2026-08-24', null)],
            [signsIn('x', 'a', '2026-09-01 08:00:00'), signsIn('y', 'b', '2026-09-02 08:00:00')],
        ),
        'b',
    ],
    'more sections' => [
        fn() => accounts(
            [account('a', ['number' => '1']), account('b')],
            [enrolled('e', 'b', 's', '2026-08-24', null)],
        ),
        'b',
    ],
    'a number' => [fn() => accounts([account('a'), account('b', ['number' => '1'])]), 'b'],
    'the older' => [fn() => accounts([account('a'), account('b')]), 'a'],
    'one who left never wins' => [
        fn() => accounts([account('a', ['state' => 'left', 'number' => '1']), account('b')]),
        'b',
    ],
]);

it('never puts a blank over a value, and a longer name over one cut short', function (): void {
    $kept = survivorOf(
        accounts([
            account('a', ['given_name' => 'Noor Am', 'number' => '020417', 'birth_date' => null]),
            account('b', ['given_name' => 'Noor Amina', 'number' => null, 'birth_date' => '2018-02-11']),
        ]),
    );
    expect($kept->id)
        ->toBe('a')
        ->and($kept->field('given_name'))
        ->toBe('Noor Amina')
        ->and($kept->field('number'))
        ->toBe('020417')
        ->and($kept->field('birth_date'))
        ->toBe('2018-02-11')
        ->and($kept->field('search_name'))
        ->toBe('noor amina haddad');
});

it('takes the values a person picks, but never an empty one', function (): void {
    $snapshot = accounts([
        account('a', ['number' => '1', 'email' => 'a@x.example']),
        account('b', ['number' => '2', 'email' => null]),
    ]);
    $kept = survivorOf($snapshot, ['number' => 'b', 'email' => 'b', 'shoe_size' => 'b']);
    expect($kept->field('number'))->toBe('2')->and($kept->field('email'))->toBe('a@x.example');
});

it('frees a number before the survivor takes it', function (): void {
    $plan = MergePlanner::plan(
        accounts([account('a', ['number' => '1']), account('b', ['number' => '2'])]),
        ['a', 'b'],
        [
            'number' => 'b',
        ],
    )->plan;
    expect($plan->changes[0]->id)
        ->toBe('b')
        ->and($plan->changes[0]->after)
        ->toBe(['state' => 'merged', 'merged_into' => 'a'])
        ->and($plan->changes[1]->after['number'])
        ->toBe('2');
});

it(
    'unites enrollments: other sections come over, the same section keeps its earliest and latest day',
    function (): void {
        $snapshot = accounts(
            [account('a', ['number' => '1']), account('b')],
            [
                enrolled('a1', 'a', 'art', '2026-09-10', null),
                enrolled('b1', 'b', 'art', '2026-08-24', '2026-10-01'),
                enrolled('b2', 'b', 'music', '2026-08-24', null),
                enrolled('a2', 'a', 'choir', '2026-08-24', '2026-09-01'),
                enrolled('b3', 'b', 'choir', '2026-10-01', null),
            ],
            [signsIn('x', 'a', '2026-09-01 08:00:00')],
        );
        $after = $snapshot->with(MergePlanner::plan($snapshot, ['a', 'b'])->plan);
        expect($after->find(Enrollment::class, 'a1')?->values)
            ->toMatchArray(['begins_on' => '2026-08-24', 'ends_on' => null])
            ->and($after->find(Enrollment::class, 'b1')?->values)
            ->toMatchArray(['person_id' => 'b', 'ends_on' => '2026-08-24'])
            ->and($after->find(Enrollment::class, 'b2')?->field('person_id'))
            ->toBe('a')
            ->and($after->find(Enrollment::class, 'b3')?->field('person_id'))
            ->toBe('a')
            ->and($after->find(Enrollment::class, 'a2')?->values)
            ->toMatchArray(['ends_on' => '2026-09-01']);
    },
);

it('brings guardians over once, and lets earlier merges follow', function (): void {
    $link = fn(string $id, string $student, string $guardian): Guardianship => new Guardianship($id, 1, [
        'student_id' => $student,
        'guardian_id' => $guardian,
        'state' => 'listed',
        'relationship' => null,
        'restriction' => null,
    ]);
    $snapshot = accounts(
        [account('a', ['number' => '1']), account('b'), account('c', ['state' => 'merged', 'merged_into' => 'b'])],
        [],
        [],
        [$link('l1', 'a', 'ann'), $link('l2', 'b', 'ann'), $link('l3', 'b', 'bo')],
    );
    $after = $snapshot->with(MergePlanner::plan($snapshot, ['a', 'b'])->plan);
    expect($after->find(Guardianship::class, 'l2')?->field('student_id'))
        ->toBe('b')
        ->and($after->find(Guardianship::class, 'l3')?->field('student_id'))
        ->toBe('a')
        ->and($after->find(Person::class, 'c')?->field('merged_into'))
        ->toBe('a');
});

it('refuses two of different kinds, one with itself, and one who is gone', function (): void {
    expect(fn() => MergePlanner::plan(accounts([account('a'), account('b', ['kind' => 'guardian'])]), ['a', 'b'])->plan)
        ->toThrow(Refusal::class, 'cannot be one')
        ->and(fn() => MergePlanner::plan(accounts([account('a')]), ['a', 'a'])->plan)
        ->toThrow(Refusal::class)
        ->and(fn() => MergePlanner::plan(accounts([account('a')]), ['a', 'z'])->plan)
        ->toThrow(Refusal::class, 'not there any more');
});

it('notes two as two people, the same way round whoever is named first', function (): void {
    $ids = new Ids('01K3CNQ0000000000000000000');
    expect(ToldApart::plan([account('b'), account('a')], null, [], $ids)->changes[0])->toEqual(
        ToldApart::plan([account('a'), account('b')], null, [], $ids)->changes[0],
    );
});

it('makes one of two accounts of a student: every field, record and word of it', function (): void {
    $a = account('a', [
        'given_name' => 'Noor',
        'birth_date' => '2015-08-03',
        'email' => 'noor@home.example',
        'email_state' => 'claimed',
        'email_by' => 'list',
        'email_at' => '2026-08-01 00:00:00',
        'state' => 'left',
    ]);
    $b = account('b', [
        'given_name' => 'Noora',
        'family_name' => 'Hadad',
        'preferred_name' => null,
        'language' => null,
        'number' => '040007',
        'grade' => '04',
        'email' => 'noor@lanternfield.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
        'email_at' => '2026-08-02 00:00:00',
    ]);
    $earlier = account('e', ['state' => 'merged', 'merged_into' => 'a']);
    $snapshot = new Snapshot([
        ...[
            'people' => ['a' => $a, 'b' => $b, 'e' => $earlier],
            'enrollments' => [
                'both' => enrolled('both', 'a', 'art', '2026-08-24', '2026-10-01'),
                'own' => enrolled('own', 'b', 'art', '2026-10-01', null),
                'apart' => enrolled('apart', 'a', 'choir', '2026-08-24', '2026-09-01'),
                'later' => enrolled('later', 'b', 'choir', '2026-09-02', null),
                'new' => enrolled('new', 'a', 'music', '2026-08-24', null),
            ],
            'sign_ins' => ['s' => signsIn('s', 'a', null), 't' => signsIn('t', 'b', '2026-09-01 08:00:00')],
            'identities' => ['i' => new Identity('i', 1, ['person_id' => 'a', 'state' => 'live'])],
            'guardianships' => [
                'g1' => guardianOf('g1', 'a', 'ann'),
                'g2' => guardianOf('g2', 'b', 'ann'),
                'g3' => guardianOf('g3', 'a', 'bo'),
            ],
        ],
    ]);
    $planned = MergePlanner::plan($snapshot, ['a', 'b'], ['email' => 'a', 'grade' => 'nobody']);
    PlanText::mustBe($planned->plan, __DIR__, 'two-students');
    expect($planned->result->staysId)
        ->toBe('b')
        ->and($planned->result->goIds)
        ->toBe(['a'])
        ->and($planned->result->why)
        ->toBe('still active')
        ->and(
            array_map(
                fn(MergedField $f): array => [$f->column, $f->label, ...array_values($f->values), $f->stays, $f->why],
                $planned->result->fields,
            ),
        )
        ->toBe([
            ['given_name', 'Given name', 'Noora', 'Noor', 'Noora', 'of the account that stays'],
            ['preferred_name', 'Goes by', '', '', '', ''],
            ['family_name', 'Family name', 'Hadad', 'Haddad', 'Hadad', 'of the account that stays'],
            ['birth_date', 'Birth date', '', '2015-08-03', '2015-08-03', 'all there is'],
            ['number', 'Student number', '040007', '', '040007', ''],
            ['grade', 'Grade', '04', '03', '04', 'of the account that stays'],
            ['email', 'E-mail', 'noor@lanternfield.example', 'noor@home.example', 'noor@home.example', 'chosen'],
            ['phone', 'Telephone', '', '', '', ''],
            ['language', 'Language', '', '', '', ''],
        ]);
});

it('takes a whole name over one cut short, of either account', function (
    array $keep,
    array $drop,
    string $stays,
): void {
    $planned = MergePlanner::plan(accounts([account('a', ['number' => '1', ...$keep]), account('b', $drop)]), [
        'b',
        'a',
    ]);
    expect($planned->result->fields[0]->stays)->toBe($stays);
})->with([
    'an initial' => [['given_name' => 'N'], ['given_name' => 'Noor'], 'Noor'],
    'in other capitals' => [['given_name' => 'noor'], ['given_name' => 'Noor Amal'], 'Noor Amal'],
    'the own is the whole' => [['given_name' => 'Noor Amal'], ['given_name' => 'Noor'], 'Noor Amal'],
    'another name' => [['given_name' => 'Nour'], ['given_name' => 'Noor'], 'Nour'],
    'none' => [['given_name' => null], ['given_name' => 'Noor'], 'Noor'],
    'none at all' => [['given_name' => null], ['given_name' => null], ''],
]);

it('makes one of two accounts of a guardian, with the children of both', function (): void {
    $guardian = fn(string $id, ?string $mail): Person => account($id, [
        'kind' => 'guardian',
        'given_name' => 'Ann',
        'grade' => null,
        'email' => $mail,
        'email_state' => $mail === null ? null : 'claimed',
        'email_by' => null,
        'email_at' => null,
    ]);
    $snapshot = accounts(
        [$guardian('a', null), $guardian('b', 'ann@shore.example')],
        [],
        [],
        [guardianOf('g1', 'mina', 'a'), guardianOf('g2', 'mina', 'b'), guardianOf('g3', 'kai', 'b')],
    );
    $plan = MergePlanner::plan($snapshot, ['a', 'b'])->plan;
    PlanText::mustBe($plan, __DIR__, 'two-guardians');
    // The child both had stays with the account that goes; nothing else is left with it.
    $standing = function (array $links): Standing {
        $rows = fn(string $kind, string $column, array $values): array => array_filter(
            $kind === Guardianship::class ? $links : [],
            fn(Record $r): bool => in_array($r->field($column), $values, true),
        );

        return Mockery::mock(Standing::class, fn($m) => $m->shouldReceive('rows')->andReturnUsing($rows));
    };
    $links = [
        'g1' => guardianOf('g1', 'mina', 'a'),
        'g2' => guardianOf('g2', 'mina', 'b'),
        'g3' => guardianOf('g3', 'kai', 'b'),
    ];
    expect(LooseEnds::of($plan, $standing($links)))
        ->toBe([])
        ->and(LooseEnds::of($plan, $standing([...$links, 'g4' => guardianOf('g4', 'rosa', 'b')])))
        ->toBe(['guardianships g4']);
});

it('tells two apart, the same whichever is named first', function (): void {
    $ids = new Ids('01K3CNQ0000000000000000000');
    $a = account('a');
    $b = account('b', ['given_name' => 'Amal']);
    PlanText::mustBe(ToldApart::plan([$b, $a], null, [], $ids), __DIR__, 'told-apart');
    expect(ToldApart::plan([$a, $b], null, [], $ids)->changes)->toEqual(
        ToldApart::plan([$b, $a], null, [], $ids)->changes,
    );
});

it('notes anew what was told apart when the facts were others', function (): void {
    $ids = new Ids('01K3CNQ0000000000000000000');
    $facts = fn(Person $b, ?KnownApart $before = null): Change => ToldApart::plan(
        [account('a'), $b],
        null,
        $before === null ? [] : [$before],
        $ids,
    )->changes[0];
    $again = $facts(account('b'), new KnownApart('k1', 4, ['left_id' => 'a', 'right_id' => 'b', 'facts' => 'other']));
    expect([$again->id, $again->inserts()])
        ->toBe(['k1', false])
        ->and($again->after['facts'])
        ->toBe($facts(account('b'))->after['facts'])
        ->not->toBe($facts(account('b', ['birth_date' => '2001-01-01']))->after['facts']);
});
