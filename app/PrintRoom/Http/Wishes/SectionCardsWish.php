<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;

/** Which cards of a section to print, and how. */
final readonly class SectionCardsWish
{
    /** @param  list<string>  $personIds */
    public function __construct(
        public CardLayout $layout,
        public CardOrder $order,
        #[Must('max:2000', each: 'ulid')] public array $personIds = [],
        public bool $lost = false,
    ) {}
}
