<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** One text of a letter. */
final readonly class WordingText extends Resource
{
    /**
     * @param  string  $standard in our words
     * @param  string|null  $own in the school's; null where it has none
     * @param  bool  $lacking whether the school has written it in another language and not in this
     */
    public function __construct(
        public string $name,
        public string $label,
        public string $standard,
        public ?string $own,
        public bool $lacking,
    ) {}
}
