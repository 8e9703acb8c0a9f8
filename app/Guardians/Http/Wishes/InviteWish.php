<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Guardians\GuardianWhom;
use App\Guardians\Standing;
use App\Platform\Must;

/** Guardians to invite: chosen lines, or all that filters find. */
final readonly class InviteWish
{
    /** @param  list<string>|null  $ids of ties between guardians and children */
    public function __construct(
        #[Must('max:1000', each: 'ulid')] public ?array $ids = null,
        public ?Standing $standing = null,
        #[Must('ulid')] public string $section = '',
        #[Must('max:2')] public string $grade = '',
        #[Must('max:100')] public string $q = '',
    ) {}

    public function whom(): GuardianWhom
    {
        return new GuardianWhom($this->ids ?? [], $this->standing, $this->section, $this->grade, $this->q);
    }
}
