<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\EntryWritten;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Records\Entity;

/**
 * Where the confirmed address of somebody who signs in is replaced, both addresses are told, whoever did it and
 * however.
 */
final class AddressNotices
{
    public function handle(EntryWritten $event): void
    {
        $changes = array_values(
            array_filter(
                $event->plan->changes,
                fn(Change $c): bool => $c->entity === Entity::Person &&
                    !$c->inserts() &&
                    array_key_exists('email', $c->after) &&
                    ($c->before['email'] ?? null) !== null,
            ),
        );
        foreach (array_chunk($changes, 1000) as $chunk) {
            $people = Person::query()
                ->whereIn('people.id', array_map(fn(Change $c): string => $c->id, $chunk))
                ->whereExists(
                    fn($q) => $q
                        ->from('sign_ins as i')
                        ->whereColumn('i.person_id', 'people.id')
                        ->whereNotNull('i.last_signed_in_at'),
                )
                ->get()
                ->keyBy('id');
            foreach ($chunk as $change) {
                $person = $people[$change->id] ?? null;
                if ($person === null || ($change->before['email_state'] ?? $person->email_state) !== 'confirmed') {
                    continue;
                }
                $old = (string) $change->before['email'];
                $new = (string) $change->after['email'];
                AccountNotice::toAddress($old, $person, 'old', $new === '' ? 'off.is' : 'old.is', ['new' => $new]);
                if ($new !== '') {
                    AccountNotice::toAddress($new, $person, 'new', 'new.is', ['old' => $old]);
                }
            }
        }
    }
}
