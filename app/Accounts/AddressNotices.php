<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\EntryWritten;
use App\Mailroom\Mail\AccountNotice;
use Illuminate\Support\Facades\DB;
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
            $people = DB::table('people as p')
                ->whereIn('p.id', array_map(fn(Change $c): string => $c->id, $chunk))
                ->whereExists(
                    fn($q) => $q
                        ->from('sign_ins as i')
                        ->whereColumn('i.person_id', 'p.id')
                        ->whereNotNull('i.last_signed_in_at'),
                )
                ->get(['p.id', 'p.school_id', 'p.email_state'])
                ->keyBy('id');
            foreach ($chunk as $change) {
                $person = $people[$change->id] ?? null;
                if ($person === null || ($change->before['email_state'] ?? $person->email_state) !== 'confirmed') {
                    continue;
                }
                $old = (string) $change->before['email'];
                $new = (string) $change->after['email'];
                AccountNotice::toAddress($old, $person->school_id, 'Your address at the school was changed', [
                    'The address of your account was changed' .
                    ($new === '' ? '.' : " to $new.") .
                    ' Nothing more comes to this one.',
                ]);
                if ($new !== '') {
                    AccountNotice::toAddress($new, $person->school_id, 'This is now your address at the school', [
                        "Your account had the address $old until today. From now on, mail of the school comes here.",
                    ]);
                }
            }
        }
    }
}
