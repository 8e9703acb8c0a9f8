<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Vantrel\Core\Table\UnreadableList;
use XMLReader;

/**
 * What a sheet says of its cells besides their values: formulas, hidden rows and columns, what is struck out, cells
 * merged down over several rows, and zeros that a format shows; of an Office Open XML workbook (ECMA-376 Part 1, 18.3)
 * here, of an OpenDocument one in {@see OpenDocumentMarks}.
 */
final class SheetMarks
{
    /** More rows than this are not hidden by hand: a sheet's default hides all that are empty. */
    private const MOST = 60_000;

    /** @var array<int, array<int, true>> row to places of cells that hold formulas */
    public array $formulas = [];

    /** @var array<int, true> */
    public array $hiddenRows = [];

    /** @var array<int, true> places of columns */
    public array $hiddenColumns = [];

    /** @var array<int, bool> rows in which every cell that holds something is struck out */
    public array $struckRows = [];

    /** @var array<int, array<int, int>> row to column to how many digits its number is shown with, zeros before it */
    public array $widths = [];

    /** @var list<array{int, int, int}> column, first and last row of cells merged down */
    public array $down = [];

    /**
     * @throws UnreadableList where the sheet is damaged
     */
    public static function of(string $path, string $sheet, CellFormats $formats): self
    {
        $marks = new self();
        $xml = new XMLReader();
        if (@$xml->open("zip://$path#$sheet", null, LIBXML_NONET | LIBXML_COMPACT) === false) {
            return $marks;
        }
        $previous = libxml_use_internal_errors(true);
        try {
            $marks->read($xml, $formats);
        } finally {
            $xml->close();
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }

        return $marks;
    }

    private function read(XMLReader $xml, CellFormats $formats): void
    {
        $row = $column = 0;
        $isStruck = $holds = false;
        while (@$xml->read()) {
            Workbook::refuseDocumentType($xml);
            if ($xml->nodeType !== XMLReader::ELEMENT) {
                continue;
            }
            switch ($xml->localName) {
                case 'row':
                    $row = (int) ($xml->getAttribute('r') ?: $row + 1);
                    $column = -1;
                    if ($this->isSet($xml->getAttribute('hidden')) && count($this->hiddenRows) < self::MOST) {
                        $this->hiddenRows[$row] = true;
                    }
                    break;
                case 'c':
                    $column = Workbook::column((string) $xml->getAttribute('r')) ?? $column + 1;
                    $format = (int) $xml->getAttribute('s');
                    $isStruck = isset($formats->struck[$format]);
                    if (isset($formats->widths[$format])) {
                        $this->widths[$row][$column] = $formats->widths[$format];
                    }
                    $holds = true;
                    break;
                case 'f':
                    $this->formulas[$row][$column] = true;
                    break;
                case 'v':
                case 'is':
                    // A struck row is one whose every value is: the first that is not takes the mark off.
                    if ($holds) {
                        $isStruck ? ($this->struckRows[$row] ??= true) : ($this->struckRows[$row] = false);
                        $holds = false;
                    }
                    break;
                case 'col':
                    if ($this->isSet($xml->getAttribute('hidden'))) {
                        $to = min((int) $xml->getAttribute('max'), 16_384);
                        for ($c = max(1, (int) $xml->getAttribute('min')); $c <= $to; $c++) {
                            $this->hiddenColumns[$c - 1] = true;
                        }
                    }
                    break;
                case 'mergeCell':
                    $this->merged((string) $xml->getAttribute('ref'));
                    break;
                default:
            }
        }
        $this->struckRows = array_filter($this->struckRows);
        foreach (libxml_get_errors() as $error) {
            if ($error->level === LIBXML_ERR_FATAL) {
                throw new UnreadableList(
                    "The workbook is damaged near row $row and cannot be read to its end. " . ListFile::SAVE_AS,
                );
            }
        }
    }

    private function merged(string $reference): void
    {
        if (preg_match('/^([A-Z]{1,3})(\d+):([A-Z]{1,3})(\d+)$/', $reference, $m) === 1 && (int) $m[4] > (int) $m[2]) {
            $this->down[] = [(int) Workbook::column($m[1]), (int) $m[2], min((int) $m[4], (int) $m[2] + 5000)];
        }
    }

    private function isSet(?string $flag): bool
    {
        return in_array($flag, ['1', 'true'], true);
    }
}
