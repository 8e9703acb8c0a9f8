<?php

declare(strict_types=1);

namespace App\Intake\Files;

use DOMDocument;
use DOMElement;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;

/** Tables of a web page: what a spreadsheet puts on the clipboard, and what some systems export as ".xls". */
final class HtmlTables
{
    private const SPAN = 60;

    /**
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function sheets(string $html): array
    {
        $document = new DOMDocument();
        $previous = libxml_use_internal_errors(true);
        // As plain ASCII with references, the page's own word on its encoding is of no consequence.
        $plain = mb_encode_numericentity(Lettering::read($html)->text, [0x80, 0x10ffff, 0, 0x1fffff], 'UTF-8');
        $loaded = $document->loadHTML($plain, LIBXML_NONET | LIBXML_COMPACT);
        libxml_clear_errors();
        libxml_use_internal_errors($previous);
        $sheets = [];
        foreach ($loaded ? $document->getElementsByTagName('table') : [] as $table) {
            if ($table->getElementsByTagName('table')->length > 0) {
                continue;
            }
            $lines = [];
            // Column to how many rows more a cell above reaches down through it.
            $down = [];
            foreach ($table->getElementsByTagName('tr') as $row) {
                $cells = [];
                foreach ($row->childNodes as $cell) {
                    if (!($cell instanceof DOMElement) || !in_array($cell->tagName, ['td', 'th'], true)) {
                        continue;
                    }
                    while (($down[count($cells)] ?? 0) > 0) {
                        $down[count($cells)]--;
                        $cells[] = '';
                    }
                    $text = self::text($cell);
                    for ($span = max(1, min(self::SPAN, (int) $cell->getAttribute('colspan'))); $span > 0; $span--) {
                        $down[count($cells)] = min(Grid::MAX_ROWS, (int) $cell->getAttribute('rowspan')) - 1;
                        $cells[] = $text;
                        $text = '';
                    }
                }
                foreach ($down as $c => $rows) {
                    $down[$c] = $c >= count($cells) ? $rows - 1 : $rows;
                }
                $lines[] = new Line(count($lines) + 1, $cells);
            }
            if ($lines !== []) {
                $sheets[] = new Sheet('table ' . (count($sheets) + 1), Grid::of($lines));
            }
        }
        if ($sheets === []) {
            throw new UnreadableList(
                'This is a web page without a table in it. Open it in a browser, copy the list, and paste it here.',
            );
        }

        return count($sheets) === 1 ? [new Sheet('', $sheets[0]->grid)] : $sheets;
    }

    private static function text(DOMElement $cell): string
    {
        foreach (iterator_to_array($cell->getElementsByTagName('br')) as $break) {
            $break->parentNode?->replaceChild($cell->ownerDocument?->createTextNode("\n") ?? $break, $break);
        }

        return trim((string) preg_replace('/[ \t\x{00A0}]+/u', ' ', $cell->textContent));
    }
}
