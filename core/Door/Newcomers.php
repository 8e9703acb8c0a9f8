<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\StudentAccount;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\CodeUse;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\MailAddress;

/**
 * People at the door with a code and no account. One who is on the school's list takes the account that waits for them;
 * all others ask, and are let in by somebody of the section or by a mail to an address of the school.
 */
final class Newcomers
{
    /** Days in which the mail to a newcomer's address can be answered. */
    public const MAIL_DAYS = 3;

    /**
     * Requests by one code that may wait at a time: whoever has it cannot bury a teacher in them, and a new code has
     * none.
     */
    public const MOST_WAITING = 200;

    /** 16 CFR 312.2 (USA): a child is someone under the age of 13. */
    public const CHILD_UNTIL = 13;

    /**
     * Asks to come in. With a code for addresses of the school, a link sent there answers the request; else a person
     * does.
     *
     * @param  int  $waiting requests by the code that wait
     * @param  Token|null  $token for the mail, where the code is for addresses of the school
     *
     * @return Planned<MadeRequest>
     *
     * @throws Refusal in words for the student
     */
    public static function ask(
        Section $section,
        JoinCode $code,
        Newcomer $newcomer,
        SchoolRules $rules,
        int $cameIn,
        int $waiting,
        ?Token $token,
        Occasion $at,
    ): Planned {
        Enrolling::mustBeOpen($section);
        $use = $code->who();
        if ($use === CodeUse::Accounts) {
            throw new Refusal(
                'This code is for students who have an account. If you should have one, ask your teacher.',
            );
        }
        JoinCodes::mustAdmit($code, $cameIn, $at->now);
        self::mustBeFilledIn($newcomer, $rules, $at->today);
        $child = self::isChild($newcomer, $at->today);
        if ($child && $rules->under13 === 'listed') {
            throw new Refusal('The school makes the accounts of students under 13. Ask your teacher for yours.');
        }
        if ($waiting >= self::MOST_WAITING) {
            throw new Refusal('Too many are waiting for an answer. Ask your teacher to look at them first.');
        }
        $byMail = $use === CodeUse::Domain && !($child && $rules->under13 === 'approve');
        if ($use !== CodeUse::Domain && $newcomer->passwordHash === null) {
            throw new Refusal('Choose a password.', 'password');
        }
        if ($use === CodeUse::Domain) {
            $domain = $newcomer->email === null ? '' : MailAddress::read($newcomer->email)?->domain() ?? '';
            if (!in_array($domain, $rules->domains, true)) {
                throw new Refusal('Type your address at the school: it ends with {{domains}}.', 'email', [
                    'domains' => implode(', ', array_map(fn(string $d): string => "@$d", $rules->domains)),
                ]);
            }
        }
        $plan = new PlanBuilder();
        $plan->insert(
            Entity::JoinRequest,
            $at->ids->for('request'),
            [
                'section_id' => $section->id,
                'join_code_id' => $code->id,
                'person_id' => null,
                'state' => $byMail ? 'mail' : 'waiting',
                'cause' => match (true) {
                    $newcomer->looked => 'many_codes',
                    $child && $rules->under13 === 'approve' => 'under_13',
                    $use === CodeUse::Domain => 'domain',
                    default => 'newcomer',
                },
                'given_name' => $newcomer->name->given,
                'family_name' => $newcomer->name->family,
                'birth_date' => $newcomer->birthDate,
                'number' => $newcomer->number,
                'email' => $newcomer->email,
                // Where an address of the school is to answer, its owner chooses the password, not whoever typed the
                // address here.
                'password' => $use === CodeUse::Domain ? null : $newcomer->passwordHash,
                'token_hash' => $byMail ? $token?->hash() : null,
                'made_at' => $at->now,
                'answered_at' => null,
                'answered_by' => null,
                'sign_in_id' => null,
            ],
            'asked at the door',
        );

        $built = $plan->build(
            "Request for {$section->name()}",
            "{$newcomer->name->full()} asks to come into {$section->name()}.",
        );

        return new Planned(
            $built,
            new MadeRequest($at->ids->for('request'), $byMail ? RequestState::Mail : RequestState::Waiting),
        );
    }

    /**
     * Somebody at the door has shown to be a student of the list: the account that waits is theirs, with the password
     * they chose. Only an account that nobody has ever signed in to can be taken so.
     *
     * @param  list<Enrollment>  $enrollments of the student
     */
    public static function claim(
        Section $section,
        JoinCode $code,
        StudentAccount $account,
        string $passwordHash,
        array $enrollments,
        int $cameIn,
        Occasion $at,
    ): Plan {
        Enrolling::mustBeOpen($section);
        [$person, $signIn] = [$account->person, $account->signIn()];
        if ($account->way === Way::School) {
            throw new Refusal(
                'Students of your grade sign in with the school’s own sign-on. Sign in, then type the code.',
            );
        }
        if ($signIn === null) {
            throw new Refusal('This account has no user name yet. Ask your teacher for a card.');
        }
        if ($person->state() !== PersonState::Active || $account->isUsed()) {
            throw self::unfit();
        }
        $plan = new PlanBuilder();
        $plan->update($signIn, ['password' => $passwordHash, 'passphrase' => null], 'taken by its owner at the door');
        if (!Enrolling::isIn($section->id, $enrollments, $at->today)) {
            JoinCodes::mustAdmit($code, $cameIn, $at->now);
            Enrolling::atTheDoor($plan, $section->id, $person->id, 'code', $code->id, $at);
        }

        return $plan->build(
            "Into {$section->name()} by code",
            $person->fullName() . " takes the account on the list and comes into {$section->name()}.",
        );
    }

    /** The same for a wrong proof and for an account in use: neither tells whether the proof was right. */
    public static function unfit(): Refusal
    {
        return new Refusal(
            'That does not fit what the school has on record, or the account is in use already. Look again, ' .
                'sign in with the card or password, or ask your teacher.',
            'proof',
        );
    }

    /** Whether what a newcomer says fits the record: compared as values, not as typed. */
    public static function fits(Person $person, string $check, string $said): bool
    {
        $known =
            $check === 'number' ? ltrim(mb_strtoupper((string) $person->number()), '0') : (string) $person->birthDate();
        $said = $check === 'number' ? ltrim(mb_strtoupper(trim($said)), '0') : $said;

        return $known !== '' && hash_equals($known, $said);
    }

    public static function isChild(Newcomer $newcomer, string $today): bool
    {
        return $newcomer->birthDate !== null && CalendarDate::age($newcomer->birthDate, $today) < self::CHILD_UNTIL;
    }

    /** @throws Refusal naming what the school asks and is not there, or cannot be */
    public static function mustBeFilledIn(Newcomer $newcomer, SchoolRules $rules, string $today): void
    {
        if ($newcomer->name->given === '') {
            throw new Refusal('Type your first name.', 'given_name');
        }
        if ($rules->asksBirthDate() && $newcomer->birthDate === null) {
            throw new Refusal('Type the day you were born.', 'birth_date');
        }
        if (
            $newcomer->birthDate !== null &&
            ($newcomer->birthDate >= $today || CalendarDate::age($newcomer->birthDate, $today) > 100)
        ) {
            throw new Refusal('Nobody here was born on that day. Look at the year.', 'birth_date');
        }
        if ($rules->check === 'number' && $newcomer->number === null) {
            throw new Refusal('Type your student number. If you do not know it, ask your teacher.', 'number');
        }
    }
}
