<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * Finds who of the people known a subject may be: probabilistic record linkage after Fellegi and Sunter (1969).
 * Only people who share a block with the subject are compared, which keeps the cost near linear.
 */
final class Matcher
{
    /** At or above: the same person. */
    public const SAME = 0.99;

    /** Below: another person. Between the two: a question. */
    public const OTHER = 0.10;

    /** Chance that a row's person is among those known, before anything is looked at. */
    private const KNOWN_SHARE = 0.5;

    /** A block with more people than this says too little by itself and is split by grade. */
    private const MAX_BLOCK = 200;

    private readonly Comparator $comparator;

    /** @var array<string, list<int>> block key to places in */
    private array $blocks = [];

    private readonly float $priorBits;

    /** @param  list<Subject>  $known */
    public function __construct(private readonly array $known)
    {
        $given = $family = [];
        foreach ($known as $place => $subject) {
            $given[$subject->givenKey] = ($given[$subject->givenKey] ?? 0) + 1;
            $family[$subject->familyKey] = ($family[$subject->familyKey] ?? 0) + 1;
            foreach (self::keys($subject) as $key) {
                $this->blocks[$key][] = $place;
            }
        }
        $this->comparator = new Comparator($given, $family, count($known));
        $chance = self::KNOWN_SHARE / max(2, count($known));
        $this->priorBits = log($chance / (1 - $chance), 2);
    }

    /**
     * @return list<Candidate> all who are likelier than {@see OTHER}, likeliest first
     */
    public function candidates(Subject $subject): array
    {
        $places = [];
        foreach (self::keys($subject) as $key) {
            $block = $this->blocks[$key] ?? [];
            if (count($block) > self::MAX_BLOCK) {
                $block = array_filter($block, fn (int $place): bool => $this->known[$place]->grade === $subject->grade);
            }
            foreach ($block as $place) {
                $places[$place] = true;
            }
        }
        $found = [];
        foreach (array_keys($places) as $place) {
            if ($this->known[$place]->id === $subject->id) {
                continue;
            }
            $candidate = $this->judge($subject, $this->known[$place]);
            if ($candidate->probability >= self::OTHER) {
                $found[] = $candidate;
            }
        }
        usort($found, fn (Candidate $a, Candidate $b): int => [$b->probability, $a->subject->id] <=> [$a->probability, $b->subject->id]);

        return $found;
    }

    public function judge(Subject $subject, Subject $known): Candidate
    {
        $evidence = $this->comparator->compare($subject, $known);
        $bits = Comparator::total($evidence) + $this->priorBits;
        $probability = 1 / (1 + 2 ** -max(-60.0, min(60.0, $bits)));
        $level = [];
        foreach ($evidence as $e) {
            $level[$e->field] = $e->level;
        }
        $settled = ($level['student number'] ?? '') === 'alike' || ($level['e-mail'] ?? '') === 'alike';
        if (($level['given name'] ?? '') === 'differs') {
            // Twins and siblings agree in all but this: family, guardians, often the day. Never the same child unless a
            // number or an own address says so, and then a person has to look.
            return $settled
                ? new Candidate($known, $evidence, min($probability, 0.95), 'the given name is another')
                : new Candidate($known, $evidence, 0.0, 'a brother or sister');
        }
        if (($level['student number'] ?? '') === 'differs' && $known->schoolId === $subject->schoolId) {
            return new Candidate($known, $evidence, min($probability, 0.95), 'same name, another number');
        }
        if (($level['birth date'] ?? '') === 'differs' && ! $settled) {
            return new Candidate($known, $evidence, min($probability, 0.95), 'same name, another birth date');
        }

        return new Candidate($known, $evidence, $probability, '');
    }

    /** @return list<string> */
    private static function keys(Subject $s): array
    {
        $keys = [];
        if ($s->number !== '') {
            $keys[] = "n$s->number";
        }
        if ($s->email !== '') {
            $keys[] = "e$s->email";
        }
        if ($s->givenKey !== '') {
            $keys[] = 'f'.substr($s->familyKey, 0, 4).$s->givenKey[0];
            // Sorted, so that given and family name written the wrong way round meet.
            $both = [$s->givenKey, $s->familyKey];
            sort($both);
            $keys[] = 'b'.implode(' ', $both);
            if ($s->birthDate !== '') {
                $keys[] = "d$s->birthDate".substr($s->givenKey, 0, 2);
            }
            foreach ($s->contacts as $contact) {
                $keys[] = "c$contact".$s->givenKey[0];
            }
        }

        return array_values(array_unique($keys));
    }
}
