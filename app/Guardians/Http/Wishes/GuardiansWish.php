<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Guardians\GuardianWhom;
use App\Guardians\Standing;
use App\Platform\Must;

/** Which guardians of a school, and from where on. */
final readonly class GuardiansWish
{
    public function __construct(
        public ?Standing $standing = null,
        #[Must('ulid')] public string $section = '',
        #[Must('max:2')] public string $grade = '',
        #[Must('max:100')] public string $q = '',
        #[Must('min:0|max:1000000')] public int $after = 0,
    ) {}

    public function whom(): GuardianWhom
    {
        return new GuardianWhom([], $this->standing, $this->section, $this->grade, $this->q);
    }
}
