<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RoleState;
use Vantrel\Core\Records\StudentInvitationState;

/**
 * Somebody erased, where the law has it: whatever says who they are goes, for good. What was counted stays: that there
 * was somebody in that grade and in those sections on those days, and that something was done when and by whom.
 */
final class Erasure
{
    /** What stands where a name stood. */
    public const NAME = 'Somebody erased';

    /**
     * @param  ErasedRecords  $of what belongs to the person
     * @param  list<array{int, string, string}>  $besides what is in no plan and goes with it: how many, and what one
     *     and many of them are called
     * @param  string  $today YYYY-MM-DD, at the school
     * @param  string  $now UTC instant
     *
     * @throws Refusal where they are still on the Roll, stand in a list that waits, or are erased already
     */
    public static function plan(Person $person, ErasedRecords $of, array $besides, string $today, string $now): Plan
    {
        $name = $person->fullName();
        if ($person->erasedOn() !== null) {
            throw new Refusal('This person has been erased already.');
        }
        if ($person->kind() !== PersonKind::Guardian && $person->state() !== PersonState::Left) {
            throw new Refusal(
                $person->state() === PersonState::Merged
                    ? "$name has been merged into another account. Erase that one."
                    : "$name is still on the Roll. Take them off first: they have left.",
            );
        }
        foreach ($of->coordinators as $coordinator) {
            if ($coordinator->state() === RoleState::Active) {
                throw new Refusal("$name coordinates a school. See them off first.");
            }
        }
        if ($of->waiting !== []) {
            throw new Refusal(
                "$name stands in a list that waits: " . Words::some($of->waiting) . '. Apply or discard it first.',
            );
        }
        $plan = new PlanBuilder();
        foreach ([$person, ...$of->merged] as $account) {
            $plan->update($account, self::nobody($account, $today), 'erased');
        }
        Credentials::closeAll($plan, $of->signIns, $of->badges, $of->identities, $now, 'erased');
        foreach ($of->signIns as $signIn) {
            $plan->update($signIn, ['user_name' => "erased-$signIn->id"], 'erased');
        }
        foreach ($of->badges as $badge) {
            $plan->update($badge, ['token_hash' => hash('sha256', "erased $badge->id")], 'erased');
        }
        foreach ($of->identities as $identity) {
            $plan->update($identity, ['subject' => "erased-$identity->id"], 'erased');
        }
        foreach ($of->guardianships as $link) {
            $plan->update(
                $link,
                [
                    'state' => GuardianshipState::Ended->value,
                    'relationship' => null,
                    'restriction' => null,
                    'consent_on' => null,
                    'consent_way' => null,
                ],
                'erased',
            );
        }
        foreach ($of->askings as $asking) {
            $plan->update(
                $asking,
                [
                    'given_name' => self::NAME,
                    'family_name' => '',
                    'birth_date' => null,
                    'number' => null,
                    'email' => null,
                    'password' => null,
                ],
                'erased',
            );
        }
        foreach ($of->claims as $claim) {
            $plan->update(
                $claim,
                ['given_name' => self::NAME, 'family_name' => '', 'email' => '', 'phone' => null, 'reason' => null],
                'erased',
            );
        }
        foreach ($of->links as $link) {
            $plan->update($link, ['email' => '', 'state' => 'ended', 'answered_at' => $now], 'erased');
        }
        foreach ($of->asked as $invitation) {
            $plan->update(
                $invitation,
                [
                    'email' => '',
                    'typed' => '',
                    ...$invitation->state() === StudentInvitationState::Invited ? ['state' => 'withdrawn'] : [],
                ],
                'erased',
            );
        }
        foreach ($of->transfers as $transfer) {
            $plan->update($transfer, ['said' => '{}'], 'erased');
        }
        foreach ($of->invitations as $invitation) {
            $plan->update($invitation, ['email' => "erased-$invitation->id@erased.invalid"], 'erased');
        }
        $counts = [
            [count($of->signIns), 'user name', 'user names'],
            [count($of->badges), 'card', 'cards'],
            [count($of->identities), 'school sign-on', 'school sign-ons'],
            [count($of->guardianships), 'tie to a child or guardian', 'ties to children or guardians'],
            [count($of->askings), 'request at the door', 'requests at the door'],
            [count($of->claims), 'word that they are a guardian', 'words that they are a guardian'],
            [count($of->invitations) + count($of->links) + count($of->asked), 'invitation', 'invitations'],
            [count($of->transfers), 'request between schools', 'requests between schools'],
            [count($of->merged), 'account merged into theirs', 'accounts merged into theirs'],
            ...$besides,
        ];
        $number = 0;
        $plan->row(self::row(++$number, 'Names, birth date, number, address, telephone', 'gone'));
        foreach ($counts as [$n, $one, $many]) {
            if ($n > 0) {
                $plan->row(self::row(++$number, Words::count($n, $one, $many), 'without anything that says who'));
            }
        }
        $plan->row(
            self::row(++$number, Words::count($of->enrollments, 'enrollment'), 'counted on, as somebody erased'),
        );
        $plan->warn('This cannot be undone, and nothing brings it back: not the Ledger, not a list of before.');
        if ($person->kind() === PersonKind::Guardian && $of->guardianships !== []) {
            $plan->warn('Their children keep their other guardians only.');
        }

        // The name of whoever is erased does not stand in the entry that says so.
        return $plan->build(
            'A person erased',
            'Erases a ' . $person->kind()->value . ' on lawful request. What was counted stays counted.',
        );
    }

    /** @return array<string, string|int|null> */
    private static function nobody(Person $account, string $today): array
    {
        return [
            'given_name' => self::NAME,
            'family_name' => '',
            'preferred_name' => null,
            'search_name' => 'somebody erased',
            'birth_date' => null,
            'number' => null,
            'email' => null,
            'email_state' => 'claimed',
            'email_by' => null,
            'email_at' => null,
            'phone' => null,
            'language' => null,
            'name_shown' => null,
            'pictures' => null,
            'state' => $account->state() === PersonState::Active ? PersonState::Left->value : $account->state()->value,
            'erased_on' => $today,
        ];
    }

    private static function row(int $number, string $what, string $then): PlanRow
    {
        return new PlanRow($number, Verdict::Update, ['What' => Cell::same($what), 'Afterwards' => Cell::same($then)]);
    }
}
