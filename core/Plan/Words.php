<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** Puts counts and lists into sentences. */
final class Words
{
    /** "1 student", "1,240 students", "3 people" with the plural given where it is not just an s. */
    public static function count(int $n, string $one, ?string $many = null): string
    {
        return number_format($n) . ' ' . ($n === 1 ? $one : $many ?? $one . 's');
    }

    /** @param  list<string>  $parts "a", "a and b", "a, b and c" */
    public static function join(array $parts): string
    {
        $last = array_pop($parts);

        return $parts === [] ? (string) $last : implode(', ', $parts) . ' and ' . $last;
    }

    /** @param  list<string>  $names at most $most of them, then how many more */
    public static function some(array $names, int $most = 3): string
    {
        return count($names) <= $most
            ? self::join($names)
            : implode(', ', array_slice($names, 0, $most)) . ' and ' . (count($names) - $most) . ' more';
    }

    /** "23 November 2026", from YYYY-MM-DD. */
    public static function day(string $date): string
    {
        $months = [
            'January',
            'February',
            'March',
            'April',
            'May',
            'June',
            'July',
            'August',
            'September',
            'October',
            'November',
            'December',
        ];

        return (int) substr($date, 8, 2) . ' ' . $months[(int) substr($date, 5, 2) - 1] . ' ' . substr($date, 0, 4);
    }
}
