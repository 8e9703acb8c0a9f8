<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Accounts\Views\SessionLine;
use App\Ledger\WriteGuard;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\SignedIn;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/**
 * When each credential was last used, from where, on what kind of device. Not a change of the job: in no ledger,
 * without a version.
 */
final class CredentialUses
{
    public function mark(Request $request, Person $person, Opened $opened, ?SignIn $signIn): void
    {
        if ($signIn !== null) {
            WriteGuard::within(
                fn(): int => DB::table('sign_ins')
                    ->where('id', $signIn->id)
                    ->update(['last_signed_in_at' => now()]),
            );
            if ($signIn->last_signed_in_at === null) {
                SignedIn::dispatch($person->id);
            }
        }
        DB::table('credential_uses')->upsert(
            [
                [
                    'person_id' => $person->id,
                    'way' => $opened->way->value,
                    'credential_id' => $opened->id,
                    'last_at' => now(),
                    'address' => (string) $request->ip(),
                    'device' => SessionLine::device((string) $request->userAgent()),
                    'times' => 1,
                ],
            ],
            ['person_id', 'way', 'credential_id'],
            ['last_at', 'address', 'device', 'times' => DB::raw('times + 1')],
        );
    }
}
