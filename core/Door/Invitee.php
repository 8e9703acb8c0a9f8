<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

/** Somebody who gets a link into a section. */
final readonly class Invitee
{
    /**
     * @param  string  $typed what they were named by
     * @param  string  $email folded
     * @param  string|null  $studentId null where nobody on record has the address
     * @param  string|null  $guardianId where it goes to a guardian on record
     * @param  string  $name what the student is called, '' where that is not known
     * @param  string  $language a tag
     */
    public function __construct(
        public string $typed,
        public string $email,
        public bool $family,
        public ?string $studentId,
        public ?string $guardianId,
        public string $name,
        public string $language,
    ) {}
}
