<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Staffing\Leads;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;

$ids = new Ids('01K3CNQ0000000000000000000');
$heron = place('h', '3 Heron', ['school_id' => 'school']);
$plover = place('p', '3 Plover', ['seats' => 2, 'period' => '2']);
$art = place('a', 'Art', ['period' => '2']);

it('hands the lead over, who led becomes a co-teacher, and a co-teacher can become the lead', function () use (
    $ids,
    $heron,
): void {
    $staff = fn(string $id, string $state = 'active'): Person => new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'staff',
        'state' => $state,
        'given_name' => 'Jo',
        'family_name' => $id,
    ]);
    $now = [
        new Enrollment('e1', 1, [
            'person_id' => 'petra',
            'role' => 'lead',
            'begins_on' => '2026-08-24',
            'ends_on' => null,
        ]),
        new Enrollment('e2', 1, [
            'person_id' => 'marten',
            'role' => 'co_teacher',
            'begins_on' => '2026-08-24',
            'ends_on' => null,
        ]),
    ];
    $plan = Leads::handOver($heron, $staff('marten'), $now, $ids, '2026-10-05');
    expect(
        array_map(
            fn(Change $c): string => $c->inserts() ? "{$c->after['person_id']} {$c->after['role']}" : "$c->id ends",
            $plan->changes,
        ),
    )
        ->toBe(['e1 ends', 'petra co_teacher', 'e2 ends', 'marten lead'])
        ->and(fn() => Leads::handOver($heron, $staff('petra'), $now, $ids, '2026-10-05'))
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => Leads::handOver($heron, $staff('gone', 'left'), $now, $ids, '2026-10-05'))
        ->toThrow(Refusal::class)
        ->and(fn() => Leads::takeOff($heron, $staff('petra'), $now[0], '2026-10-05'))
        ->toThrow(Refusal::class, 'Hand the lead over')
        ->and(Leads::takeOff($heron, $staff('marten'), $now[1], '2026-10-05')->changes[0]->after)
        ->toBe(['ends_on' => '2026-10-05']);
});

it('gives each role its powers', function (): void {
    $may = fn(StaffRole $r): array => array_map(
        fn(Power $p): string => $p->value,
        array_values(array_filter(Power::cases(), fn(Power $p): bool => $r->may($p))),
    );
    expect($may(StaffRole::Lead))
        ->toHaveCount(count(Power::cases()))
        ->and(array_values(array_diff($may(StaffRole::Lead), $may(StaffRole::CoTeacher))))
        ->toBe(['hand_over_lead', 'archive'])
        ->and($may(StaffRole::Assistant))
        ->toBe(['see_roster', 'print_cards'])
        ->and($may(StaffRole::Substitute))
        ->toBe(['see_roster', 'print_cards', 'use_code', 'answer_requests', 'room_pass']);
});

it('has one lead after any number of hand-overs, and forgets nobody who led', function () use ($heron): void {
    $random = new KeyedStream(str_repeat('k', 32), 'leads');
    $people = array_map(
        fn(string $id): Person => new Person($id, 1, [
            'school_id' => 'school',
            'kind' => 'staff',
            'state' => 'active',
            'given_name' => 'Jo',
            'family_name' => $id,
        ]),
        ['a', 'b', 'c', 'd'],
    );
    for ($round = 0; $round < 25; $round++) {
        $snapshot = new Snapshot();
        $led = [];
        for ($step = 0; $step < 12; $step++) {
            $in = array_values(
                array_filter($snapshot->all(Enrollment::class), fn(Record $e): bool => $e->field('ends_on') === null),
            );
            $person = $people[$random->below(4)];
            try {
                $snapshot = $snapshot->with(
                    Leads::handOver(
                        $heron,
                        $person,
                        $in,
                        new Ids(sprintf('01K3CNQ000%016d', $round * 100 + $step)),
                        '2026-10-05',
                    ),
                );
                $led[$person->id] = true;
            } catch (Refusal $e) {
                expect($e->getMessage())->toContain('already');
            }
            $now = array_filter(
                $snapshot->all(Enrollment::class),
                fn(Record $e): bool => $e->field('ends_on') === null,
            );
            expect(count(array_filter($now, fn(Record $e): bool => $e->field('role') === 'lead')))
                ->toBe(1)
                ->and(array_unique(array_map(fn(Record $e): string => $e->field('person_id'), $now)))
                ->toHaveCount(count($now))
                ->toHaveCount(count($led));
        }
    }
});
