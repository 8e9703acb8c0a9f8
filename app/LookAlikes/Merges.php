<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Ledger\Snapshots;
use App\Models\AccountReach;
use App\Models\Realm;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Hold;
use Vantrel\Core\LookAlikes\Merge;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Records\Person;

/** Reads what a merge is planned from. */
final class Merges
{
    public function __construct(private readonly Snapshots $snapshots) {}

    /**
     * @param  list<string>  $ids
     * @param  array<string, string>  $picks
     * @param  list<string>  $reach schools that whoever merges coordinates
     * @return Planned<Merge>
     *
     * @throws NotFoundHttpException where one of them is of another school
     */
    public function plan(Realm $realm, array $ids, array $picks, array $reach): Planned
    {
        $snapshot = $this->snapshots->forMerge($ids);
        foreach ($ids as $id) {
            if (!in_array($snapshot->find(Person::class, $id)?->schoolId(), $realm->ids, true)) {
                throw new NotFoundHttpException();
            }
        }
        $planned = MergePlanner::plan($snapshot, $ids, $picks, $reach, $realm->today());
        foreach ($ids as $id) {
            Hold::must($reach, AccountReach::of($id), (string) $snapshot->find(Person::class, $id)?->fullName());
        }

        return $planned;
    }
}
