<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;
use Vantrel\Core\Values\StudentNumber;

/** Changes of one person by hand, field by field. */
final class EditPerson
{
    public const LONGEST_NAME = 120;

    public const LONGEST_NUMBER = 40;

    private const OLDEST = 110;

    private const YOUNGEST_STUDENT = 2;

    /** How a field is called in what is said. */
    public const WORDS = [
        'given_name' => 'given name',
        'family_name' => 'family name',
        'preferred_name' => 'name they go by',
        'birth_date' => 'birth date',
        'number' => 'number',
        'grade' => 'grade',
        'email' => 'address',
        'phone' => 'phone number',
        'language' => 'language',
        'name_shown' => 'name shown to others',
    ];

    /**
     * @param  array{lowest: int, highest: int, domains: list<string>, country: string}  $school `domains`: those that
     *     it vouches for to this person
     * @param  Person|null  $bearer another person of the school who has the number wished for
     * @param  bool  $mayReach whether whoever does it may change where the person's mail goes
     * @param  string  $today YYYY-MM-DD, at the school
     * @param  string  $now UTC instant
     *
     * @throws Refusal naming the field
     */
    public static function plan(
        Person $person,
        PersonWish $wish,
        array $school,
        ?Person $bearer,
        bool $mayReach,
        string $today,
        string $now,
    ): Plan {
        if ($person->erasedOn() !== null) {
            throw new Refusal('This person has been erased. Make a new account if they come back.');
        }
        if ($person->state() === PersonState::Merged) {
            throw new Refusal('This account was merged into another. Change that one.');
        }
        $values = [
            ...self::name($person, $wish),
            ...self::facts($person, $wish, $school, $bearer, $today),
            ...self::manner($person, $wish),
        ];
        $email = self::email($wish->email);
        if ($email !== null && $email !== (string) $person->email()) {
            if (!$mayReach) {
                throw new Refusal(
                    'Their account opens more than your schools, so the address is for them to change.',
                    'email',
                );
            }
            $values += Address::given(
                $email,
                $person->kind()->value,
                $school['domains'],
                AddressSource::Hand,
                $now,
            )->columns();
        }
        $plan = new PlanBuilder();
        $plan->update($person, $values, 'changed by hand');
        $changed = array_values(
            array_intersect_key(
                self::WORDS,
                array_filter(
                    $values,
                    fn(?string $value, string $column): bool => $value !== $person->field($column),
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        );

        return $plan->build(
            $person->fullName() === '' ? 'A person' : $person->fullName(),
            'Changes the ' . Words::join($changed) . '.',
        );
    }

    /**
     * How they are written to, and written of.
     *
     * @return array<string, string|null>
     */
    private static function manner(Person $person, PersonWish $wish): array
    {
        $values = [];
        if ($wish->language !== null) {
            $language = $wish->language === '' ? null : Language::read($wish->language);
            if ($wish->language !== '' && $language === null) {
                throw new Refusal('This language is not known here.', 'language');
            }
            $values['language'] = $language?->code;
        }
        if ($wish->nameShown !== null && $person->kind() === PersonKind::Student) {
            $values['name_shown'] = NameShown::tryFrom($wish->nameShown)?->value;
        }

        return $values;
    }

    /** @return array<string, string|null> */
    private static function name(Person $person, PersonWish $wish): array
    {
        $given = self::text($wish->given, 'given') ?? $person->givenName();
        $family = self::text($wish->family, 'family') ?? $person->familyName();
        if ($given . $family === '') {
            throw new Refusal('Somebody has a name: give one of the two.', 'given');
        }
        $preferred = self::text($wish->preferred, 'preferred') ?? (string) $person->preferredName();
        // Who goes by the name on record goes by no other.
        $called = ['preferred_name' => in_array($preferred, ['', $given], true) ? null : $preferred];

        return $given === $person->givenName() && $family === $person->familyName()
            ? $called
            : [
                ...$called,
                'given_name' => $given,
                'family_name' => $family,
                'search_name' => (new PersonName($given, $family))->searchKey(),
            ];
    }

    /**
     * @param  array{lowest: int, highest: int, domains: list<string>, country: string}  $school
     * @return array<string, string|null>
     */
    private static function facts(
        Person $person,
        PersonWish $wish,
        array $school,
        ?Person $bearer,
        string $today,
    ): array {
        $values = [];
        if ($wish->birthDate !== null) {
            $values['birth_date'] = self::born(trim($wish->birthDate), $person->kind(), $today);
        }
        if ($wish->number !== null) {
            $number = StudentNumber::bare($wish->number);
            if (mb_strlen($number) > self::LONGEST_NUMBER) {
                throw new Refusal('A number has at most ' . self::LONGEST_NUMBER . ' characters.', 'number');
            }
            if ($bearer !== null && $bearer->id !== $person->id) {
                throw new Refusal("{$bearer->fullName()} has this number. A school gives a number once.", 'number');
            }
            $values['number'] = $number === '' ? null : $number;
        }
        if ($wish->grade !== null && $person->kind() === PersonKind::Student) {
            $values['grade'] = self::grade(trim($wish->grade), $school['lowest'], $school['highest']);
        }
        if ($wish->phone !== null) {
            $values['phone'] =
                trim($wish->phone) === ''
                    ? null
                    : Phone::read($wish->phone, $school['country']) ??
                        throw new Refusal(
                            'That is no telephone number. Write one of another country with + and its code.',
                            'phone',
                        );
        }

        return $values;
    }

    private static function born(string $typed, PersonKind $kind, string $today): ?string
    {
        if ($typed === '') {
            return null;
        }
        $born = CalendarDate::read($typed, null) ?? throw new Refusal('Write the day as 2015-08-03.', 'birth_date');
        $age = CalendarDate::age($born, $today);
        if ($age > self::OLDEST || $age < ($kind === PersonKind::Student ? self::YOUNGEST_STUDENT : 0)) {
            throw new Refusal("Born on $born: that makes $age years. Look at the year.", 'birth_date');
        }

        return $born;
    }

    private static function grade(string $typed, int $lowest, int $highest): ?string
    {
        if ($typed === '') {
            return null;
        }
        $grade = GradeLevel::read($typed);
        if ($grade === null || $grade->order < $lowest || $grade->order > $highest) {
            throw new Refusal(
                'This school has grades ' .
                    GradeLevel::of($lowest)->short() .
                    ' to ' .
                    GradeLevel::of($highest)->short() .
                    '.',
                'grade',
            );
        }

        return $grade->code();
    }

    /** @return string|null '' for none; null where it stays */
    private static function email(?string $typed): ?string
    {
        return $typed === null || trim($typed) === ''
            ? ($typed === null
                ? null
                : '')
            : MailAddress::read($typed)->address ?? throw new Refusal('That is no address.', 'email');
    }

    private static function text(?string $typed, string $field): ?string
    {
        if ($typed === null) {
            return null;
        }
        $text = trim((string) preg_replace('/\s+/u', ' ', $typed));
        if (mb_strlen($text) > self::LONGEST_NAME) {
            throw new Refusal('A name has at most ' . self::LONGEST_NAME . ' characters.', $field);
        }
        if (preg_match('/[\p{Cc}\x{202A}-\x{202E}\x{2066}-\x{2069}]/u', $text) === 1) {
            throw new Refusal('There are signs in it that cannot be seen. Type it anew.', $field);
        }

        return $text;
    }
}
