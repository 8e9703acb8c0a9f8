<?php

declare(strict_types=1);

use App\Access\HomeController;
use App\Access\InvitationController as AnswerInvitation;
use App\Access\JoinController;
use App\Access\SessionController;
use App\Desk\DeskController;
use App\Intake\ImportController;
use App\Intake\WeightController;
use App\Ledger\LedgerController;
use App\LookAlikes\LookAlikeController;
use App\Mailroom\MailroomController;
use App\PrintRoom\CardController;
use App\Roll\RollController;
use App\Rosters\RosterController;
use App\Sections\CodeController;
use App\Sections\InvitationController;
use App\Sections\SectionController;
use App\YearTurn\YearTurnController;
use Illuminate\Support\Facades\Route;

Route::get('up', fn () => response('up', 200, ['Content-Type' => 'text/plain']))->withoutMiddleware('web');

Route::prefix('api')->group(function (): void {
    // Open to anyone: what they protect is in the secret that is presented, and in the limits on presenting it.
    Route::middleware('throttle:guest')->group(function (): void {
        Route::post('sign-in', [SessionController::class, 'store']);
        Route::get('join/check', [JoinController::class, 'check']);
        Route::post('join/account', [JoinController::class, 'account']);
        Route::get('invited/{token}', [AnswerInvitation::class, 'show']);
        Route::post('invited/{token}/accept', [AnswerInvitation::class, 'accept']);
        Route::post('invited/{token}/decline', [AnswerInvitation::class, 'decline']);
    });

    Route::middleware('auth')->group(function (): void {
        Route::get('me', [SessionController::class, 'show'])->can('own');
        Route::post('sign-out', [SessionController::class, 'destroy'])->can('own');
        Route::get('home', [HomeController::class, 'show'])->can('own');
        Route::post('join', [JoinController::class, 'store'])->can('join');

        Route::prefix('schools/{school}')->group(function (): void {
            Route::get('sections', [SectionController::class, 'index'])->can('list-sections', 'school');
            Route::middleware('can:coordinate,school')->group(function (): void {
                Route::get('desk', [DeskController::class, 'show']);
                Route::get('imports', [ImportController::class, 'index']);
                Route::post('imports', [ImportController::class, 'store'])->middleware('throttle:upload');
                Route::get('people', [RollController::class, 'index']);
                Route::get('find', [RollController::class, 'find']);
                Route::get('roster', [RosterController::class, 'school']);
                Route::delete('weights', [WeightController::class, 'forget']);
                Route::post('sections', [SectionController::class, 'store']);
                Route::post('cards', [CardController::class, 'store']);
                Route::get('look-alikes', [LookAlikeController::class, 'index']);
                Route::get('look-alikes/{left}/{right}', [LookAlikeController::class, 'show']);
                Route::post('look-alikes/{left}/{right}/merge', [LookAlikeController::class, 'merge']);
                Route::post('look-alikes/{left}/{right}/apart', [LookAlikeController::class, 'apart']);
                Route::get('year-turn', [YearTurnController::class, 'show']);
                Route::post('year-turn/rehearse', [YearTurnController::class, 'rehearse']);
                Route::post('year-turn', [YearTurnController::class, 'store']);
                Route::get('ledger', [LedgerController::class, 'index']);
                Route::get('messages', [MailroomController::class, 'index']);
            });
        });

        Route::get('people/{person}', [RollController::class, 'show'])->can('view-person', 'person');

        Route::prefix('imports/{import}')->middleware('can:work-import,import')->group(function (): void {
            Route::get('/', [ImportController::class, 'show']);
            Route::get('rows', [ImportController::class, 'rows']);
            Route::get('weights', [WeightController::class, 'show']);
            Route::post('weights', [WeightController::class, 'accept']);
            Route::get('rows-to-mend', [ImportController::class, 'toMend']);
            Route::post('everyone', [ImportController::class, 'everyone']);
            Route::post('domain', [ImportController::class, 'domain']);
            Route::post('answers', [ImportController::class, 'answers']);
            Route::post('apply', [ImportController::class, 'apply']);
            Route::delete('/', [ImportController::class, 'destroy']);
        });

        Route::prefix('sections/{section}')->group(function (): void {
            Route::get('/', [SectionController::class, 'show'])->can('view-section', 'section');
            Route::post('cards', [CardController::class, 'section'])->can('view-section', 'section');
            Route::get('roster', [RosterController::class, 'section'])->can('view-section', 'section');
            Route::middleware('can:teach-section,section')->group(function (): void {
                Route::get('code', [CodeController::class, 'show']);
                Route::post('code', [CodeController::class, 'store']);
                Route::delete('code', [CodeController::class, 'destroy']);
                Route::post('invitations', [InvitationController::class, 'store']);
                Route::delete('people/{person}', [SectionController::class, 'remove']);
            });
            Route::middleware('can:archive-section,section')->group(function (): void {
                Route::get('archive', [SectionController::class, 'archivePlan']);
                Route::post('archive', [SectionController::class, 'archive']);
            });
        });

        Route::post('invitations/{invitation}/again', [InvitationController::class, 'again'])->can('manage-invitation', 'invitation');
        Route::delete('invitations/{invitation}', [InvitationController::class, 'destroy'])->can('manage-invitation', 'invitation');

        Route::get('ledger/{entry}', [LedgerController::class, 'show'])->can('work-ledger', 'entry');
        Route::post('ledger/{entry}/undo', [LedgerController::class, 'undo'])->can('work-ledger', 'entry');
        Route::get('messages/{message}', [MailroomController::class, 'show'])->can('read-message', 'message');
    });

    Route::fallback(fn () => abort(404));
});

Route::get('b/{token}', [SessionController::class, 'badge'])->middleware('throttle:guest');
Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/).*')->name('app');
