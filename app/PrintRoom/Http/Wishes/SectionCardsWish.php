<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;

/** Which cards of a section to print. */
final readonly class SectionCardsWish
{
    /** @param  list<string>  $personIds none for all */
    public function __construct(#[Must('max:2000', each: 'ulid')] public array $personIds = []) {}
}
