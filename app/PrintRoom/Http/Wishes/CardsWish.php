<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;

/** Which cards of a school to print. */
final readonly class CardsWish
{
    /**
     * @param  list<string>  $sectionIds none where students are named instead
     * @param  list<string>  $personIds of these only; of all the sections' where none are named
     */
    public function __construct(
        #[Must('required_without:person_ids|max:300', each: 'ulid')] public array $sectionIds = [],
        #[Must('max:2000', each: 'ulid')] public array $personIds = [],
        public bool $lost = false,
        public bool $shorten = false,
    ) {}
}
