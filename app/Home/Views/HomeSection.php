<?php

declare(strict_types=1);

namespace App\Home\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\SectionKind;

/** A section as its student or their guardian sees it. */
final readonly class HomeSection extends Resource
{
    /** @param  list<string>  $teachers */
    public function __construct(
        public string $name,
        public SectionKind $kind,
        public string $school,
        public array $teachers,
    ) {}
}
