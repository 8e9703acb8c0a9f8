<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\CardShows;
use Vantrel\Core\PrintRoom\FaceText;
use Vantrel\Core\PrintRoom\OwnSheet;
use Vantrel\Core\PrintRoom\Paper;

/** On which sheets, and in which order. What is one's own counts where the layout is. */
final readonly class PaperWish
{
    /**
     * @param  int  $used places of the first sheet that are gone
     * @param  bool  $backs whether a page for the back follows each, for printing on both sides
     * @param  string  $paper of one's own layout
     * @param  float  $width of a card, in mm, as all lengths here
     * @param  float  $margin least distance from the edge of the page
     * @param  bool  $cut whether the sheets come cut already
     * @param  bool  $fold whether marks show where a card is folded in the middle
     * @param  bool  $section whether it stands on a card; so with those that follow
     * @param  bool  $pictures whether a row of pictures says what to do
     */
    public function __construct(
        public CardLayout $layout,
        public CardOrder $order,
        #[Must('min:0|max:99')] public int $used = 0,
        public bool $backs = false,
        #[Must('in:a4,letter,a4-across,letter-across')] public string $paper = 'a4',
        #[Must('min:1|max:12')] public int $columns = 2,
        #[Must('min:1|max:20')] public int $rows = 5,
        #[Must('min:1|max:300')] public float $width = 90.0,
        #[Must('min:1|max:300')] public float $height = 54.0,
        #[Must('min:0|max:50')] public float $gapX = 0.0,
        #[Must('min:0|max:50')] public float $gapY = 0.0,
        #[Must('min:0|max:50')] public float $margin = 5.0,
        public bool $cut = false,
        public bool $fold = false,
        public bool $section = true,
        public bool $secret = true,
        public bool $square = true,
        public bool $school = true,
        public bool $address = true,
        public bool $pictures = false,
    ) {}

    public function paper(): Paper
    {
        $own = new OwnSheet(
            $this->paper,
            $this->columns,
            $this->rows,
            $this->width,
            $this->height,
            $this->gapX,
            $this->gapY,
            $this->margin,
            $this->cut,
        );

        return Paper::of($this->layout, $this->order, $this->used, $this->backs, $own, $this->fold, $this->shows());
    }

    private function shows(): CardShows
    {
        $shown = [
            FaceText::Place->value => $this->section,
            FaceText::Secret->value => $this->secret,
            FaceText::School->value => $this->school,
            FaceText::Address->value => $this->address,
        ];

        return CardShows::of(
            array_map(FaceText::from(...), array_keys(array_filter($shown, fn(bool $is): bool => !$is))),
            $this->square,
            $this->pictures,
        );
    }
}
