<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\SignInDesk;
use App\Accounts\SingleSignOn;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Vantrel\Core\Plan\Refusal;

/** There and back again. */
final class SingleSignOnController
{
    public function begin(Request $request, SingleSignOn $singleSignOn): RedirectResponse
    {
        try {
            return new RedirectResponse($singleSignOn->begin($request));
        } catch (Refusal $e) {
            return $this->said($request, $e);
        }
    }

    public function back(Request $request, SingleSignOn $singleSignOn, SignInDesk $desk): RedirectResponse
    {
        try {
            [$person, $identity] = $singleSignOn->complete($request);
            $desk->bySignOn($request, $person, $identity);
        } catch (Refusal $e) {
            return $this->said($request, $e);
        }

        return new RedirectResponse('/');
    }

    /** The sentence goes by the session, not the address: nobody can make this page say something. */
    private function said(Request $request, Refusal $refusal): RedirectResponse
    {
        $request->session()->put(SessionController::NOTE, $refusal->getMessage());

        return new RedirectResponse('/');
    }
}
