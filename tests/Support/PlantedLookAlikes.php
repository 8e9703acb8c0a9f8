<?php

declare(strict_types=1);

namespace Tests\Support;

use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Matching\Subject;

/**
 * A Roll with second accounts in it whose first ones are known: a {@see MixedUpList} brought in by hand, as if nobody
 * had been matched, and without its numbers, which a school gives once. Twins, brothers and sisters and namesakes are
 * in it as they are in the list.
 */
final class PlantedLookAlikes
{
    /** @var list<Subject> everyone, first and second accounts */
    public array $roll;

    /** @var array<string, true> "smaller larger" of ids of two accounts that are one person */
    public array $truth = [];

    /** @var list<LookAlike> what was found */
    public array $found = [];

    public function __construct(MixedUpList $list)
    {
        $first = $second = $of = $named = [];
        // No family gives two children one name; the list draws names by chance.
        $alike = function (Subject $s, string $of) use (&$named): bool {
            foreach ($s->contacts as $contact) {
                if (($named["$contact $s->givenKey"] ??= $of) !== $of) {
                    return true;
                }
            }

            return false;
        };
        foreach ($list->known as $person) {
            if (!$alike($person, $person->id)) {
                $first[$person->id] = $person;
            }
        }
        foreach ($list->rows as $row) {
            $is = $list->truth[$row->id];
            if (($is !== null && !isset($first[$is])) || $alike($row, $is ?? $row->id)) {
                continue;
            }
            $second[] = new Subject(
                $row->id,
                $row->given,
                $row->family,
                $row->birthDate,
                '',
                $row->email,
                // The list is of the next year, the Roll of this one.
                sprintf('%02d', max(1, (int) $row->grade - 1)),
                $row->schoolId,
                $row->contacts,
            );
            if ($is !== null) {
                $of[$is][] = $row->id;
            }
        }
        foreach ($of as $is => $same) {
            $accounts = [(string) $is, ...$same];
            sort($accounts, SORT_STRING);
            foreach ($accounts as $i => $a) {
                foreach (array_slice($accounts, $i + 1) as $b) {
                    $this->truth["$a $b"] = true;
                }
            }
        }
        $this->roll = [...array_values($first), ...$second];
    }

    public function look(): self
    {
        $this->found = LookAlikes::among($this->roll);

        return $this;
    }

    /** @return array{pairs: int, clear: int, wrong: int, shown: int, missed: int} */
    public function score(): array
    {
        $right = fn(LookAlike $p): bool => isset($this->truth["$p->leftId $p->rightId"]);
        $clear = array_filter($this->found, fn(LookAlike $p): bool => $p->isClear());
        $hit = count(array_filter($this->found, $right));

        return [
            'pairs' => count($this->truth),
            'clear' => count($clear),
            'wrong' => count($clear) - count(array_filter($clear, $right)),
            'shown' => count($this->found),
            'missed' => count($this->truth) - $hit,
        ];
    }
}
