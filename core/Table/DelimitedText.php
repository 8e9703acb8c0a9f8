<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Reads comma, semicolon, tab and bar separated text (RFC 4180 quoting) in the encodings school offices meet. */
final class DelimitedText
{
    private const SAMPLE = 100;

    /** Bytes of one record: a row of many notes is a hundredth of it. Looking for cells in more takes seconds. */
    private const LONGEST = 500_000;

    /** A character that no list holds, for text whose lines are not divided. */
    private const NONE = "\x1F";

    /** @throws UnreadableList */
    public static function grid(string $bytes): Grid
    {
        $text = self::decode($bytes);
        if (trim($text) === '') {
            throw new UnreadableList('The file is empty. Save the list again from your spreadsheet and drop it in.');
        }
        if (preg_match('/[\x00-\x08\x0E-\x1A\x1C-\x1F]/', $text) === 1) {
            throw new UnreadableList(
                'This is not a list: it holds binary data. Save the list as .xlsx or .csv from your ' .
                    'spreadsheet and drop that in.',
            );
        }

        return Grid::of(self::lines($text, self::delimiter($text)));
    }

    /** To UTF-8: by byte order mark, then as UTF-8 if it is valid, then UTF-16 by its zero bytes, else Windows-1252. */
    public static function decode(string $bytes): string
    {
        if (str_starts_with($bytes, "\xEF\xBB\xBF")) {
            $text = substr($bytes, 3);
        } elseif (str_starts_with($bytes, "\xFF\xFE")) {
            $text = mb_convert_encoding(substr($bytes, 2), 'UTF-8', 'UTF-16LE');
        } elseif (str_starts_with($bytes, "\xFE\xFF")) {
            $text = mb_convert_encoding(substr($bytes, 2), 'UTF-8', 'UTF-16BE');
        } elseif (mb_check_encoding($bytes, 'UTF-8') && !str_contains(substr($bytes, 0, 2000), "\0")) {
            $text = $bytes;
        } elseif (
            ($zeros = substr_count($head = substr($bytes, 0, 2000), "\0")) > strlen($head) / 5 &&
            $zeros < strlen($head) * 0.6
        ) {
            $text = mb_convert_encoding($bytes, 'UTF-8', $head[0] === "\0" ? 'UTF-16BE' : 'UTF-16LE');
        } else {
            $text = self::singleByte($bytes);
        }

        return mb_scrub((string) $text, 'UTF-8');
    }

    /**
     * One byte for a letter: Windows-1252, ISO 8859-15 or Mac Roman, whichever makes words of the bytes above 127.
     * Where they make the same of them, Windows-1252, which ISO 8859-1 is a part of.
     */
    private static function singleByte(string $bytes): string
    {
        $best = '';
        $bestScore = -INF;
        foreach (['WINDOWS-1252', 'ISO-8859-15', 'MACINTOSH'] as $encoding) {
            $text = (string) @iconv($encoding, 'UTF-8//IGNORE', $bytes);
            preg_match_all('/(?<=\p{Ll})[^\x00-\x7F]|[^\x00-\x7F](?=\p{Ll})/u', substr($text, 0, 200_000), $inside);
            $score = 0;
            foreach ($inside[0] as $letter) {
                // Inside a word a small letter is likely, a capital is not, and a sign is not one of a name.
                $score +=
                    preg_match('/\p{Ll}/u', $letter) === 1
                        ? 2
                        : (preg_match('/\p{Lu}/u', $letter) === 1
                            ? 0
                            : ($letter === '’'
                                ? 1
                                : -2));
            }
            if ($score > $bestScore) {
                [$best, $bestScore] = [$text, $score];
            }
        }

        return $best;
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
            $score = $columns === 1 ? 0.0 : $tally[$columns] / count($counts) + min($columns, 50) / 1000;
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
