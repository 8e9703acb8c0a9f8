<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\Http\Wishes\CardWish;
use App\Accounts\Http\Wishes\FactorCodeWish;
use App\Accounts\Http\Wishes\SignInWish;
use App\Accounts\OpenSessions;
use App\Accounts\Passkeys;
use App\Accounts\SignInDesk;
use App\Accounts\SingleSignOn;
use App\Accounts\Views\Entrance;
use App\Accounts\Views\Me;
use App\Accounts\Views\SessionLine;
use App\Accounts\Views\SessionPage;
use App\Accounts\Views\SignedIn;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Plan\Refusal;

/** Signing in and out, and the sessions a person has. */
final class SessionController
{
    /** In the session: a sentence for the sign-in page, shown once. */
    public const NOTE = 'entrance_note';

    #[Answers(Entrance::class, 'What the sign-in page offers')]
    public function entrance(
        Request $request,
        SingleSignOn $singleSignOn,
        SignInDesk $desk,
        Passkeys $passkeys,
    ): Entrance {
        $stay = DB::table('schools')->selectRaw('max(stay_days_own) own, max(stay_days_shared) shared')->first();

        return new Entrance(
            (int) $stay?->own > 0,
            (int) $stay?->shared > 0,
            $singleSignOn->label(),
            (string) $request->session()->pull(self::NOTE, ''),
            $desk->awaited($request) !== null,
            $this->canShowPasskey($request, $desk, $passkeys),
        );
    }

    #[Answers(Me::class, 'Who is signed in')]
    public function show(Request $request): Me
    {
        return Me::of(Person::signedIn($request));
    }

    #[Answers(SignedIn::class, 'Sign in by user name and passphrase or password')]
    #[Takes(SignInWish::class)]
    public function store(Request $request, SignInDesk $desk, Passkeys $passkeys): SignedIn
    {
        $wish = Wishes::of(SignInWish::class, $request);
        $person = $desk->byName($request, $wish->userName, $wish->secret, $wish->stay);

        return $person === null
            ? new SignedIn(null, 'second_factor', $this->canShowPasskey($request, $desk, $passkeys))
            : new SignedIn(Me::of($person), '');
    }

    #[Answers(Me::class, 'Complete a sign-in with a code of the second factor, or a recovery code')]
    #[Takes(FactorCodeWish::class)]
    public function secondFactor(Request $request, SignInDesk $desk): Me
    {
        $wish = Wishes::of(FactorCodeWish::class, $request);

        return Me::of($desk->bySecondFactor($request, $wish->code));
    }

    #[Answers(SignedIn::class, 'Sign in with the token of a login card; whoever is signed in already says so first')]
    #[Takes(CardWish::class)]
    public function card(Request $request, SignInDesk $desk): SignedIn
    {
        $wish = Wishes::of(CardWish::class, $request);
        $now = $request->user();
        if ($now instanceof Person && !$wish->instead) {
            $owner = $desk->ownerOfBadge($request, $wish->token);

            return new SignedIn(Me::of($now), $owner->id === $now->id ? '' : 'instead');
        }

        return new SignedIn(Me::of($desk->byBadge($request, $wish->token)), '');
    }

    #[Answers(null, 'Sign out')]
    public function destroy(Request $request): Response
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }

    #[Answers(SessionPage::class, 'The sessions this person has open')]
    public function index(Request $request): SessionPage
    {
        $own = $request->session()->getId();

        return new SessionPage(
            array_values(
                OpenSessions::of(Person::signedIn($request)->id)
                    ->map(
                        fn(object $s): SessionLine => new SessionLine(
                            SessionLine::keyOf($s->id),
                            (string) $s->way,
                            SessionLine::device((string) $s->user_agent),
                            (string) $s->ip_address,
                            gmdate('Y-m-d\TH:i:s\Z', (int) $s->last_activity),
                            $s->id === $own,
                        ),
                    )
                    ->all(),
            ),
        );
    }

    #[Answers(null, 'End one of the own sessions')]
    public function end(string $session, Request $request): Response
    {
        $id =
            DB::table('sessions')
                ->where('user_id', Person::signedIn($request)->id)
                ->pluck('id')
                ->first(fn(mixed $id): bool => is_string($id) && hash_equals(SessionLine::keyOf($id), $session)) ??
            throw new NotFoundHttpException();
        DB::table('sessions')->where('id', $id)->delete();

        return response()->noContent();
    }

    #[Answers(null, 'End all own sessions but this one')]
    public function endOthers(Request $request): Response
    {
        DB::table('sessions')
            ->where('user_id', Person::signedIn($request)->id)
            ->where('id', '!=', $request->session()->getId())
            ->delete();

        return response()->noContent();
    }

    /**
     * Cards printed before tokens went behind the # of an address. A link never takes somebody else's session away:
     * whoever is signed in is asked on the page.
     */
    public function badge(string $token, Request $request, SignInDesk $desk): RedirectResponse
    {
        try {
            if ($request->user() !== null) {
                return new RedirectResponse(
                    $desk->ownerOfBadge($request, $token)->id === $request->user()->getAuthIdentifier()
                        ? '/'
                        : "/b#$token",
                );
            }
            $desk->byBadge($request, $token);
        } catch (Refusal) {
            return new RedirectResponse('/?card=ended');
        } catch (TooManyRequestsHttpException) {
            return new RedirectResponse('/?card=wait');
        }

        return new RedirectResponse('/');
    }

    /** Whether whoever has shown half of who they are can show a passkey for the other. */
    private function canShowPasskey(Request $request, SignInDesk $desk, Passkeys $passkeys): bool
    {
        $awaited = $desk->awaited($request);

        return $awaited !== null && $passkeys->idsOf($awaited) !== [];
    }
}
