<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;

/** How many sheets cards come to, and what lies where on the first of them. Lengths in mm. */
final readonly class SheetPreview extends Resource
{
    /**
     * @param  list<CardPlace>  $places of the first sheet
     * @param  list<LayoutChoice>  $layouts to choose from
     */
    public function __construct(
        public float $pageWidth,
        public float $pageHeight,
        public float $cardWidth,
        public float $cardHeight,
        public int $columns,
        public int $rows,
        public int $sheets,
        public array $places,
        public array $layouts,
    ) {}

    public static function of(CardLayout $layout, CardOrder $order, int $cards): self
    {
        $sheet = $layout->sheet();
        // Where none are chosen yet, a full sheet shows the order.
        $first = $order->sheets($cards === 0 ? $sheet->places() : $cards, $sheet->places())[0];

        return new self(
            $sheet->pageWidth,
            $sheet->pageHeight,
            $sheet->cardWidth,
            $sheet->cardHeight,
            $sheet->columns,
            $sheet->rows,
            $sheet->sheets($cards),
            array_map(function (int $place) use ($sheet, $first): CardPlace {
                [$x, $y] = $sheet->corner($place);

                return new CardPlace($x, $y, $first[$place] === null ? null : $first[$place] + 1);
            }, array_keys($first)),
            array_map(fn(CardLayout $l): LayoutChoice => new LayoutChoice($l, $l->label()), CardLayout::cases()),
        );
    }
}
