<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** What a column is by what stands beside it. What a person said of a column stands. */
final class Neighbours
{
    private const COURSE =
        '/^(course( (name|title|description))?|subject|class (name|title)|' .
        'asignatura|materia|cours|matiere|fach)$/';

    private const SECTION = '/^(section|sect|sec|section (no|number|id)|class section)$/';

    private const NUMBERED =
        '/^(period|per|pd|block|hour|course|class|section|elective|subject|club|activity|cours|' .
        'clase|stunde) \d{1,2}$/';

    private const PERIOD = '/^(period|per|pd|block|hour|periodo|stunde|heure)$/';

    /**
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     * @return list<Column>
     */
    public static function found(array $columns, array $body): array
    {
        return self::ofTeachers(
            self::ofTeachersNames(self::ofPeriods(self::ofFamilies(self::ofCourses($columns, $body)), $body)),
        );
    }

    /**
     * "Course, Section, Period": the course is taught in several sections, and the short column tells which; where none
     * does, the period does.
     *
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     * @return list<Column>
     */
    private static function ofCourses(array $columns, array $body): array
    {
        $called = fn(string $pattern): ?Column => array_values(
            array_filter(
                $columns,
                fn(Column $c): bool => preg_match($pattern, NameKey::of($c->heading)) === 1 &&
                    $c->why !== 'as you said',
            ),
        )[0] ?? null;
        $course = $called(self::COURSE);
        if (
            $course === null ||
            array_filter($columns, fn(Column $c): bool => $c->field === Field::SectionNumber) !== []
        ) {
            return $columns;
        }
        $section = $called(self::SECTION);
        $apart = $section ?? $called(self::PERIOD);
        if ($apart === null || !self::isShort($apart, $body)) {
            return $columns;
        }

        return array_map(
            fn(Column $c): Column => match ($c->index) {
                $course->index => new Column($c->index, $c->heading, $c->samples, Field::Section, $c->why),
                $apart->index => new Column(
                    $c->index,
                    $c->heading,
                    $c->samples,
                    Field::SectionNumber,
                    'it tells the sections of a course apart',
                ),
                default => $c->field === Field::Section && $section !== null
                    ? new Column($c->index, $c->heading, $c->samples, null, 'left out: the course is there')
                    : $c,
            },
            $columns,
        );
    }

    /**
     * "Achternaam, Tussenvoegsel", "Last, Suffix", "Apellido paterno, materno": the family name has several columns.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private static function ofFamilies(array $columns): array
    {
        if (array_filter($columns, fn(Column $c): bool => $c->field === Field::FamilyName) === []) {
            return $columns;
        }

        return array_map(
            fn(Column $c): Column => $c->why === 'as you said' || FamilyParts::place($c->heading) === null
                ? $c
                : new Column($c->index, $c->heading, $c->samples, Field::FamilyName, 'it is a part of the family name'),
            $columns,
        );
    }

    /**
     * "Teacher Last, Teacher First": the two are one name.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private static function ofTeachersNames(array $columns): array
    {
        $places = array_map(fn(Column $c): ?int => FamilyParts::ofTeacher($c->heading), $columns);
        if (array_diff([0, 1], $places) !== []) {
            return $columns;
        }

        return array_map(
            fn(Column $c, ?int $place): Column => $place === null || $c->why === 'as you said'
                ? $c
                : new Column($c->index, $c->heading, $c->samples, Field::Teacher, 'it is a part of the teacher’s name'),
            $columns,
            $places,
        );
    }

    /**
     * "Period 1, Period 2, Period 3" with the name of a section in each cell.
     *
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     * @return list<Column>
     */
    private static function ofPeriods(array $columns, array $body): array
    {
        $of = array_filter(
            $columns,
            fn(Column $c): bool => preg_match(self::NUMBERED, NameKey::of($c->heading)) === 1 &&
                in_array($c->field, [null, Field::Section, Field::Homeroom], true) &&
                $c->why !== 'as you said' &&
                self::areNames($c, $body),
        );
        if (count($of) < 2) {
            return $columns;
        }

        return array_map(
            fn(Column $c): Column => isset($of[$c->index])
                ? new Column($c->index, $c->heading, $c->samples, Field::Section, 'it is one of several of its kind')
                : $c,
            $columns,
        );
    }

    /**
     * Whether most cells say more than a mark or a figure would.
     *
     * @param  list<Line>  $body
     */
    private static function areNames(Column $column, array $body): bool
    {
        $cells = array_filter(
            array_map(fn(Line $l): string => $l->bare($column->index), $body),
            fn(string $c): bool => $c !== '',
        );

        return ColumnContents::share(
            array_values($cells),
            fn(string $c): bool => preg_match('/\p{L}.*\p{L}.*\p{L}/u', $c) === 1,
        ) >= 0.7;
    }

    /** @param  list<Line>  $body */
    private static function isShort(Column $column, array $body): bool
    {
        $cells = array_filter(
            array_map(fn(Line $l): string => $l->bare($column->index), $body),
            fn(string $c): bool => $c !== '',
        );

        return $cells !== [] &&
            count(array_filter($cells, fn(string $c): bool => mb_strlen($c) <= 4)) >= 0.8 * count($cells);
    }

    /**
     * "Teacher, Email, Room": where no other names stand, the rows are the teachers; beside a homeroom or a section,
     * the address is its teacher's.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private static function ofTeachers(array $columns): array
    {
        $has = fn(Field ...$some): bool => array_filter(
            $columns,
            fn(Column $c): bool => in_array($c->field, $some, true) && !($c->field === Field::Homeroom && $c->isRoom()),
        ) !== [];
        if (
            !$has(Field::Teacher) ||
            $has(Field::FullName, Field::GivenName, Field::StudentName, Field::StudentNumber, Field::AccountKey)
        ) {
            return $columns;
        }
        $instead = $has(Field::Section, Field::Homeroom)
            ? [Field::Email->value => $has(Field::TeacherEmail) ? Field::Email : Field::TeacherEmail]
            : [Field::Teacher->value => Field::FullName, Field::TeacherEmail->value => Field::Email];

        return array_map(
            fn(Column $c): Column => $c->why === 'as you said' || !isset($instead[$c->field->value ?? ''])
                ? $c
                : new Column(
                    $c->index,
                    $c->heading,
                    $c->samples,
                    $instead[$c->field->value ?? ''],
                    'no other names are in the list',
                ),
            $columns,
        );
    }
}
