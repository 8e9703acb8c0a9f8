<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use Vantrel\Core\Records\EnrollmentRole;

/** What an adult is in a section, and what that lets them do. */
enum StaffRole: string
{
    case Lead = 'lead';
    case CoTeacher = 'co_teacher';
    case Assistant = 'assistant';
    case Substitute = 'substitute';

    public function label(): string
    {
        return EnrollmentRole::from($this->value)->label();
    }

    /**
     * A co-teacher can do all but archive the section or hand its lead over; an assistant sees and prints; a substitute
     * runs the room between two dates and leaves the section as it was.
     */
    public function may(Power $power): bool
    {
        return match ($this) {
            self::Lead => true,
            self::CoTeacher => $power !== Power::Archive && $power !== Power::HandOverLead,
            self::Assistant => in_array($power, [Power::SeeRoster, Power::PrintCards], true),
            self::Substitute => in_array(
                $power,
                [Power::SeeRoster, Power::PrintCards, Power::UseCode, Power::AnswerRequests, Power::RoomPass],
                true,
            ),
        };
    }
}
