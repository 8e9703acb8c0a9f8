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
     * @return list<list<int|null>> for each sheet, for each place, the card's number from 0, null where the place stays
     *     empty
     */
    public function sheets(int $cards, int $places): array
    {
        $count = intdiv($cards + $places - 1, $places);
        $sheets = [];
        for ($q = 0; $q < $count; $q++) {
            $sheet = [];
            for ($p = 0; $p < $places; $p++) {
                $card = $this === self::Reading ? $q * $places + $p : $p * $count + $q;
                $sheet[] = $card < $cards ? $card : null;
            }
            $sheets[] = $sheet;
        }

        return $sheets;
    }
}
