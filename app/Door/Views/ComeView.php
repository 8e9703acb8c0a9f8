<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** What the link of an invitation into a section leads to. */
final readonly class ComeView extends Resource
{
    /**
     * @param  string  $name of the student it is for; '' where whoever comes says it
     * @param  bool  $family whether it was sent to a family
     * @param  bool  $asksBirthDate of whoever says their name
     * @param  bool  $asksNumber the same
     */
    public function __construct(
        public string $school,
        public string $section,
        public string $name,
        public bool $family,
        public bool $asksBirthDate,
        public bool $asksNumber,
    ) {}
}
