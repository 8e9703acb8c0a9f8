<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** A guardian who asks. */
final readonly class ClaimLine extends Resource
{
    /**
     * @param  bool  $signedIn whether they asked from an account of their own
     * @param  string  $state waiting, approved or refused
     * @param  list<OnRecord>  $record guardians of the student on record, while it waits
     * @param  bool  $clear whether it may be answered together with others
     * @param  string|null  $suggested whom of them it seems to be, or their own account; null for somebody new
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $email,
        public string $phone,
        public bool $signedIn,
        public string $student,
        public string $state,
        public string $reason,
        public string $askedAt,
        public ?string $answeredAt,
        public array $record,
        public ?string $suggested,
        public bool $clear,
    ) {}
}
