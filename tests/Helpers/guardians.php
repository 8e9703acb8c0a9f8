<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\OnRecord;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;

/** @param  array<string, string|null>  $more */
function grownUp(string $id, string $name, array $more = []): Person
{
    [$given, $family] = explode(' ', $name, 2) + [1 => ''];

    return new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'guardian',
        'given_name' => $given,
        'family_name' => $family,
        'preferred_name' => null,
        'search_name' => NameKey::of($name),
        'language' => null,
        'email' => null,
        'email_state' => 'claimed',
        'email_by' => null,
        'email_at' => null,
        'phone' => null,
        'phone_confirmed' => null,
        'state' => 'active',
        ...$more,
    ]);
}

function tie(
    string $id,
    string $student,
    string $guardian,
    string $state = 'listed',
    ?string $restriction = null,
): Guardianship {
    return new Guardianship($id, 1, [
        'student_id' => $student,
        'guardian_id' => $guardian,
        'relationship' => null,
        'state' => $state,
        'state_at' => null,
        'state_by' => null,
        'restriction' => $restriction,
    ]);
}

/** @param  array<string, string|null>  $more */
function recorded(
    string $name,
    array $more = [],
    string $state = 'listed',
    ?string $restriction = null,
    string $id = 'guardian',
): OnRecord {
    return new OnRecord(grownUp($id, $name, $more), tie("tie $id", 'child', $id, $state, $restriction));
}

/** Who comes from an account whose address has answered, unless something else is said. */
function comesAs(
    string $name,
    string $email,
    ?string $phone = null,
    bool $confirmed = true,
    string $by = 'mail',
): Claimant {
    $person = grownUp('account', $name, [
        'email' => $email,
        'email_state' => $confirmed ? 'confirmed' : 'claimed',
        'email_by' => $by,
        'phone' => $phone,
    ]);

    return new Claimant(new PersonName($person->givenName(), $person->familyName()), $email, $phone, $person);
}

/** @param  array<string, string|null>  $more */
function invitation(string $guardian, array $more = []): GuardianInvitation
{
    return new GuardianInvitation("invitation $guardian", 1, [
        'school_id' => 'school',
        'guardian_id' => $guardian,
        'email' => "$guardian@shoremail.example",
        'token_hash' => 'x',
        'state' => 'open',
        'sent_at' => '2026-09-01 10:00:00',
        'expires_at' => '2026-09-29 10:00:00',
        'reminded_at' => null,
        'answered_at' => null,
        'invited_by' => null,
        ...$more,
    ]);
}
