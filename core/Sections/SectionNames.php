<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\GradeLevel;

/**
 * Names of sections by a pattern with the places `{subject}`, `{grade}`, `{group}`, `{period}` and `{year}`; everything
 * else stands as it is. A place with nothing in it goes, with the space before it.
 */
final class SectionNames
{
    public const PLACES = ['subject', 'grade', 'group', 'period', 'year'];

    public const MAX = 80;

    /** @throws Refusal where the pattern has a place that is none, or none at all */
    public static function check(string $pattern): string
    {
        $pattern = trim($pattern);
        preg_match_all('/\{([^{}]*)\}/', $pattern, $found);
        $foreign = array_diff($found[1], self::PLACES);
        if ($foreign !== []) {
            throw new Refusal(
                '“{' .
                    reset($foreign) .
                    '}” is not a place. Use ' .
                    implode(', ', array_map(fn(string $p): string => '{' . $p . '}', self::PLACES)) .
                    '.',
                'naming_pattern',
            );
        }
        if ($found[1] === []) {
            throw new Refusal(
                'A pattern needs at least one place, such as {subject}: without one all sections would have ' .
                    'the same name.',
                'naming_pattern',
            );
        }
        if (mb_strlen($pattern) > 60) {
            throw new Refusal('A pattern has at most 60 characters.', 'naming_pattern');
        }

        return $pattern;
    }

    /** @param  array<string, string>  $values place to what stands there */
    public static function fill(string $pattern, array $values): string
    {
        $name = (string) preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $values[$m[1]] ?? '', $pattern);

        return trim((string) preg_replace(['/\s{2,}/u', '/\(\s*\)/'], [' ', ''], $name), " \t-,/");
    }

    /**
     * One name for each grade and group.
     *
     * @param  list<GradeLevel|null>  $grades
     * @param  list<string>  $groups '' for sections that are one to a grade
     * @return list<array{string, GradeLevel|null}>
     */
    public static function series(
        string $pattern,
        string $subject,
        array $grades,
        array $groups,
        string $period,
        string $year,
    ): array {
        $names = [];
        foreach ($grades === [] ? [null] : $grades as $grade) {
            foreach ($groups === [] ? [''] : $groups as $group) {
                $names[] = [
                    self::fill($pattern, [
                        'subject' => $subject,
                        'grade' => $grade?->short() ?? '',
                        'group' => $group,
                        'period' => $period,
                        'year' => $year,
                    ]),
                    $grade,
                ];
            }
        }

        return $names;
    }
}
