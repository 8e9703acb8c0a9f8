<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** What was understood of a row, in one line to read beside it: "Ana | Okafor, 020417, grade 3, in 3A". */
final class RowWords
{
    public static function of(StudentLine|StaffLine|SectionLine $line): string
    {
        return implode(
            ', ',
            array_filter(
                match (true) {
                    $line instanceof StudentLine => self::student($line),
                    $line instanceof StaffLine => [
                        self::name($line->name),
                        $line->email,
                        $line->phone,
                        str_replace('_', '-', $line->role) . self::in($line->sections),
                    ],
                    default => [
                        $line->homeroom ? "homeroom $line->name" : $line->name,
                        self::grade($line->grade),
                        $line->teacher->full() === '' ? '' : 'with ' . self::name($line->teacher),
                        $line->teacherEmail,
                    ],
                },
                fn(string $part): bool => $part !== '',
            ),
        );
    }

    /** @return list<string> */
    private static function student(StudentLine $line): array
    {
        $sections = array_values(array_filter([$line->homeroom, ...$line->sections], fn(string $s): bool => $s !== ''));

        return [
            self::name($line->name),
            $line->preferred === '' ? '' : "goes by $line->preferred",
            $line->studentNumber,
            $line->birthDate === '' ? '' : "born $line->birthDate",
            self::grade($line->grade),
            trim(self::in($sections)),
            $line->email,
            $line->beginsOn === '' ? '' : "from $line->beginsOn",
            $line->endsOn === '' ? '' : "until $line->endsOn",
            $line->language === '' ? '' : 'family reads ' . Language::read($line->language)?->name(),
            ...array_map(
                fn(GuardianLine $g): string => ($g->relationship === '' ? 'guardian ' : "$g->relationship ") .
                    implode(' ', array_filter([self::name($g->name), $g->email, $g->phone])),
                $line->guardians,
            ),
        ];
    }

    /** The bar shows where the given name ends: what most often goes wrong with a name. */
    private static function name(PersonName $name): string
    {
        return implode(' | ', array_filter([$name->given, $name->family], fn(string $p): bool => $p !== ''));
    }

    private static function grade(string $code): string
    {
        return $code === '' ? '' : GradeLevel::read($code)?->label() ?? $code;
    }

    /** @param  list<string>  $sections */
    private static function in(array $sections): string
    {
        return $sections === [] ? '' : ' in ' . implode(', ', $sections);
    }
}
