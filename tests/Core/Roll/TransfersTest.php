<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\TransferRequest;
use Vantrel\Core\Roll\Transfers;

/** @param  array<string, string|int|null>  $more */
function sentPupil(string $id, string $school, array $more = []): Person
{
    return new Person($id, 1, [
        'school_id' => $school,
        'kind' => 'student',
        'state' => 'active',
        'given_name' => ucfirst($id),
        'family_name' => 'Wu',
        'number' => null,
        'grade' => '05',
        'erased_on' => null,
        ...$more,
    ]);
}

/**
 * @param  list<string>  $ids
 * @param  list<Person>  $people
 * @param  array<string, array<string, Enrollment|Section|TransferRequest>>  $more
 */
function sent(array $ids, array $people, array $more = []): Plan
{
    return Transfers::plan(
        $ids,
        new Snapshot(
            ['people' => array_combine(array_map(fn(Person $p): string => $p->id, $people), $people), ...$more],
            ['here' => 'Lanternfield', 'there' => 'Copperbrook'],
        ),
        'there',
        [6, 8],
        'ines',
        '2026-11-26',
        '2026-11-26 09:00:00',
    );
}

it('ends what they are in at the school they leave, and nothing else', function (): void {
    $enrollment = fn(string $id, string $begins = '2026-08-24', ?string $ends = null): Enrollment => new Enrollment(
        "e-$id",
        1,
        ['section_id' => $id, 'person_id' => 'kai', 'begins_on' => $begins, 'ends_on' => $ends],
    );
    $section = fn(string $id, string $school): Section => new Section($id, 1, ['school_id' => $school, 'name' => $id]);
    $plan = sent(
        ['kai'],
        [sentPupil('kai', 'here', ['state' => 'left', 'number' => '7'])],
        [
            'enrollments' => [
                'a' => $enrollment('five'),
                'b' => $enrollment('choir'),
                'c' => $enrollment('spring', '2027-01-10'),
                'd' => $enrollment('gone', '2026-08-24', '2026-09-01'),
            ],
            'sections' => [
                'five' => $section('five', 'here'),
                'spring' => $section('spring', 'here'),
                'gone' => $section('gone', 'here'),
                'choir' => $section('choir', 'there'),
            ],
            'transfer_requests' => [
                'mine' => requestFor('mine', 'there', 'transfer'),
                'also' => requestFor('also', 'there', 'also'),
                'third' => requestFor('third', 'third', 'transfer'),
            ],
        ],
    );
    $changes = [];
    foreach ($plan->changes as $change) {
        $changes[$change->id] = $change->after;
    }
    expect($changes)
        ->toBe([
            'kai' => ['school_id' => 'there', 'state' => 'active'],
            'e-five' => ['ends_on' => '2026-11-26'],
            // Not begun yet: a span without a day.
            'e-spring' => ['ends_on' => '2027-01-10'],
            'mine' => ['state' => 'accepted', 'answered_at' => '2026-11-26 09:00:00', 'answered_by' => 'ines'],
        ])
        ->and($plan->title)
        ->toBe('Kai Wu to Copperbrook')
        ->and($plan->warnings)
        ->toBe([
            '2 enrollments end today. Rosters of earlier days stay.',
            '1 student is in a grade that Copperbrook does not teach. Change the grade there.',
        ])
        ->and($plan->rows[0]->cells['School']->after)
        ->toBe('Copperbrook');
});

it('lets nobody go who cannot, and says why', function (): void {
    $plan = sent(
        ['kai', 'mei', 'ana', 'bo', 'old', 'rae', 'eve', 'una'],
        [
            sentPupil('kai', 'here', ['number' => '7', 'grade' => '06']),
            sentPupil('una', 'third', ['number' => '7', 'grade' => '06']),
            sentPupil('mei', 'here', ['number' => '8']),
            sentPupil('ana', 'there'),
            sentPupil('bo', 'here', ['kind' => 'guardian']),
            sentPupil('old', 'here', ['state' => 'merged']),
            sentPupil('rae', 'here', ['state' => 'reserve']),
            sentPupil('eve', 'here', ['erased_on' => '2026-11-01']),
            // Who has the number there, and one who has it and is no more.
            sentPupil('tom', 'there', ['number' => '8']),
            sentPupil('ghost', 'there', ['number' => '7', 'state' => 'merged']),
        ],
    );
    $said = [];
    foreach ($plan->rows as $row) {
        $said[] = [$row->verdict->value, $row->why];
    }
    expect($said)
        ->toBe([
            ['update', ''],
            ['cannot', 'number 8 is Tom Wu’s there: change one of them first'],
            ['same', 'there already'],
            ['cannot', 'not a student'],
            ['cannot', 'merged into another account'],
            ['cannot', 'a reserve place'],
            ['cannot', 'erased'],
            // Two who bring the same number: the second stays.
            ['cannot', 'number 7 is Kai Wu’s there: change one of them first'],
        ])
        ->and(array_map(fn($c): string => $c->id, $plan->changes))
        ->toBe(['kai'])
        ->and($plan->sentence)
        ->toBe(
            '1 student goes to Copperbrook. Accounts, cards and user names go on working. It stands in the ledgers ' .
                'of both schools.',
        );
});

it('wants somebody to send, all of whom are there', function (): void {
    expect(fn() => sent([], []))
        ->toThrow(Refusal::class, 'at least one')
        ->and(fn() => sent(['kai'], []))
        ->toThrow(Refusal::class, 'not there any more');
});

function requestFor(string $id, string $to, string $kind): TransferRequest
{
    return new TransferRequest($id, 1, [
        'person_id' => 'kai',
        'from_school_id' => 'here',
        'to_school_id' => $to,
        'kind' => $kind,
        'state' => 'waiting',
        'answered_at' => null,
        'answered_by' => null,
    ]);
}
