<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Door\StudentInviteStanding;

/** A student or family asked into a section by mail, and what has become of it. */
final readonly class StudentInviteLine extends Resource
{
    /**
     * @param  string  $typed what they were invited by
     * @param  string  $email where it went; '' for whoever may not see it
     * @param  string  $name of the student; '' where they are not known, or not in a section of whoever asks
     * @param  string  $problem why its mail did not arrive; '' where nothing is known
     * @param  bool  $open whether it can be sent again, or withdrawn
     */
    public function __construct(
        public string $id,
        public string $typed,
        public string $email,
        public string $name,
        public bool $family,
        public StudentInviteStanding $state,
        public string $problem,
        public string $sentAt,
        public ?string $openedAt,
        public string $expiresAt,
        public ?string $answeredAt,
        public bool $open,
    ) {}
}
