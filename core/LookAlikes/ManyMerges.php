<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Person;

/** Many merges looked at together. Each is written by itself, so that each can be undone by itself. */
final class ManyMerges
{
    /** As many as somebody reads through. */
    public const MOST = 200;

    /**
     * @param  list<Planned<Merge>>  $merges
     * @param  array<string, Person>  $people all they are about, by id
     * @return Plan to be looked at: its changes are all theirs
     *
     * @throws Refusal where there are none, too many, or somebody is in two of them
     */
    public static function plan(array $merges, array $people): Plan
    {
        if ($merges === [] || count($merges) > self::MOST) {
            throw new Refusal('Choose one to ' . self::MOST . ' at a time.');
        }
        $rows = $changes = $seen = [];
        foreach ($merges as $i => $planned) {
            $merge = $planned->result;
            if ($merge->endsUnproven) {
                throw new Refusal(
                    "{$people[$merge->staysId]->fullName()}: one of the accounts came in at the door, with a " .
                        'password that anybody could have chosen. Look at these by themselves.',
                );
            }
            foreach ([$merge->staysId, ...$merge->goIds] as $id) {
                if (isset($seen[$id])) {
                    throw new Refusal(
                        $people[$id]->fullName() . ' is in two of these. Merge them one after the other.',
                    );
                }
                $seen[$id] = true;
            }
            $name = fn(string $id): string => $people[$id]->fullName() .
                ($people[$id]->number() === null ? '' : " ({$people[$id]->number()})");
            $rows[] = new PlanRow(
                $i + 1,
                Verdict::Update,
                [
                    'Stays' => Cell::same($name($merge->staysId)),
                    'Goes into it' => Cell::same(implode(', ', array_map($name, $merge->goIds))),
                ],
                $merge->why,
            );
            array_push($changes, ...$planned->plan->changes);
        }
        $accounts = count($seen) - count($merges);

        return new Plan(
            Words::count(count($merges), 'merge'),
            Words::count($accounts, 'account goes', 'accounts go') .
                ' into another of the same person. All old cards and user names go on working. ' .
                'Each can be undone by itself.',
            $changes,
            $rows,
            tallies: [new Tally('merges', count($merges), count($merges) === 1 ? 'merge' : 'merges')],
        );
    }
}
