<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Reads comma, semicolon, tab and bar separated text (RFC 4180 quoting). */
final class DelimitedText
{
    private const SAMPLE = 100;

    /** Bytes of one record: a row of many notes is a hundredth of it. Looking for cells in more takes seconds. */
    private const LONGEST = 500_000;

    /** Lines of a text: six for every row there may be. More are no list, and take long to be passed over. */
    private const MOST_LINES = 6 * Grid::MAX_ROWS;

    /** A character that no list holds, for text whose lines are not divided. */
    private const NONE = "\x1F";

    /** @throws UnreadableList */
    public static function grid(string $text): Grid
    {
        if (trim($text) === '') {
            throw new UnreadableList('The file is empty. Save the list again from your spreadsheet and drop it in.');
        }
        if (preg_match('/[\x00-\x08\x0E-\x1A\x1C-\x1F]/', $text) === 1) {
            throw new UnreadableList(
                'This is not a list: it holds binary data. Save the list as .xlsx or .csv from your ' .
                    'spreadsheet and drop that in.',
            );
        }

        if (substr_count($text, "\n") + substr_count($text, "\r") > 2 * self::MOST_LINES) {
            throw new UnreadableList(
                'This has more than ' .
                    number_format(self::MOST_LINES) .
                    ' lines. Copy the rows of the list into a new file, save that and drop it in.',
            );
        }

        return Grid::of(self::lines($text, self::delimiter($text)));
    }

    /** The separator that gives the steadiest number of columns, more columns winning a tie. */
    public static function delimiter(string $text): string
    {
        // Plain lines, one thing in each, have none: then a comma in some of them is a part of the name.
        $best = self::NONE;
        $bestScore = 0.55;
        foreach ([',', ';', "\t", '|'] as $delimiter) {
            $counts = [];
            foreach (self::lines($text, $delimiter) as $line) {
                if (!$line->isBlank()) {
                    $counts[] = count($line->cells);
                }
                if (count($counts) === self::SAMPLE) {
                    break;
                }
            }
            if ($counts === []) {
                continue;
            }
            $tally = array_count_values($counts);
            arsort($tally);
            $columns = array_key_first($tally);
            // A name with a comma that nobody quoted is a cell more in its row.
            $more = $columns > 2 ? 0.9 * ($tally[$columns + 1] ?? 0) + 0.9 * ($tally[$columns - 1] ?? 0) : 0.0;
            $score = $columns === 1 ? 0.0 : ($tally[$columns] + $more) / count($counts) + min($columns, 50) / 1000;
            if ($score > $bestScore) {
                [$best, $bestScore] = [$delimiter, $score];
            }
        }

        return $best;
    }

    /** The cell; exports write ="020417" so that a spreadsheet keeps the zeros. */
    private static function value(?string $cell): string
    {
        return $cell !== null && preg_match('/^\s*="(.*)"\s*$/s', $cell, $m) === 1
            ? str_replace('""', '"', $m[1])
            : (string) $cell;
    }

    /**
     * @return iterable<Line> numbered by the line of the text on which each record starts
     *
     * @throws UnreadableList where a record is longer than any row of a list
     */
    public static function lines(string $text, string $delimiter): iterable
    {
        $text = str_replace(["\r\n", "\r"], "\n", $text);
        $length = strlen($text);
        $at = 0;
        $number = 1;
        while ($at < $length) {
            $end = strpos($text, "\n", $at);
            $end = $end === false ? $length : $end;
            $record = substr($text, $at, $end - $at);
            $start = $number++;
            // An open quote carries the record on to the next line, but not beyond what one address could need.
            for ($extra = 0; substr_count($record, '"') % 2 === 1 && $end < $length && $extra < 20; $extra++) {
                $next = strpos($text, "\n", $end + 1);
                $next = $next === false ? $length : $next;
                $record .= substr($text, $end, $next - $end);
                $end = $next;
                $number++;
            }
            if (strlen($record) > self::LONGEST) {
                throw new UnreadableList(
                    "Line $start is longer than a row of any list. Save the list as .xlsx or .csv from your " .
                        'spreadsheet and drop that in.',
                );
            }
            $at = $end + 1;
            yield new Line($start, array_map(self::value(...), str_getcsv($record, $delimiter, '"', '')));
        }
    }
}
