<?php

declare(strict_types=1);

namespace App\StandIns;

use Firebase\JWT\JWT;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * Stands in for a school's OpenID Connect provider, behind the same interface: discovery, authorization with PKCE,
 * token, keys that can be changed. It asks for no password: whoever is chosen is let in. Only there where stand-ins are
 * switched on, which the demo does and a school's server must not.
 */
final class OpenIdProvider
{
    private const CODE_SECONDS = 60;

    public function discovery(): JsonResponse
    {
        $this->mustBeOn();
        $issuer = $this->issuer();

        return new JsonResponse([
            'issuer' => $issuer,
            'authorization_endpoint' => "$issuer/authorize",
            'token_endpoint' => "$issuer/token",
            'jwks_uri' => "$issuer/keys",
            'response_types_supported' => ['code'],
            'subject_types_supported' => ['public'],
            'id_token_signing_alg_values_supported' => ['RS256'],
            'code_challenge_methods_supported' => ['S256'],
            'scopes_supported' => ['openid', 'email', 'profile'],
            'token_endpoint_auth_methods_supported' => ['client_secret_basic'],
        ]);
    }

    /** The page where one would type a password: here, who it is to be. */
    public function authorize(Request $request): View|RedirectResponse
    {
        $this->mustBeOn();
        $request->validate([
            'client_id' => 'required|string',
            'redirect_uri' => 'required|string',
            'state' => 'required|string|max:200',
            'nonce' => 'required|string|max:200',
            'code_challenge' => 'required|string|max:128',
            'code_challenge_method' => 'required|in:S256',
            'response_type' => 'required|in:code',
        ]);
        $back = rtrim((string) config('app.url'), '/') . '/school-sign-on/back';
        if (
            $request->string('client_id')->value() !== config('vantrel.openid.client_id') ||
            $request->string('redirect_uri')->value() !== $back
        ) {
            throw new NotFoundHttpException();
        }
        if (!$request->filled('as')) {
            $people = DB::table('people')
                ->whereIn('kind', ['staff', 'student'])
                ->where('state', 'active')
                ->whereNotNull('email')
                ->orderByRaw("kind = 'staff' desc")
                ->orderBy('given_name')
                ->orderBy('family_name')
                ->limit(400)
                ->get(['given_name', 'family_name', 'email']);

            return view('stand-ins.openid', ['people' => $people, 'query' => $request->query()]);
        }
        $code = Str::random(40);
        Cache::put(
            "stand-in-code|$code",
            [
                'email' => $request->string('as')->value(),
                'nonce' => $request->string('nonce')->value(),
                'challenge' => $request->string('code_challenge')->value(),
                'back' => $back,
            ],
            self::CODE_SECONDS,
        );

        return redirect()->away(
            "$back?" . http_build_query(['code' => $code, 'state' => $request->string('state')->value()]),
        );
    }

    public function token(Request $request): JsonResponse
    {
        $this->mustBeOn();
        $grant = Cache::pull('stand-in-code|' . $request->string('code')->value());
        $challenge = rtrim(
            strtr(base64_encode(hash('sha256', $request->string('code_verifier')->value(), true)), '+/', '-_'),
            '=',
        );
        $client =
            $request->getUser() === config('vantrel.openid.client_id') &&
            $request->getPassword() === config('vantrel.openid.client_secret');
        if (
            !is_array($grant) ||
            !$client ||
            !hash_equals((string) $grant['challenge'], $challenge) ||
            $request->string('redirect_uri')->value() !== $grant['back']
        ) {
            return new JsonResponse(['error' => 'invalid_grant'], 400);
        }
        $key = OpenIdKeys::load()->newest();
        $now = now()->getTimestamp();
        $claims = [
            'iss' => $this->issuer(),
            'sub' => hash('sha256', 'stand-in ' . $grant['email']),
            'aud' => config('vantrel.openid.client_id'),
            'iat' => $now,
            'exp' => $now + 300,
            'nonce' => $grant['nonce'],
            'email' => $grant['email'],
            'email_verified' => true,
        ];

        return new JsonResponse([
            'access_token' => Str::random(40),
            'token_type' => 'Bearer',
            'expires_in' => 300,
            'id_token' => JWT::encode($claims, $key['private'], 'RS256', $key['kid']),
        ]);
    }

    public function keys(): JsonResponse
    {
        $this->mustBeOn();

        return new JsonResponse(OpenIdKeys::load()->public());
    }

    private function issuer(): string
    {
        return rtrim((string) config('app.url'), '/') . '/stand-in/openid';
    }

    private function mustBeOn(): void
    {
        if (!config('vantrel.stand_ins')) {
            throw new NotFoundHttpException();
        }
    }
}
