<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Coordinators;
use App\Models\Person;
use App\Platform\PlannerKit;
use App\Platform\TryCounter;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\SecondFactorRule;
use Vantrel\Core\Accounts\Totp;
use Vantrel\Core\Plan\Refusal;

/** The second factor of staff: six figures from an authenticator app (RFC 6238), or one of ten recovery codes. */
final class SecondFactors
{
    private const RECOVERY_CODES = 10;

    public function __construct(private readonly PlannerKit $kit, private readonly TryCounter $tries) {}

    public function has(Person $person): bool
    {
        return $person->kind === 'staff' &&
            DB::table('second_factors')->where('person_id', $person->id)->whereNotNull('confirmed_at')->exists();
    }

    /** Whether a school the person works in asks for one: the strictest of them counts. */
    public function mustHave(Person $person): bool
    {
        if ($person->kind !== 'staff') {
            return false;
        }

        $coordinated = Coordinators::schoolsOf($person->id);
        foreach (
            DB::table('schools')
                ->whereIn('id', [$person->school_id, ...$coordinated])
                ->pluck('second_factor', 'id')
            as $id => $rule
        ) {
            if (SecondFactorRule::from($rule)->asks($id === $person->school_id, in_array($id, $coordinated, true))) {
                return true;
            }
        }

        return false;
    }

    /** Draws a secret to be confirmed with a first code; one that is confirmed already goes on working until then. */
    public function begin(Person $person): Totp
    {
        if ($this->has($person)) {
            throw new Refusal('There is a second factor already. Remove it first.');
        }
        $totp = Totp::draw($this->kit->random($this->kit->seed() . ' second factor'));
        DB::table('second_factors')->upsert(
            [
                [
                    'person_id' => $person->id,
                    'secret' => Crypt::encryptString($totp->base32()),
                    'confirmed_at' => null,
                    'last_step' => 0,
                    'recovery' => '[]',
                ],
            ],
            ['person_id'],
            ['secret', 'confirmed_at', 'last_step', 'recovery'],
        );

        return $totp;
    }

    /**
     * @return list<string> recovery codes, shown this once
     *
     * @throws Refusal where the code does not fit
     */
    public function confirm(Person $person, string $code): array
    {
        $row =
            DB::table('second_factors')->where('person_id', $person->id)->whereNull('confirmed_at')->first() ??
            throw new Refusal('Begin again: there is nothing to confirm.');
        $this->tries->take([Limit::SecondFactor, $person->id]);
        $step = Totp::fromBase32(Crypt::decryptString($row->secret))->accept($code, now()->getTimestamp(), 0);
        if ($step === null) {
            throw new Refusal(
                'That is not the code the app shows now. Wait for the next one; if it fails again, set the ' .
                    'clock of the phone.',
                'code',
            );
        }
        $this->tries->clear(Limit::SecondFactor, $person->id);
        $codes = [];
        $random = $this->kit->random($this->kit->seed() . ' recovery');
        for ($i = 0; $i < self::RECOVERY_CODES; $i++) {
            $codes[] = implode('-', str_split(bin2hex($random->bytes(8)), 4));
        }
        DB::table('second_factors')
            ->where('person_id', $person->id)
            ->update([
                'confirmed_at' => now(),
                'last_step' => $step,
                'recovery' => json_encode(array_map($this->hash(...), $codes), JSON_THROW_ON_ERROR),
            ]);

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
            $step = Totp::fromBase32(Crypt::decryptString($row->secret))->accept(
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

    public function remove(Person $person): void
    {
        if ($this->mustHave($person)) {
            throw new Refusal(
                'Your school asks for a second factor. Use a recovery code, or ask whoever looks after the server.',
            );
        }
        DB::table('second_factors')->where('person_id', $person->id)->delete();
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
