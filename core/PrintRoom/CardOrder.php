<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** In which order cards go onto sheets. */
enum CardOrder: string
{
    /** Along the rows, sheet after sheet. */
    case Reading = 'reading';

    /** Cut the whole stack, lay the piles on each other place by place, and the cards lie in order. */
    case CutStack = 'cut_stack';

    /**
     * Which card lies where.
     *
     * @param  int  $cards how many
     * @param  int  $places to a sheet
     * @param  int  $used places of the first sheet that are gone. Where some are, cards go along the rows: a stack is
     *     cut of whole sheets.
     * @return list<list<int|null>> for each sheet, for each place, the card's number from 0, null where the place stays
     *     empty
     */
    public function sheets(int $cards, int $places, int $used = 0): array
    {
        $used = $used % $places;
        $count = intdiv($cards + $used + $places - 1, $places);
        $sheets = [];
        for ($q = 0; $q < $count; $q++) {
            $sheet = [];
            for ($p = 0; $p < $places; $p++) {
                $card = $this === self::Reading || $used > 0 ? $q * $places + $p - $used : $p * $count + $q;
                $sheet[] = $card >= 0 && $card < $cards ? $card : null;
            }
            $sheets[] = $sheet;
        }

        return $sheets;
    }
}
