<?php

declare(strict_types=1);

use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;

it('lets each role do what is written here, and nothing else', function (StaffRole $role, array $may): void {
    expect(
        array_values(array_map(fn(Power $p): string => $p->value, array_filter(Power::cases(), $role->may(...)))),
    )->toBe($may);
})->with([
    [
        StaffRole::Lead,
        [
            'see_roster',
            'print_cards',
            'use_code',
            'answer_requests',
            'room_pass',
            'place_students',
            'invite_staff',
            'edit_section',
            'write_notices',
            'hand_over_lead',
            'archive',
        ],
    ],
    [
        StaffRole::CoTeacher,
        [
            'see_roster',
            'print_cards',
            'use_code',
            'answer_requests',
            'room_pass',
            'place_students',
            'invite_staff',
            'edit_section',
            'write_notices',
        ],
    ],
    [StaffRole::Assistant, ['see_roster', 'print_cards']],
    [StaffRole::Substitute, ['see_roster', 'print_cards', 'use_code', 'answer_requests', 'room_pass']],
]);

it('leaves those who taught an archived section its roster, and no more', function (): void {
    expect(
        array_values(
            array_map(
                fn(Power $p): string => $p->value,
                array_filter(Power::cases(), fn(Power $p): bool => $p->outlivesArchive()),
            ),
        ),
    )->toBe(['see_roster']);
});

it('calls each role as a sentence does', function (): void {
    expect(array_map(fn(StaffRole $r): string => $r->label(), StaffRole::cases()))->toBe([
        'lead',
        'co-teacher',
        'assistant',
        'substitute',
    ]);
});
