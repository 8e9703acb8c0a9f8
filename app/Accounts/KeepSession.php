<?php

declare(strict_types=1);

namespace App\Accounts;

use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;
use Vantrel\Core\Accounts\Lifetime;

/**
 * How long a session lasts. Without "stay signed in" it ends with the browser, and after two idle hours; with it, after
 * the days the school allows for that kind of device.
 */
final class KeepSession
{
    private const SEEN = 'seen_at';

    /** Sent by a page with what it asks for while nobody has touched it for a while. */
    private const BY_ITSELF = 'X-Vantrel-By-Itself';

    public function handle(Request $request, Closure $next): Response
    {
        if ($request->hasSession()) {
            $session = $request->session();
            $until = (int) $session->get(SessionRows::UNTIL, 0);
            $seen = (int) $session->get(self::SEEN, 0);
            $now = now()->getTimestamp();
            if (Auth::check() && ($until > 0 ? $now >= $until : $seen > 0 && $now - $seen > Lifetime::Idle->value)) {
                Auth::logout();
                $session->invalidate();
            }
            // Written at most once a minute, and not for what a page asks by itself while nobody is at it.
            if ($now - $seen >= 60 && !$request->headers->has(self::BY_ITSELF)) {
                $session->put(self::SEEN, $now);
            }
        }
        $response = $next($request);
        // Read when the cookie is made, after this: a session that does not stay has one without a date.
        config([
            'session.expire_on_close' =>
                !$request->hasSession() || (int) $request->session()->get(SessionRows::UNTIL, 0) === 0,
        ]);

        return $response;
    }
}
