<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/**
 * Passwords that somebody chose at a door without showing who they are. Each opens what was made there and nothing
 * else: with another account made one with it, it would open that too.
 */
final class UnprovenSecrets
{
    /**
     * @param  list<Person>  $accounts that become one
     * @return bool whether there were any
     */
    public static function end(PlanBuilder $plan, Snapshot $snapshot, array $accounts): bool
    {
        $any = false;
        foreach ($accounts as $account) {
            foreach ($snapshot->where(SignIn::class, 'person_id', $account->id) as $signIn) {
                if ($signIn->password() === null || !$signIn->isUnproven()) {
                    continue;
                }
                $plan->update(
                    $signIn,
                    ['password' => null, 'unproven' => 0],
                    'chosen at the door, where nobody showed who they are',
                );
                $plan->warn(
                    "The password of {$signIn->userName()} ends: it was chosen at the door, where anybody can ask in " .
                        'any name. Make sure who asked, and print a card for who it is.',
                );
                $any = true;
            }
        }

        return $any;
    }
}
