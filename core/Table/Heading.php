<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * What a heading says its column holds, in the languages of the product: English, Spanish, French, Arabic, Vietnamese,
 * Ukrainian, Chinese, and some German and Portuguese. Common practice, no source; from memory.
 */
final class Heading
{
    /** From this score on, a heading is known. */
    public const KNOWN = 0.8;

    /** @var array<string, array<string, float>> */
    private static array $known = [];

    /** @var array<string, string>|null plain phrase to field or attribute */
    private static ?array $phrases = null;

    /** @var array<string, list<array{string, string}>> length and first letter to phrases and what they are of */
    private static array $near = [];

    /**
     * @return array<string, float> field value to how surely the heading says so, 0.8 to 1; empty where it says nothing
     *     known
     */
    public static function read(string $heading): array
    {
        if (count(self::$known) > 5000) {
            self::$known = [];
        }

        return self::$known[$heading] ??= self::parts($heading);
    }

    /**
     * A heading is words with a hint beside them: "DOB (MM/DD/YYYY)", "Your name (parent/guardian)", "Student #". The
     * hint counts where it says whose the column is; otherwise the words say it alone.
     *
     * @return array<string, float>
     */
    private static function parts(string $heading): array
    {
        $plain = (string) preg_replace(
            [
                "/\\b([dl])['’](?=\\p{L})/iu",
                '/([a-z\d])([A-Z][a-z])|([a-z])([A-Z])/',
                '/[#№]|\bn[º°]/iu',
                '/(\p{L})\/(?:r|in|a|o|e|s|es)\b/u',
            ],
            ['$1 ', '$1$3 $2$4', ' number ', '$1'],
            $heading,
        );
        preg_match_all('/[(\[]([^)\]]*)[)\]]/u', $plain, $m);
        $hint = NameKey::of(implode(' ', $m[1]));
        $base = NameKey::of((string) preg_replace('/[(\[][^)\]]*[)\]]?/u', ' ', $plain));
        $whole = NameKey::of($plain);
        if ($base !== '' && $hint !== '') {
            $whose = array_filter(
                explode(' ', $hint),
                fn(string $w): bool => isset(HeadingWords::GUARDIAN[rtrim($w, '1234s')]) ||
                    in_array($w, HeadingWords::STUDENT, true),
            );
            $found = $whose === [] ? [] : self::fits("$hint $base");

            return $found !== [] ? $found : (self::fits($base) ?: self::fits($whole));
        }

        // "Grade in fall 2026": the year it is of.
        $undated = str_contains($whole, '20') ? trim((string) preg_replace('/\b20\d\d\b/', '', $whole)) : $whole;

        return self::fits($whole) ?: ($undated === $whole ? [] : self::fits($undated));
    }

    /** @return array<string, float> */
    private static function fits(string $key): array
    {
        return $key === '' || strlen($key) > 80 ? [] : self::work($key);
    }

    /** The relationship that a heading itself states: "Mother e-mail". */
    public static function relationship(string $heading): string
    {
        $words = explode(' ', NameKey::of($heading));
        foreach (self::isInTwoLanguages($words) ? [] : $words as $word) {
            $n = HeadingWords::GUARDIAN[$word] ?? (HeadingWords::GUARDIAN[rtrim($word, 's')] ?? 0);
            if ($n > 0) {
                return $n === 1 ? 'mother' : 'father';
            }
        }

        return '';
    }

    /**
     * "Parent / Padre" says the same twice; the father alone is meant by neither.
     *
     * @param  list<string>  $words
     */
    private static function isInTwoLanguages(array $words): bool
    {
        return array_intersect($words, ['padre', 'padres']) !== [] &&
            array_intersect($words, ['parent', 'parents', 'guardian', 'guardians']) !== [];
    }

    /** Whether a heading, alone, says whose the columns below it are: "Parent 1", "Student". */
    public static function isOfSomebody(string $heading): bool
    {
        foreach (explode(' ', NameKey::of($heading)) as $word) {
            $plain = rtrim($word, '1234');
            if (
                isset(HeadingWords::GUARDIAN[$plain]) ||
                isset(HeadingWords::GUARDIAN[rtrim($plain, 's')]) ||
                in_array($plain, HeadingWords::STUDENT, true)
            ) {
                return true;
            }
        }

        return false;
    }

    public static function isOfStudents(string $heading): bool
    {
        return array_intersect(explode(' ', NameKey::of($heading)), HeadingWords::STUDENT) !== [];
    }

    /** Whether the heading is of a column that nothing is read from. */
    public static function isLeftOut(string $heading): bool
    {
        return in_array(NameKey::of($heading), HeadingWords::LEFT_OUT, true);
    }

    /** @return array<string, float> */
    private static function work(string $key): array
    {
        $words = explode(' ', strtr($key, HeadingWords::TOGETHER));
        // A year of leaving: no class that is taught.
        if (preg_match('/^(class of|graduat\w* (year|class|date)|grad year|yog|cohort)\b/', $key) === 1) {
            return [];
        }
        $aside = HeadingVocabulary::aside($words);
        if ($aside !== null) {
            return [$aside => 1.0];
        }
        if (
            array_intersect($words, [
                'emergency',
                'doctor',
                'bus',
                'password',
                'counselor',
                'counsellor',
                'address',
                'street',
                'preferred',
                'nickname',
            ]) !== [] &&
            !str_contains($key, 'mail')
        ) {
            return [];
        }
        // "Parent's phone", "e-mail (guardian 2)": what is left when whose it is has been taken off says what it is.
        $guardian = $student = $staff = false;
        $n = 0;
        $rest = $after = [];
        // "P1_EMAIL", "G2 phone": only where something of theirs follows; alone it may be a period.
        if (count($words) > 1 && preg_match('/^[pg]([1-4])$/', $words[0], $m) === 1) {
            $words[0] = "parent$m[1]";
        }
        foreach ($words as $i => $word) {
            foreach (['student', 'guardian', 'parent', 'mother', 'father'] as $meant) {
                $words[$i] = self::isSwapped($word, $meant) ? $meant : $words[$i];
            }
        }
        $words = self::isInTwoLanguages($words) ? array_values(array_diff($words, ['padre', 'padres'])) : $words;
        foreach ($words as $word) {
            $plain = rtrim($word, '1234');
            // "Mother's phone" has lost its apostrophe by now.
            $plain = isset(HeadingWords::GUARDIAN[$plain]) ? $plain : (string) preg_replace('/s$/', '', $plain);
            if (
                isset(HeadingWords::GUARDIAN[$plain]) &&
                !($plain === 'contact' && in_array('number', $words, true) && !$guardian)
            ) {
                $guardian = true;
                $n = max($n, HeadingWords::GUARDIAN[$plain], $plain === $word ? 0 : (int) substr($word, -1));
            } elseif (in_array($word, HeadingWords::STUDENT, true)) {
                $student = true;
            } elseif (in_array($word, HeadingWords::STAFF, true)) {
                $staff = true;
                $rest[] = $word;
            } else {
                if ($guardian) {
                    $after[count($rest)] = true;
                }
                $rest[] = $word;
            }
        }
        if ($guardian) {
            $phrase = [];
            foreach ($rest as $i => $word) {
                // "First parent" counts them; "mother first" is her first name.
                $part = $word === 'first' && (($rest[$i + 1] ?? '') === 'name' || isset($after[$i]));
                if (isset(HeadingWords::ORDINALS[$word]) && !$part) {
                    $n = max($n, HeadingWords::ORDINALS[$word]);
                } elseif (!in_array($word, HeadingWords::FILLERS, true)) {
                    $phrase[] = preg_replace('/^(name|mail|phone)[1-4]$/', '$1', $word);
                }
            }

            // "Guardian type" is no guardian's name; in "type the parent's name" the word says nothing.
            $phrase = $phrase === [] && in_array('type', $rest, true) ? ['type'] : $phrase;

            return self::guardian(implode(' ', $phrase), max(1, $n), $student);
        }
        if (
            array_intersect($rest, ['first', 'given', 'forename']) !== [] &&
            array_intersect($rest, ['last', 'family', 'surname']) !== []
        ) {
            return $student ? ['full_name' => 1.0, 'student_name' => 0.95] : ['full_name' => 1.0];
        }
        $rest = array_values(
            array_filter(
                $rest,
                fn(string $w): bool => !in_array($w, HeadingWords::FILLERS, true) || count($rest) === 1,
            ),
        );
        [$what, $score] =
            $rest === [] ? ['full_name', 1.0] : self::phrase(implode(' ', $rest)) ?? (self::phrase($key) ?? ['', 0.0]);
        if ($what === '' || $what === 'relationship') {
            // "Relationship 2" is the second one's.
            $n = preg_match('/ ([2-4])$/', $key, $m) === 1 ? $m[1] : '';

            return $what === 'relationship' ? ["guardian{$n}_relationship" => $score] : [];
        }
        $scores = [$what => $score];
        // "Student name" beside a plain "Name" is the child of a guardian's row; "phone" beside a student is the
        // guardian's.
        match ($what) {
            'full_name' => ($scores += $student
                ? ['student_name' => $score * 0.95]
                : ($key === 'name'
                    ? ['family_name' => 0.8]
                    : [])),
            // "Nombre" and "nom" are a part of the name where the other part stands beside it, and the whole of it
            // otherwise.
            'given_name' => array_intersect(['nombre', 'nome'], $rest) !== []
                ? ($scores['full_name'] = $score * 0.9)
                : null,
            'family_name' => $key === 'nom' ? ($scores['full_name'] = $score * 0.85) : null,
            'phone' => ($scores += $student ? [] : ['guardian_phone' => $score * 0.9]),
            'homeroom' => ($scores['section'] = $score * 0.85),
            'section' => ($scores['homeroom'] = $score * 0.82),
            'teacher' => $staff && in_array($key, ['teacher name', 'staff name', 'teacher'], true)
                ? ($scores['full_name'] = $score * 0.5)
                : null,
            'teacher_email' => ($scores['email'] = $score * 0.5),
            default => null,
        };
        if (
            $staff &&
            in_array($what, ['given_name', 'family_name'], true) &&
            !in_array('staff', explode(' ', $key), true)
        ) {
            return ['teacher' => 0.8];
        }

        return $scores;
    }

    /** @return array<string, float> */
    private static function guardian(string $phrase, int $n, bool $student): array
    {
        $prefix = 'guardian' . ($n > 1 ? min(4, $n) : '');
        // "Nombre del padre", "Nom de la mère": the whole name, where no other part of it stands beside.
        [$what, $score] = in_array($phrase, ['', 'nombre', 'nom', 'nome'], true)
            ? ['full_name', 1.0]
            : ($phrase === 'type'
                ? ['relationship', 1.0]
                : self::phrase($phrase) ?? ['', 0.0]);
        $attribute = match ($what) {
            'full_name' => 'name',
            'given_name' => 'given',
            'family_name' => 'family',
            'email' => 'email',
            'phone' => 'phone',
            'student_number' => $phrase === 'number' ? 'phone' : null,
            'relationship' => 'relationship',
            default => null,
        };
        if ($attribute === null) {
            return [];
        }
        $scores = ["{$prefix}_$attribute" => $score];
        // "Tutor" is a guardian in Spanish and a teacher elsewhere; the first of two parents may stand second.
        if ($n < 2) {
            $scores["guardian2_$attribute"] = $score * 0.7;
        }
        if ($student && $attribute === 'name') {
            return [];
        }

        return $scores;
    }

    /** @return array{string, float}|null */
    private static function phrase(string $key): ?array
    {
        if (self::$phrases === null) {
            self::$phrases = [];
            foreach (HeadingWords::PHRASES as $what => $phrases) {
                foreach ($phrases as $phrase) {
                    $plain = NameKey::of($phrase);
                    self::$phrases[$plain] ??= $what;
                    self::$near[strlen($plain) . $plain[0]][] = [$plain, $what];
                }
            }
        }
        if ($key === '') {
            return null;
        }
        if (isset(self::$phrases[$key])) {
            return [self::$phrases[$key], 1.0];
        }
        $joined = str_replace(' ', '', $key);
        if (isset(self::$phrases[$joined])) {
            return [self::$phrases[$joined], 1.0];
        }
        $inside = self::inside($key);
        if ($inside !== null) {
            return $inside;
        }
        $length = strlen($key);
        $slips = $length >= 8 ? 2 : ($length >= 5 ? 1 : 0);
        for ($l = $length - $slips; $slips > 0 && $l <= $length + $slips; $l++) {
            foreach (self::$near[$l . $key[0]] ?? [] as [$phrase, $what]) {
                // Two slips in a short word make another of it: "schedule" is no "Schule".
                $most = strlen($phrase) >= 8 ? $slips : 1;
                if (levenshtein($key, $phrase) <= $most || self::isSwapped($key, $phrase)) {
                    return [$what, 0.85];
                }
            }
        }

        return null;
    }

    /** Whether two letters beside each other have changed places: "grdae". */
    private static function isSwapped(string $a, string $b): bool
    {
        if (strlen($a) !== strlen($b) || strlen($a) < 5) {
            return false;
        }
        for ($i = 0; $i < strlen($a) && $a[$i] === $b[$i]; $i++);

        return $i < strlen($a) - 1 &&
            $a[$i] === $b[$i + 1] &&
            $a[$i + 1] === $b[$i] &&
            substr($a, $i + 2) === substr($b, $i + 2);
    }

    /**
     * The longest known phrase among the words of a longer heading, where it is telling by itself: "date of birth of
     * your child" holds one, "locker number" does not.
     *
     * @return array{string, float}|null
     */
    private static function inside(string $key): ?array
    {
        $words = explode(' ', $key);
        $n = count($words);
        for ($length = min($n - 1, 4); $length >= 1; $length--) {
            for ($from = 0; $from + $length <= $n; $from++) {
                $phrase = implode(' ', array_slice($words, $from, $length));
                $rest = [...array_slice($words, 0, $from), ...array_slice($words, $from + $length)];
                if (
                    isset(self::$phrases[$phrase]) &&
                    ($length > 1 || !in_array($phrase, HeadingWords::VAGUE, true)) &&
                    array_intersect($rest, HeadingWords::ELSEWHERE) === []
                ) {
                    return [
                        self::$phrases[$phrase],
                        array_diff($rest, HeadingWords::FILLERS) === [] ? 0.95 : self::KNOWN,
                    ];
                }
            }
        }

        return null;
    }
}
