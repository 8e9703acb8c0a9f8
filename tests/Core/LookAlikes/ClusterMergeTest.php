<?php

declare(strict_types=1);

use Tests\Support\PlanText;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

it('makes one of a cluster: each section once, each guardian once, values from whoever has them', function (): void {
    $snapshot = accounts(
        [
            account('a', ['given_name' => 'N', 'number' => '7']),
            account('b', ['given_name' => 'Noor', 'birth_date' => '2015-08-03']),
            account('c', ['given_name' => 'Noor Amal', 'number' => '9']),
        ],
        [
            enrolled('e1', 'a', 'x', '2026-08-24', null),
            enrolled('e2', 'a', 'y', '2026-08-24', null),
            enrolled('e3', 'b', 'z', '2026-08-24', '2026-10-01'),
            enrolled('e4', 'c', 'z', '2026-10-01', null),
            enrolled('e5', 'c', 'x', '2026-08-20', '2026-09-01'),
        ],
        [signsIn('s1', 'a', null), signsIn('s2', 'b', null), signsIn('s3', 'c', null)],
        [
            'g1' => guardianOf('g1', 'b', 'ann'),
            'g2' => guardianOf('g2', 'c', 'ann'),
            'g3' => guardianOf('g3', 'c', 'bo'),
        ],
    );
    $planned = MergePlanner::plan($snapshot, ['c', 'b', 'a']);
    PlanText::mustBe($planned->plan, __DIR__, 'three-students');
    $after = $snapshot->with($planned->plan);
    $fields = array_column($planned->result->fields, null, 'column');
    $spans = [];
    foreach ($after->where(Enrollment::class, 'person_id', 'a') as $e) {
        $spans[$e->sectionId()][] = [$e->beginsOn(), $e->endsOn()];
    }
    expect($planned->result->staysId)
        ->toBe('a')
        ->and($planned->result->why)
        ->toBe('made first')
        // The next likeliest first: c is in two sections, b in one.
        ->and($planned->result->goIds)
        ->toBe(['c', 'b'])
        ->and([$fields['given_name']->stays, $fields['given_name']->why])
        ->toBe(['Noor Amal', 'the fuller name'])
        ->and([$fields['number']->stays, $fields['number']->why])
        ->toBe(['7', 'of the account that stays'])
        ->and([$fields['birth_date']->stays, $fields['birth_date']->why])
        ->toBe(['2015-08-03', 'all there is'])
        ->and($spans)
        ->toBe(['x' => [['2026-08-20', null]], 'y' => [['2026-08-24', null]], 'z' => [['2026-08-24', null]]])
        ->and(count($after->where(Guardianship::class, 'student_id', 'a')))
        ->toBe(2)
        ->and(count($after->where(SignIn::class, 'person_id', 'a')))
        ->toBe(3)
        ->and(array_map(fn(string $id): ?string => $after->find(Person::class, $id)?->field('merged_into'), ['b', 'c']))
        ->toBe(['a', 'a']);
});

it('takes no more at once than stand side by side', function (): void {
    $ids = ['a', 'b', 'c', 'd', 'e', 'f'];
    expect(fn() => MergePlanner::plan(accounts(array_map(account(...), $ids)), $ids))->toThrow(
        Refusal::class,
        'two to 5 accounts',
    );
});

it('keeps a telephone that only the account that goes has', function (): void {
    $snapshot = accounts(
        [account('a', ['kind' => 'guardian']), account('b', ['kind' => 'guardian', 'phone' => '+12025550101'])],
        [enrolled('e', 'a', 's', '2026-08-24', null)],
    );
    $planned = MergePlanner::plan($snapshot, ['a', 'b']);
    expect($planned->result->staysId)
        ->toBe('a')
        ->and($snapshot->with($planned->plan)->find(Person::class, 'a')?->phone())
        ->toBe('+12025550101');
});
