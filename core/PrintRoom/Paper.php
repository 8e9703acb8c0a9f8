<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** Sheets that cards are printed on, and in which order. */
final readonly class Paper
{
    /**
     * @param  int  $used places of the first sheet that are gone
     * @param  bool  $backs whether a page for the back follows each
     * @param  bool  $cut whether the sheets come cut already
     */
    public function __construct(
        public CardSheet $sheet,
        public CardOrder $order = CardOrder::Reading,
        public int $used = 0,
        public bool $backs = false,
        public bool $cut = false,
    ) {}

    public static function of(CardLayout $layout, CardOrder $order = CardOrder::Reading): self
    {
        return new self($layout->sheet(), $order, cut: $layout->isCut());
    }

    /** @return list<list<int|null>> as {@see CardOrder::sheets()} gives them */
    public function places(int $cards): array
    {
        return $this->order->sheets($cards, $this->sheet->places(), $this->used);
    }
}
