<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use App\Platform\TryCounter;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Plan\Refusal;

/** What is grave is done on the word of someone who is at the keyboard now, not of a session left open. */
final class PasswordAgain
{
    public function __construct(private readonly TryCounter $tries) {}

    /** Whether the session was opened a moment ago, by whatever the person signs in with. */
    public function justSignedIn(Request $request): bool
    {
        return $request->hasSession() &&
            (Opened::of($request->session())->at ?? 0) > now()->getTimestamp() - Lifetime::JustSignedIn->value;
    }

    /** @throws Refusal in the words given */
    public function mustBe(Person $person, string $password, string $words, string $field = 'current'): void
    {
        $this->tries->take([Limit::PasswordAgain, $person->id]);
        foreach (
            DB::table('sign_ins')->where('person_id', $person->id)->whereNotNull('password')->pluck('password')
            as $hash
        ) {
            if (Hash::check($password, (string) $hash)) {
                $this->tries->clear(Limit::PasswordAgain, $person->id);

                return;
            }
        }
        throw new Refusal($words, $field);
    }
}
