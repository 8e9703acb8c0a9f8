<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** How many of the students of a school, grade or section have signed in, have a card, have a guardian connected. */
final readonly class CoverageLine extends Resource
{
    /**
     * @param  string  $id of a section, code of a grade, '' of the school
     * @param  string  $kind school, grade, homeroom or class
     * @param  CoverageWeek|null  $before how it was four weeks ago, where that is known
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $kind,
        public int $students,
        public int $signedIn,
        public int $carded,
        public int $connected,
        public ?CoverageWeek $before,
    ) {}
}
