<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Values\GradeLevel;

/**
 * Whom a row is compared with: only people known who share a block with it, a number, an address, a sound of the name
 * with a year of birth and so on, which keeps the cost of a list near linear.
 */
final class Blocks
{
    /** First letters of the blocks of those who share a number, an address or a telephone, or a child. */
    public const CONTACTS = 'nec';

    /** A block with more people than this says too little by itself and is split. */
    private const MAX_BLOCK = 100;

    /** More people than this of one name and block cannot be told apart by anything else either. */
    private const MAX_PART = 300;

    /** @var list<string>|null */
    private static ?array $grades = null;

    /** @var array<string, list<int>> wanted block to places among those near */
    private array $blocks = [];

    /** @var array<string, array<string, list<int>>> block that is too large to further key to places */
    private array $parts = [];

    /** @var list<Subject> people known who share a block with some row */
    private array $near = [];

    /**
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known read once; only those who share a block with some row are kept
     * @param  Population  $crowd counts everyone known as they pass
     * @param  string  $only first letters of the blocks that are looked into; '' for all
     */
    public function __construct(array $rows, iterable $known, Population $crowd, private readonly string $only = '')
    {
        foreach ($rows as $row) {
            foreach ($this->lookedInto($row) as $key) {
                $this->blocks[$key] = [];
            }
        }
        foreach ($known as $subject) {
            $crowd->add($subject);
            $place = null;
            foreach (self::keys($subject) as $key) {
                if (isset($this->blocks[$key])) {
                    if ($place === null) {
                        $place = count($this->near);
                        $this->near[] = $subject;
                    }
                    $this->blocks[$key][] = $place;
                }
            }
        }
        foreach ($this->blocks as $key => $places) {
            if (((string) $key)[0] === 'c') {
                $crowd->countContact(substr((string) $key, 1), count($places));
            }
        }
    }

    /** @return iterable<int, Subject> everyone worth weighing against a row of the list, each once */
    public function nearTo(Subject $row): iterable
    {
        $seen = [];
        foreach ($this->lookedInto($row) as $key) {
            $block = $this->blocks[$key];
            if (count($block) > self::MAX_BLOCK && !in_array($key[0], ['n', 'e'], true)) {
                $block = $this->part($key, $row);
            }
            foreach ($block as $place) {
                if (!isset($seen[$place])) {
                    $seen[$place] = true;
                    yield $this->near[$place];
                }
            }
        }
    }

    /**
     * Of a block that is too large, those who share a further key with the row: the birth date, the whole name, the
     * beginning of the given name or a form of it. Nobody is passed over for the size of a block alone.
     *
     * @return list<int>
     */
    private function part(string $key, Subject $row): array
    {
        if (!isset($this->parts[$key])) {
            $this->parts[$key] = [];
            foreach ($this->blocks[$key] as $place) {
                foreach (self::furtherKeys($this->near[$place]) as $further) {
                    $this->parts[$key][$further][] = $place;
                }
            }
        }
        $found = [];
        foreach (self::furtherKeys($row) as $further) {
            $part = $this->parts[$key][$further] ?? [];
            // What is common even here says nothing; the whole name and the birth date are looked at in any case.
            if (count($part) <= self::MAX_BLOCK || $further[0] === 'x' || $further[0] === 'b') {
                array_push($found, ...array_slice($part, 0, self::MAX_PART));
            }
        }

        return $found;
    }

    /** @return list<string> */
    private static function furtherKeys(Subject $s): array
    {
        $keys = ["x$s->givenKey|$s->familyKey", 'g' . substr($s->givenKey, 0, 4)];
        if ($s->birthDate !== '') {
            $keys[] = "b$s->birthDate";
        }
        foreach (GivenNames::of(explode(' ', $s->givenKey)[0]) as $line) {
            $keys[] = "l$line|$s->familyKey";
        }

        return $keys;
    }

    /**
     * Blocks a person stands in.
     *
     * @return list<string>
     */
    private static function keys(Subject $s): array
    {
        $keys = [];
        if ($s->number !== '') {
            $keys[] = "n$s->number";
        }
        if ($s->email !== '') {
            $keys[] = "e$s->email";
        }
        foreach ($s->contacts as $contact) {
            $keys[] = "c$contact";
        }
        if ($s->givenKey === '') {
            return $keys;
        }
        // Sorted, so that given and family name written the wrong way round meet.
        $keys[] = 'b' . ($s->givenKey < $s->familyKey ? "$s->givenKey $s->familyKey" : "$s->familyKey $s->givenKey");
        if ($s->familyKey !== '') {
            foreach (self::stems($s) as $stem) {
                $keys[] = "f$stem|$s->grade";
            }
            // For lists that give the family name's initial only.
            foreach (explode(' ', $s->familyKey) as $word) {
                $keys[] = 'i' . explode(' ', $s->givenKey)[0] . "|$word[0]";
            }
        }
        if ($s->birthDate !== '') {
            $keys[] = 'p' . Soundex::of($s->familyKey) . substr($s->birthDate, 0, 4);
            $keys[] = 'q' . Soundex::of($s->givenKey) . $s->birthDate;
            $a = $s->givenKey[0];
            $b = $s->familyKey[0] ?? '';
            $keys[] = "d$s->birthDate" . ($a < $b ? $a . $b : $b . $a);
        }

        return $keys;
    }

    /** @return list<string> */
    private function lookedInto(Subject $row): array
    {
        $wanted = self::wanted($row);

        return $this->only === ''
            ? $wanted
            : array_values(array_filter($wanted, fn(string $key): bool => str_contains($this->only, $key[0])));
    }

    /**
     * Blocks a row looks into: those of {@see keys}, the grade as it is and one to either side, or any if it has none.
     *
     * @return list<string>
     */
    private static function wanted(Subject $s): array
    {
        $keys = [];
        foreach (self::keys($s) as $key) {
            if ($key[0] !== 'f' && ($key[0] !== 'i' || strlen($s->familyKey) === 1)) {
                $keys[] = $key;
            }
        }
        if ($s->givenKey !== '' && $s->familyKey !== '') {
            $grades = self::$grades ??= GradeLevel::codes();
            $at = array_search($s->grade, $grades, true);
            $looked = $at === false ? $grades : array_slice($grades, max(0, $at - 1), $at === 0 ? 2 : 3);
            foreach (self::stems($s) as $stem) {
                foreach ([...$looked, ''] as $grade) {
                    $keys[] = "f$stem|$grade";
                }
            }
        }

        return $keys;
    }

    /**
     * First letter of the given name, in any of its forms, with the beginning of each word of the family name.
     *
     * @return list<string>
     */
    private static function stems(Subject $s): array
    {
        $stems = [];
        foreach (explode(' ', $s->familyKey) as $word) {
            if (strlen($word) < 3 && $word !== $s->familyKey) {
                continue;
            }
            foreach (explode(' ', $s->givenKey) as $given) {
                foreach (GivenNames::initials($given) as $initial) {
                    $stems[$initial . substr($word, 0, 4)] = true;
                }
            }
        }

        return array_map(strval(...), array_keys($stems));
    }
}
