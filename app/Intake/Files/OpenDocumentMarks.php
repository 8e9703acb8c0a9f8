<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Vantrel\Core\Table\UnreadableList;
use XMLReader;

/**
 * What an OpenDocument spreadsheet (ISO/IEC 26300-1, 9 and 16) says of its cells besides their values: hidden rows and
 * columns, what is struck out, cells merged down, and numbers that are shown with zeros before them.
 */
final class OpenDocumentMarks
{
    private const MOST_REPEATED = 60_000;

    /** @var array<string, true> names of the cell styles that strike out */
    private array $struck = [];

    /** @var array<string, SheetMarks> */
    private array $sheets = [];

    private string $style = '';

    private int $row = 0;

    private int $column = 0;

    private int $columns = 0;

    /**
     * @return array<string, SheetMarks> by the sheet's name
     *
     * @throws UnreadableList where a cell repeats more often than a spreadsheet has room for
     */
    public static function of(string $path): array
    {
        $marks = new self();
        $xml = new XMLReader();
        if (@$xml->open("zip://$path#content.xml", null, LIBXML_NONET | LIBXML_COMPACT) === false) {
            return [];
        }
        $previous = libxml_use_internal_errors(true);
        try {
            $marks->read($xml);
        } finally {
            $xml->close();
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }

        return $marks->sheets;
    }

    private function read(XMLReader $xml): void
    {
        $sheet = new SheetMarks();
        while (@$xml->read()) {
            Workbook::refuseDocumentType($xml);
            if ($xml->nodeType !== XMLReader::ELEMENT) {
                continue;
            }
            switch ($xml->name) {
                case 'style:style':
                    $this->style = (string) $xml->getAttribute('style:name');
                    break;
                case 'style:text-properties':
                    if (!in_array($xml->getAttribute('style:text-line-through-style') ?? 'none', ['none', ''], true)) {
                        $this->struck[$this->style] = true;
                    }
                    break;
                case 'table:table':
                    $sheet = $this->sheets[(string) $xml->getAttribute('table:name')] = new SheetMarks();
                    $this->row = $this->columns = 0;
                    break;
                case 'table:table-column':
                    $this->column($xml, $sheet);
                    break;
                case 'table:table-row':
                    $this->row($xml, $sheet);
                    break;
                case 'table:table-cell':
                case 'table:covered-table-cell':
                    $this->cell($xml, $sheet);
                    break;
                default:
            }
        }
        foreach ($this->sheets as $one) {
            $one->struckRows = array_filter($one->struckRows);
        }
    }

    private function column(XMLReader $xml, SheetMarks $sheet): void
    {
        $times = $this->times($xml, 'columns', 16_384);
        if ($this->isHidden($xml)) {
            for ($i = 0; $i < min($times, 120); $i++) {
                $sheet->hiddenColumns[$this->columns + $i] = true;
            }
        }
        $this->columns += $times;
    }

    private function row(XMLReader $xml, SheetMarks $sheet): void
    {
        $times = $this->times($xml, 'rows', 1_048_576);
        $this->row++;
        for ($i = 0; $this->isHidden($xml) && $i < min($times, self::MOST_REPEATED); $i++) {
            $sheet->hiddenRows[$this->row + $i] = true;
        }
        $this->column = 0;
        // The cells below stand in the first of them; what repeats alike below it carries no marks of its own.
        $this->row += $times - 1;
    }

    private function cell(XMLReader $xml, SheetMarks $sheet): void
    {
        $at = $this->column;
        $this->column += $this->times($xml, 'columns', 16_384);
        if (($xml->getAttribute('office:value-type') ?? '') === '') {
            return;
        }
        isset($this->struck[(string) $xml->getAttribute('table:style-name')])
            ? ($sheet->struckRows[$this->row] ??= true)
            : ($sheet->struckRows[$this->row] = false);
        $down = (int) $xml->getAttribute('table:number-rows-spanned');
        if ($down > 1) {
            $sheet->down[] = [$at, $this->row, $this->row + min($down, 5000) - 1];
        }
        if ($xml->getAttribute('office:value-type') === 'float') {
            $shown = trim($xml->readString());
            if (preg_match('/^0\d{1,14}$/', $shown) === 1) {
                $sheet->widths[$this->row][$at] = strlen($shown);
            }
        }
    }

    /** How often an element stands; one that repeats beyond a sheet would fill the memory. */
    private function times(XMLReader $xml, string $of, int $most): int
    {
        $times = (string) $xml->getAttribute("table:number-$of-repeated");
        if ($times !== '' && (strlen($times) > 9 || (int) $times > $most)) {
            throw new UnreadableList(
                'A cell of the workbook is repeated more often than a spreadsheet can hold. ' . ListFile::SAVE_AS,
            );
        }

        return max(1, (int) $times);
    }

    private function isHidden(XMLReader $xml): bool
    {
        return in_array($xml->getAttribute('table:visibility'), ['collapse', 'filter'], true);
    }
}
