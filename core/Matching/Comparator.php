<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/** Compares two subjects field by field, with the weight each agreement carries among the people known here. */
final readonly class Comparator
{
    private const NEAR = 0.92;

    /**
     * @param  array<string, int>  $givenCounts how many known people have this given name (plain)
     * @param  array<string, int>  $familyCounts likewise for family names
     * @param  int  $people how many are known
     */
    public function __construct(private array $givenCounts, private array $familyCounts, private int $people)
    {
    }

    /**
     * @param  Subject  $a of the list
     * @param  Subject  $b of the Roll
     * @return list<Evidence> in the order they are shown
     */
    public function compare(Subject $a, Subject $b): array
    {
        $evidence = $this->names($a, $b);
        $evidence[] = $this->simple('birth date', $a->birthDate, $b->birthDate, self::dateLevel($a->birthDate, $b->birthDate));
        $evidence[] = $this->simple('student number', $a->number, $b->number, $a->number === $b->number ? 'alike' : (self::oneSlip($a->number, $b->number) ? 'one digit' : 'differs'));
        $evidence[] = $this->simple('e-mail', $a->email, $b->email, $a->email === $b->email ? 'alike' : 'differs');
        $shared = array_intersect($a->contacts, $b->contacts);
        $evidence[] = $this->simple('guardian contact', $a->contacts[0] ?? '', $shared === [] ? ($b->contacts[0] ?? '') : (string) reset($shared), $shared === [] ? 'differs' : 'alike');
        $evidence[] = $this->simple('grade', $a->grade, $b->grade, self::gradeLevel($a->grade, $b->grade));

        return $evidence;
    }

    /** @param  list<Evidence>  $evidence */
    public static function total(array $evidence): float
    {
        return array_sum(array_map(fn (Evidence $e): float => $e->weight, $evidence));
    }

    /** @return list<Evidence> */
    private function names(Subject $a, Subject $b): array
    {
        if ($a->givenKey !== $b->givenKey && $a->givenKey !== '' && $a->givenKey === $b->familyKey && $a->familyKey === $b->givenKey) {
            return [new Evidence('names swapped', trim("$a->given $a->family"), trim("$b->given $b->family"), 'alike', Weights::of('names swapped', 'alike'))];
        }
        $given = self::nameLevel($a->givenKey, $b->givenKey, true);
        $family = self::nameLevel($a->familyKey, $b->familyKey, false);

        return [
            $this->simple('given name', $a->given, $b->given, $given, $given === 'alike' ? $this->frequency($this->givenCounts, $b->givenKey) : null),
            $this->simple('family name', $a->family, $b->family, $family, $family === 'alike' ? $this->frequency($this->familyCounts, $b->familyKey) : null),
        ];
    }

    private function simple(string $field, string $left, string $right, string $level, ?float $frequency = null): Evidence
    {
        return $left === '' || $right === ''
            ? new Evidence($field, $left, $right, 'not known', 0.0)
            : new Evidence($field, $left, $right, $level, Weights::of($field, $level, $frequency));
    }

    /** @param  array<string, int>  $counts */
    private function frequency(array $counts, string $key): float
    {
        // One more than seen: in a small school a name that occurs once is not as rare as 1/n would say.
        return min(0.2, (($counts[$key] ?? 0) + 1) / ($this->people + 200));
    }

    private static function nameLevel(string $a, string $b, bool $given): string
    {
        if ($a === $b) {
            return 'alike';
        }
        if ($given && (strlen($a) === 1 || strlen($b) === 1)) {
            return $a[0] === $b[0] ? 'initial only' : 'differs';
        }
        if (array_intersect(explode(' ', $a), explode(' ', $b)) !== []) {
            return 'part of it';
        }

        return JaroWinkler::similarity($a, $b) >= self::NEAR ? 'near' : 'differs';
    }

    private static function dateLevel(string $a, string $b): string
    {
        return match (true) {
            $a === $b => 'alike',
            strlen($a) === 10 && strlen($b) === 10 && substr($a, 0, 4) === substr($b, 0, 4)
                && substr($a, 5, 2) === substr($b, 8, 2) && substr($a, 8, 2) === substr($b, 5, 2) => 'turned',
            self::oneSlip($a, $b) => 'one digit',
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
                $places[] = $i;
            }
        }

        return count($places) === 1 || (count($places) === 2 && $places[1] === $places[0] + 1
            && $a[$places[0]] === $b[$places[1]] && $a[$places[1]] === $b[$places[0]]);
    }

    private static function gradeLevel(string $a, string $b): string
    {
        $order = fn (string $g): int => match ($g) {
            'PK' => -1, 'KG' => 0, default => (int) $g,
        };

        return match ($order($a) - $order($b)) {
            0 => 'alike',
            1 => 'next',
            default => 'differs',
        };
    }
}
