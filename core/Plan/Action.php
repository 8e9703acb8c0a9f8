<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/** What can stand in the ledger: each thing that is done, and whether and for how long it can be undone. */
enum Action: string
{
    case Accept = 'accept';
    case Address = 'address';
    case Apart = 'apart';
    case AskGuardian = 'ask-guardian';
    case Archive = 'archive';
    case Ask = 'ask';
    case Cards = 'cards';
    case Claim = 'claim';
    case CleanUp = 'clean-up';
    case Code = 'code';
    case Decline = 'decline';
    case Edit = 'edit';
    case EndCredential = 'end-credential';
    case Erase = 'erase';
    case Guardian = 'guardian';
    case Intake = 'intake';
    case Invite = 'invite';
    case Join = 'join';
    case Lead = 'lead';
    case LetIn = 'let-in';
    case Letters = 'letters';
    case Merge = 'merge';
    case Notice = 'notice';
    case OffBoard = 'off-board';
    case Password = 'password';
    case Pictures = 'pictures';
    case Place = 'place';
    case Redo = 'redo';
    case Reserve = 'reserve';
    case RoomPass = 'room-pass';
    case Section = 'section';
    case SecondFactor = 'second-factor';
    case Seen = 'seen';
    case Settings = 'settings';
    case SignOn = 'sign-on';
    case Slip = 'slip';
    case TakeOff = 'take-off';
    case Transfer = 'transfer';
    case TurnAway = 'turn-away';
    case Withdraw = 'withdraw';
    case Wording = 'wording';
    case Year = 'year';
    case YearTurn = 'year-turn';

    /** Two weeks: as long as somebody who was away when it happened needs to notice. Common practice, no source. */
    private const UNDO_DAYS = 14;

    /** That two accounts were two children shows when both turn up, years later: as long as a ledger is kept. */
    private const MERGE_UNDO_DAYS = 1825;

    /** Which part of the work it belongs to; null of a repeat, which belongs where what it repeats does. */
    public function area(): ?Area
    {
        return match ($this) {
            self::Intake => Area::Intake,
            self::AskGuardian, self::Edit, self::Erase, self::Guardian, self::OffBoard, self::Transfer => Area::Roll,
            self::Apart, self::Merge => Area::LookAlikes,
            self::Archive, self::Notice, self::Place, self::Section, self::Reserve => Area::Sections,
            self::Ask, self::Claim, self::Code, self::Join, self::LetIn, self::RoomPass, self::TurnAway => Area::Codes,
            self::Accept, self::Decline, self::Invite, self::Lead, self::TakeOff, self::Withdraw => Area::Staff,
            self::Cards, self::Letters, self::Slip, self::Wording => Area::PrintRoom,
            self::Address,
            self::EndCredential,
            self::Password,
            self::Pictures,
            self::SecondFactor,
            self::Seen,
            self::SignOn
                => Area::Accounts,
            self::Year, self::YearTurn => Area::YearTurn,
            self::CleanUp, self::Settings => Area::Settings,
            self::Redo => null,
        };
    }

    /** Days in which it can be undone in one piece; null where it cannot at all. */
    public function undoDays(): ?int
    {
        return match (true) {
            $this->whyNot() !== null => null,
            $this === self::Merge => self::MERGE_UNDO_DAYS,
            default => self::UNDO_DAYS,
        };
    }

    /** Why it cannot be undone, and what to do instead; null where it can. */
    public function whyNot(): ?string
    {
        return match ($this) {
            // The one before is in no ledger: taking this back would leave no way to sign in.
            self::Password => 'A password cannot be undone. Print a new card, or send a link for another one.',
            self::SecondFactor => 'A second factor cannot be brought back. Its owner sets up another.',
            self::CleanUp => 'What has been cleared away is gone. Change how long things are kept in Settings.',
            self::Erase => 'Who was erased is gone. Make a new account if they come back.',
            self::Redo => 'Undo the entry that was done again.',
            self::Seen => 'Looking changes nothing, so there is nothing to undo.',
            default => null,
        };
    }

    /**
     * What it is about: where records of this kind (of people, those that were merged) could not go back, undoing the
     * rest alone would leave a state nobody has asked for: two current years, half a merge, an account that nothing
     * signs in to.
     *
     * @return list<Entity>
     */
    public function standsOn(): array
    {
        return match ($this) {
            self::YearTurn => [Entity::SchoolYear],
            self::Merge => [Entity::Person, Entity::SignIn],
            default => [],
        };
    }
}
