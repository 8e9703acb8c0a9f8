<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use App\Models\StaffStanding;
use Closure;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Keeps everything but a person's own secrets shut until they have done what their school asks first. */
final class MustFinish
{
    /** In the session: password, where one is to be chosen. */
    public const MUST = 'must';

    public function handle(Request $request, Closure $next): Response
    {
        if ($this->must($request) !== '') {
            throw new AuthorizationException();
        }

        return $next($request);
    }

    /**
     * '' or password or second_factor. A rule of the school counts from the next request on, for sessions that are open
     * too.
     */
    public function must(Request $request): string
    {
        $person = $request->user();
        $kept = $request->hasSession() ? $request->session()->get(self::MUST) : null;

        return match (true) {
            is_string($kept) => $kept,
            $person instanceof Person &&
                ($standing = StaffStanding::of($person))->mustHaveSecondFactor &&
                !$standing->hasSecondFactor
                => 'second_factor',
            default => '',
        };
    }
}
