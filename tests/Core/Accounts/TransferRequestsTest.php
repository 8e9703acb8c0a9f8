<?php

declare(strict_types=1);

use Tests\Support\AskedAbout;
use Vantrel\Core\Accounts\SchoolChange;
use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Accounts\TransferWish;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;

$ids = new Ids('01K3CNQ0000000000000000000');

it('moves a student on the word of the school they are at', function () use ($ids): void {
    $kai = new Person('kai', 2, [
        'school_id' => 'here',
        'kind' => 'student',
        'state' => 'active',
        'given_name' => 'Kai',
        'family_name' => 'Wu',
        'number' => '020500',
        'grade' => '05',
    ]);
    $section = fn(string $id, string $school, string $state = 'open'): Section => new Section($id, 1, [
        'school_id' => $school,
        'name' => "Section $id",
        'state' => $state,
    ]);
    $sections = [
        'five' => $section('five', 'here'),
        'six' => $section('six', 'there'),
        'closed' => $section('closed', 'there', 'archived'),
        'club' => $section('club', 'there'),
    ];
    $in = fn(string $id, string $begins = '2026-08-24'): Enrollment => new Enrollment("e-$id", 1, [
        'section_id' => $id,
        'person_id' => 'kai',
        'begins_on' => $begins,
        'ends_on' => null,
    ]);
    $accept = fn(string $kind, bool $free = true, array $enrollments = []) => TransferRequests::accept(
        requestRow($kind),
        AskedAbout::of($kai, $sections, $enrollments, $free ? [] : ['070500']),
        'ines',
        new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
    );
    $moves = changesOf($accept('transfer', true, [$in('five'), $in('club')]));
    expect($moves['people kai'])
        ->toBe(['school_id' => 'there', 'number' => '070500', 'grade' => '06'])
        ->and($moves['enrollments e-five'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($moves)
        ->not->toHaveKey('enrollments e-club')
        ->and($moves['transfer_requests req'])
        ->toBe(['state' => 'accepted', 'answered_at' => ACCOUNTS_NOW, 'answered_by' => 'ines']);
    $inserted = fn(Plan $p): array => array_values(
        array_map(
            fn(Change $c): string => (string) $c->after['section_id'],
            array_filter($p->changes, fn(Change $c): bool => $c->inserts()),
        ),
    );
    // Only sections of the school that asks, that are open, and that the student is not in.
    expect($inserted($accept('transfer')))
        ->toBe(['six'])
        ->and($inserted($accept('transfer', true, [$in('six')])))
        ->toBe([])
        ->and(changesOf($accept('transfer', false))['people kai'])
        ->not->toHaveKey('number');
    $also = changesOf($accept('also', true, [$in('five')]));
    expect($also)
        ->not->toHaveKey('people kai')
        ->not->toHaveKey('enrollments e-five')
        ->and($inserted($accept('also')))
        ->toBe(['six']);
    expect(
        fn() => TransferRequests::accept(
            requestRow(),
            AskedAbout::of($kai->with(['school_id' => 'third']), [], []),
            'ines',
            new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
        ),
    )
        ->toThrow(Refusal::class, 'not at your school')
        ->and(TransferKind::Also->wish('Copperbrook'))
        ->toContain('come here too');
});

it('answers a request once', function (): void {
    expect(TransferRequests::refuse(requestRow(), 'Kai Wu', 'ines', ACCOUNTS_NOW)->changes[0]->after['state'])
        ->toBe('refused')
        ->and(TransferRequests::withdraw(requestRow(), 'ines', ACCOUNTS_NOW)->title)
        ->toBe('Request for Kai Wu taken back');
    foreach (
        ['accepted' => 'accepted already', 'refused' => 'turned down already', 'withdrawn' => 'taken this request back']
        as $state => $why
    ) {
        expect(fn() => TransferRequests::refuse(requestRow('transfer', $state), 'Kai', 'ines', ACCOUNTS_NOW))
            ->toThrow(Refusal::class, $why)
            ->and(fn() => TransferRequests::withdraw(requestRow('transfer', $state), 'ines', ACCOUNTS_NOW))
            ->toThrow(Refusal::class, $why);
    }
    expect(
        TransferRequests::said(new TransferRequest('r', 1, ['said' => '{"sections": "no list", "grade": 6}'])),
    )->toBe([
        'given_name' => '',
        'family_name' => '',
        'birth_date' => '',
        'number' => '',
        'grade' => '',
        'sections' => [],
        'section_names' => [],
    ]);
    $plan = new PlanBuilder();
    TransferRequests::ask(
        $plan,
        'new',
        new TransferWish(
            new Person('kai', 1, ['school_id' => 'here']),
            'there',
            TransferKind::Transfer,
            TransferRequests::said(requestRow()),
            'asker',
        ),
        ACCOUNTS_NOW,
        'row 2',
        2,
    );
    expect($plan->build('', '')->changes[0]->after)->toMatchArray([
        'from_school_id' => 'here',
        'to_school_id' => 'there',
        'asked_by' => 'asker',
        'state' => 'waiting',
    ]);
});

it('lets guardians go along whose children are all at the other school then', function () use ($ids): void {
    $student = fn(string $id, string $school): Person => new Person($id, 1, [
        'school_id' => $school,
        'kind' => 'student',
        'state' => 'active',
        'given_name' => ucfirst($id),
        'family_name' => 'Wu',
        'number' => null,
    ]);
    $guardian = fn(string $id, string $school, string $kind = 'guardian'): Person => new Person($id, 1, [
        'school_id' => $school,
        'kind' => $kind,
        'state' => 'active',
    ]);
    $link = fn(string $guardian, string $student, string $state = 'listed'): Guardianship => new Guardianship(
        "$guardian-$student",
        1,
        ['guardian_id' => $guardian, 'student_id' => $student, 'state' => $state],
    );
    $along = function (array $people, array $links): array {
        $by = fn(array $rows): array => array_combine(array_map(fn($r): string => $r->id, $rows), $rows);
        $plan = new PlanBuilder();
        $snapshot = new Snapshot(
            ['people' => $by($people), 'guardianships' => $by($links)],
            ['here' => 'Lanternfield', 'there' => 'Copperbrook'],
        );
        $count = SchoolChange::guardians($plan, $snapshot, ['kai' => $people[0]], 'there');

        return [$count, array_keys(changesOf($plan->build('', '')))];
    };
    $kai = $student('kai', 'here');
    expect($along([$kai, $guardian('lin', 'here')], [$link('lin', 'kai')]))
        ->toBe([1, ['people lin']])
        // Another child stays; or stays only in words.
        ->and(
            $along(
                [$kai, $student('mei', 'here'), $guardian('lin', 'here')],
                [$link('lin', 'kai'), $link('lin', 'mei')],
            ),
        )
        ->toBe([0, []])
        ->and(
            $along(
                [$kai, $student('mei', 'here'), $guardian('lin', 'here')],
                [$link('lin', 'mei', 'ended'), $link('lin', 'kai')],
            ),
        )
        ->toBe([1, ['people lin']])
        // A child elsewhere holds nobody here; a guardian of a third school is that school's.
        ->and(
            $along(
                [$kai, $student('mei', 'there'), $guardian('lin', 'here')],
                [$link('lin', 'mei'), $link('lin', 'kai')],
            ),
        )
        ->toBe([1, ['people lin']])
        ->and($along([$kai, $guardian('lin', 'third')], [$link('lin', 'kai')]))
        ->toBe([0, []])
        ->and($along([$kai, $guardian('lin', 'here')], [$link('lin', 'kai', 'ended')]))
        ->toBe([0, []])
        ->and($along([$kai, $guardian('lin', 'here', 'staff')], [$link('lin', 'kai')]))
        ->toBe([0, []]);
});
