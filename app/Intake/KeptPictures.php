<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Views\SheetName;
use App\Intake\Views\SheetPage;
use App\Models\Intake;
use RuntimeException;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\SheetPicture;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Table\Shape;

/**
 * The sheets of a list with what was made of each cell, written when the list is planned and kept beside its first
 * file, a line for each row: reading a large list anew for every page of it would take seconds.
 */
final class KeptPictures
{
    private const PAGE = 200;

    /** Writes the pictures of a round; those of earlier rounds go. */
    public static function keep(Intake $intake, int $round, BookReader $book): void
    {
        $path = self::path($intake);
        $names = self::names($book);
        foreach (array_keys($book->shapes) as $source) {
            $to = ListFiles::picture($path, $round, $source);
            $part = "$to." . getmypid();
            $file = gzopen($part, 'wb3') ?: throw new RuntimeException("Cannot write $part.");
            chmod($part, 0600);
            gzwrite($file, json_encode($names, JSON_THROW_ON_ERROR) . "\n");
            foreach (SheetPicture::rows($book, $source) as $row) {
                gzwrite(
                    $file,
                    json_encode($row, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE) .
                        "\n",
                );
            }
            gzclose($file);
            rename($part, $to);
        }
        foreach (glob("$path.picture-*") ?: [] as $old) {
            if (preg_match('/\.picture-(\d+)-\d+$/', $old, $m) === 1 && (int) $m[1] < $round) {
                @unlink($old);
            }
        }
    }

    /**
     * @param  int  $after rows that are passed over
     *
     * @throws Refusal where no picture is kept
     */
    public static function page(Intake $intake, int $source, int $after): SheetPage
    {
        $path = self::path($intake);
        $found = glob("$path.picture-*-$source") ?: [];
        // While a later round is worked out, the earlier one is what can be seen.
        natsort($found);
        $file = $found === [] ? false : @gzopen(array_values($found)[count($found) - 1], 'rb');
        if ($file === false) {
            throw new Refusal('The sheet is not kept any more, or not read yet.');
        }
        $names = json_decode((string) gzgets($file), true, 8, JSON_THROW_ON_ERROR);
        for ($i = 0; $i < $after && gzgets($file) !== false; $i++);
        $rows = [];
        while (count($rows) < self::PAGE && ($line = gzgets($file)) !== false) {
            $rows[] = json_decode($line, false, 8, JSON_THROW_ON_ERROR);
        }
        $more = !gzeof($file);
        gzclose($file);

        return new SheetPage(
            array_map(fn(array $n): SheetName => new SheetName($n[0], $n[1], $n[2]), array_values($names)),
            $rows,
            $more ? $after + count($rows) : null,
        );
    }

    /** @return list<array{string, int, int}> label, rows and columns of each sheet */
    private static function names(BookReader $book): array
    {
        $sheets = array_map(fn(Shape $s) => $s->sheet, $book->shapes);

        return array_map(
            fn(int $i): array => [
                BookReader::label($sheets, $i),
                count($book->shapes[$i]->lines),
                max([1, ...array_map(fn($l): int => count($l->cells), $book->shapes[$i]->lines)]),
            ],
            array_keys($sheets),
        );
    }

    private static function path(Intake $intake): string
    {
        return ListFiles::path($intake->files[0]['file'] ?? '');
    }
}
