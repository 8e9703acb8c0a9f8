<?php

declare(strict_types=1);

namespace App\Intake;

use DateTimeInterface;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\XLSX\Reader;
use Throwable;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\UnreadableList;
use XMLReader;
use ZipArchive;

/** Reads an uploaded file as a grid of cells. Goes by what is in the file, not by its name. */
final class SheetFile
{
    private const SAVE_AS = 'Open it in your spreadsheet, save it as .xlsx or .csv, and drop that in.';

    /** Content of a packed file over this many times its size is no list but an attack. */
    private const MAX_RATIO = 150;

    /** @throws UnreadableList with a sentence that says what to do */
    public static function read(string $path): Grid
    {
        $size = (int) @filesize($path);
        if ($size === 0) {
            throw new UnreadableList('The file is empty. Save the list again from your spreadsheet and drop it in.');
        }
        $head = (string) file_get_contents($path, false, null, 0, 8);

        return match (true) {
            str_starts_with($head, "PK\x03\x04") => self::workbook($path, $size),
            str_starts_with($head, 'PK') => throw new UnreadableList('The workbook is empty or damaged. '.self::SAVE_AS),
            str_starts_with($head, "\xD0\xCF\x11\xE0") => throw new UnreadableList(self::hasPassword($path)
                ? 'The workbook has a password. Open it in your spreadsheet, take the password off (File, Info or Save as, Tools), save it and drop it in again.'
                : 'This is a workbook in the old .xls format. '.self::SAVE_AS),
            str_starts_with($head, '%PDF') => throw new UnreadableList('This is a PDF. Ask whoever made it for the list as a spreadsheet (.xlsx or .csv), and drop that in.'),
            str_starts_with($head, "\x89PNG") || str_starts_with($head, "\xFF\xD8\xFF") || str_starts_with($head, 'GIF8') => throw new UnreadableList('This is a picture, whatever its name says. Drop in the list itself, as .xlsx or .csv.'),
            default => DelimitedText::grid((string) file_get_contents($path)),
        };
    }

    private static function workbook(string $path, int $size): Grid
    {
        $formulas = self::inspect($path, $size);
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->setShouldFormatDates(false);
        $reader->setShouldPreserveEmptyRows(true);
        try {
            $reader->open($path);

            return Grid::of(self::lines($reader, $formulas));
        } catch (UnreadableList $e) {
            throw $e;
        } catch (Throwable $e) {
            throw new UnreadableList('The workbook is damaged and cannot be read to its end. '.self::SAVE_AS, 0, $e);
        } finally {
            $reader->close();
        }
    }

    /**
     * @param  array<int, array<int, true>>  $formulas
     * @return iterable<Line>
     */
    private static function lines(Reader $reader, array $formulas): iterable
    {
        foreach ($reader->getSheetIterator() as $sheet) {
            foreach ($sheet->getRowIterator() as $number => $row) {
                $cells = $row->toArray();
                if (count($cells) > 16_384) {
                    throw new UnreadableList('A row of the workbook has more cells than a spreadsheet can hold. '.self::SAVE_AS);
                }
                $flaws = [];
                foreach (array_keys($formulas[$number] ?? []) as $at) {
                    $flaws[$at] = 'This cell holds a formula, and its value may be out of date. Copy the column and paste it back as values, save, and drop the list in again.';
                }
                yield new Line($number, array_map(self::text(...), $cells), $flaws);
            }

            return;
        }
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            $value instanceof DateTimeInterface => $value->format('Y-m-d'),
            is_bool($value) => $value ? 'TRUE' : 'FALSE',
            is_float($value) => $value === floor($value) && abs($value) < 1e15 ? sprintf('%.0f', $value) : (string) $value,
            is_scalar($value) => (string) $value,
            default => '',
        };
    }

    /**
     * Refuses packed bombs before anything is unpacked, and finds which cells of the first sheet hold formulas.
     *
     * @return array<int, array<int, true>> row number to places of cells
     */
    private static function inspect(string $path, int $size): array
    {
        $zip = new ZipArchive;
        if ($zip->open($path, ZipArchive::RDONLY) !== true) {
            throw new UnreadableList('The workbook is cut off or damaged. Download or copy it again, or: '.lcfirst(self::SAVE_AS));
        }
        try {
            $unpacked = 0;
            for ($i = 0; $i < $zip->numFiles; $i++) {
                $unpacked += (int) ($zip->statIndex($i)['size'] ?? 0);
            }
            if ($zip->numFiles > 2000 || $unpacked > (int) config('vantrel.unpacked_bytes') || $unpacked > max(1_000_000, $size * self::MAX_RATIO)) {
                throw new UnreadableList('The workbook unpacks to far more than a list needs. Copy the rows of the list into a new workbook, save that and drop it in.');
            }
            if ($zip->locateName('xl/workbook.xml') === false) {
                throw new UnreadableList($zip->locateName('content.xml') !== false
                    ? 'This is an OpenDocument file. '.self::SAVE_AS
                    : 'This is a packed folder, not a workbook. Unpack it and drop in the list itself, as .xlsx or .csv.');
            }
            $sheet = self::firstSheet($zip);
            foreach (['xl/workbook.xml', 'xl/sharedStrings.xml', 'xl/styles.xml', $sheet] as $part) {
                self::mustBeWhole($zip, $part);
            }
        } finally {
            $zip->close();
        }

        return self::formulas($path, $sheet);
    }

    /** A part that was cut or overwritten would be read as a shorter list: rows would be missing without a word. */
    private static function mustBeWhole(ZipArchive $zip, string $part): void
    {
        $stat = $zip->statName($part);
        if ($stat === false) {
            return;
        }
        $stream = $zip->getStream($part);
        $sum = hash_init('crc32b');
        $length = 0;
        while (is_resource($stream) && ! feof($stream)) {
            $chunk = @fread($stream, 1 << 16);
            if ($chunk === false || $chunk === '') {
                break;
            }
            hash_update($sum, $chunk);
            $length += strlen($chunk);
        }
        if ($length !== $stat['size'] || hexdec(hash_final($sum)) !== $stat['crc']) {
            throw new UnreadableList('The workbook is damaged: a part of it does not match its own checksum. Download or copy it again, or: '.lcfirst(self::SAVE_AS));
        }
    }

    private static function firstSheet(ZipArchive $zip): string
    {
        foreach ([1, 2, 3] as $n) {
            if ($zip->locateName("xl/worksheets/sheet$n.xml") !== false) {
                return "xl/worksheets/sheet$n.xml";
            }
        }
        throw new UnreadableList('The workbook has no sheet that can be read. '.self::SAVE_AS);
    }

    /** @return array<int, array<int, true>> */
    private static function formulas(string $path, string $sheet): array
    {
        $formulas = [];
        $xml = new XMLReader;
        // No entity is ever loaded: LIBXML_NOENT stays off, and a document type ends the reading.
        if (@$xml->open("zip://$path#$sheet", null, LIBXML_NONET | LIBXML_COMPACT) === false) {
            return [];
        }
        $row = $column = 0;
        $previous = libxml_use_internal_errors(true);
        try {
            while (@$xml->read()) {
                if ($xml->nodeType === XMLReader::DOC_TYPE) {
                    throw new UnreadableList('The workbook holds a document type declaration, which no spreadsheet writes. '.self::SAVE_AS);
                }
                if ($xml->nodeType !== XMLReader::ELEMENT) {
                    continue;
                }
                if ($xml->localName === 'row') {
                    $row = (int) ($xml->getAttribute('r') ?: $row + 1);
                    $column = -1;
                } elseif ($xml->localName === 'c') {
                    $column = self::column((string) $xml->getAttribute('r')) ?? $column + 1;
                } elseif ($xml->localName === 'f') {
                    $formulas[$row][$column] = true;
                }
            }
            foreach (libxml_get_errors() as $error) {
                if ($error->level === LIBXML_ERR_FATAL) {
                    throw new UnreadableList("The workbook is damaged near row $row and cannot be read to its end. ".self::SAVE_AS);
                }
            }
        } finally {
            $xml->close();
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }

        return $formulas;
    }

    /** "AB12" to 27; null without letters. */
    private static function column(string $reference): ?int
    {
        $n = 0;
        $i = 0;
        while ($i < strlen($reference) && ctype_upper($reference[$i])) {
            $n = $n * 26 + ord($reference[$i++]) - 64;
        }

        return $n === 0 ? null : $n - 1;
    }

    private static function hasPassword(string $path): bool
    {
        // Agile and standard encryption (ECMA-376 Part 2, [MS-OFFCRYPTO]) keep the package in a stream of this name, in UTF-16.
        return str_contains((string) file_get_contents($path), mb_convert_encoding('EncryptedPackage', 'UTF-16LE', 'UTF-8'));
    }
}
