<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Names\NameKey;

/**
 * Compares two subjects field by field: at which level each field agrees, and what that weighs among the people known
 * here.
 */
final class Comparator
{
    /** From here on two spellings are one name with a slip (Winkler 1990 uses comparable cut-offs for names). */
    private const NEAR = 0.92;

    /** From here on they may be one name with several slips. */
    private const AKIN = 0.8;

    /** @var array<string, string> pair of names to level: lists repeat names, and telling two apart is the dear part */
    private array $remembered = [];

    /** @var array<string, float> */
    private array $bits = [];

    /** @param  Population  $crowd how common each value is among those known */
    public function __construct(private readonly Weights $weights, private readonly Population $crowd) {}

    /**
     * The level of each field that both sides have.
     *
     * @param  Subject  $a of the list
     * @param  Subject  $b of the Roll
     * @return array<string, string> field to level
     */
    public function levels(Subject $a, Subject $b): array
    {
        $levels = [];
        if (
            $a->givenKey !== $b->givenKey &&
            $a->givenKey !== '' &&
            $a->givenKey === $b->familyKey &&
            $a->familyKey === $b->givenKey
        ) {
            $levels['names swapped'] = 'alike';
        } else {
            if ($a->givenKey !== '' && $b->givenKey !== '') {
                $initial = (strlen($a->givenKey) === 1 || strlen($b->givenKey) === 1) && $a->givenKey !== $b->givenKey;
                $levels[$initial ? 'given initial' : 'given name'] = $initial
                    ? ($a->givenKey[0] === $b->givenKey[0]
                        ? 'initial only'
                        : 'differs')
                    : $this->name($a->givenKey, $b->givenKey, true);
            }
            if ($a->familyKey !== '' && $b->familyKey !== '') {
                $initial =
                    (strlen($a->familyKey) === 1 || strlen($b->familyKey) === 1) && $a->familyKey !== $b->familyKey;
                $levels[$initial ? 'family initial' : 'family name'] = $initial
                    ? (self::initialOf($a->familyKey, $b->familyKey)
                        ? 'initial only'
                        : 'differs')
                    : $this->name($a->familyKey, $b->familyKey, false);
            }
        }
        if ($a->birthDate !== '' && $b->birthDate !== '') {
            $levels['birth date'] = self::dateLevel($a->birthDate, $b->birthDate);
        }
        $here = $a->schoolId === $b->schoolId || $a->schoolId === '' || $b->schoolId === '';
        if ($a->number !== '' && $b->number !== '') {
            $levels['student number'] = $here
                ? ($a->number === $b->number
                    ? 'alike'
                    : (self::oneSlip($a->number, $b->number)
                        ? 'one digit'
                        : 'differs'))
                : ($a->number === $b->number
                    ? 'alike, elsewhere'
                    : 'differs, elsewhere');
        }
        if ($a->email !== '' && $b->email !== '') {
            $levels['e-mail'] =
                $a->email === $b->email
                    ? ($b->claimed
                        ? 'alike, claimed'
                        : 'alike')
                    : (self::localPart($a->email) === self::localPart($b->email)
                        ? 'same local part'
                        : 'differs');
        }
        if (($a->contacts !== [] && $b->contacts !== []) || ($a->guardians !== [] && $b->guardians !== [])) {
            $levels['guardian contact'] =
                array_intersect($a->contacts, $b->contacts) !== []
                    ? 'alike'
                    : (array_intersect($a->guardians, $b->guardians) !== []
                        ? 'same name'
                        : 'differs');
        }
        if ($a->grade !== '' && $b->grade !== '') {
            $levels['grade'] = match (self::gradeOrder($a->grade) - self::gradeOrder($b->grade)) {
                0 => 'alike',
                1 => 'next',
                default => 'differs',
            };
        }
        if ($a->sections !== [] && $b->sections !== [] && $here) {
            $levels['section'] = array_intersect($a->sections, $b->sections) !== [] ? 'alike' : 'differs';
        }
        if ($a->schoolId !== '' && $b->schoolId !== '') {
            $levels['school'] = $here ? 'alike' : 'differs';
        }

        return $levels;
    }

    /**
     * Bits for the two being one person, and for their being brothers or sisters.
     *
     * @param  array<string, string>  $levels as {@see levels} gives them
     * @return array{float, float}
     */
    public function score(array $levels, Subject $a, Subject $b): array
    {
        $same = $sibling = 0.0;
        foreach ($levels as $field => $level) {
            $frequency = $this->frequency($field, $level, $a, $b);
            if ($frequency === null) {
                $same += $this->bits["$field|$level"] ??= $this->weights->same($field, $level);
                $sibling += $this->bits["$field|$level|s"] ??= $this->weights->sibling($field, $level);
            } else {
                $same += $this->weights->same($field, $level, $frequency);
                $sibling += $this->weights->sibling($field, $level, $frequency);
            }
        }

        return [$same, $sibling];
    }

    /**
     * Field by field, as it is shown: fields that one side lacks are there with no weight.
     *
     * @return list<Evidence>
     */
    public function evidence(Subject $a, Subject $b): array
    {
        $levels = $this->levels($a, $b);
        $shared = array_values(array_intersect($a->contacts, $b->contacts))[0] ?? null;
        $section = array_values(array_intersect($a->sections, $b->sections))[0] ?? null;
        $sides = [
            'names swapped' => [trim("$a->given $a->family"), trim("$b->given $b->family")],
            'given name' => [$a->given, $b->given],
            'given initial' => [$a->given, $b->given],
            'family name' => [$a->family, $b->family],
            'family initial' => [$a->family, $b->family],
            'birth date' => [$a->birthDate, $b->birthDate],
            'student number' => [$a->number, $b->number],
            'e-mail' => [$a->email, $b->email],
            'guardian contact' => [
                $shared ?? ($a->contacts[0] ?? ($a->guardians[0] ?? '')),
                $shared ?? ($b->contacts[0] ?? ($b->guardians[0] ?? '')),
            ],
            'grade' => [$a->grade, $b->grade],
            'section' => isset($levels['section'])
                ? [$section ?? $a->sections[0], $section ?? $b->sections[0]]
                : ['', ''],
        ];
        $evidence = [];
        foreach ($sides as $field => [$left, $right]) {
            $level = $levels[$field] ?? null;
            if ($level !== null) {
                $evidence[] = new Evidence(
                    $field,
                    $left,
                    $right,
                    $level,
                    $this->weights->same($field, $level, $this->frequency($field, $level, $a, $b)),
                );
            } elseif (
                !in_array($field, ['names swapped', 'given initial', 'family initial'], true) &&
                !(isset($levels['names swapped']) && str_contains($field, 'name')) &&
                !isset($levels[str_replace(' name', ' initial', $field)]) &&
                $left . $right !== ''
            ) {
                $evidence[] = new Evidence($field, $left, $right, 'not known', 0.0);
            }
        }
        if (isset($levels['school'])) {
            $evidence[] = new Evidence(
                'school',
                'this school',
                $levels['school'] === 'alike' ? 'this school' : 'another school',
                $levels['school'],
                $this->weights->same(
                    'school',
                    $levels['school'],
                    $this->frequency('school', $levels['school'], $a, $b),
                ),
            );
        }

        return $evidence;
    }

    private function frequency(string $field, string $level, Subject $a, Subject $b): ?float
    {
        return match ("$field $level") {
            'given name alike' => $this->crowd->given($b->givenKey),
            'family name alike' => $this->crowd->family($b->familyKey),
            // A part is worth the name it is part of, and at most as much as a fairly rare one.
            'given name part of it' => 0.5 * max(0.002, $this->crowd->given(self::shorter($a->givenKey, $b->givenKey))),
            'family name part of it' => 0.5 *
                max(0.001, $this->crowd->family(self::shorter($a->familyKey, $b->familyKey))),
            'names swapped alike' => $this->crowd->given($b->givenKey) * $this->crowd->family($b->familyKey),
            'school alike' => $this->crowd->school($b->schoolId),
            'school differs' => 1 - $this->crowd->school($b->schoolId),
            'grade alike', 'grade next' => $this->crowd->grade($b->schoolId),
            'section alike' => $this->crowd->section(array_values(array_intersect($a->sections, $b->sections))),
            'guardian contact alike' => $this->crowd->contact(
                array_values(array_intersect($a->contacts, $b->contacts)),
            ),
            default => null,
        };
    }

    private static function shorter(string $a, string $b): string
    {
        return strlen($a) < strlen($b) ? $a : $b;
    }

    private function name(string $a, string $b, bool $given): string
    {
        if ($a === $b) {
            return 'alike';
        }
        if (count($this->remembered) > 200_000) {
            $this->remembered = [];
        }

        return $this->remembered[($given ? 'g' : 'f') . "$a|$b"] ??= self::nameLevel($a, $b, $given);
    }

    private static function nameLevel(string $a, string $b, bool $given): string
    {
        if (self::otherForm($a, $b) || ($given && array_intersect(GivenNames::of($a), GivenNames::of($b)) !== [])) {
            return 'other form';
        }
        $wordsA = explode(' ', $a);
        $wordsB = explode(' ', $b);
        if (count($wordsA) > 1 || count($wordsB) > 1) {
            foreach ($wordsA as $wordA) {
                foreach ($wordsB as $wordB) {
                    if (
                        strlen($wordA) > 1 &&
                        !isset(self::SMALL[$wordA]) &&
                        ($wordA === $wordB ||
                            self::otherForm($wordA, $wordB) ||
                            ($given && array_intersect(GivenNames::of($wordA), GivenNames::of($wordB)) !== []))
                    ) {
                        return 'part of it';
                    }
                }
            }
        }
        // One slip early in a short name brings the comparator down further than it should.
        if (
            JaroWinkler::similarity($a, $b) >= self::NEAR ||
            (min(strlen($a), strlen($b)) >= 5 && (levenshtein($a, $b) === 1 || self::oneSlip($a, $b)))
        ) {
            return 'near';
        }
        // A short form is often just the beginning: "Wilhel" is not, "Gus" for "Gustavo" is.
        if ($given && min(strlen($a), strlen($b)) >= 3 && (str_starts_with($a, $b) || str_starts_with($b, $a))) {
            return 'other form';
        }

        if (Soundex::of($a) === Soundex::of($b)) {
            return 'sounds alike';
        }
        // A short form nobody has listed: "Topher", "Seun" for "Oluwaseun"; or more slips than one.
        $ends = min(strlen($a), strlen($b)) >= 4 && (str_ends_with($a, $b) || str_ends_with($b, $a));

        return $given && ($ends || JaroWinkler::similarity($a, $b) >= self::AKIN) ? 'akin' : 'differs';
    }

    /** Words that families share without being related. */
    // prettier-ignore
    private const SMALL = [
        'de' => 1, 'la' => 1, 'van' => 1, 'von' => 1, 'der' => 1, 'den' => 1, 'del' => 1, 'al' => 1, 'el' => 1,
        'bin' => 1, 'ben' => 1, 'da' => 1, 'dos' => 1, 'di' => 1, 'le' => 1, 'du' => 1, 'st' => 1, 'abu' => 1,
        'ibn' => 1, 'mc' => 1, 'mac' => 1, 'thi' => 1,
    ];

    /** The same name written by another rule: words joined, umlauts spelled out, vowels that a script leaves out. */
    private static function otherForm(string $a, string $b): bool
    {
        $a = str_replace(' ', '', $a);
        $b = str_replace(' ', '', $b);
        if ($a === $b) {
            return true;
        }
        if (NameKey::loose($a) === NameKey::loose($b)) {
            return true;
        }
        $bare = fn(string $s): string => (string) preg_replace(
            '/(.)\1+/',
            '$1',
            str_replace(['a', 'e', 'i', 'o', 'u'], '', $s),
        );
        $bareA = $bare($a);
        $bareB = $bare($b);

        // Arabic and Hebrew write few vowels: only a name romanised without any is held against the bones of the other.
        return strlen($bareA) >= 3 && $bareA === $bareB && ($bareA === $a || $bareB === $b);
    }

    private static function initialOf(string $a, string $b): bool
    {
        [$short, $long] = strlen($a) === 1 ? [$a, $b] : [$b, $a];
        foreach (explode(' ', $long) as $word) {
            if ($word[0] === $short && !isset(self::SMALL[$word])) {
                return true;
            }
        }

        return false;
    }

    private static function dateLevel(string $a, string $b): string
    {
        if ($a === $b) {
            return 'alike';
        }
        if (strlen($a) !== 10 || strlen($b) !== 10) {
            return 'differs';
        }
        $year = substr($a, 0, 4) === substr($b, 0, 4);

        return match (true) {
            $year && substr($a, 5, 2) === substr($b, 8, 2) && substr($a, 8, 2) === substr($b, 5, 2) => 'turned',
            self::oneSlip($a, $b) => 'one digit',
            substr($a, 4) === substr($b, 4) => 'another year',
            $year => 'same year',
            default => 'differs',
        };
    }

    /** One symbol changed, or two neighbours that changed places. */
    private static function oneSlip(string $a, string $b): bool
    {
        if (strlen($a) !== strlen($b)) {
            return false;
        }
        $places = [];
        for ($i = 0, $n = strlen($a); $i < $n; $i++) {
            if ($a[$i] !== $b[$i]) {
                if (count($places) === 2) {
                    return false;
                }
                $places[] = $i;
            }
        }

        return count($places) === 1 ||
            (count($places) === 2 &&
                $places[1] === $places[0] + 1 &&
                $a[$places[0]] === $b[$places[1]] &&
                $a[$places[1]] === $b[$places[0]]);
    }

    private static function localPart(string $mail): string
    {
        return (string) strstr($mail, '@', true);
    }

    private static function gradeOrder(string $grade): int
    {
        return match ($grade) {
            'PK' => -1,
            'KG' => 0,
            default => (int) $grade,
        };
    }
}
