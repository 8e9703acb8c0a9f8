<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\FaceLine;
use Vantrel\Core\PrintRoom\Paper;

/** How many sheets cards come to, and what lies where on the first of them. Lengths in mm. */
final readonly class SheetPreview extends Resource
{
    /**
     * @param  list<CardPlace>  $places of the first sheet
     * @param  list<LayoutChoice>  $layouts to choose from
     * @param  bool  $stacked whether the whole stack is cut at once
     * @param  FacePreview|null  $face what stands where on a card; null where nothing fits on it
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
        public ?FacePreview $face,
        public bool $stacked,
    ) {}

    public static function of(Paper $paper, int $cards): self
    {
        $sheet = $paper->sheet;
        // Where none are chosen yet, a full sheet shows the order.
        $sheets = $paper->places($cards === 0 ? max(1, $sheet->places() - $paper->used) : $cards);

        return new self(
            $sheet->pageWidth,
            $sheet->pageHeight,
            $sheet->cardWidth,
            $sheet->cardHeight,
            $sheet->columns,
            $sheet->rows,
            $cards === 0 ? 0 : count($sheets),
            array_map(function (int $place) use ($sheet, $sheets): CardPlace {
                [$x, $y] = $sheet->corner($place);
                $card = $sheets[0][$place];

                return new CardPlace($x, $y, $card === null ? null : $card + 1);
            }, array_keys($sheets[0])),
            array_map(fn(CardLayout $l): LayoutChoice => new LayoutChoice($l, $l->label()), CardLayout::cases()),
            self::face($paper),
            $paper->isStacked(),
        );
    }

    private static function face(Paper $paper): ?FacePreview
    {
        $face = $paper->face();

        return $face === null
            ? null
            : new FacePreview(
                $face->squareX,
                $face->squareY,
                $face->square,
                $face->pictures[0] ?? null,
                $face->pictures[1] ?? null,
                array_map(
                    fn(FaceLine $l): FaceLinePreview => new FaceLinePreview(
                        $l->what,
                        $l->x,
                        $l->y,
                        $l->width,
                        $l->size,
                    ),
                    $face->lines,
                ),
            );
    }
}
