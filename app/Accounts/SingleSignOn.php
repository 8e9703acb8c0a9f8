<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Platform\PlannerKit;
use Firebase\JWT\JWK;
use Firebase\JWT\JWT;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Response;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Http;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Throwable;
use Vantrel\Core\Accounts\Identities;
use Vantrel\Core\Accounts\SignOnMatch;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Values\Canonical;

/**
 * Signing in with the school's own provider: OpenID Connect Core 1.0, authorization code flow with PKCE (RFC 7636,
 * S256), state and nonce; keys by discovery, read again when a token names one that is not known.
 */
final class SingleSignOn
{
    /** In the session between going there and coming back. */
    private const FLOW = 'single_sign_on';

    private const KEEP = 3600;

    /** Keys are not asked for again sooner than this, however many tokens name unknown ones. */
    private const KEYS_AGAIN = 30;

    public function __construct(
        private readonly PlannerKit $kit,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
    ) {}

    /** What the button says; '' where no provider is set. */
    public function label(): string
    {
        return $this->issuer() === '' ? '' : (string) config('vantrel.openid.label');
    }

    /** @return string the address at the provider to go to */
    public function begin(Request $request): string
    {
        $random = $this->kit->random($this->kit->seed() . ' single sign-on');
        [$state, $nonce, $verifier] = [
            Token::draw($random)->plain,
            Token::draw($random)->plain,
            Token::draw($random)->plain . Token::draw($random)->plain,
        ];
        $request->session()->put(self::FLOW, [
            'state' => $state,
            'nonce' => $nonce,
            'verifier' => $verifier,
            'until' => now()->getTimestamp() + 600,
        ]);

        return $this->discovered('authorization_endpoint') .
            '?' .
            http_build_query([
                'response_type' => 'code',
                'client_id' => config('vantrel.openid.client_id'),
                'redirect_uri' => $this->back(),
                'scope' => 'openid email profile',
                'state' => $state,
                'nonce' => $nonce,
                'code_challenge' => rtrim(strtr(base64_encode(hash('sha256', $verifier, true)), '+/', '-_'), '='),
                'code_challenge_method' => 'S256',
            ]);
    }

    /**
     * @return array{Person, string} who it is, and the id of the identity
     *
     * @throws Refusal in words for whoever came back
     */
    public function complete(Request $request): array
    {
        $flow = $request->session()->pull(self::FLOW);
        $state = $request->query('state');
        if (
            !is_array($flow) ||
            ($flow['until'] ?? 0) < now()->getTimestamp() ||
            !is_string($state) ||
            !hash_equals((string) $flow['state'], $state)
        ) {
            throw new Refusal('That sign-in was not begun here, or took too long. Begin again.');
        }
        $code = $request->query('code');
        if (!is_string($code) || $code === '') {
            throw new Refusal('The school’s sign-on did not let you in.');
        }
        $answer = $this->call(
            fn(): Response => Http::asForm()
                ->timeout(10)
                ->withBasicAuth(
                    (string) config('vantrel.openid.client_id'),
                    (string) config('vantrel.openid.client_secret'),
                )
                ->post($this->discovered('token_endpoint'), [
                    'grant_type' => 'authorization_code',
                    'code' => $code,
                    'redirect_uri' => $this->back(),
                    'code_verifier' => (string) $flow['verifier'],
                ]),
        );
        $claims = $this->verify((string) ($answer['id_token'] ?? ''), (string) $flow['nonce']);

        return $this->person($claims);
    }

    /** @throws Refusal where the token is not one for us, from there, now */
    private function verify(string $token, string $nonce): stdClass
    {
        try {
            JWT::$leeway = 60;
            JWT::$timestamp = now()->getTimestamp();
            $header = json_decode((string) JWT::urlsafeB64Decode(explode('.', $token)[0]));
            $kid = is_object($header) ? (string) ($header->kid ?? '') : '';
            // Signatures by key pairs only: "none" and secrets shared with every client are not taken.
            if (!is_object($header) || !in_array($header->alg ?? '', ['RS256', 'ES256'], true)) {
                throw new Refusal('The school’s sign-on signs in a way that is not accepted here.');
            }
            $claims = JWT::decode($token, JWK::parseKeySet($this->keys($kid), (string) $header->alg));
        } catch (Refusal $e) {
            throw $e;
        } catch (Throwable) {
            throw new Refusal(
                'The school’s sign-on could not be verified. Try again; if it goes on, tell the coordinator.',
            );
        }
        $audience = (array) ($claims->aud ?? []);
        $client = (string) config('vantrel.openid.client_id');
        $good =
            hash_equals($this->issuer(), (string) ($claims->iss ?? '')) &&
            in_array($client, $audience, true) &&
            (count($audience) === 1 || ($claims->azp ?? '') === $client) &&
            hash_equals($nonce, (string) ($claims->nonce ?? '')) &&
            isset($claims->exp) &&
            ($claims->sub ?? '') !== '';

        return $good
            ? $claims
            : throw new Refusal(
                'The school’s sign-on could not be verified. Try again; if it goes on, tell the coordinator.',
            );
    }

    /** @return array{Person, string} whose account it opens, and the id of the identity */
    private function person(stdClass $claims): array
    {
        $subject = (string) $claims->sub;
        $at = fn(Builder $q): Builder => $q->where('issuer', $this->issuer());
        $known =
            $this->snapshots->list(
                Records\Identity::class,
                fn(Builder $q): Builder => $at($q)->where('subject', $subject),
            )[0] ?? null;
        $email = ($claims->email_verified ?? false) === true ? Canonical::of((string) ($claims->email ?? '')) : '';
        $atAddress =
            $known !== null || $email === ''
                ? []
                : $this->snapshots->list(Records\Person::class, fn(Builder $q): Builder => $q->where('email', $email));
        $ids = array_map(fn(Records\Person $p): string => $p->id, $atAddress);
        $theirs =
            $ids === []
                ? []
                : $this->snapshots->list(
                    Records\Identity::class,
                    fn(Builder $q): Builder => $at($q)->whereIn('person_id', $ids),
                );
        $id = SignOnMatch::personId($known, $atAddress, $theirs);
        $record = $this->record($id);
        // Merged since: the account is the survivor's.
        $record = $record->mergedInto() === null ? $record : $this->record($record->mergedInto());
        SignOnMatch::mustBeOpen($record);
        $person = Person::query()->findOrFail($record->id);
        if ($known !== null) {
            return [$person, $known->id];
        }
        $seed = $this->kit->seed();
        $planned = Identities::link(
            $person->id,
            $person->fullName(),
            $this->issuer(),
            $subject,
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $this->ledger->apply($planned->plan, $person->school_id, $person, Action::SignOn);

        return [$person, $planned->result];
    }

    private function record(string $id): Records\Person
    {
        return $this->snapshots->find(Records\Person::class, $id) ?? throw new NotFoundHttpException();
    }

    /** @return array<mixed> a JSON Web Key Set that holds the key, if the provider has it */
    private function keys(string $kid): array
    {
        $at = 'openid-keys|' . $this->issuer();
        /** @var array<mixed>|null $known */
        $known = Cache::get($at);
        if ($known !== null && in_array($kid, array_column((array) ($known['keys'] ?? []), 'kid'), true)) {
            return $known;
        }
        if ($known !== null && !Cache::add("$at|again", 1, self::KEYS_AGAIN)) {
            return $known;
        }
        $fresh = $this->call(fn(): Response => Http::timeout(10)->get($this->discovered('jwks_uri')));
        Cache::put($at, $fresh, self::KEEP);

        return $fresh;
    }

    private function discovered(string $what): string
    {
        $issuer = $this->issuer() ?: throw new Refusal('There is no single sign-on here.');
        /** @var array<mixed> $document */
        $document = Cache::remember("openid|$issuer", self::KEEP, function () use ($issuer): array {
            $document = $this->call(
                fn(): Response => Http::timeout(10)->get(rtrim($issuer, '/') . '/.well-known/openid-configuration'),
            );
            // OpenID Connect Discovery 1.0, 4.3: the issuer it names is the one that was asked.
            if (($document['issuer'] ?? null) !== $issuer) {
                throw new Refusal(
                    'The school’s sign-on reports a different identity from the one configured here. Tell the coordinator.',
                );
            }

            return $document;
        });
        $value = $document[$what] ?? null;

        return is_string($value)
            ? $value
            : throw new Refusal('The school’s sign-on does not say where to go. Tell the coordinator.');
    }

    /**
     * @param  callable(): Response  $ask
     * @return array<mixed>
     */
    private function call(callable $ask): array
    {
        try {
            $response = $ask();
        } catch (ConnectionException) {
            throw new Refusal('The school’s sign-on does not answer. Try again in a minute.');
        }
        $body = $response->json();
        if (!$response->successful() || !is_array($body)) {
            throw new Refusal('The school’s sign-on did not let you in. Begin again.');
        }

        return $body;
    }

    private function issuer(): string
    {
        return (string) config('vantrel.openid.issuer');
    }

    private function back(): string
    {
        return rtrim((string) config('app.url'), '/') . '/school-sign-on/back';
    }
}
