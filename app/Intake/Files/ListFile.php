<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;

/** Reads an uploaded file as sheets of cells. Goes by what is in the file, not by its name. */
final class ListFile
{
    public const SAVE_AS = 'Open it in your spreadsheet, save it as .xlsx or .csv, and drop that in.';

    /**
     * @param  string  $title the file's name as it was given, for telling sheets of several files apart
     * @param  string  $schoolName and its code, for exports that hold several schools
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList with a sentence that says what to do
     */
    public static function sheets(
        string $path,
        string $title = '',
        string $schoolName = '',
        string $schoolCode = '',
    ): array {
        $size = (int) @filesize($path);
        if ($size === 0) {
            throw new UnreadableList('The file is empty. Save the list again from your spreadsheet and drop it in.');
        }
        $head = (string) file_get_contents($path, false, null, 0, 4096);
        $text = ltrim($head, "\xEF\xBB\xBF \t\r\n");
        $sheets = match (true) {
            str_starts_with($head, "PK\x03\x04") => Packed::sheets($path, $size, $schoolName, $schoolCode),
            str_starts_with($head, 'PK') => throw new UnreadableList(
                'The workbook is empty or damaged. ' . self::SAVE_AS,
            ),
            str_starts_with($head, "\xD0\xCF\x11\xE0") => self::compound($path),
            str_starts_with($head, '%PDF') => Aside::read($path, 'pdf'),
            str_starts_with($head, "\x89PNG") ||
                str_starts_with($head, "\xFF\xD8\xFF") ||
                str_starts_with($head, 'GIF8')
                => throw new UnreadableList(
                'This is a picture, whatever its name says. Drop in the list itself, as .xlsx or .csv.',
            ),
            str_starts_with($text, '<?xml') && str_contains($head, 'urn:schemas-microsoft-com:office:spreadsheet')
                => Aside::read($path, 'xml'),
            str_starts_with($text, '<') &&
                stripos((string) file_get_contents($path, false, null, 0, 200_000), '<table') !== false
                => HtmlTables::sheets((string) file_get_contents($path)),
            str_starts_with($head, '{\\rtf') => throw new UnreadableList(
                'This is a text document (.rtf). Open it, copy the table, and paste it here.',
            ),
            default => [self::text((string) file_get_contents($path))],
        };
        $file = (string) preg_replace('/\.[A-Za-z0-9]{1,5}$/', '', $title);

        return array_map(fn(Sheet $s): Sheet => new Sheet($s->name, $s->grid, $file, $s->check, $s->notes), $sheets);
    }

    private static function text(string $bytes): Sheet
    {
        $read = Lettering::read($bytes);

        return new Sheet('', DelimitedText::grid($read->text), notes: array_filter([$read->note()]));
    }

    /** @return non-empty-list<Sheet> */
    private static function compound(string $path): array
    {
        $bytes = (string) file_get_contents($path);
        $named = fn(string $name): bool => str_contains(
            $bytes,
            (string) mb_convert_encoding($name, 'UTF-16LE', 'UTF-8'),
        );
        // Agile and standard encryption (ECMA-376 Part 2, [MS-OFFCRYPTO]) keep the package in a stream of this name, in
        // UTF-16.
        if ($named('EncryptedPackage')) {
            throw new UnreadableList(
                'The workbook has a password. Open it in your spreadsheet, take the password off (File, Info ' .
                    'or Save as, Tools), save it and drop it in again.',
            );
        }
        if ($named('WordDocument')) {
            throw new UnreadableList(
                'This is a text document in the old .doc format. Save it as .docx and drop that in, or copy ' .
                    'the table and paste it here.',
            );
        }

        return Aside::read($path, 'xls');
    }
}
