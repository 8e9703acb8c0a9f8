<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Roll\EditPerson;
use Vantrel\Core\Roll\PersonWish;

/** @param  array<string, string|null>  $with */
function toBeEdited(array $with = []): Person
{
    return new Person('p1', 7, [
        'school_id' => 's',
        'kind' => 'student',
        'given_name' => 'Noor',
        'family_name' => 'Castell',
        'preferred_name' => null,
        'language' => null,
        'search_name' => 'noor castell',
        'birth_date' => '2015-08-03',
        'number' => '020417',
        'grade' => '05',
        'email' => null,
        'email_state' => 'claimed',
        'email_by' => null,
        'email_at' => null,
        'phone' => null,
        'state' => 'active',
        'merged_into' => null,
        'erased_on' => null,
        ...$with,
    ]);
}

function editOf(PersonWish $wish, ?Person $of = null, ?Person $bearer = null, bool $mayReach = true): Plan
{
    return EditPerson::plan(
        $of ?? toBeEdited(),
        $wish,
        ['lowest' => -1, 'highest' => 8, 'domains' => ['lanternfield.example'], 'country' => 'US'],
        $bearer,
        $mayReach,
        '2026-11-26',
        '2026-11-26 10:00:00',
    );
}

it('changes what is wished and nothing else', function (PersonWish $wish, array $after, string $sentence): void {
    $plan = editOf($wish);
    expect($plan->changes)
        ->toHaveCount(1)
        ->and($plan->changes[0]->after)
        ->toBe($after)
        ->and($plan->changes[0]->version)
        ->toBe(7)
        ->and($plan->sentence)
        ->toBe($sentence);
})->with([
    [
        new PersonWish(given: '  Nour  Ada '),
        ['given_name' => 'Nour Ada', 'search_name' => 'nour ada castell'],
        'Changes the given name.',
    ],
    [
        new PersonWish(family: 'de la Cruz', birthDate: '2014-08-03'),
        ['family_name' => 'de la Cruz', 'search_name' => 'noor de la cruz', 'birth_date' => '2014-08-03'],
        'Changes the family name and birth date.',
    ],
    [
        new PersonWish(given: '', number: '', grade: '', birthDate: ''),
        [
            'given_name' => '',
            'search_name' => 'castell',
            'birth_date' => null,
            'number' => null,
            'grade' => null,
        ],
        'Changes the given name, birth date, number and grade.',
    ],
    [new PersonWish(number: '#020418'), ['number' => '020418'], 'Changes the number.'],
    [new PersonWish(preferred: ' Nour '), ['preferred_name' => 'Nour'], 'Changes the name they go by.'],
    [new PersonWish(grade: 'K'), ['grade' => 'KG'], 'Changes the grade.'],
    [new PersonWish(phone: '(202) 555-0143'), ['phone' => '+12025550143'], 'Changes the phone number.'],
    [
        new PersonWish(email: ' Noor@Lanternfield.example '),
        [
            'email' => 'noor@lanternfield.example',
            'email_state' => 'confirmed',
            'email_by' => 'school',
            'email_at' => '2026-11-26 10:00:00',
        ],
        'Changes the address.',
    ],
]);

it('keeps an address elsewhere claimed until its owner confirms it', function (): void {
    $after = editOf(new PersonWish(email: 'noor@shoremail.example'))->changes[0]->after;
    expect($after['email_by'] ?? null)
        ->toBe('hand')
        ->and($after)
        ->not->toHaveKey('email_state');
    $confirmed = toBeEdited([
        'email' => 'n@lanternfield.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
    ]);
    expect(editOf(new PersonWish(email: 'noor@shoremail.example'), $confirmed)->changes[0]->after['email_state'])
        ->toBe('claimed')
        ->and(editOf(new PersonWish(email: ''), $confirmed)->changes[0]->after['email'])
        ->toBeNull();
    // A guardian's mailbox is never the school's to vouch for.
    $guardian = editOf(new PersonWish(email: 'a@lanternfield.example'), toBeEdited(['kind' => 'guardian']));
    expect($guardian->changes[0]->after['email_by'])->toBe('hand');
});

it('writes nothing where nothing is other than it was', function (): void {
    expect(editOf(new PersonWish('Noor', 'Castell', '', '2015-08-03', '020417', '5', '', ''))->isEmpty())
        ->toBeTrue()
        ->and(editOf(new PersonWish())->isEmpty())
        ->toBeTrue();
    // Nobody goes by the name they have.
    expect(editOf(new PersonWish(preferred: 'Noor'))->isEmpty())->toBeTrue();
    // What a guardian cannot have is passed over.
    expect(
        editOf(new PersonWish(grade: '4'), toBeEdited(['kind' => 'guardian', 'grade' => null]))->isEmpty(),
    )->toBeTrue();
});

it('refuses what cannot be, at the field it is about', function (PersonWish $wish, string $field, string $says): void {
    try {
        editOf($wish, null, toBeEdited(['number' => '020418'])->with([]), false);
    } catch (Refusal $e) {
        expect($e->field)->toBe($field)->and($e->getMessage())->toContain($says);

        return;
    }
    test()->fail('was not refused');
})->with([
    [new PersonWish(given: ' ', family: ''), 'given', 'give one of the two'],
    [new PersonWish(family: str_repeat('a', 121)), 'family', '120'],
    [new PersonWish(given: "No\u{202E}or"), 'given', 'cannot be seen'],
    [new PersonWish(birthDate: '03/04/2015'), 'birth_date', '2015-08-03'],
    [new PersonWish(birthDate: 'soon'), 'birth_date', '2015-08-03'],
    [new PersonWish(birthDate: '2026-01-01'), 'birth_date', '0 years'],
    [new PersonWish(birthDate: '1815-01-01'), 'birth_date', '211 years'],
    [new PersonWish(number: str_repeat('1', 41)), 'number', '40'],
    [new PersonWish(grade: '9'), 'grade', 'PK to 8'],
    [new PersonWish(grade: 'blue'), 'grade', 'PK to 8'],
    [new PersonWish(email: 'noor'), 'email', 'no address'],
    [new PersonWish(email: 'noor@shoremail.example'), 'email', 'for them to change'],
    [new PersonWish(phone: 'call me'), 'phone', 'no telephone number'],
]);

it('refuses a number that somebody else has, and an account that is merged', function (): void {
    $other = new Person('p2', 1, [...toBeEdited()->values, 'given_name' => 'Kai', 'number' => '020418']);
    expect(fn() => editOf(new PersonWish(number: '020418'), null, $other))
        ->toThrow(Refusal::class, 'Kai Castell has this number')
        ->and(fn() => editOf(new PersonWish(given: 'Kai'), toBeEdited(['state' => 'merged'])))
        ->toThrow(Refusal::class, 'merged into another');
});
