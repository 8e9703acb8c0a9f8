<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\SectionKind;

/** Sections from a list, from a pattern with grades and groups, or from another year. */
final readonly class ManyWish
{
    /** @param  list<string>  $grades */
    public function __construct(
        #[Must('in:list,pattern,year')] public string $how,
        public SectionKind $kind,
        #[Must('ulid')] public ?string $year = null,
        #[Must('max:60000')] public string $text = '',
        #[Must('max:60')] public ?string $pattern = null,
        #[Must('max:60')] public string $subject = '',
        #[Must('max:16', each: 'string|max:4')] public array $grades = [],
        #[Must('max:200')] public string $groups = '',
        #[Must('max:20')] public string $period = '',
        #[Must('ulid')] public ?string $from = null,
    ) {}
}
