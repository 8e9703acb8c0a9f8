<?php

declare(strict_types=1);

namespace App\OneRoster\Http;

use App\OneRoster\RosterKeys;
use App\Platform\TryCounter;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\OneRoster\Scope;

/** OAuth 2 client credentials (RFC 6749, 4.4): a key and its secret for a token that lasts an hour. */
final readonly class TokenController
{
    public function __construct(private RosterKeys $keys, private TryCounter $tries) {}

    public function __invoke(Request $request): JsonResponse
    {
        // Of a form, as RFC 6749 has it; refused in its words, not in ours.
        $form = $request->request->all();
        if (($form['grant_type'] ?? '') !== 'client_credentials') {
            return self::no(400, 'unsupported_grant_type');
        }
        $id = $request->getUser() ?? ($form['client_id'] ?? null);
        $secret = $request->getPassword() ?? ($form['client_secret'] ?? null);
        $key =
            is_string($id) && is_string($secret) ? $this->keys->withSecret(urldecode($id), urldecode($secret)) : null;
        if ($key === null) {
            // A secret has 128 bits: one that is right is not turned away for those that are not.
            $this->tries->take([Limit::CardAddress, 'roster ' . $request->ip()]);

            return self::no(401, 'invalid_client')->withHeaders(['WWW-Authenticate' => 'Basic realm="rosters"']);
        }
        $has = RosterKeys::scopes($key->scopes);
        $typed = $form['scope'] ?? null;
        $wanted = is_string($typed) && trim($typed) !== '' ? (preg_split('/\s+/', trim($typed)) ?: []) : [];
        $scopes = $wanted === [] ? $has : RosterKeys::scopes($wanted);
        foreach ($scopes as $scope) {
            if (!in_array($scope, $has, true)) {
                return self::no(400, 'invalid_scope');
            }
        }
        if (count($scopes) < count($wanted)) {
            return self::no(400, 'invalid_scope');
        }

        return new JsonResponse(
            [
                'access_token' => $this->keys->exchange($key, $scopes),
                'token_type' => 'Bearer',
                'expires_in' => RosterKeys::LASTS,
                'scope' => implode(' ', array_map(fn(Scope $s): string => $s->value, $scopes)),
            ],
            200,
            ['Cache-Control' => 'no-store', 'Pragma' => 'no-cache'],
        );
    }

    /** RFC 6749, 5.2. */
    private static function no(int $status, string $error): JsonResponse
    {
        return new JsonResponse(['error' => $error], $status, ['Cache-Control' => 'no-store']);
    }
}
