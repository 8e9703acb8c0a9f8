<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

/** What can be done in a section. Which role may do it is said in {@see StaffRole::may()}, and nowhere else. */
enum Power: string
{
    case SeeRoster = 'see_roster';
    case PrintCards = 'print_cards';
    case UseCode = 'use_code';
    case AnswerRequests = 'answer_requests';
    case RoomPass = 'room_pass';
    case PlaceStudents = 'place_students';
    case InviteStaff = 'invite_staff';
    case EditSection = 'edit_section';
    case WriteNotices = 'write_notices';
    case HandOverLead = 'hand_over_lead';
    case Archive = 'archive';

    /**
     * What is left of it in an archived section for those who taught it: the roster. Cards that work are the
     * coordinators' then.
     */
    public function outlivesArchive(): bool
    {
        return $this === self::SeeRoster;
    }

    public function label(): string
    {
        return match ($this) {
            self::SeeRoster => 'see the roster, also as of another day, and as a student sees it',
            self::PrintCards => 'print login cards',
            self::UseCode => 'show the join code on the wall, open, change and close it',
            self::AnswerRequests => 'let newcomers in or turn them away',
            self::RoomPass => 'make and end the room pass',
            self::PlaceStudents => 'invite students and families by mail, move students between own sections, ' .
                'take them out, make reserve accounts',
            self::InviteStaff => 'invite co-teachers, assistants and substitutes',
            self::WriteNotices => 'write notices, dates and work and say who has handed it in; write to the families',
            self::EditSection => 'change name, period and seats',
            self::HandOverLead => 'hand the lead over',
            self::Archive => 'archive the section',
        };
    }
}
