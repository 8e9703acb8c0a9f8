<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\SectionKind;

/** What a section is called and holds. */
final readonly class SectionWish
{
    public function __construct(
        #[Must('max:80')] public string $name,
        public SectionKind $kind,
        #[Must('max:20')] public ?string $grade = null,
        #[Must('max:20')] public ?string $period = null,
        public ?int $seats = null,
    ) {}
}
