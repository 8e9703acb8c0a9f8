<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** A student whose family had a letter. */
final readonly class SlipLine extends Resource
{
    /**
     * @param  string  $printedOn the day of the last letter
     * @param  string|null  $returnedAt when a slip came back; null while none has
     */
    public function __construct(
        public string $studentId,
        public string $name,
        public string $sections,
        public string $language,
        public string $printedOn,
        public ?string $returnedAt,
    ) {}
}
