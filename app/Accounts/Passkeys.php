<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Accounts\Http\Wishes\MadePasskeyWish;
use App\Accounts\Http\Wishes\ShownPasskeyWish;
use App\Accounts\Views\SessionLine;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Str;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\NotThisPasskey;
use Vantrel\Core\Accounts\RelyingParty;
use Vantrel\Core\Plan\Refusal;

/**
 * Passkeys of staff: made on the page "How you sign in", shown instead of a password or after one. What the browser is
 * asked is kept in its session, once, for minutes.
 */
final class Passkeys
{
    /** In the session: what the browser was asked, and until when it may answer. */
    private const ASKED = 'passkey_asked';

    private const ASKED_SECONDS = 300;

    public function __construct(private readonly SecondFactors $secondFactors) {}

    /** @throws Refusal where browsers make no passkeys for the address of this installation */
    public function party(): RelyingParty
    {
        return RelyingParty::at((string) config('app.url')) ??
            throw new Refusal('Passkeys need an address that has a name and begins with https.');
    }

    /** @return string the question, base64url */
    public function ask(Request $request): string
    {
        $question = RelyingParty::encode(random_bytes(32));
        $request
            ->session()
            ->put(self::ASKED, ['question' => $question, 'until' => now()->getTimestamp() + self::ASKED_SECONDS]);

        return $question;
    }

    /** @return list<string> credential ids, base64url */
    public function idsOf(string $personId): array
    {
        return array_map(
            fn(mixed $id): string => RelyingParty::encode((string) $id),
            array_values(
                DB::table('passkeys')->where('person_id', $personId)->orderBy('id')->pluck('credential_id')->all(),
            ),
        );
    }

    /**
     * Keeps what the browser has made.
     *
     * @return list<string> recovery codes, shown this once; none where there are some already
     *
     * @throws Refusal
     */
    public function make(Request $request, Person $person, MadePasskeyWish $wish): array
    {
        $question = $this->asked($request);
        try {
            $made = $this->party()->made(
                $question,
                $this->bytes($wish->client),
                $this->bytes($wish->data),
                $this->bytes($wish->key),
            );
        } catch (NotThisPasskey $e) {
            Log::info("A passkey was not taken: {$e->getMessage()}.");
            throw new Refusal(
                'This device made no passkey that can be used here. It has to ask who you are: by a finger, a ' .
                    'face or the code of its screen.',
            );
        }
        $name = trim($wish->name) !== '' ? trim($wish->name) : SessionLine::device((string) $request->userAgent());

        $codes = DB::transaction(function () use ($person, $made, $name): array {
            $this->secondFactors->of($person)->mustHaveRoom();
            try {
                DB::table('passkeys')->insert([
                    'id' => (string) Str::ulid(),
                    'person_id' => $person->id,
                    'credential_id' => $made->credentialId,
                    'credential_hash' => hash('sha256', $made->credentialId),
                    'public_key' => $made->publicKey,
                    'sign_count' => $made->count,
                    'name' => $name,
                    'made_at' => now(),
                ]);
            } catch (UniqueConstraintViolationException) {
                throw new Refusal('This passkey is kept already.');
            }

            return $this->secondFactors->switchOn($person);
        });
        AccountNotice::toStaff($person, 'A passkey was added', [
            "From now on the passkey “{$name}” signs in to your account. Your password alone does not any more.",
        ]);

        return $codes;
    }

    /**
     * Whose passkey the browser has shown.
     *
     * @return array{Person, string} the owner, and the id of the passkey
     *
     * @throws Refusal with one sentence for every kind of failure
     */
    public function show(Request $request, ShownPasskeyWish $wish): array
    {
        $question = $this->asked($request);
        $party = $this->party();
        $done = DB::transaction(function () use ($party, $question, $wish): array|NotThisPasskey {
            $row = DB::table('passkeys')
                ->where('credential_hash', hash('sha256', $this->bytes($wish->credential)))
                ->lockForUpdate()
                ->first();
            if ($row === null) {
                return new NotThisPasskey('nobody has it');
            }
            try {
                $count = $party->shown(
                    $question,
                    $this->bytes($wish->client),
                    $this->bytes($wish->data),
                    $this->bytes($wish->signature),
                    (string) $row->public_key,
                    (int) $row->sign_count,
                );
            } catch (NotThisPasskey $e) {
                return $e;
            }
            DB::table('passkeys')
                ->where('id', $row->id)
                ->update(['sign_count' => $count]);

            return [(string) $row->person_id, (string) $row->id];
        });
        if ($done instanceof NotThisPasskey) {
            Log::info("A passkey was not taken: {$done->getMessage()}.");
            throw new Refusal(
                $done->copied
                    ? 'There seems to be a copy of this passkey. Sign in another way, remove it, and make a new one.'
                    : 'That passkey is not known here. Sign in another way; under “How you sign in” you can add it.',
            );
        }
        $person = Person::query()->findOrFail($done[0]);
        if ($person->state !== 'active') {
            throw new Refusal('This account is closed: its owner has left the school. Ask the school office.');
        }

        return [$person, $done[1]];
    }

    /** @throws NotFoundHttpException where it is another's, or none */
    public function mustBeOf(Person $person, string $id): void
    {
        if (DB::table('passkeys')->where('person_id', $person->id)->where('id', $id)->doesntExist()) {
            throw new NotFoundHttpException();
        }
    }

    /**
     * Ends one, and the sessions it has opened with the next request of each.
     *
     * @param  bool  $byOwner who cannot be without a second factor where a school asks for one
     * @return string what it was called
     */
    public function end(Person $person, string $id, bool $byOwner): string
    {
        return DB::transaction(function () use ($person, $id, $byOwner): string {
            $set = $this->secondFactors->of($person);
            $name = DB::table('passkeys')->where('person_id', $person->id)->where('id', $id)->value('name');
            if (!is_string($name)) {
                throw new NotFoundHttpException();
            }
            $this->secondFactors->leave($person, $set->withoutPasskey(), $byOwner);
            DB::table('passkeys')->where('id', $id)->delete();
            DB::table('credential_uses')->where('way', 'passkey')->where('credential_id', $id)->delete();

            return $name;
        });
    }

    /** Ends all of somebody who is shut out, with every second factor. */
    public static function endAll(string $personId): void
    {
        DB::table('passkeys')->where('person_id', $personId)->delete();
        DB::table('second_factors')->where('person_id', $personId)->delete();
    }

    /** @return string the bytes of the question, which is answered once */
    private function asked(Request $request): string
    {
        $asked = $request->session()->pull(self::ASKED);
        $question =
            is_array($asked) && ($asked['until'] ?? 0) >= now()->getTimestamp()
                ? RelyingParty::decode((string) $asked['question'])
                : null;

        return $question ?? throw new Refusal('That took too long. Try again.');
    }

    private function bytes(string $text): string
    {
        return RelyingParty::decode($text) ?? '';
    }
}
