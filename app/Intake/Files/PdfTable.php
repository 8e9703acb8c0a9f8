<?php

declare(strict_types=1);

namespace App\Intake\Files;

use Smalot\PdfParser\Parser;

/** Rows and columns of a PDF's text, from where each piece of it stands on the page. */
final class PdfTable
{
    /** Pieces of text whose base lines differ by no more than this, in points, stand in one row. */
    private const LINE = 3.0;

    /** Columns begin where several rows begin a piece, to this many points. */
    private const COLUMN = 6.0;

    private const MAX_PAGES = 200;

    /** @return array<int, list<string>> */
    public static function rows(string $path): array
    {
        $rows = [];
        foreach (array_slice((new Parser())->parseFile($path)->getPages(), 0, self::MAX_PAGES) as $page) {
            $pieces = [];
            foreach ($page->getDataTm() as $piece) {
                $text = trim((string) $piece[1]);
                if ($text !== '') {
                    $pieces[] = [(float) $piece[0][5], (float) $piece[0][4], $text];
                }
            }
            // From the top of the page down, from left to right.
            usort(
                $pieces,
                fn(array $a, array $b): int => abs($a[0] - $b[0]) > self::LINE ? $b[0] <=> $a[0] : $a[1] <=> $b[1],
            );
            $lines = [];
            $y = null;
            foreach ($pieces as [$at, $x, $text]) {
                if ($y === null || abs($at - $y) > self::LINE) {
                    $lines[] = [];
                    $y = $at;
                }
                $lines[count($lines) - 1][] = [$x, $text];
            }
            $lines = array_values(
                array_filter(
                    $lines,
                    fn(array $line): bool => preg_match(
                        '/^(page|seite|página|pagina)?\s*\d+(\s*(of|\/|von|de|sur)\s*\d+)?$/iu',
                        implode(' ', array_column($line, 1)),
                    ) !== 1,
                ),
            );
            array_push($rows, ...self::cells($lines));
        }

        return $rows === [] ? [] : array_combine(range(1, count($rows)), $rows);
    }

    /**
     * @param  list<list<array{float, string}>>  $lines
     * @return list<list<string>>
     */
    private static function cells(array $lines): array
    {
        $starts = [];
        foreach ($lines as $line) {
            foreach ($line as [$x]) {
                $starts[] = $x;
            }
        }
        sort($starts);
        $columns = [];
        foreach ($starts as $x) {
            $last = count($columns) - 1;
            if ($last >= 0 && $x - $columns[$last][0] <= self::COLUMN) {
                $columns[$last][1]++;
            } else {
                $columns[] = [$x, 1];
            }
        }
        // A column is where a fair share of the rows begins something; a word that begins elsewhere belongs to the one
        // before it.
        $share = max(2, (int) ceil(count($lines) * 0.25));
        $columns = array_values(array_filter($columns, fn(array $c): bool => $c[1] >= $share));
        if ($columns === []) {
            $columns = [[0.0, 1]];
        }
        $rows = [];
        foreach ($lines as $line) {
            $cells = array_fill(0, count($columns), '');
            foreach ($line as [$x, $text]) {
                // A heading may be centred over its column: the nearest beginning counts, from either side.
                $at = 0;
                foreach ($columns as $c => [$start]) {
                    $at = abs($x - $start) < abs($x - $columns[$at][0]) ? $c : $at;
                }
                $cells[$at] = trim("$cells[$at] $text");
            }
            $rows[] = array_values($cells);
        }

        return $rows;
    }
}
