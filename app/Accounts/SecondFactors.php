<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use App\Models\StaffStanding;
use App\Platform\PlannerKit;
use App\Platform\TryCounter;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\FactorSet;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\Totp;
use Vantrel\Core\Plan\Refusal;

/**
 * The second factor of staff: six figures from an authenticator app (RFC 6238), a passkey ({@see Passkeys}), or one of
 * ten recovery codes, which come with whichever of the two is there first.
 */
final class SecondFactors
{
    private const RECOVERY_CODES = 10;

    public function __construct(private readonly PlannerKit $kit, private readonly TryCounter $tries) {}

    public function has(Person $person): bool
    {
        return $person->kind === 'staff' &&
            DB::table('second_factors')->where('person_id', $person->id)->whereNotNull('confirmed_at')->exists();
    }

    public function hasApp(Person $person): bool
    {
        return DB::table('second_factors')->where('person_id', $person->id)->whereNotNull('secret')->exists();
    }

    public function hasPasskey(Person $person): bool
    {
        return DB::table('passkeys')->where('person_id', $person->id)->exists();
    }

    /** Whether a school the person works in asks for one: the strictest of them counts. */
    public function mustHave(Person $person): bool
    {
        return StaffStanding::of($person)->mustHaveSecondFactor;
    }

    /** Draws a secret to be confirmed with a first code; one that is confirmed already goes on working until then. */
    public function begin(Person $person): Totp
    {
        if ($this->hasApp($person)) {
            throw new Refusal('There is an app for codes already. Switch it off first.');
        }
        $totp = Totp::draw($this->kit->random($this->kit->seed() . ' second factor'));
        DB::table('second_factors')->upsert(
            [
                [
                    'person_id' => $person->id,
                    'pending' => Crypt::encryptString($totp->base32()),
                    'recovery' => '[]',
                ],
            ],
            ['person_id'],
            ['pending'],
        );

        return $totp;
    }

    /**
     * @return list<string> recovery codes, shown this once; none where there are some already
     *
     * @throws Refusal where the code does not fit
     */
    public function confirm(Person $person, string $code): array
    {
        $row =
            DB::table('second_factors')->where('person_id', $person->id)->whereNotNull('pending')->first() ??
            throw new Refusal('Begin again: there is nothing to confirm.');
        $this->tries->take([Limit::SecondFactor, $person->id]);
        $step = Totp::fromBase32(Crypt::decryptString($row->pending))->accept($code, now()->getTimestamp(), 0);
        if ($step === null) {
            throw new Refusal(
                'That is not the code the app shows now. Wait for the next one; if it fails again, set the ' .
                    'clock of the phone.',
                'code',
            );
        }
        $this->tries->clear(Limit::SecondFactor, $person->id);

        // Together: an app that counts and a factor that is not on would be neither.
        return DB::transaction(function () use ($person, $row, $step): array {
            DB::table('second_factors')
                ->where('person_id', $person->id)
                ->update(['secret' => $row->pending, 'pending' => null, 'last_step' => $step]);

            return $this->switchOn($person);
        });
    }

    /**
     * From now on somebody's password lets nobody in by itself.
     *
     * @return list<string> recovery codes, shown this once; none where it was so before
     */
    public function switchOn(Person $person): array
    {
        if ($this->has($person)) {
            return [];
        }
        $codes = [];
        $random = $this->kit->random($this->kit->seed() . ' recovery');
        for ($i = 0; $i < self::RECOVERY_CODES; $i++) {
            $codes[] = implode('-', str_split(bin2hex($random->bytes(8)), 4));
        }
        $recovery = json_encode(array_map($this->hash(...), $codes), JSON_THROW_ON_ERROR);
        DB::table('second_factors')->upsert(
            [['person_id' => $person->id, 'confirmed_at' => now(), 'recovery' => $recovery]],
            ['person_id'],
            ['confirmed_at', 'recovery'],
        );

        return $codes;
    }

    /**
     * Takes a code of the app or a recovery code, each once.
     *
     * @throws Refusal
     * @throws TooManyRequestsHttpException
     */
    public function check(Person $person, string $code): void
    {
        $this->tries->take([Limit::SecondFactor, $person->id]);
        $good = DB::transaction(function () use ($person, $code): bool {
            $row = DB::table('second_factors')
                ->where('person_id', $person->id)
                ->whereNotNull('confirmed_at')
                ->lockForUpdate()
                ->first();
            if ($row === null) {
                return false;
            }
            $step =
                $row->secret === null
                    ? null
                    : Totp::fromBase32(Crypt::decryptString($row->secret))->accept(
                        $code,
                        now()->getTimestamp(),
                        (int) $row->last_step,
                    );
            if ($step !== null) {
                DB::table('second_factors')
                    ->where('person_id', $person->id)
                    ->update(['last_step' => $step]);

                return true;
            }
            /** @var list<string> $hashes */
            $hashes = json_decode($row->recovery, true);
            $left = array_values(
                array_filter($hashes, fn(string $h): bool => !hash_equals($h, $this->hash(strtolower(trim($code))))),
            );
            if (count($left) === count($hashes)) {
                return false;
            }
            DB::table('second_factors')
                ->where('person_id', $person->id)
                ->update(['recovery' => json_encode($left, JSON_THROW_ON_ERROR)]);

            return true;
        });
        if (!$good) {
            throw new Refusal(
                'That code does not fit. Type the six figures the app shows now, or a recovery code that has ' .
                    'not been used.',
                'code',
            );
        }
        $this->tries->clear(Limit::SecondFactor, $person->id);
    }

    /**
     * What somebody has now. In a transaction nobody changes it until that ends.
     */
    public function of(Person $person): FactorSet
    {
        DB::table('people')->where('id', $person->id)->lockForUpdate()->value('id');

        return new FactorSet($this->hasApp($person), DB::table('passkeys')->where('person_id', $person->id)->count());
    }

    /**
     * Switches the app off; with it the second factor, where there is no passkey.
     *
     * @param  bool  $byOwner who cannot be without one where a school asks for it
     * @return bool whether there was one
     */
    public function remove(Person $person, bool $byOwner): bool
    {
        return DB::transaction(function () use ($person, $byOwner): bool {
            $set = $this->of($person);
            if ($set->app) {
                $this->leave($person, $set->withoutApp(), $byOwner);
                DB::table('second_factors')
                    ->where('person_id', $person->id)
                    ->update(['secret' => null, 'last_step' => 0]);
            }

            return $set->app;
        });
    }

    /**
     * Somebody is left with this: nothing else of theirs stays where it is no second factor.
     *
     * @throws Refusal where they may not leave themselves so
     */
    public function leave(Person $person, FactorSet $left, bool $byOwner): void
    {
        if ($byOwner) {
            $left->mustDo($this->mustHave($person));
        }
        if (!$left->isOn()) {
            DB::table('second_factors')->where('person_id', $person->id)->delete();
        }
    }

    public function recoveryLeft(Person $person): int
    {
        $codes = json_decode(
            (string) DB::table('second_factors')
                ->where('person_id', $person->id)
                ->whereNotNull('confirmed_at')
                ->value('recovery'),
            true,
        );

        return is_array($codes) ? count($codes) : 0;
    }

    private function hash(string $code): string
    {
        return hash('sha256', str_replace('-', '', $code));
    }
}
