<?php

declare(strict_types=1);

namespace App\Access;

use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Plan\Refusal;

/** Signing in and out. */
final class SessionController
{
    #[Answers(Me::class, 'Who is signed in')]
    public function show(Request $request): Me
    {
        /** @var Person $person */
        $person = $request->user();

        return Me::of($person);
    }

    #[Answers(Me::class, 'Sign in by user name and passphrase or password')]
    #[Takes(['user_name' => 'string', 'secret' => 'string'])]
    public function store(Request $request, SignInDesk $desk): Me
    {
        $request->validate(['user_name' => 'required|string|max:254', 'secret' => 'required|string|max:256']);

        return Me::of($desk->byName($request, $request->string('user_name')->value(), $request->string('secret')->value()));
    }

    #[Answers(null, 'Sign out')]
    public function destroy(Request $request): Response
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }

    /** What the QR on a card points at: signs in and shows the student's page. */
    public function badge(string $token, Request $request, SignInDesk $desk): RedirectResponse
    {
        try {
            $desk->byBadge($request, $token);
        } catch (Refusal) {
            return redirect('/?card=ended');
        } catch (TooManyRequestsHttpException) {
            return redirect('/?card=wait');
        }

        return redirect('/');
    }
}
