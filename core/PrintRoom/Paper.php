<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/** Sheets that cards are printed on, and in which order. */
final readonly class Paper
{
    /**
     * @param  int  $used places of the first sheet that are gone
     * @param  bool  $backs whether a page for the back follows each
     * @param  bool  $cut whether the sheets come cut already
     * @param  bool  $fold whether marks show where a card is folded in the middle, words inside
     */
    public function __construct(
        public CardSheet $sheet,
        public CardOrder $order = CardOrder::Reading,
        public int $used = 0,
        public bool $backs = false,
        public bool $cut = false,
        public bool $fold = false,
        public ?CardShows $shows = null,
    ) {}

    /** @param  OwnSheet|null  $own where the layout is one's own */
    public static function of(
        CardLayout $layout,
        CardOrder $order = CardOrder::Reading,
        int $used = 0,
        bool $backs = false,
        ?OwnSheet $own = null,
        bool $fold = false,
        ?CardShows $shows = null,
    ): self {
        $cut = $layout === CardLayout::Own ? $own->cut ?? false : $layout->isCut();

        return new self($layout->sheet($own), $order, $used, $backs, $cut, $fold, $shows);
    }

    /** Whether the whole stack is cut at once, and the piles laid on each other are in order. */
    public function isStacked(): bool
    {
        return $this->order === CardOrder::CutStack && $this->used === 0;
    }

    /**
     * What stands where on a card in one line each.
     *
     * @return CardFace|null null where the size is too small for any card
     *
     * @throws Refusal where it is too small for what was chosen
     */
    public function face(): ?CardFace
    {
        $face = CardFace::of($this->sheet->cardWidth, $this->sheet->cardHeight, [], $this->shows);
        if ($face === null && ($this->shows->pictures ?? false)) {
            throw new Refusal(
                'The row of pictures does not fit on cards of this size. Choose larger ones.',
                'pictures',
            );
        }

        return $face;
    }

    /** @return list<list<int|null>> as {@see CardOrder::sheets()} gives them */
    public function places(int $cards): array
    {
        return $this->order->sheets($cards, $this->sheet->places(), $this->used);
    }
}
