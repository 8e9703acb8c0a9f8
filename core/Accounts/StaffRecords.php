<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;

/** What belongs to one member of the staff. */
final readonly class StaffRecords
{
    /**
     * @param  list<SignIn>  $signIns
     * @param  list<Badge>  $badges of these
     * @param  list<Identity>  $identities
     * @param  list<Coordinator>  $coordinators roles as coordinator that have not ended
     * @param  list<Invitation>  $invitations to their address, unanswered, into sections of the school
     * @param  list<Enrollment>  $teaching enrollments as staff, today's and later ones, in sections of the school
     * @param  list<Enrollment>  $colleagues enrollments of other staff in those sections
     * @param  array<string, Section>  $sections by id
     * @param  list<string>  $elsewhere sections they teach at other schools, in words
     */
    public function __construct(
        public array $signIns,
        public array $badges,
        public array $identities,
        public array $coordinators,
        public array $invitations,
        public array $teaching,
        public array $colleagues,
        public array $sections,
        public array $elsewhere = [],
    ) {}
}
