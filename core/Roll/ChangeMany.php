<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** Many students changed at once, each with what was and what would be. */
final class ChangeMany
{
    private const REASONS = [
        'grade' => 'grade changed for many',
        'leave' => 'left',
        'back' => 'back at the school',
        'turn' => 'names turned round',
        'mend' => 'name written as a person would',
        'language' => 'language of the family',
        'shown' => 'name shown to others',
    ];

    /**
     * @param  list<Person>  $people in the order to show
     * @param  array<string, list<Enrollment>>  $enrollments by person, as students, that hold today or begin later
     * @param  string  $today YYYY-MM-DD, at the school
     */
    public static function plan(ManyWish $wish, array $people, array $enrollments, string $today): Plan
    {
        $kind = $wish->kind;
        if ($people === []) {
            throw new Refusal('Choose at least one student.');
        }
        $plan = new PlanBuilder();
        $changed = $ended = 0;
        foreach ($people as $number => $person) {
            $values = self::values($wish, $person);
            $why = match (true) {
                $person->kind() !== PersonKind::Student => 'not a student',
                $person->erasedOn() !== null => 'erased',
                $values === [] => self::already($kind),
                default => '',
            };
            if ($why === '') {
                $changed++;
                $plan->update($person, $values, self::REASONS[$kind->value]);
                foreach ($kind === ManyKind::Leave ? $enrollments[$person->id] ?? [] : [] as $enrollment) {
                    // One that has not begun by then never counts: it ends as it begins.
                    $plan->update($enrollment, ['ends_on' => max($today, $enrollment->beginsOn())], 'left');
                    $ended++;
                }
            }
            $plan->row(self::row($number + 1, $kind, $person, $why === '' ? $values : [], $why));
        }
        if ($ended > 0) {
            $plan->warn(
                Words::count($ended, 'enrollment ends', 'enrollments end') . ' today. Rosters of earlier days stay.',
            );
        }

        return $plan->build(self::sentence($wish, $changed, false), self::sentence($wish, $changed, true), [
            new Tally('changed', $changed, $changed === 1 ? 'student changed' : 'students changed'),
        ]);
    }

    /** @return array<string, string|null> what is other then; nothing where nothing is */
    private static function values(ManyWish $wish, Person $person): array
    {
        $name = new PersonName($person->givenName(), $person->familyName());

        return match ($wish->kind) {
            ManyKind::Grade => self::other($person, 'grade', $wish->grade?->code()),
            ManyKind::Language => self::other($person, 'language', $wish->language?->code),
            ManyKind::Shown => self::other($person, 'name_shown', $wish->shown?->value),
            ManyKind::Leave => $person->state() === PersonState::Active ? ['state' => PersonState::Left->value] : [],
            ManyKind::Back => $person->state() === PersonState::Left ? ['state' => PersonState::Active->value] : [],
            ManyKind::Turn => $name->given === '' || $name->family === '' || $name->given === $name->family
                ? []
                : self::named(new PersonName($name->family, $name->given)),
            ManyKind::Mend => self::mended($name),
        };
    }

    /** @return array<string, string|null> */
    private static function other(Person $person, string $column, ?string $value): array
    {
        return $person->field($column) === $value ? [] : [$column => $value];
    }

    /** @return array<string, string> */
    private static function mended(PersonName $name): array
    {
        $mended = NameReader::mend($name);

        return $mended->given === $name->given && $mended->family === $name->family ? [] : self::named($mended);
    }

    /** @return array<string, string> */
    private static function named(PersonName $name): array
    {
        return [
            'given_name' => $name->given,
            'family_name' => $name->family,
            'search_name' => $name->searchKey(),
        ];
    }

    /** @param  array<string, string|null>  $values */
    private static function row(int $number, ManyKind $kind, Person $person, array $values, string $why): PlanRow
    {
        $grade = fn(?string $code): string => GradeLevel::read((string) $code)?->short() ?? '';
        $name = fn(string $given, string $family): string => $family === '' ? $given : trim("$family, $given", ' ,');

        return new PlanRow(
            $number,
            match (true) {
                $values === [] => Verdict::Same,
                $kind === ManyKind::Leave => Verdict::Leaving,
                default => Verdict::Update,
            },
            [
                'Student' => new Cell(
                    $name($person->givenName(), $person->familyName()),
                    $name(
                        $values['given_name'] ?? $person->givenName(),
                        $values['family_name'] ?? $person->familyName(),
                    ),
                ),
                'Number' => Cell::same((string) $person->number()),
                'Grade' => new Cell(
                    $grade($person->grade()),
                    $grade(array_key_exists('grade', $values) ? $values['grade'] : $person->grade()),
                ),
                ...self::manner($kind, $person, $values),
            ],
            $why,
        );
    }

    /**
     * @param  array<string, string|null>  $values
     * @return array<string, Cell>
     */
    private static function manner(ManyKind $kind, Person $person, array $values): array
    {
        $of = match ($kind) {
            ManyKind::Language => [
                'language',
                'Language',
                fn(?string $code): string => Language::read((string) $code)?->name() ?? '',
            ],
            ManyKind::Shown => ['name_shown', 'Name shown', self::shownAs(...)],
            default => null,
        };
        if ($of === null) {
            return [];
        }
        [$column, $label, $word] = $of;
        $was = $person->field($column);

        return [$label => new Cell($word($was), $word(array_key_exists($column, $values) ? $values[$column] : $was))];
    }

    /** @param  string|null  $value of a {@see NameShown}, null for the school's */
    private static function shownAs(?string $value): string
    {
        return match (NameShown::tryFrom((string) $value)) {
            NameShown::Full => 'in full',
            NameShown::Initial => 'with the family name as a letter',
            null => 'as the school has it',
        };
    }

    private static function already(ManyKind $kind): string
    {
        return match ($kind) {
            ManyKind::Grade => 'in this grade already',
            ManyKind::Leave => 'not an active student',
            ManyKind::Back => 'has not left',
            ManyKind::Turn => 'has one name only',
            ManyKind::Mend => 'written so already',
            ManyKind::Language, ManyKind::Shown => 'so already',
        };
    }

    private static function sentence(ManyWish $wish, int $n, bool $whole): string
    {
        $students = Words::count($n, 'student');
        $into = $wish->grade === null ? 'no grade' : $wish->grade->label();
        $language = $wish->language?->name() ?? 'no known language';
        $shown = self::shownAs($wish->shown?->value);

        return $whole
            ? match ($wish->kind) {
                ManyKind::Grade => "Puts $students into $into. Sections stay as they are.",
                ManyKind::Leave => "Takes $students off the Roll as of today. They keep their accounts.",
                ManyKind::Back => "Has $students back on the Roll. They are in no section until they are placed.",
                ManyKind::Turn => "Turns the names of $students round. User names stay as they are.",
                ManyKind::Language => "Notes that the families of $students are written to in $language.",
                ManyKind::Shown => "Shows the names of $students to others $shown. What is on record stays whole.",
                ManyKind::Mend => "Writes the names of $students as a person would. User names stay as they are.",
            }
            : match ($wish->kind) {
                ManyKind::Grade => ucfirst("$students into $into"),
                ManyKind::Leave => "$students left",
                ManyKind::Back => "$students back",
                ManyKind::Turn => "Names of $students turned round",
                ManyKind::Language => "Families of $students: $language",
                ManyKind::Shown => "Names of $students shown $shown",
                ManyKind::Mend => "Names of $students mended",
            };
    }
}
