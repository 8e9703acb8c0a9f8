<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Sections\SectionWish as Wish;

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

    public function typed(): Wish
    {
        return Wish::typed($this->name, $this->kind, $this->grade, $this->period, $this->seats);
    }
}
