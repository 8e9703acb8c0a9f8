<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\CoordinatorRoles;
use Vantrel\Core\Accounts\OffBoarding;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Person;

$ids = new Ids('01K3CNQ0000000000000000000');

it('sees somebody off in one plan: credentials, roles, invitations and sections', function () use ($ids): void {
    $plan = OffBoarding::plan(staffRow(), recordsOf(), null, false, new Occasion($ids, '2026-11-26', ACCOUNTS_NOW));
    $changes = changesOf($plan);
    expect($changes['people petra'])
        ->toBe(['state' => 'left'])
        ->and($changes['sign_ins si'])
        ->toBe(['password' => null])
        ->and($changes['badges b-live']['state'])
        ->toBe('lost')
        ->and($changes['identities i-live']['state'])
        ->toBe('ended')
        ->and($changes['coordinators k'])
        ->toBe(['state' => 'ended'])
        ->and($changes['invitations inv']['state'])
        ->toBe('withdrawn')
        ->and($changes['enrollments e-petra-heron'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($changes)
        ->toHaveKey('enrollments e-petra-art')
        ->not->toHaveKey('enrollments e-petra-old');
    // What is left without a lead is named, each by its name.
    expect($plan->warnings[0])
        ->toContain('2 sections are left without a lead: 3 Heron and 4 Tern')
        ->and($plan->sentence)
        ->toBe(
            'Petra Okonjo leaves the staff today: ends 1 password or passphrase, 1 card and 1 school ' .
                'sign-on, ends 1 role as coordinator, withdraws 1 invitation and leaves 2 sections without a ' .
                'lead. All open sessions end.',
        );
});

it('hands over what is of the school, to somebody who works there', function () use ($ids): void {
    $marten = new Person('marten', 1, [
        'school_id' => 'here',
        'kind' => 'staff',
        'state' => 'active',
        'given_name' => 'Marten',
        'family_name' => 'Vale',
    ]);
    $plan = OffBoarding::plan(
        staffRow(),
        recordsOf(['elsewhere' => ['6 Wren at Copperbrook Middle']]),
        $marten,
        false,
        new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
    );
    $leads = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->inserts()));
    expect($leads)
        ->toHaveCount(1)
        ->and($leads[0]->after)
        ->toMatchArray([
            'section_id' => 'heron',
            'person_id' => 'marten',
            'role' => 'lead',
            'begins_on' => '2026-11-26',
        ])
        ->and(changesOf($plan)['enrollments e-marten-heron'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($plan->warnings[0])
        ->toContain('4 Tern')
        ->and($plan->warnings[1])
        ->toContain('6 Wren at Copperbrook Middle')
        ->and(array_column($plan->tallies, 'count'))
        ->toBe([1, 1]);
    expect(
        fn() => OffBoarding::plan(
            staffRow(),
            recordsOf(),
            staffRow(),
            false,
            new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
        ),
    )
        ->toThrow(Refusal::class, 'somebody else')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(),
                recordsOf(),
                $marten->with(['state' => 'left']),
                false,
                new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
            ),
        )
        ->toThrow(Refusal::class, 'somebody else')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(['state' => 'left']),
                recordsOf(),
                null,
                false,
                new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
            ),
        )
        ->toThrow(Refusal::class, 'left already')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(['kind' => 'student']),
                recordsOf(),
                null,
                false,
                new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
            ),
        )
        ->toThrow(Refusal::class, 'for staff');
});

it('does not leave a school without a coordinator', function () use ($ids): void {
    expect(
        OffBoarding::plan(staffRow(), recordsOf(), null, true, new Occasion($ids, '2026-11-26', ACCOUNTS_NOW))
            ->blockers[0],
    )->toContain('only coordinator');
    $give = CoordinatorRoles::give(staffRow(), 'here', 'Lanternfield Primary', null, $ids);
    expect($give->changes[0]->after)->toBe(['person_id' => 'petra', 'school_id' => 'here', 'state' => 'active']);
    $role = new Coordinator('k', 4, ['state' => 'ended']);
    expect(CoordinatorRoles::give(staffRow(), 'here', 'Lanternfield Primary', $role, $ids)->changes[0])
        ->toMatchObject(['id' => 'k', 'version' => 4])
        ->and(
            fn() => CoordinatorRoles::give(
                staffRow(),
                'here',
                'Lanternfield Primary',
                $role->with(['state' => 'active']),
                $ids,
            ),
        )
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => CoordinatorRoles::give(staffRow(['state' => 'left']), 'here', 'Lanternfield Primary', null, $ids))
        ->toThrow(Refusal::class, 'does not work here');
});

it('is the same plan again, and undone it gives back all but secrets', function () use ($ids): void {
    $records = recordsOf();
    $plan = OffBoarding::plan(staffRow(), $records, null, false, new Occasion($ids, '2026-11-26', ACCOUNTS_NOW));
    expect(
        OffBoarding::plan(
            staffRow(),
            $records,
            null,
            false,
            new Occasion($ids, '2026-11-26', ACCOUNTS_NOW),
        )->fingerprint(),
    )->toBe($plan->fingerprint());
    $tables = [
        'people' => ['petra' => staffRow()],
        'sign_ins' => ['si' => signInRow()],
        'badges' => ['b-live' => badgeRow()],
        'identities' => ['i-live' => identityRow()],
        'coordinators' => ['k' => $records->coordinators[0]],
        'invitations' => ['inv' => $records->invitations[0]],
    ];
    foreach ($records->teaching as $row) {
        $tables['enrollments'][$row->id] = $row;
    }
    $before = new Snapshot($tables);
    expect($before->with($plan)->without($plan))->toEqual($before);
});
