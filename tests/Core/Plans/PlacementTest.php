<?php

declare(strict_types=1);

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Placement\Enrolling;
use Vantrel\Core\Placement\Invitations;
use Vantrel\Core\Placement\JoinCodes;
use Vantrel\Core\Placement\Sections;
use Vantrel\Core\Placement\StaffRole;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

const NOW = '2026-09-01 10:00:00';
const LATER = '2026-09-15 10:00:00';

function openSection(string $state = 'open'): Row
{
    return new Row('sec', 1, ['school_id' => 'school', 'name' => '3 Heron', 'state' => $state, 'grade' => '03']);
}

function pupil(string $kind = 'student', string $state = 'active'): Row
{
    return new Row('noor', 1, ['given_name' => 'Noor', 'family_name' => 'Haddad', 'kind' => $kind, 'state' => $state, 'email' => 'noor@lanternfield.example']);
}

function book(): CodeBook
{
    return new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100);
}

function token(): Token
{
    return Token::draw(new KeyedStream(str_repeat('k', 32), 'token'));
}

$ids = new Ids('01K3CNQ0000000000000000000');
$code = new Row('c1', 1, ['section_id' => 'sec', 'state' => 'open', 'closed_at' => null]);

it('opens a code, replaces it, closes it', function () use ($ids, $code): void {
    expect(JoinCodes::open(openSection(), [], book(), $ids, NOW)->changes)->toHaveCount(1);
    $replaced = JoinCodes::open(openSection(), [$code], book(), $ids, NOW);
    expect(array_map(fn (Change $c): array => [$c->inserts(), $c->after['state']], $replaced->changes))->toBe([[false, 'closed'], [true, 'open']]);
    expect(JoinCodes::close(openSection(), [$code], NOW)->changes[0]->after)->toBe(['state' => 'closed', 'closed_at' => NOW])
        ->and(fn () => JoinCodes::close(openSection(), [], NOW))->toThrow(Refusal::class)
        ->and(fn () => JoinCodes::open(openSection('archived'), [], book(), $ids, NOW))->toThrow(Refusal::class, 'archived');
});

it('lets a student in once', function () use ($ids): void {
    $plan = Enrolling::byCode(openSection(), pupil(), [], $ids, '2026-09-01');
    expect($plan->changes[0]->after['source'])->toBe('code');
    $in = new Row('e', 1, ['section_id' => 'sec', 'ends_on' => null]);
    expect(Enrolling::byCode(openSection(), pupil(), [$in], $ids, '2026-09-01')->isEmpty())->toBeTrue();
    $left = new Row('e', 1, ['section_id' => 'sec', 'ends_on' => '2026-08-30']);
    expect(Enrolling::byCode(openSection(), pupil(), [$left], $ids, '2026-09-01')->isEmpty())->toBeFalse();
});

it('lets in no staff, nobody who left, and nobody into an archived section', function () use ($ids): void {
    expect(fn () => Enrolling::byCode(openSection(), pupil('staff'), [], $ids, '2026-09-01'))->toThrow(Refusal::class)
        ->and(fn () => Enrolling::byCode(openSection(), pupil('student', 'left'), [], $ids, '2026-09-01'))->toThrow(Refusal::class)
        ->and(fn () => Enrolling::byCode(openSection('archived'), pupil(), [], $ids, '2026-09-01'))->toThrow(Refusal::class);
});

it('makes an account for a student who has none', function () use ($ids): void {
    $plan = Enrolling::byNewAccount(openSection(), new PersonName('Uma', 'Rao'), 'hash', new UserNames(['uma.rao' => true], []), $ids, '2026-09-01');
    expect(array_map(fn (Change $c): string => $c->entity->value, $plan->changes))->toBe(['people', 'sign_ins', 'enrollments'])
        ->and($plan->changes[1]->after['user_name'])->toBe('uma.rao2')->and($plan->changes[0]->after['grade'])->toBe('03')
        ->and(fn () => Enrolling::byNewAccount(openSection(), new PersonName('', 'Rao'), 'hash', new UserNames([], []), $ids, '2026-09-01'))->toThrow(Refusal::class);
});

it('takes a student out as of a day, and never the lead', function (): void {
    $plan = Enrolling::remove(openSection(), pupil(), new Row('e', 1, ['role' => 'student', 'ends_on' => null]), '2026-09-01');
    expect($plan->changes[0]->after)->toBe(['ends_on' => '2026-09-01'])
        ->and(fn () => Enrolling::remove(openSection(), pupil('staff'), new Row('e', 1, ['role' => 'lead', 'ends_on' => null]), '2026-09-01'))->toThrow(Refusal::class, 'Hand the lead over');
});

it('makes no two sections of one name in a year', function () use ($ids): void {
    $make = fn (string $name) => Sections::make('school', 'year', $name, 'class', null, 'lead', [openSection()], book(), $ids, '2026-09-01', NOW);
    expect(array_map(fn (Change $c): string => $c->entity->value, $make('4 Tern')->changes))->toBe(['sections', 'enrollments', 'join_codes'])
        ->and(fn () => $make('3 HERON'))->toThrow(Refusal::class);
});

it('archives a section with its code and its open invitations', function () use ($code): void {
    $open = new Row('i1', 1, ['state' => 'invited', 'answered_at' => null]);
    $answered = new Row('i2', 1, ['state' => 'accepted', 'answered_at' => NOW]);
    $plan = Sections::archive(openSection(), [$code], [$open, $answered], NOW);
    expect(array_map(fn (Change $c): string => "{$c->entity->value} {$c->id}", $plan->changes))->toBe(['sections sec', 'join_codes c1', 'invitations i1'])
        ->and(fn () => Sections::archive(openSection('archived'), [], [], NOW))->toThrow(Refusal::class);
});

function asked(string $state = 'invited', string $expires = LATER): Row
{
    return new Row('inv', 1, ['section_id' => 'sec', 'email' => 'noor@lanternfield.example', 'role' => 'co_teacher', 'state' => $state, 'expires_at' => $expires, 'person_id' => null, 'answered_at' => null]);
}

it('invites a colleague of the school, once', function () use ($ids): void {
    $invite = fn (string $mail, StaffRole $role = StaffRole::CoTeacher, array $before = [], array $staff = []) => Invitations::invite(openSection(), $mail, $role, $before, $staff, ['lanternfield.example'], token(), 'me', $ids, NOW, LATER);
    expect($invite('Noor@Lanternfield.Example')->changes[0]->after['email'])->toBe('noor@lanternfield.example')
        ->and($invite('noor@lanternfield.example')->changes[0]->after['token_hash'])->toBe(token()->hash())
        ->and(fn () => $invite('not an address'))->toThrow(Refusal::class, 'not an e-mail')
        ->and(fn () => $invite('noor@elsewhere.example'))->toThrow(Refusal::class, 'elsewhere.example')
        ->and(fn () => $invite('noor@lanternfield.example', StaffRole::Lead))->toThrow(Refusal::class)
        ->and(fn () => $invite('noor@lanternfield.example', StaffRole::CoTeacher, [asked()]))->toThrow(Refusal::class, 'Send it again')
        ->and(fn () => $invite('noor@lanternfield.example', StaffRole::CoTeacher, [], [pupil('staff')]))->toThrow(Refusal::class, 'already');
    expect($invite('noor@lanternfield.example', StaffRole::CoTeacher, [asked('invited', NOW)])->changes)->toHaveCount(1);
});

it('takes one answer to an invitation, in time', function () use ($ids): void {
    $accept = fn (Row $invitation) => Invitations::accept(openSection(), $invitation, pupil('staff'), [], $ids, '2026-09-01', NOW);
    expect(array_map(fn (Change $c): string => $c->entity->value, $accept(asked())->changes))->toBe(['invitations', 'enrollments']);
    foreach (['accepted', 'declined', 'withdrawn'] as $state) {
        expect(fn () => $accept(asked($state)))->toThrow(Refusal::class)
            ->and(fn () => Invitations::decline(openSection(), asked($state), NOW))->toThrow(Refusal::class)
            ->and(fn () => Invitations::withdraw(openSection(), asked($state), NOW))->toThrow(Refusal::class);
    }
    expect(fn () => $accept(asked('invited', '2026-08-30 10:00:00')))->toThrow(Refusal::class, 'expired')
        ->and(fn () => Invitations::accept(openSection(), asked(), pupil('student'), [], $ids, '2026-09-01', NOW))->toThrow(Refusal::class, 'staff')
        ->and(fn () => Invitations::accept(openSection('archived'), asked(), pupil('staff'), [], $ids, '2026-09-01', NOW))->toThrow(Refusal::class, 'archived');
    expect(Invitations::acceptNew(openSection(), asked(), new PersonName('Noor', 'Haddad'), 'hash', $ids, '2026-09-01', NOW)->changes)->toHaveCount(4)
        ->and(Invitations::again(openSection(), asked(), token(), NOW, LATER)->changes[0]->after)->toHaveKey('token_hash');
});
