<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Records\Section;

/** One of many sections that are to be made. */
final readonly class NewSection
{
    /**
     * @param  string  $lead name or address as typed, '' where nobody is named
     * @param  Section|null  $from last year's section it is made from
     */
    public function __construct(
        public string $name,
        public string $kind = 'class',
        public ?string $grade = null,
        public ?string $period = null,
        public ?int $seats = null,
        public string $lead = '',
        public ?Section $from = null,
    ) {}
}
