<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;
use XMLReader;
use ZipArchive;

/** Tables of a text document (.docx, ECMA-376 WordprocessingML), or its lines where it has no table. */
final class WordDocument
{
    private const MAX_DEPTH = 200;

    /**
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function sheets(string $path, ZipArchive $zip): array
    {
        Packed::mustBeWhole($zip, 'word/document.xml');
        [$tables, $paragraphs] = self::read($path);
        $sheets = [];
        foreach ($tables as $n => $rows) {
            if (count($rows) > 1) {
                $sheets[] = new Sheet(
                    'table ' . ($n + 1),
                    Grid::of(
                        array_map(fn(array $cells, int $i): Line => new Line($i + 1, $cells), $rows, array_keys($rows)),
                    ),
                );
            }
        }
        if ($sheets !== []) {
            return count($sheets) === 1 ? [new Sheet('', $sheets[0]->grid)] : $sheets;
        }
        $lines = [];
        foreach ($paragraphs as $paragraph) {
            $lines[] = str_replace(["\n", '"'], [' ', ''], $paragraph);
        }

        return [new Sheet('', DelimitedText::grid(implode("\n", $lines)))];
    }

    /** @return array{list<list<list<string>>>, list<string>} rows of cells by table, and paragraphs outside tables */
    private static function read(string $path): array
    {
        $xml = new XMLReader();
        $tables = $paragraphs = [];
        $row = [];
        $cell = $text = '';
        $depth = 0;
        $previous = libxml_use_internal_errors(true);
        try {
            if (@$xml->open("zip://$path#word/document.xml", null, LIBXML_NONET | LIBXML_COMPACT) === false) {
                throw new UnreadableList('The document is damaged. Open it, copy the table, and paste it here.');
            }
            while (@$xml->read()) {
                if ($xml->nodeType === XMLReader::DOC_TYPE || $xml->depth > self::MAX_DEPTH) {
                    throw new UnreadableList(
                        'The document holds what no word processor writes. Open it, copy the table, and paste it here.',
                    );
                }
                $end = $xml->nodeType === XMLReader::END_ELEMENT;
                if ($xml->nodeType !== XMLReader::ELEMENT && !$end) {
                    continue;
                }
                // Tables within tables are read as a part of the cell they stand in.
                switch ($xml->localName) {
                    case 'tbl':
                        $depth += $end ? -1 : 1;
                        if (!$end && $depth === 1) {
                            $tables[] = [];
                        }
                        break;
                    case 'tr':
                        if ($end && $depth === 1) {
                            $tables[count($tables) - 1][] = $row;
                        } elseif (!$end && $depth === 1) {
                            $row = [];
                        }
                        break;
                    case 'tc':
                        if ($end && $depth === 1) {
                            $row[] = trim($cell);
                        } elseif (!$end && $depth === 1) {
                            $cell = '';
                        }
                        break;
                    case 'gridSpan':
                        // A cell over several columns leaves the others empty.
                        for ($n = (int) $xml->getAttribute('w:val'); $n > 1 && $n < 64 && $depth === 1; $n--) {
                            $row[] = '';
                        }
                        break;
                    case 'p':
                        if ($end || $xml->isEmptyElement) {
                            if ($depth > 0) {
                                $cell .= ($cell === '' ? '' : "\n") . $text;
                            } elseif (trim($text) !== '') {
                                $paragraphs[] = $text;
                            }
                            $text = '';
                        }
                        break;
                    case 't':
                        $text .= $end ? '' : $xml->readString();
                        break;
                    case 'tab':
                        $text .= $end || $xml->isEmptyElement === false ? '' : "\t";
                        break;
                    case 'br':
                        $text .= $end ? '' : "\n";
                        break;
                }
            }
            foreach (libxml_get_errors() as $error) {
                if ($error->level === LIBXML_ERR_FATAL) {
                    throw new UnreadableList(
                        'The document is damaged and cannot be read to its end. Open it, copy the table, and ' .
                            'paste it here.',
                    );
                }
            }
        } finally {
            $xml->close();
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }

        return [array_values($tables), $paragraphs];
    }
}
