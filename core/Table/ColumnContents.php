<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\StudentNumber;

/** What the cells of a column look like, whatever its heading says. */
final class ColumnContents
{
    // prettier-ignore
    private const RELATIONS = [
        'mother', 'father', 'mom', 'dad', 'mum', 'parent', 'guardian', 'grandmother', 'grandfather', 'grandparent',
        'aunt', 'uncle', 'stepmother', 'stepfather', 'foster parent', 'foster', 'madre', 'padre', 'abuela', 'abuelo',
        'tia', 'tio', 'mere', 'pere', 'grand mere', 'grand pere', 'sister', 'brother', 'cha', 'me', 'mati', 'batko',
    ];

    // prettier-ignore
    private const ROLES = [
        'teacher', 'lead', 'lead teacher', 'co teacher', 'coteacher', 'assistant', 'aide', 'student', 'principal',
        'librarian', 'counselor', 'secretary', 'coordinator', 'substitute', 'nurse', 'profesor', 'docente',
    ];

    /**
     * Which share of the cells looks like each field whose contents can be told.
     *
     * @param  non-empty-list<string>  $cells
     * @return array<string, float>
     */
    public static function shares(array $cells, NameBook $book): array
    {
        $mail = self::share($cells, fn(string $s): bool => MailAddress::read($s) !== null);
        $date = self::share($cells, CalendarDate::looksLikeOne(...));
        $grade = self::share($cells, fn(string $s): bool => mb_strlen($s) <= 12 && GradeLevel::read($s) !== null);
        $words = array_map(fn(string $s): array => explode(' ', NameKey::of($s)), $cells);
        // Y and N are no names; a number in brackets stands after one.
        $letters = self::share(
            $cells,
            fn(string $s): bool => preg_match(
                '/^(?:\p{Han}|\p{Hangul}|\p{L}[\p{L}\p{M}\'’.\-, ]+)[\p{L} ]*(?: \([\w -]+\))?$/u',
                $s,
            ) === 1,
        );
        $many = count(array_filter($words, fn(array $w): bool => count($w) > 1)) / count($cells);
        $distinct = count(array_unique($cells)) / count($cells);
        $lean = 0.0;
        foreach ($words as $w) {
            $lean += max(-3.0, min(3.0, $book->givenRatherThanFamily($w[0])));
        }
        $lean /= count($cells);
        $domains = array_count_values(
            array_map(fn(string $s): string => (string) strrchr(mb_strtolower($s), '@'), $cells),
        );
        $oneDomain = max([0, ...array_values($domains)]) / count($cells);
        $number = self::share(
            $cells,
            fn(string $s): bool => preg_match('/^[A-Z]{0,4}-?\d{3,12}$/i', StudentNumber::bare($s)) === 1 ||
                preg_match('/^\d[.,]?\d*E\+\d+$/i', $s) === 1,
        );
        $section =
            $distinct < 0.6 && count($cells) >= 4
                ? self::share(
                        $cells,
                        fn(string $s): bool => mb_strlen($s) <= 40 &&
                            !str_contains($s, '@') &&
                            preg_match('/\p{L}/u', $s) === 1,
                    ) * 0.6
                : 0.0;
        $single = $letters * (1 - $many) * ($distinct > 0.3 ? 1.0 : 0.5);

        return [
            'email' => $mail * ($oneDomain > 0.7 ? 1.0 : 0.8),
            'guardian_email' => $mail * ($oneDomain > 0.7 ? 0.8 : 0.95),
            'birth_date' => $date,
            'begins_on' => $date * 0.5,
            'grade' => $grade,
            'full_name' => $letters * $many * ($distinct > 0.5 ? 1.0 : 0.5) * ($mail > 0.3 ? 0.0 : 1.0),
            'guardian_name' => $letters * $many * ($distinct > 0.5 ? 0.8 : 0.4),
            'given_name' => $single * (0.75 + 0.08 * $lean),
            'family_name' => $single * (0.75 - 0.08 * $lean),
            'student_number' => $number * ($distinct > 0.95 ? 1.0 : 0.3),
            'guardian_phone' =>
                self::share(
                    $cells,
                    fn(string $s): bool => mb_strlen($s) <= 40 &&
                        preg_match('/(?<![\w.])\+?[\d(][\d ().\-\/]{5,18}\d/', $s) === 1 &&
                        preg_match_all('/\d/', $s) >= 7,
                ) *
                ($date > 0.5 ? 0.0 : 1.0) *
                ($number > 0.9 && $distinct > 0.95 ? 0.6 : 1.0),
            'section' => $section * ($single > 0.8 && $lean > 1 ? 0.3 : 1.0),
            'guardian_relationship' => self::share(
                $cells,
                fn(string $s): bool => in_array(NameKey::of($s), self::RELATIONS, true),
            ),
            'role' => self::share($cells, fn(string $s): bool => in_array(NameKey::of($s), self::ROLES, true)),
        ];
    }

    /**
     * Whether all that a column says is yes or no.
     *
     * @param  list<string>  $cells
     */
    public static function areMarks(array $cells): bool
    {
        return $cells !== [] &&
            self::share(
                $cells,
                fn(string $s): bool => preg_match('/^(?:y|n|x|yes|no|sí|si|oui|non|[✓✔☑✗✘])$/iu', $s) === 1,
            ) === 1.0;
    }

    /**
     * A column that only counts the rows: 1, 2, 3.
     *
     * @param  list<string>  $cells
     */
    public static function isRunningNumber(array $cells, string $heading): bool
    {
        $key = NameKey::of($heading);
        // Two students may well have the numbers 1 and 2.
        $least = in_array($key, ['id', 'number'], true) ? 3 : 2;
        if (
            count($cells) < $least ||
            !in_array(
                $key,
                ['', 'no', 'nr', 'num', 'number', 'row', 'n', 'nº', 'numero', 'item', 'line', 'count', 'stt', 'id'],
                true,
            )
        ) {
            return false;
        }
        $count = $counted = 0;
        foreach ($cells as $cell) {
            // Titles and totals between may interrupt the count, not change it; each block may begin it again.
            if (preg_match('/^\d+\.?$/', $cell) !== 1) {
                continue;
            }
            $count = $counted > 1 && rtrim($cell, '.') === '1' ? 1 : $count + 1;
            $counted++;
            if (rtrim($cell, '.') !== (string) $count) {
                return $counted > 10 && $counted >= count($cells) - 1;
            }
        }

        return $counted >= 2 && $counted >= count($cells) * 0.5;
    }

    /**
     * @param  list<string>  $cells
     * @param  callable(string): bool  $test
     */
    public static function share(array $cells, callable $test): float
    {
        return $cells === [] ? 0.0 : count(array_filter($cells, $test)) / count($cells);
    }
}
