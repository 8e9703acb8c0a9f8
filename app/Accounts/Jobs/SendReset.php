<?php

declare(strict_types=1);

namespace App\Accounts\Jobs;

use App\Accounts\ResetLinks;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\TryCounter;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Accounts\Limit;

/**
 * Looks in the background for who has forgotten a password, so that the answer takes as long whether there is such a
 * person or not. A few mails an hour to one person, whichever of their names is typed.
 */
final class SendReset implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;

    public int $tries = 3;

    /** @param  string  $typed user name or address, in its canonical form */
    public function __construct(private readonly string $typed) {}

    public function handle(ResetLinks $links, TryCounter $tries): void
    {
        $signIn =
            SignIn::query()->where('user_name', $this->typed)->first() ??
            SignIn::query()
                ->whereIn(
                    'person_id',
                    fn($q) => $q
                        ->select('id')
                        ->from('people')
                        ->where('email', $this->typed)
                        ->where('email_state', 'confirmed')
                        ->where('state', 'active')
                        ->where('kind', '!=', 'student'),
                )
                ->orderBy('id')
                ->first();
        $person = $signIn === null ? null : Person::query()->find($signIn->person_id);
        if ($signIn === null || $person === null || $person->state !== 'active' || $person->confirmedEmail() === null) {
            return;
        }
        if (!$tries->takes([Limit::ResetPerson, $person->id])) {
            return;
        }
        $links->send($person, $signIn, $person->confirmedEmail(), Lifetime::LinkAskedFor);
    }
}
