<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\GuardianshipState;

/** A guardian and one of their children. */
final readonly class GuardianLine extends Resource
{
    /**
     * @param  string  $id of the tie between them
     * @param  bool  $confirmed whether the address has answered
     * @param  bool  $awaiting whether they ask to be connected, and the school has yet to look
     * @param  string  $restriction why contact is restricted; '' where it is not
     * @param  string|null  $since since when it stands so, where that is known
     * @param  string  $by who did it
     * @param  string|null  $invitedAt of the link that is open
     * @param  string|null  $expiresAt of that link
     * @param  string|null  $consentOn YYYY-MM-DD
     */
    public function __construct(
        public string $id,
        public string $guardianId,
        public string $guardian,
        public string $studentId,
        public string $student,
        public string $grade,
        public string $relationship,
        public string $email,
        public bool $confirmed,
        public string $phone,
        public GuardianshipState $state,
        public bool $awaiting,
        public string $restriction,
        public ?string $since,
        public string $by,
        public ?string $invitedAt,
        public ?string $remindedAt,
        public ?string $expiresAt,
        public ?string $consentOn,
        public string $consentWay,
    ) {}
}
