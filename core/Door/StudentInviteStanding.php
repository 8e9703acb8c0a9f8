<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\StudentInvitationState;

/** What has become of an invitation into a section by now, from its mail to the student in the room. */
enum StudentInviteStanding: string
{
    /** Its mail has yet to go. */
    case Waiting = 'waiting';
    case Sent = 'sent';
    /** Its mail was refused, came back, was stopped, or may never have gone. */
    case NotThere = 'not_there';
    case Opened = 'opened';
    /** They wait at the door for somebody of the section. */
    case Asked = 'asked';
    case Came = 'came';
    case TurnedAway = 'turned_away';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
    case Expired = 'expired';

    /**
     * @param  RequestState|null  $request of the request made with it
     * @param  bool  $isIn whether the student is in the section, however they came
     * @param  bool  $opened whether its link has been looked at
     * @param  MessageState|null  $mail of its newest mail
     * @param  string  $expires UTC instant
     * @param  string  $now UTC instant
     */
    public static function at(
        StudentInvitationState $state,
        ?RequestState $request,
        bool $isIn,
        bool $opened,
        ?MessageState $mail,
        string $expires,
        string $now,
    ): self {
        return match ($state) {
            StudentInvitationState::Came => self::Came,
            StudentInvitationState::Declined => self::Declined,
            StudentInvitationState::Withdrawn => self::Withdrawn,
            StudentInvitationState::Asked => match ($request) {
                RequestState::Approved => self::Came,
                RequestState::Refused => self::TurnedAway,
                default => self::Asked,
            },
            StudentInvitationState::Invited => match (true) {
                $isIn => self::Came,
                $expires <= $now => self::Expired,
                $opened => self::Opened,
                in_array($mail, [...MessageState::amiss(), MessageState::Stopped], true) => self::NotThere,
                $mail === MessageState::Waiting, $mail === MessageState::Handing => self::Waiting,
                default => self::Sent,
            },
        };
    }

    /** Whether a link can be sent again, or withdrawn. */
    public function isOpen(): bool
    {
        return in_array($this, [self::Waiting, self::Sent, self::NotThere, self::Opened, self::Expired], true);
    }

    /**
     * Whether a teacher sees whom it was for: once they came into the section, or asked to. The address on record, and
     * what a mail server says of it, are only the coordinator’s, who sees names too from the beginning.
     */
    public function namesWhom(): bool
    {
        return in_array($this, [self::Came, self::Asked, self::TurnedAway], true);
    }
}
