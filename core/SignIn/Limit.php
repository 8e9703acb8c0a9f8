<?php

declare(strict_types=1);

namespace Vantrel\Core\SignIn;

/**
 * How many wrong tries are borne, and for how long they are remembered: all limits on guessing in one table. The numbers are
 * common practice, no source, except where the sum that gives them is written beside them.
 *
 * Behind one address there is often a whole school, so limits by address are wide where something else limits the account.
 */
enum Limit: string
{
    /** Wrong secrets for one user name: the last figures of a mistyped card, not a search. */
    case SignInName = 'sign-in';
    /**
     * Wrong sign-ins from one address. A thousand children of whom a hundred mistype on the first morning stay below it; at
     * 28,800 a day somebody there hits a passphrase of 31 bits in a day with a chance of 1.3 in 100,000.
     */
    case SignInAddress = 'sign-in-from';
    /** Wrong codes of a second factor: of a million there are, three are right at any time. */
    case SecondFactor = 'second-factor';
    /** Wrong passwords given again by somebody signed in, before people leave or a password changes. */
    case PasswordAgain = 'password-again';
    /** Links for a forgotten password to one account: mails somebody else can have sent. */
    case ResetName = 'forgotten';
    case ResetAddress = 'forgotten-from';
    /** Well-formed unknown join codes from one address by people not signed in. */
    case CodeAddress = 'join';
    /** The same by one account; whoever is signed in is limited by it alone, so that a classmate cannot shut the whole school out. */
    case CodeAccount = 'join-by';
    /** Requests to come in as a newcomer by one code: some sections full of children, not a flood of made-up ones. */
    case AskCode = 'ask';
    case AskAddress = 'ask-from';
    /** Wrong birth dates or numbers for one student: of about 400 birth dates in a grade, five a day. */
    case ProofStudent = 'proof';
    case ProofAddress = 'proof-from';
    case ProofCode = 'proof-with';
    /** Wrong pictures for one child, of 1,728 ways. */
    case Pictures = 'pictures';
    /** Room passes that are none, from one address. */
    case RoomAddress = 'room-from';

    /** Wrong tries that are borne; the next one is turned away unlooked at. */
    public function most(): int
    {
        return match ($this) {
            self::SecondFactor, self::PasswordAgain, self::ResetName, self::ProofStudent, self::Pictures => 5,
            self::SignInName => 10,
            self::CodeAccount => 20,
            self::ProofAddress => 40,
            self::ResetAddress => 50,
            self::ProofCode, self::RoomAddress => 60,
            self::CodeAddress => 100,
            self::SignInAddress, self::AskCode, self::AskAddress => 300,
        };
    }

    /** Seconds from the first try until all are forgotten. */
    public function seconds(): int
    {
        return match ($this) {
            self::CodeAddress, self::CodeAccount, self::ProofStudent, self::ProofAddress, self::ProofCode => 86400,
            self::ResetName, self::ResetAddress, self::AskCode, self::AskAddress => 3600,
            self::SignInName, self::SignInAddress, self::SecondFactor, self::PasswordAgain, self::Pictures, self::RoomAddress => 900,
        };
    }
}
