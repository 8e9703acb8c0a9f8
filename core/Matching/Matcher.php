<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Table\Assignment;

/**
 * Finds who of the people known the rows of a list may be: probabilistic record linkage after Fellegi and Sunter (1969,
 * JASA 64:1183). Only people who share a block with a row are compared, which keeps the cost near linear.
 *
 * For each row three things can be true: it is someone known, it is a brother or sister of someone known, or neither.
 * The chance that it is person k weighs the evidence for k against all the rest: A_k / (1 - K + sum of all A and B),
 * with
 * A_k = K/N x 2^(bits for the same person), B_k = S/N x 2^(bits for a sibling), N people known. K is taken from the
 * list itself, by expectation and maximisation: the share of rows that are someone known.
 */
final class Matcher
{
    /** At or above: the same person. */
    public const SAME = 0.98;

    /** Below: another person. Between the two: a question. */
    public const OTHER = 0.1;

    /**
     * K, the chance that a row's person is among those known, before the list has been looked at; and how far the list
     * may move it.
     */
    private const KNOWN_SHARE = 0.5;

    private const KNOWN_SHARE_LIMITS = [0.1, 0.95];

    /** As many rows as this weigh as much as the half one starts from. */
    private const KNOWN_SHARE_ROWS = 4;

    private const KNOWN_SHARE_ROUNDS = 8;

    /** S: chance that it is a brother or sister, not known yet, of someone known. */
    public const SIBLING_SHARE = 0.1;

    /** A block with more people than this says too little by itself and is split. */
    private const MAX_BLOCK = 100;

    /** More people than this of one name and block cannot be told apart by anything else either. */
    private const MAX_PART = 300;

    /**
     * Groups of rows and people that compete for each other are settled exactly up to this size, beyond it likeliest
     * first.
     */
    private const MAX_GROUP = 60;

    /** How often those who lost someone to another row are weighed again. */
    private const ROUNDS = 6;

    private Comparator $comparator;

    /** @var array<string, list<int>> wanted block to places in {@see} */
    private array $blocks = [];

    /** @var array<string, array<string, list<int>>> block that is too large to further key to places */
    private array $parts = [];

    /** @var list<Subject> people known who share a block with some row */
    private array $near = [];

    private readonly Crowd $crowd;

    /** @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round */
    private function __construct(private readonly array $toldApart)
    {
        $this->crowd = new Crowd();
    }

    /**
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known read once; only those who share something with a row are kept
     * @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round
     */
    public static function link(array $rows, iterable $known, ?Weights $weights = null, array $toldApart = []): Linkage
    {
        $matcher = new self($toldApart);
        $matcher->take($rows, $known, $weights ?? Weights::published());
        $scores = $candidates = $apart = [];
        foreach ($rows as $row) {
            $scores[$row->id] = $matcher->score($row);
        }
        $share = self::knownShare($scores);
        foreach ($rows as $row) {
            [$found, $other] = $matcher->weigh($row, $scores[$row->id], $share);
            if ($found !== []) {
                $candidates[$row->id] = $found;
            }
            if ($other !== null) {
                $apart[$row->id] = $other;
            }
        }

        $taken = [];
        for ($round = 0; $round < self::ROUNDS; $round++) {
            if (!$matcher->withoutTaken($rows, $scores, $share, $candidates, $taken)) {
                break;
            }
        }

        return new Linkage(
            $candidates,
            self::assign($candidates),
            $apart,
            $taken,
            $matcher->comparator,
            $matcher->crowd->people,
        );
    }

    /**
     * Pairs among one set of records that may be one person, each judged by itself: several records can be the same
     * one.
     *
     * @param  list<Subject>  $subjects
     * @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round
     * @return list<array{Subject, Candidate}> each pair once, those of {@see OTHER} and more, in the order of the
     *     records
     */
    public static function pairs(array $subjects, ?Weights $weights = null, array $toldApart = []): array
    {
        $matcher = new self($toldApart);
        $matcher->take($subjects, $subjects, $weights ?? Weights::published());
        $pairs = $seen = [];
        foreach ($subjects as $subject) {
            foreach ($matcher->score($subject) as [$other, $a, $b, $levels]) {
                $key = $subject->id < $other->id ? "$subject->id $other->id" : "$other->id $subject->id";
                $probability = (self::KNOWN_SHARE * $a) / (1 - self::KNOWN_SHARE + self::KNOWN_SHARE * $a + $b);
                if (isset($seen[$key]) || $probability < self::OTHER || self::isAnother($levels)) {
                    continue;
                }
                $seen[$key] = true;
                $pairs[] = [
                    $subject,
                    new Candidate(
                        $other,
                        $matcher->comparator->evidence($subject, $other),
                        $probability,
                        self::caution($levels),
                    ),
                ];
            }
        }

        return $pairs;
    }

    /**
     * Whoever is taken for certain is out of the question for all other rows: these are weighed again without them.
     *
     * @param  list<Subject>  $rows
     * @param  array<string, list<array{Subject, float, float, array<string, string>}>>  $scores
     * @param  array<string, list<Candidate>>  $candidates
     * @param  array<string, array{Candidate, string}>  $taken
     * @return bool whether anything changed
     */
    private function withoutTaken(array $rows, array $scores, float $share, array &$candidates, array &$taken): bool
    {
        $takenBy = [];
        foreach (self::assign($candidates) as $row => $id) {
            foreach ($candidates[$row] as $candidate) {
                if ($candidate->subject->id === $id && $candidate->sure()) {
                    $takenBy[$id] = (string) $row;
                }
            }
        }
        $changed = false;
        foreach ($rows as $row) {
            $lost = array_values(
                array_filter(
                    $candidates[$row->id] ?? [],
                    fn(Candidate $c): bool => ($takenBy[$c->subject->id] ?? $row->id) !== $row->id,
                ),
            );
            if ($lost === []) {
                continue;
            }
            $left = array_values(
                array_filter($scores[$row->id], fn(array $s): bool => ($takenBy[$s[0]->id] ?? $row->id) === $row->id),
            );
            [$candidates[$row->id]] = $this->weigh($row, $left, $share);
            $taken[$row->id] ??= [$lost[0], $takenBy[$lost[0]->subject->id]];
            $changed = true;
        }
        $candidates = array_filter($candidates, fn(array $list): bool => $list !== []);

        return $changed;
    }

    /**
     * How the rows and those they share a block with agree, for {@see Estimation}: pattern to how many pairs show it.
     *
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known
     * @return list<array{array<string, string>, int}>
     */
    public static function patterns(array $rows, iterable $known): array
    {
        $matcher = new self([]);
        $matcher->take($rows, $known, Weights::published());
        $patterns = $counts = [];
        foreach ($rows as $row) {
            foreach ($matcher->nearTo($row) as $person) {
                if ($person->id !== $row->id) {
                    $levels = $matcher->comparator->levels($row, $person);
                    $key = json_encode($levels, JSON_THROW_ON_ERROR);
                    $patterns[$key] = $levels;
                    $counts[$key] = ($counts[$key] ?? 0) + 1;
                }
            }
        }

        return array_map(fn(string $key): array => [$patterns[$key], $counts[$key]], array_keys($patterns));
    }

    /**
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known
     */
    private function take(array $rows, iterable $known, Weights $weights): void
    {
        foreach ($rows as $row) {
            foreach (self::wanted($row) as $key) {
                $this->blocks[$key] = [];
            }
        }
        foreach ($known as $subject) {
            $this->crowd->add($subject);
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
                $this->crowd->countContact(substr((string) $key, 1), count($places));
            }
        }
        $this->comparator = new Comparator($weights, $this->crowd);
    }

    /**
     * Everyone worth weighing against a row: place among those near, odds for the same person, for a sibling, and
     * levels.
     *
     * @return list<array{Subject, float, float, array<string, string>}>
     */
    private function score(Subject $row): array
    {
        $scored = [];
        foreach ($this->nearTo($row) as $person) {
            if ($person->id === $row->id || isset($this->toldApart["$row->id $person->id"])) {
                continue;
            }
            $levels = $this->comparator->levels($row, $person);
            [$same, $sibling] = $this->comparator->score($levels, $row, $person);
            // Bits beyond 60 either way make no difference that a double can hold; the least are left out, save for
            // naming namesakes.
            $a = 2 ** max(-60.0, min(60.0, $same)) / max(2, $this->crowd->people);
            $b = (self::SIBLING_SHARE * 2 ** max(-60.0, min(60.0, $sibling))) / max(2, $this->crowd->people);
            if ($a + $b > 1e-9) {
                $scored[] = [$person, $a, $b, $levels];
            }
        }

        return $scored;
    }

    /** @param  array<string, list<array{Subject, float, float, array<string, string>}>>  $scores */
    private static function knownShare(array $scores): float
    {
        $share = self::KNOWN_SHARE;
        for ($round = 0; $round < self::KNOWN_SHARE_ROUNDS; $round++) {
            $known = self::KNOWN_SHARE * self::KNOWN_SHARE_ROWS;
            foreach ($scores as $scored) {
                $same = $sibling = 0.0;
                foreach ($scored as [, $a, $b]) {
                    $same += $a;
                    $sibling += $b;
                }
                $known += ($share * $same) / (1 - $share + $sibling + $share * $same);
            }
            $share = max(
                self::KNOWN_SHARE_LIMITS[0],
                min(self::KNOWN_SHARE_LIMITS[1], $known / (count($scores) + self::KNOWN_SHARE_ROWS)),
            );
        }

        // In steps, so that a list planned again after a part of it was applied is weighed as before.
        return round($share * 20) / 20;
    }

    /**
     * @param  list<array{Subject, float, float, array<string, string>}>  $scored
     * @return array{list<Candidate>, array{string, string}|null}
     */
    private function weigh(Subject $row, array $scored, float $share): array
    {
        $sum = 1 - $share;
        foreach ($scored as [, $a, $b]) {
            $sum += $share * $a + $b;
        }
        $found = [];
        $apart = null;
        $nearest = 0.0;
        foreach ($scored as [$person, $a, $b, $levels]) {
            $probability = ($share * $a) / $sum;
            if ($probability >= self::OTHER && !self::isAnother($levels)) {
                $found[] = new Candidate(
                    $person,
                    $this->comparator->evidence($row, $person),
                    $probability,
                    self::caution($levels),
                );
            } elseif ($a + $b > $nearest) {
                $word = self::relation($levels, $b > $share * $a);
                if ($word !== '') {
                    $nearest = $a + $b;
                    $apart = [$person->id, trim("$person->given $person->family") . ": $word"];
                }
            }
        }
        usort(
            $found,
            fn(Candidate $a, Candidate $b): int => [$b->probability, $a->subject->id] <=> [
                $a->probability,
                $b->subject->id,
            ],
        );

        return [$found, $apart];
    }

    /** @return iterable<int, Subject> each once */
    private function nearTo(Subject $row): iterable
    {
        $seen = [];
        foreach (self::wanted($row) as $key) {
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
     * Another given name is another child, a twin above all, however alike the rest: unless the number or the own
     * address is the same, and then a person has to look.
     *
     * @param  array<string, string>  $levels
     */
    private static function isAnother(array $levels): bool
    {
        return ($levels['given name'] ?? ($levels['given initial'] ?? '')) === 'differs' &&
            ($levels['student number'] ?? '') !== 'alike' &&
            ($levels['e-mail'] ?? '') !== 'alike';
    }

    /**
     * Why a match must not be settled without a person, '' if nothing speaks against it.
     *
     * @param  array<string, string>  $levels
     */
    public static function caution(array $levels): string
    {
        $given = $levels['given name'] ?? ($levels['given initial'] ?? 'not known');
        $settled = ($levels['student number'] ?? '') === 'alike' || ($levels['e-mail'] ?? '') === 'alike';

        return match (true) {
            $given === 'differs' => 'the given name is another',
            $given === 'akin' && !$settled => ($levels['birth date'] ?? '') === 'alike'
                ? 'a twin, or the same child by another name'
                : 'the given name is another',
            ($levels['family name'] ?? '') === 'differs' && !$settled => 'the family name is another',
            in_array($levels['student number'] ?? '', ['differs', 'one digit'], true) => 'same name, another number',
            ($levels['birth date'] ?? '') === 'differs' && !$settled => 'same name, another birth date',
            default => '',
        };
    }

    /** @param  array<string, string>  $levels */
    private static function relation(array $levels, bool $sibling): string
    {
        $given = $levels['given name'] ?? 'not known';
        $family = $levels['family name'] ?? 'not known';
        if (
            $given === 'differs' &&
            $family === 'alike' &&
            ($sibling || in_array('alike', [$levels['guardian contact'] ?? '', $levels['birth date'] ?? ''], true))
        ) {
            return ($levels['birth date'] ?? '') === 'alike' ? 'a twin' : 'a brother or sister';
        }
        if ($given === 'alike' && $family === 'alike') {
            $by = array_values(
                array_filter(
                    ['birth date', 'student number', 'grade'],
                    fn(string $f): bool => in_array($levels[$f] ?? '', ['differs', 'same year'], true),
                ),
            );

            return $by === []
                ? ''
                : 'a namesake, ' . implode(' and ', array_slice($by, 0, 2)) . (count($by) > 1 ? ' differ' : ' differs');
        }

        return '';
    }

    /**
     * Each person can be one row only. Rows and people that compete are gathered into groups, and each group gets the
     * assignment with the highest total of log odds.
     *
     * @param  array<string, list<Candidate>>  $candidates
     * @return array<string, string>
     */
    private static function assign(array $candidates): array
    {
        $rowsOf = [];
        foreach ($candidates as $row => $list) {
            foreach ($list as $candidate) {
                $rowsOf[$candidate->subject->id][] = (string) $row;
            }
        }
        $assigned = $done = [];
        foreach (array_keys($candidates) as $start) {
            $start = (string) $start;
            if (isset($done[$start])) {
                continue;
            }
            $rows = [$start => true];
            $people = [];
            $queue = [$start];
            while ($queue !== []) {
                foreach ($candidates[array_pop($queue)] as $candidate) {
                    $id = $candidate->subject->id;
                    if (isset($people[$id])) {
                        continue;
                    }
                    $people[$id] = true;
                    foreach ($rowsOf[$id] as $other) {
                        if (!isset($rows[$other])) {
                            $rows[$other] = true;
                            $queue[] = $other;
                        }
                    }
                }
            }
            $rows = array_map(strval(...), array_keys($rows));
            $done += array_fill_keys($rows, true);
            $assigned += self::settle($rows, array_map(strval(...), array_keys($people)), $candidates);
        }

        return $assigned;
    }

    /**
     * @param  list<string>  $rows
     * @param  list<string>  $people
     * @param  array<string, list<Candidate>>  $candidates
     * @return array<string, string>
     */
    private static function settle(array $rows, array $people, array $candidates): array
    {
        $assigned = [];
        if (max(count($rows), count($people)) > self::MAX_GROUP) {
            $pairs = [];
            foreach ($rows as $row) {
                foreach ($candidates[$row] as $candidate) {
                    $pairs[] = [$candidate->probability, $row, $candidate->subject->id];
                }
            }
            rsort($pairs);
            $taken = [];
            foreach ($pairs as [, $row, $id]) {
                if (!isset($assigned[$row]) && !isset($taken[$id])) {
                    $assigned[$row] = $id;
                    $taken[$id] = true;
                }
            }

            return $assigned;
        }
        $place = array_flip($people);
        $scores = [];
        foreach ($rows as $row) {
            $line = array_fill(0, count($people), 0.0);
            foreach ($candidates[$row] as $candidate) {
                // Log odds against "nobody known", lifted so that any candidate is worth more than none.
                $line[$place[$candidate->subject->id]] =
                    20 + log(max(1e-9, $candidate->probability) / max(1e-9, 1 - $candidate->probability));
            }
            $scores[] = array_values($line);
        }
        foreach (Assignment::best($scores) as $r => $p) {
            if ($p !== null && $scores[$r][$p] > 0.0) {
                $assigned[$rows[$r]] = $people[$p];
            }
        }

        return $assigned;
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
            $grades = ['PK', 'KG', '01', '02', '03', '04', '05', '06', '07', '08', '09', '10', '11', '12', '13'];
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
