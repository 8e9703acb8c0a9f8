<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;

/** So many cards, laid out in a way. */
final readonly class SheetWish
{
    public function __construct(
        public CardLayout $layout,
        public CardOrder $order,
        #[Must('min:0|max:100000')] public int $cards,
    ) {}
}
