<?php

declare(strict_types=1);

use App\Accounts\Http\PasskeyController;
use App\Accounts\Http\SecretController;
use App\Accounts\Http\SessionController;
use App\Door\Http\ComeController;
use App\Door\Http\JoinController;
use App\Door\Http\NewcomerController;
use App\Door\Http\RoomController;
use App\Guardians\Http\FamilyController;
use App\Guardians\Http\GuardianLinkController;
use App\Guardians\Http\SeekController;
use App\Mailroom\Http\HearsController;
use App\Platform\BodySize;
use App\Staffing\Http\OwnInvitationController as AnswerInvitation;
use Illuminate\Support\Facades\Route;

// Open to anyone: what they protect is in the secret that is presented, and in the limits on presenting it. Secrets
// travel in the body, never in the address, which servers and proxies write down.
Route::middleware(['throttle:guest', 'body:' . BodySize::MOST_OF_A_GUEST])->group(function (): void {
    Route::get('entrance', [SessionController::class, 'entrance']);
    Route::post('sign-in', [SessionController::class, 'store']);
    Route::post('sign-in/code', [SessionController::class, 'secondFactor']);
    Route::post('sign-in/card', [SessionController::class, 'card']);
    Route::post('sign-in/passkey/ask', [PasskeyController::class, 'askToShow']);
    Route::post('sign-in/passkey', [PasskeyController::class, 'show']);
    Route::post('forgotten', [SecretController::class, 'forgotten']);
    Route::post('new-password/check', [SecretController::class, 'reset']);
    Route::post('new-password', [SecretController::class, 'useReset']);
    Route::get('join/check', [JoinController::class, 'check']);
    Route::post('join/door', [NewcomerController::class, 'door']);
    Route::post('join/names', [NewcomerController::class, 'names']);
    Route::post('join/claim', [NewcomerController::class, 'claim']);
    Route::post('join/ask', [NewcomerController::class, 'ask']);
    Route::post('join/asked', [NewcomerController::class, 'asked']);
    Route::post('join/confirm', [NewcomerController::class, 'confirm']);
    Route::post('come', [ComeController::class, 'show']);
    Route::post('come/accept', [ComeController::class, 'accept']);
    Route::post('come/ask', [ComeController::class, 'ask']);
    Route::post('come/decline', [ComeController::class, 'decline']);
    Route::post('family/check', [FamilyController::class, 'check']);
    Route::post('family/ask', [FamilyController::class, 'ask']);
    Route::get('family/schools', [SeekController::class, 'schools']);
    Route::post('family/seek', [SeekController::class, 'ask']);
    Route::post('guardian/check', [GuardianLinkController::class, 'show']);
    Route::post('guardian/accept', [GuardianLinkController::class, 'accept']);
    Route::post('guardian/decline', [GuardianLinkController::class, 'decline']);
    Route::post('hears', [HearsController::class, 'show']);
    Route::post('hears/choose', [HearsController::class, 'update']);
    Route::post('room', [RoomController::class, 'show']);
    Route::post('room/enter', [RoomController::class, 'enter']);
    Route::post('invited', [AnswerInvitation::class, 'show']);
    Route::post('invited/accept', [AnswerInvitation::class, 'accept']);
    Route::post('invited/decline', [AnswerInvitation::class, 'decline']);
});
