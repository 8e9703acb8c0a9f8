<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\School;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Settings\SchoolSettings;
use Vantrel\Core\Settings\SchoolYears;

$ids = new Ids('01K3CNQ0000000000000000000');
$heron = place('h', '3 Heron');
$plover = place('p', '3 Plover', ['seats' => 2, 'period' => '2']);
$art = place('a', 'Art', ['period' => '2']);

it('keeps a school’s settings sound', function (array $wish, int $below, ?string $field): void {
    $school = new School('s', 1, [
        'name' => 'Lanternfield Primary',
        'lowest_grade' => 0,
        'highest_grade' => 5,
        'mail_domains' => '["lanternfield.example"]',
        'time_zone' => 'UTC',
        'naming_pattern' => '{subject}',
        'sign_in_policy' => '',
        'stay_days_shared' => 0,
        'stay_days_own' => 0,
        'day_opens' => '07:00',
        'day_closes' => '17:00',
    ]);
    $change = fn(): Plan => SchoolSettings::change($school, $wish, ['UTC', 'America/New_York'], $below);
    if ($field === null) {
        expect($change()->changes[0]->after)->toBe($wish);
    } else {
        try {
            $change();
        } catch (Refusal $e) {
            expect($e->field)->toBe($field);

            return;
        }
        expect(false)->toBeTrue('it was taken');
    }
})->with([
    [['time_zone' => 'America/New_York'], 0, null],
    [['time_zone' => 'Lanternfield'], 0, 'time_zone'],
    [['name' => ' '], 0, 'name'],
    [['lowest_grade' => 6], 0, 'highest_grade'],
    [['highest_grade' => 4], 3, 'highest_grade'],
    [['highest_grade' => SchoolSettings::grade('nonsense')], 0, 'highest_grade'],
    [['lowest_grade' => SchoolSettings::grade('14')], 0, 'lowest_grade'],
    [['mail_domains' => '["no domain"]'], 0, 'mail_domains'],
    [['naming_pattern' => 'x'], 0, 'naming_pattern'],
    [['sign_in_policy' => '0:2 magic'], 0, 'sign_in_policy'],
    [['stay_days_own' => 91], 0, 'stay_days_own'],
    [['day_opens' => '7:00'], 0, 'day_opens'],
    [['day_opens' => '18:00'], 0, 'day_closes'],
    [['sign_in_policy' => '0:2 card'], 0, null],
]);

it('plans years that do not overlap', function () use ($ids): void {
    $current = new SchoolYear('y', 1, [
        'name' => '2026-27',
        'begins_on' => '2026-08-24',
        'ends_on' => '2027-06-12',
        'state' => 'current',
    ]);
    expect(SchoolYears::plan('s', '2027-28', '2027-08-23', '2028-06-10', [$current], $ids)->changes[0]->after['state'])
        ->toBe('planned')
        ->and(SchoolYears::plan('s', '2026-27', '2026-08-24', '2027-06-12', [], $ids)->changes[0]->after['state'])
        ->toBe('current')
        ->and(fn() => SchoolYears::plan('s', '2027-28', '2027-06-11', '2028-06-10', [$current], $ids))
        ->toThrow(Refusal::class, 'overlaps 2026-27')
        ->and(fn() => SchoolYears::plan('s', '2026-27', '2027-08-23', '2028-06-10', [$current], $ids))
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => SchoolYears::plan('s', 'x', '2027-08-23', '2027-08-23', [$current], $ids))
        ->toThrow(Refusal::class, 'before it begins')
        ->and(
            fn() => SchoolYears::edit(
                new SchoolYear('z', 1, ['name' => '2025-26', 'state' => 'closed']),
                'x',
                '2025-08-01',
                '2026-06-01',
                [],
                $ids,
            ),
        )
        ->toThrow(Refusal::class, 'closed');
    expect(SchoolYears::edit($current, '2026-27', '2026-08-24', '2027-06-18', [$current])->changes[0]->after)
        ->toBe(['ends_on' => '2027-06-18'])
        ->and(SchoolYears::following('2026-08-24', '2027-06-12'))
        ->toBe(['2027-28', '2027-08-24', '2028-06-12'])
        // A school year of the south lies within one year.
        ->and(SchoolYears::following('2027-01-28', '2027-12-17'))
        ->toBe(['2028', '2028-01-28', '2028-12-17'])
        // One year may begin on the day the other ends on, which is not one of its days.
        ->and(
            SchoolYears::plan('s', '2027-28', '2027-06-12', '2028-06-10', [$current], $ids)->countOf(
                Entity::SchoolYear,
            ),
        )
        ->toBe(1);
});

it('keeps grades, mail domains and ways of signing in as they are stored', function (): void {
    $school = new School('s', 1, ['lowest_grade' => 0, 'highest_grade' => 2]);
    expect(SchoolSettings::grade('K'))
        ->toBe(0)
        ->and(SchoolSettings::grade('Grade 5'))
        ->toBe(5)
        ->and(SchoolSettings::grade(null))
        ->toBeNull()
        ->and(SchoolSettings::domains([' @Lanternfield.example', 'lanternfield.example', 'x.example']))
        ->toBe('["lanternfield.example","x.example"]')
        ->and(SignInPolicy::ofGrades(['KG' => 'card', '01' => 'card', '02' => 'own'])->text())
        ->toBe('0:1 card, 2:2 own')
        ->and(fn() => SignInPolicy::ofGrades(['99' => 'card']))
        ->toThrow(Refusal::class)
        ->and(SchoolSettings::taught($school, ['name' => 'x']))
        ->toBeNull()
        ->and(SchoolSettings::taught($school, ['highest_grade' => 1]))
        ->toBe(['KG', '01'])
        ->and(SchoolSettings::taught($school, ['lowest_grade' => 3]))
        ->toBeNull()
        ->and(SchoolSettings::taught($school, ['highest_grade' => 99]))
        ->toBeNull();
});
