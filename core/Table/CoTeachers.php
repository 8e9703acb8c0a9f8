<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * A row for each section with several of its staff beside each other: "Section, Lead teacher, Co-teacher, Co-teacher
 * e-mail, Aide". Whoever is not the lead gets a table of their own, in which each has a row with their role.
 */
final class CoTeachers
{
    private const OTHERS =
        '/^((?:co ?teachers?|second teacher|support teacher|(?:class |teaching )?assistants?|aides?|tas?|para(?:s|' .
        'professionals?)?|student teacher)(?: teacher)?(?: [1-4])?|teacher [2-4])(?: (name|full name|e ?mail(?: address)?))?$/';

    private const SECTIONS = ['section', 'homeroom', 'section_number'];

    /** Headings of lists of students, whose teachers are somebody else's business. */
    private const STUDENTS = ['given_name', 'family_name', 'full_name', 'student_name', 'student_number', 'birth_date'];

    /**
     * @param  list<Line>  $lines
     * @return array<string, list<Line>> "co-teacher" to its lines; all lines under '' where there are none
     */
    public static function apart(array $lines): array
    {
        $at = HeaderRow::at($lines);
        $sections = $others = [];
        $leads = false;
        foreach ($at === null ? [] : $lines[$at]->cells as $c => $heading) {
            $fields = array_keys(Heading::read($heading));
            if (preg_match(self::OTHERS, NameKey::of($heading), $m) === 1) {
                $others[$m[1]][str_contains($m[2] ?? '', 'mail') ? 'mail' : 'name'] = $c;
            } elseif (array_intersect($fields, self::SECTIONS) !== []) {
                $sections[] = $c;
            } elseif (in_array('teacher', $fields, true)) {
                $leads = true;
            } elseif (array_intersect($fields, self::STUDENTS) !== []) {
                return ['' => $lines];
            }
        }
        $others = array_filter($others, fn(array $of): bool => isset($of['name']));
        if ($at === null || $sections === [] || $others === [] || !$leads) {
            return ['' => $lines];
        }
        $theirs = array_merge(...array_map(array_values(...), array_values($others)));
        $tables = ['' => self::with($lines, array_values(array_diff(array_keys($lines[$at]->cells), $theirs)))];
        foreach ($others as $role => $of) {
            $places = [...$sections, $of['name'], ...isset($of['mail']) ? [$of['mail']] : []];
            $own = array_filter(
                $lines,
                fn(Line $l, int $i): bool => $i > $at && $l->bare($of['name']) !== '',
                ARRAY_FILTER_USE_BOTH,
            );
            if ($own === []) {
                continue;
            }
            $said = (string) preg_replace(['/ [1-4]$/', '/^teacher$/', '/s$/'], ['', 'co teacher', ''], $role);
            $heads = array_map($lines[$at]->cell(...), $sections);
            $header = $lines[$at]->with(
                [...$heads, 'Name', ...isset($of['mail']) ? ['E-mail'] : [], 'Role'],
                [],
                [...$places, -1],
            );
            $tables[str_replace('co teacher', 'co-teacher', $role)] = [
                $header,
                ...array_map(
                    fn(Line $l): Line => $l->with(
                        [...array_map($l->cell(...), $places), $said],
                        [],
                        [...array_map($l->place(...), $places), -1],
                    ),
                    array_values($own),
                ),
            ];
        }

        return $tables;
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<int>  $columns
     * @return list<Line>
     */
    private static function with(array $lines, array $columns): array
    {
        return array_map(
            fn(Line $l): Line => $l->with(
                array_map($l->cell(...), $columns),
                array_filter(
                    array_combine(array_keys($columns), array_map(fn(int $c): string => $l->flaws[$c] ?? '', $columns)),
                    fn(string $flaw): bool => $flaw !== '',
                ),
                array_map($l->place(...), $columns),
            ),
            $lines,
        );
    }
}
