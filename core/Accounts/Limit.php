<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/**
 * How many wrong tries are borne, and for how long they are remembered: all limits on guessing in one table. The
 * numbers are common practice, no source, except where the sum that gives them is written beside them.
 *
 * Limits slow guessing down and shut nobody out: each kind of secret has counts of its own; tokens of 128 bits (cards,
 * room passes, links) are looked up first, so that one that works is never turned away for others that do not; and
 * since a whole school stands behind one address, limits by address are so wide that no pupil with a script uses them
 * up for the others in an ordinary day.
 */
enum Limit: string
{
    /**
     * Wrong secrets for one user name, from devices it has not signed in on: the last figures of a mistyped card, not a
     * search.
     */
    case SignInName = 'sign-in';
    /** The same on a device it has signed in on before: what others try elsewhere does not count there. */
    case SignInDevice = 'sign-in-on';
    /**
     * Wrong secrets from one address, beyond which each name is looked at once a day only. At 38,400 a day and 50,000
     * names somebody there hits one of 1,017^3 passphrases with a chance below 1 in 10,000.
     */
    case SignInAddress = 'sign-in-from';
    /**
     * Wrong secrets for one user name from an address that has none of its own left: 50,000 names make 50,000 tries a
     * day, with what {@see SignInAddress} bears less than 1 in 10,000 in all.
     */
    case SignInNameAddress = 'sign-in-name-from';
    /** Cards that are none, from one address. Of 2^128 there are; a card that works is not held up. */
    case CardAddress = 'card-from';
    /** Wrong codes of a second factor: of a million there are, three are right at any time. */
    case SecondFactor = 'second-factor';
    /** Wrong passwords given again by somebody signed in, before people leave or a password changes. */
    case PasswordAgain = 'password-again';
    /** Links for a forgotten password to one person: mails somebody else can have sent. */
    case ResetPerson = 'forgotten';
    case ResetAddress = 'forgotten-from';
    /**
     * Well-formed unknown join codes from one address in a day, and in the whole installation. Nobody is turned away
     * beyond: whoever comes by a code without being signed in waits at the door then, and learns nothing of codes. With
     * 490 codes of six symbols and a check one address comes to one of them with a chance below 1 in 10,000 a day, and
     * ten thousand addresses together below 1 in 1,000 (490 x 300 / 23^6); the length of new codes follows.
     */
    case CodeAddress = 'join';
    case CodeInstallation = 'join-at';
    /** Well-formed unknown family codes from one address: of 23^9 there are. */
    case FamilyAddress = 'family-from';
    /**
     * The same by one account; whoever is signed in is limited by it alone, so that a classmate cannot shut the whole
     * school out.
     */
    case CodeAccount = 'join-by';
    /** Names looked for at the door with one code, and requests to come in with it: some sections full of children. */
    case NamesCode = 'names';
    case AskCode = 'ask';
    case AskAddress = 'ask-from';
    /**
     * Guardians who come without a letter, from one address: a hall full of them on an evening for parents, and not a
     * program that tries names and birth dates.
     */
    case SeekAddress = 'seek-from';
    /** The same at one school: more than anybody there could look at. */
    case SeekSchool = 'seek-at';
    /** Invitations of students that one account looks at or sends: what is typed tells which numbers there are. */
    case InviteAccount = 'invite-by';
    /** Wrong birth dates or numbers for one student: of about 400 birth dates in a grade, five a day. */
    case ProofStudent = 'proof';
    case ProofAddress = 'proof-from';
    case ProofCode = 'proof-with';
    /** Wrong pictures for one child, of 1,728 ways. */
    case Pictures = 'pictures';
    /** All that one account asks for in a minute. */
    case Requests = 'requests-of';
    /** Room passes that are none, from one address. */
    case RoomAddress = 'room-from';

    /** Wrong tries that are borne; the next one is turned away unlooked at. */
    public function most(): int
    {
        return match ($this) {
            self::SecondFactor, self::PasswordAgain, self::ResetPerson, self::ProofStudent, self::Pictures => 5,
            self::SignInName, self::SignInDevice => 10,
            self::CodeAccount => 10,
            self::CodeAddress => 20,
            self::ProofCode, self::SeekAddress => 60,
            self::CardAddress, self::RoomAddress, self::AskCode, self::InviteAccount, self::CodeInstallation => 300,
            self::ProofAddress => 500,
            self::NamesCode, self::SeekSchool => 600,
            self::SignInAddress => 400,
            self::SignInNameAddress => 1,
            self::ResetAddress, self::AskAddress => 2000,
            self::Requests => 1200,
            self::FamilyAddress => 5000,
        };
    }

    /** Seconds from the first try until all are forgotten. */
    public function seconds(): int
    {
        return match ($this) {
            self::CodeAddress,
            self::CodeInstallation,
            self::FamilyAddress,
            self::CodeAccount,
            self::ProofStudent,
            self::ProofAddress,
            self::ProofCode,
            self::SeekSchool,
            self::SignInNameAddress,
            self::InviteAccount
                => 86400,
            self::ResetPerson,
            self::ResetAddress,
            self::NamesCode,
            self::AskCode,
            self::AskAddress,
            self::SeekAddress
                => 3600,
            self::SignInName,
            self::SignInDevice,
            self::SignInAddress,
            self::CardAddress,
            self::SecondFactor,
            self::PasswordAgain,
            self::Pictures,
            self::RoomAddress
                => 900,
            self::Requests => 60,
        };
    }
}
