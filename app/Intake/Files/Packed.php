<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\OneRoster;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\UnreadableList;
use ZipArchive;

/**
 * Packed files: workbooks, documents and OneRoster exports. Refuses what unpacks to far more than a list before it is
 * unpacked.
 */
final class Packed
{
    /** Content of a packed file over this many times its size is no list but an attack. */
    private const MAX_RATIO = 150;

    private const MAX_PARTS = 2000;

    /** What a sheet says of its cells besides their values, see {@see SheetMarks}. */
    private const MARKED = '/<(\w{1,8}:)?(?:f[\s>\/]|mergeCell\s)|\shidden="(?:1|true)"|<!/';

    /**
     * @return non-empty-list<Sheet>
     *
     * @throws UnreadableList
     */
    public static function sheets(string $path, int $size, string $schoolName, string $schoolCode): array
    {
        $zip = new ZipArchive();
        if ($zip->open($path, ZipArchive::RDONLY) !== true) {
            throw new UnreadableList(
                'The workbook is cut off or damaged. Download or copy it again, or: ' . lcfirst(ListFile::SAVE_AS),
            );
        }
        try {
            $tables = self::named($zip, $size);
            foreach (
                ['xl/workbook.xml' => 'xlsx', 'word/document.xml' => 'docx', 'content.xml' => 'ods']
                as $part => $kind
            ) {
                if ($zip->locateName($part) !== false) {
                    return match ($kind) {
                        'xlsx' => Workbook::xlsx($path, $zip),
                        'ods' => Workbook::ods($path, $zip),
                        'docx' => WordDocument::sheets($path, $zip),
                    };
                }
            }
            if (isset($tables['users']) || isset($tables['manifest'])) {
                return self::oneRoster($zip, $tables, $schoolName, $schoolCode);
            }
            throw new UnreadableList(
                'This is a packed folder, not a workbook. Unpack it and drop in the list itself, as .xlsx or .csv.',
            );
        } finally {
            $zip->close();
        }
    }

    /**
     * Tables of a packed folder, by name in small letters without ending.
     *
     * @param  list<string>  $wanted
     * @return array<string, iterable<Line>>
     *
     * @throws UnreadableList where it is none, or unpacks to more than a list needs
     */
    public static function tables(string $path, int $size, array $wanted): array
    {
        $zip = new ZipArchive();
        if ($zip->open($path, ZipArchive::RDONLY) !== true) {
            throw new UnreadableList('The zip is cut off or damaged. Download or copy it again.');
        }
        try {
            return self::read($zip, self::named($zip, $size), $wanted);
        } finally {
            $zip->close();
        }
    }

    /** @return array<string, string> name of a table, in small letters and without `.csv`, to its name in the zip */
    private static function named(ZipArchive $zip, int $size): array
    {
        $unpacked = 0;
        $tables = [];
        for ($i = 0; $i < min($zip->numFiles, self::MAX_PARTS + 1); $i++) {
            $stat = $zip->statIndex($i);
            $unpacked += (int) ($stat['size'] ?? 0);
            $name = strtolower(basename((string) ($stat['name'] ?? '')));
            if (str_ends_with($name, '.csv') && !str_starts_with($name, '.')) {
                $tables[substr($name, 0, -4)] = (string) ($stat['name'] ?? '');
            }
        }
        if (
            $zip->numFiles > self::MAX_PARTS ||
            $unpacked > (int) config('vantrel.unpacked_bytes') ||
            $unpacked > max(1_000_000, $size * self::MAX_RATIO)
        ) {
            throw new UnreadableList(
                'The workbook unpacks to far more than a list needs. Copy the rows of the list into a ' .
                    'new workbook, save that and drop it in.',
            );
        }

        return $tables;
    }

    /**
     * @param  array<string, string>  $tables
     * @param  list<string>  $wanted
     * @return array<string, iterable<Line>>
     */
    private static function read(ZipArchive $zip, array $tables, array $wanted): array
    {
        $files = [];
        foreach ($wanted as $table) {
            if (isset($tables[$table])) {
                self::mustBeWhole($zip, $tables[$table]);
                $files[$table] = DelimitedText::lines(
                    Lettering::read((string) $zip->getFromName($tables[$table]))->text,
                    ',',
                );
            }
        }

        return $files;
    }

    /**
     * A part that was cut or overwritten would be read as a shorter list: rows would be missing without a word.
     *
     * @return bool whether it holds nothing but cells: no formula, no declaration, and its last element is closed
     */
    public static function mustBeWhole(ZipArchive $zip, string $part): bool
    {
        $stat = $zip->statName($part);
        if ($stat === false) {
            return false;
        }
        $stream = $zip->getStream($part);
        $sum = hash_init('crc32b');
        $length = 0;
        $plain = true;
        $tail = '';
        while (is_resource($stream) && !feof($stream)) {
            $chunk = @fread($stream, 1 << 16);
            if ($chunk === false || $chunk === '') {
                break;
            }
            hash_update($sum, $chunk);
            $length += strlen($chunk);
            // What marks a cell may be cut in two by the end of a chunk.
            $plain = $plain && preg_match(self::MARKED, $tail . $chunk) !== 1;
            $tail = substr($tail . $chunk, -40);
        }
        if ($length !== $stat['size'] || hexdec(hash_final($sum)) !== $stat['crc']) {
            throw new UnreadableList(
                'The workbook is damaged: a part of it does not match its own checksum. Download or copy it ' .
                    'again, or: ' .
                    lcfirst(ListFile::SAVE_AS),
            );
        }

        return $plain && preg_match('/<\/(\w+:)?worksheet>\s*$/', $tail) === 1;
    }

    /**
     * @param  array<string, string>  $tables table to its name in the zip
     * @return non-empty-list<Sheet>
     */
    private static function oneRoster(ZipArchive $zip, array $tables, string $schoolName, string $schoolCode): array
    {
        $wanted = ['orgs', 'classes', 'courses', 'users', 'roles', 'enrollments', 'demographics'];
        $files = self::read($zip, $tables, $wanted);
        $sheets = OneRoster::sheets($files, $schoolName, $schoolCode);

        return $sheets === [] ? throw new UnreadableList('The OneRoster export holds nobody.') : $sheets;
    }
}
