<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/**
 * Someone whose account was merged while they were signed in goes on as the account it became; one who left is signed
 * out.
 */
final class FollowMerge
{
    public function handle(Request $request, Closure $next): Response
    {
        $person = $request->user();
        if ($person instanceof Person && !in_array($person->state, ['active', 'reserve'], true)) {
            $survivor = $person->merged_into === null ? null : Person::query()->find($person->merged_into);
            if ($survivor !== null && $survivor->state === 'active') {
                Auth::login($survivor);
            } else {
                Auth::logout();
                $request->session()->invalidate();
            }
        }

        return $next($request);
    }
}
