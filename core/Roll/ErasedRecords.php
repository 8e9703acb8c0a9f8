<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Records\StudentInvitation;
use Vantrel\Core\Records\TransferRequest;

/** What of somebody who is erased says who they are. */
final readonly class ErasedRecords
{
    /**
     * @param  list<Person>  $merged accounts that were merged into theirs
     * @param  list<SignIn>  $signIns
     * @param  list<Badge>  $badges
     * @param  list<Identity>  $identities
     * @param  list<Guardianship>  $guardianships
     * @param  list<JoinRequest>  $askings
     * @param  list<Invitation>  $invitations to their address
     * @param  list<Coordinator>  $coordinators
     * @param  list<TransferRequest>  $transfers requests of schools about them
     * @param  list<GuardianClaim>  $claims their word that they are a guardian
     * @param  list<GuardianInvitation>  $links sent to them as a guardian
     * @param  list<StudentInvitation>  $asked into sections, by their address or for them
     * @param  list<string>  $waiting titles of lists that name them and have not been applied
     * @param  int  $enrollments how many there are; they stay
     */
    public function __construct(
        public array $merged,
        public array $signIns,
        public array $badges,
        public array $identities,
        public array $guardianships,
        public array $askings,
        public array $invitations,
        public array $coordinators,
        public array $transfers,
        public array $claims,
        public array $links,
        public array $asked,
        public array $waiting,
        public int $enrollments,
    ) {}
}
