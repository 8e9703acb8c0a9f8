<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\StaffRecords;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Records\TransferRequest;

const ACCOUNTS_NOW = '2026-11-26 09:00:00';

/** @param  array<string, string|int|null>  $more */
function staffRow(array $more = []): Person
{
    return new Person('petra', 3, [
        'school_id' => 'here',
        'kind' => 'staff',
        'state' => 'active',
        'given_name' => 'Petra',
        'family_name' => 'Okonjo',
        'email' => 'petra@x.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
        'email_at' => null,
        ...$more,
    ]);
}

function signInRow(?string $password = 'hash', ?string $passphrase = null): SignIn
{
    return new SignIn('si', 1, [
        'person_id' => 'petra',
        'user_name' => 'petra@x.example',
        'password' => $password,
        'passphrase' => $passphrase,
        'temporary' => 0,
        'unproven' => 0,
    ]);
}

function badgeRow(string $state = 'live'): Badge
{
    return new Badge("b-$state", 1, ['sign_in_id' => 'si', 'state' => $state, 'ended_at' => null]);
}

function identityRow(string $state = 'live'): Identity
{
    return new Identity("i-$state", 1, [
        'person_id' => 'petra',
        'issuer' => 'https://id.example',
        'subject' => 'x',
        'state' => $state,
        'ended_at' => null,
    ]);
}

/** @return array<string, array<string, mixed>> entity and id to what becomes of it */
function changesOf(Plan $plan): array
{
    $found = [];
    foreach ($plan->changes as $change) {
        $found["{$change->entity->value} $change->id"] = $change->after;
    }

    return $found;
}

/** @param  array<string, mixed>  $more */
function recordsOf(array $more = []): StaffRecords
{
    $section = fn(string $id, string $name, string $school = 'here', string $state = 'open'): Section => new Section(
        $id,
        1,
        ['school_id' => $school, 'name' => $name, 'state' => $state],
    );
    $teaches = fn(
        string $section,
        string $role,
        string $who = 'petra',
        ?string $ends = null,
    ): Enrollment => new Enrollment("e-$who-$section", 1, [
        'section_id' => $section,
        'person_id' => $who,
        'role' => $role,
        'begins_on' => '2026-08-24',
        'ends_on' => $ends,
    ]);
    $of = [
        'signIns' => [signInRow()],
        'badges' => [badgeRow()],
        'identities' => [identityRow()],
        'coordinators' => [
            new Coordinator('k', 1, ['person_id' => 'petra', 'school_id' => 'here', 'state' => 'active']),
        ],
        'invitations' => [new Invitation('inv', 1, ['state' => 'invited', 'answered_at' => null])],
        'teaching' => [
            $teaches('heron', 'lead'),
            $teaches('tern', 'lead'),
            $teaches('art', 'co_teacher'),
            $teaches('old', 'lead'),
        ],
        'colleagues' => [$teaches('heron', 'co_teacher', 'marten')],
        'sections' => [
            'heron' => $section('heron', '3 Heron'),
            'tern' => $section('tern', '4 Tern', 'other'),
            'art' => $section('art', 'Art 3'),
            'old' => $section('old', '2 Wren', 'here', 'archived'),
        ],
        ...$more,
    ];

    return new StaffRecords(...$of);
}

function requestRow(string $kind = 'transfer', string $state = 'waiting'): TransferRequest
{
    return new TransferRequest('req', 1, [
        'person_id' => 'kai',
        'from_school_id' => 'here',
        'to_school_id' => 'there',
        'kind' => $kind,
        'state' => $state,
        'asked_by' => null,
        'made_at' => ACCOUNTS_NOW,
        'answered_at' => null,
        'answered_by' => null,
        'said' => json_encode([
            'given_name' => 'Kai',
            'family_name' => 'Wu',
            'birth_date' => '2014-01-01',
            'number' => '070500',
            'grade' => '06',
            'sections' => ['six', 'gone', 'closed'],
            'section_names' => ['6 Tern'],
        ]),
    ]);
}
