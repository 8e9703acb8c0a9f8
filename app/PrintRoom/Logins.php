<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Snapshots;
use App\Platform\PlannerKit;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Crypt;
use stdClass;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\PrintRoom\CardSecrets;
use Vantrel\Core\PrintRoom\CardWish;
use Vantrel\Core\Records;

/** What people sign in with, to be printed: read, and issued where it is missing or lost. */
final readonly class Logins
{
    public function __construct(private Snapshots $snapshots, private PlannerKit $kit) {}

    /** @param  Collection<int, stdClass>  $people in the order of the print */
    public function of(Collection $people): LoginSet
    {
        $all = $this->snapshots->list(Records\SignIn::class, fn($q) => $q->whereIn('person_id', $people->pluck('id')));
        $signIns = CardIssue::printed($all);

        $printed = [];
        foreach ($people as $person) {
            if (isset($signIns[$person->id])) {
                $printed[] = $signIns[$person->id];
            }
        }

        return new LoginSet($printed, $all);
    }

    /**
     * @param  bool  $lost whether what was printed before is lost and must stop working
     * @param  string  $what in words, for the ledger
     */
    public function issue(LoginSet $logins, bool $lost, string $what): CardIssue
    {
        $seed = $this->kit->seed();
        $ids = array_map(fn(Records\SignIn $s): string => $s->id, $logins->all);
        $printed = array_flip(array_map(fn(Records\SignIn $s): string => $s->id, $logins->printed));

        return CardIssue::for(
            new CardWish($logins->printed, $lost, $what),
            $lost
                ? $this->snapshots->list(
                    Records\Badge::class,
                    fn($q) => $q->where('state', 'live')->whereIn('sign_in_id', $ids),
                )
                : [],
            $lost
                ? array_values(array_filter($logins->all, fn(Records\SignIn $s): bool => !isset($printed[$s->id])))
                : [],
            new CardSecrets(
                $this->kit->passphrases($seed),
                $this->kit->random("$seed badges"),
                Crypt::encryptString(...),
            ),
            $this->kit->ids($seed),
            $this->kit->now(),
        );
    }

    /**
     * '' where they have a password of their own.
     *
     * @throws Refusal where it cannot be read with this server's key
     */
    public function passphrase(Records\SignIn $signIn): string
    {
        try {
            return $signIn->password() !== null ? '' : Crypt::decryptString((string) $signIn->passphrase());
        } catch (DecryptException) {
            throw new Refusal(
                "The passphrase of {$signIn->userName()} cannot be read with this server's key. Print the " .
                    'card with “the earlier cards are lost”.',
            );
        }
    }
}
