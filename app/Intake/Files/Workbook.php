<?php

declare(strict_types=1);

namespace App\Intake\Files;

use DateTimeInterface;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ODS\Reader as OdsReader;
use OpenSpout\Reader\XLSX\Reader as XlsxReader;
use Throwable;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;
use XMLReader;
use ZipArchive;

/** Workbooks: Office Open XML (ECMA-376) and OpenDocument (ISO/IEC 26300), every sheet that is shown. */
final class Workbook
{
    private const MAX_SHEETS = 60;

    /**
     * After so many blank rows nothing more is expected: workbooks that were formatted to the last row have a million.
     */
    private const BLANK_ROWS = 5000;

    /**
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function xlsx(string $path, ZipArchive $zip): array
    {
        $parts = self::sheetParts($zip);
        foreach (['xl/workbook.xml', 'xl/sharedStrings.xml', 'xl/styles.xml'] as $part) {
            Packed::mustBeWhole($zip, $part);
        }
        $formats = CellFormats::of($zip);
        // Looked through for marks cell by cell only where there are any.
        $marks = array_map(
            fn(string $part): ?SheetMarks => Packed::mustBeWhole($zip, $part) && !$formats->areAny()
                ? null
                : SheetMarks::of($path, $part, $formats),
            array_slice($parts, 0, self::MAX_SHEETS, true),
        );
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->setShouldFormatDates(false);
        $reader->setShouldPreserveEmptyRows(true);

        return self::read($reader, $path, $marks);
    }

    /**
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function ods(string $path, ZipArchive $zip): array
    {
        Packed::mustBeWhole($zip, 'content.xml');
        $marks = OpenDocumentMarks::of($path);
        $reader = ReaderEntityFactory::createODSReader();
        $reader->setShouldFormatDates(false);
        $reader->setShouldPreserveEmptyRows(true);

        return self::read($reader, $path, $marks);
    }

    /**
     * @param  array<string, SheetMarks|null>  $marks by the sheet's name
     * @return non-empty-list<Sheet>
     */
    private static function read(XlsxReader|OdsReader $reader, string $path, array $marks): array
    {
        $sheets = $hidden = [];
        $reason = null;
        try {
            $reader->open($path);
            foreach ($reader->getSheetIterator() as $sheet) {
                if ($sheet === null || !$sheet->isVisible()) {
                    $hidden[] = (string) $sheet?->getName();

                    continue;
                }
                if (count($sheets) === self::MAX_SHEETS) {
                    throw new UnreadableList(
                        'The workbook has more than ' .
                            self::MAX_SHEETS .
                            ' sheets. Split it, and drop the parts in one after the other.',
                    );
                }
                try {
                    $own = $marks[$sheet->getName()] ?? null;
                    $sheets[] = new Sheet(
                        $sheet->getName(),
                        Grid::of(self::lines($sheet->getRowIterator(), $own)),
                        notes: self::hiddenColumns($own),
                    );
                } catch (UnreadableList $e) {
                    // An empty sheet beside a full one is no matter; too much in any of them is.
                    if (!str_contains($e->getMessage(), 'nothing in this list')) {
                        throw $e;
                    }
                    $reason = $e;
                }
            }
        } catch (UnreadableList $e) {
            throw $e;
        } catch (Throwable $e) {
            throw new UnreadableList(
                'The workbook is damaged and cannot be read to its end. ' . ListFile::SAVE_AS,
                0,
                $e,
            );
        } finally {
            $reader->close();
        }
        if ($sheets === []) {
            throw $reason ?? new UnreadableList('The workbook has no sheet that can be read. ' . ListFile::SAVE_AS);
        }

        $notes =
            $hidden === []
                ? []
                : [
                    (count($hidden) === 1
                        ? "The sheet $hidden[0] is"
                        : 'The sheets ' . implode(', ', $hidden) . ' are') . ' hidden in the file, and left out.',
                ];

        // A single sheet needs no name to be told apart by.
        return array_map(
            fn(Sheet $s, int $i): Sheet => new Sheet(
                count($sheets) === 1 ? '' : $s->name,
                $s->grid,
                $s->file,
                $s->check,
                $i === 0 ? [...$s->notes, ...$notes] : $s->notes,
            ),
            $sheets,
            array_keys($sheets),
        );
    }

    /**
     * @param  iterable<int, \OpenSpout\Common\Entity\Row>  $rows
     * @return iterable<Line>
     */
    private static function lines(iterable $rows, ?SheetMarks $marks): iterable
    {
        $blank = 0;
        $above = [];
        $down = [];
        foreach ($marks->down ?? [] as [$column, $first, $last]) {
            for ($row = $first + 1; $row <= $last; $row++) {
                $down[$row][] = $column;
            }
        }
        foreach ($rows as $number => $row) {
            $cells = $row->toArray();
            if (count($cells) > 16_384) {
                throw new UnreadableList(
                    'A row of the workbook has more cells than a spreadsheet can hold. ' . ListFile::SAVE_AS,
                );
            }
            $flaws = [];
            foreach (array_keys($marks->formulas[$number] ?? []) as $at) {
                $flaws[$at] =
                    'This cell holds a formula, and its value may be out of date. Copy the column and paste ' .
                    'it back as values, save, and drop the list in again.';
            }
            $texts = array_values(array_map(self::text(...), $cells));
            // What is stored as 20417 and shown as 020417 is what people read.
            foreach ($marks->widths[$number] ?? [] as $at => $width) {
                if (ctype_digit($texts[$at] ?? '')) {
                    $texts[$at] = str_pad($texts[$at], $width, '0', STR_PAD_LEFT);
                }
            }
            // A cell merged down says the same of every row it reaches.
            foreach ($down[$number] ?? [] as $at) {
                $texts =
                    trim($texts[$at] ?? '') === ''
                        ? array_replace(array_pad($texts, $at + 1, ''), [$at => $above[$at] ?? ''])
                        : $texts;
            }
            $above = $texts;
            $line = new Line(
                $number,
                array_values($texts),
                $flaws,
                isset($marks->hiddenRows[$number]),
                isset($marks->struckRows[$number]),
            );
            $blank = $line->isBlank() ? $blank + 1 : 0;
            if ($blank > self::BLANK_ROWS) {
                return;
            }
            yield $line;
        }
    }

    /** @return list<string> */
    private static function hiddenColumns(?SheetMarks $marks): array
    {
        $letters = array_map(self::letters(...), array_keys(array_slice($marks->hiddenColumns ?? [], 0, 30, true)));

        return $letters === []
            ? []
            : [
                (count($letters) === 1 ? "Column $letters[0] is" : 'Columns ' . implode(', ', $letters) . ' are') .
                ' hidden in the file, and read all the same.',
            ];
    }

    /** 27 to "AB". */
    private static function letters(int $column): string
    {
        return ($column >= 26 ? self::letters(intdiv($column, 26) - 1) : '') . chr(65 + ($column % 26));
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            $value instanceof DateTimeInterface => $value->format('Y-m-d'),
            is_bool($value) => $value ? 'TRUE' : 'FALSE',
            is_float($value) => $value === floor($value) && abs($value) < 1e15
                ? sprintf('%.0f', $value)
                : (string) $value,
            is_scalar($value) => (string) $value,
            default => '',
        };
    }

    /**
     * Where each sheet is kept.
     *
     * @return array<string, string> sheet's name to its part in the zip
     */
    private static function sheetParts(ZipArchive $zip): array
    {
        $targets = [];
        foreach (
            self::elements((string) $zip->getFromName('xl/_rels/workbook.xml.rels', 1_000_000), 'Relationship')
            as $element
        ) {
            $target = ltrim($element['Target'] ?? '', '/');
            $targets[$element['Id'] ?? ''] = str_starts_with($target, 'xl/') ? $target : "xl/$target";
        }
        $parts = [];
        foreach (self::elements((string) $zip->getFromName('xl/workbook.xml', 1_000_000), 'sheet') as $element) {
            // Without a table of relations the sheets are numbered in their order.
            $parts[$element['name'] ?? ''] =
                $targets[$element['r:id'] ?? ''] ?? 'xl/worksheets/sheet' . (count($parts) + 1) . '.xml';
        }

        return $parts;
    }

    /** @return list<array<string, string>> attributes of every element of the name */
    private static function elements(string $xml, string $name): array
    {
        $found = [];
        $reader = new XMLReader();
        $previous = libxml_use_internal_errors(true);
        try {
            if ($xml === '' || $reader->XML($xml, null, LIBXML_NONET | LIBXML_COMPACT) === false) {
                return [];
            }
            while (@$reader->read()) {
                self::refuseDocumentType($reader);
                if ($reader->nodeType === XMLReader::ELEMENT && $reader->localName === $name) {
                    $attributes = [];
                    while ($reader->moveToNextAttribute()) {
                        $attributes[$reader->name] = $reader->value;
                    }
                    $found[] = $attributes;
                }
            }
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }

        return $found;
    }

    /** No entity is ever loaded: LIBXML_NOENT stays off, and a document type ends the reading. */
    public static function refuseDocumentType(XMLReader $xml): void
    {
        if ($xml->nodeType === XMLReader::DOC_TYPE) {
            throw new UnreadableList(
                'The workbook holds a document type declaration, which no spreadsheet writes. ' . ListFile::SAVE_AS,
            );
        }
    }

    /** "AB12" to 27; null without letters. */
    public static function column(string $reference): ?int
    {
        $n = 0;
        $i = 0;
        while ($i < strlen($reference) && ctype_upper($reference[$i])) {
            $n = $n * 26 + ord($reference[$i++]) - 64;
        }

        return $n === 0 ? null : $n - 1;
    }
}
