<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\StudentNumber;

/**
 * What a whole column says of each of its cells: how wide its numbers are, how its days are counted, which domain is
 * meant.
 */
final readonly class ColumnFacts
{
    /**
     * @param  int  $numberWidth digits of a whole student number; 0 where they vary
     * @param  int  $serialsFrom the system of day numbers, see {@see CalendarDate}
     * @param  bool  $halfConverted whether day and month of its real dates are turned, see {@see CalendarDate}
     * @param  array<string, string>  $domains domain that is probably misspelt to the one that is meant
     */
    private function __construct(
        public int $numberWidth,
        public int $serialsFrom,
        public array $domains,
        public bool $halfConverted,
    ) {}

    /** @param  list<Line>  $body */
    public static function of(ListLayout $layout, array $body, SchoolFacts $school, string $today): self
    {
        $cells = fn(Field $field): array => ($at = $layout->indexOf($field)) === null
            ? []
            : array_map(fn(Line $l): string => $l->bare($at), $body);

        return new self(
            self::usualWidth(array_map(StudentNumber::bare(...), $cells(Field::StudentNumber)), $school->numberWidth),
            self::dateSystem($cells(Field::BirthDate), $cells(Field::Grade), $today),
            self::likelySlips($layout, $body, $school),
            CalendarDate::isHalfConverted($cells(Field::BirthDate)),
        );
    }

    /**
     * The width that most all-digit numbers have; shorter ones lost their leading zeros to a spreadsheet.
     *
     * @param  list<string>  $cells
     */
    private static function usualWidth(array $cells, int $atSchool): int
    {
        $digits = array_filter($cells, ctype_digit(...));
        // Where a list lost them all, the school's other numbers show how long they are.
        if (
            $digits !== [] &&
            $atSchool > 0 &&
            max(array_map(strlen(...), $digits)) <= $atSchool &&
            min(array_map(strlen(...), $digits)) >= $atSchool - 4
        ) {
            return $atSchool;
        }
        if (count($digits) < 3) {
            return 0;
        }
        $widths = array_count_values(array_map(strlen(...), $digits));
        $widest = max(array_keys($widths));
        $padded = count(array_filter($digits, fn(string $d): bool => $d[0] === '0'));

        // Most are of the full width; or those of the full width are the ones that kept their zeros.
        return count($digits) < $widths[$widest] * 2 ||
            ($padded > 0 &&
                strlen((string) current(array_filter($digits, fn(string $d): bool => $d[0] === '0'))) === $widest &&
                count($digits) < $widths[$widest] * 10)
            ? $widest
            : 0;
    }

    /**
     * Day numbers of the 1904 system look four years too old: taken for it where the grades say so.
     *
     * @param  list<string>  $dates
     * @param  list<string>  $grades
     */
    private static function dateSystem(array $dates, array $grades, string $today): int
    {
        $off = [];
        foreach ($dates as $i => $cell) {
            $grade = GradeLevel::read($grades[$i] ?? '');
            if ($grade !== null && CalendarDate::isSerial($cell)) {
                $off[] = CalendarDate::age((string) CalendarDate::read($cell, null), $today) - ($grade->order + 5.5);
            }
        }
        sort($off);

        return count($off) >= 5 && $off[intdiv(count($off), 2)] > 2.4 && $off[intdiv(count($off), 2)] < 6.0
            ? CalendarDate::SYSTEM_1904
            : 0;
    }

    /**
     * Domains of few addresses that are one slip away from a domain of many, or from one of the school's own.
     *
     * @param  list<Line>  $body
     * @return array<string, string>
     */
    private static function likelySlips(ListLayout $layout, array $body, SchoolFacts $school): array
    {
        $counts = [];
        foreach ($layout->columns as $column) {
            if ($column->field === null || !str_contains($column->field->value, 'email')) {
                continue;
            }
            foreach ($body as $line) {
                $domain = mb_strtolower(trim(substr((string) strrchr($line->cell($column->index), '@'), 1)));
                if ($domain !== '' && strlen($domain) < 60) {
                    $counts[$domain] = ($counts[$domain] ?? 0) + 1;
                }
            }
        }
        foreach ($school->mailDomains as $domain) {
            $counts[$domain] = ($counts[$domain] ?? 0) + 20;
        }
        arsort($counts);
        $many = array_slice(array_keys(array_filter($counts, fn(int $n): bool => $n >= 10)), 0, 20);
        $slips = [];
        foreach (array_slice($counts, 0, 2000, true) as $domain => $n) {
            foreach ($many as $meant) {
                $meant = (string) $meant;
                // A slip away from the school's own domain is never a domain of its own.
                $surely = $counts[$meant] >= 10 * $n || in_array($meant, $school->mailDomains, true);
                if (
                    $domain !== $meant &&
                    $surely &&
                    !in_array($domain, $school->mailDomains, true) &&
                    abs(strlen((string) $domain) - strlen($meant)) <= 1 &&
                    (levenshtein((string) $domain, $meant) === 1 || self::swapped((string) $domain, $meant))
                ) {
                    $slips[(string) $domain] = $meant;
                    break;
                }
            }
        }

        return $slips;
    }

    private static function swapped(string $a, string $b): bool
    {
        for ($i = 0; $i < strlen($a) - 1; $i++) {
            if ($a[$i] !== $b[$i]) {
                return strlen($a) === strlen($b) && substr($a, 0, $i) . $a[$i + 1] . $a[$i] . substr($a, $i + 2) === $b;
            }
        }

        return false;
    }
}
