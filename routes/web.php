<?php

declare(strict_types=1);

use App\Accounts\Http\CredentialController;
use App\Accounts\Http\PasskeyController;
use App\Accounts\Http\SecretController;
use App\Accounts\Http\SessionController;
use App\Accounts\Http\SingleSignOnController;
use App\Accounts\Http\TransferController;
use App\CommandBox\Http\CommandController;
use App\Desk\Http\CoverageController;
use App\Desk\Http\DeskController;
use App\Desk\Http\DistrictController;
use App\Door\Http\JoinController;
use App\Guardians\Http\ClaimController;
use App\Guardians\Http\FamilyController;
use App\Guardians\Http\GuardianController;
use App\Guardians\Http\GuardianLinkController;
use App\Guardians\Http\OwnFamilyController;
use App\Guardians\Http\SeekController;
use App\Home\Http\HomeController;
use App\Intake\Http\GradebookController;
use App\Intake\Http\IntakeController;
use App\Intake\Http\RecordController;
use App\Intake\Http\RowController;
use App\Intake\Http\WeightController;
use App\Ledger\LedgerController;
use App\LookAlikes\Http\LookAlikeController;
use App\LookAlikes\Http\ManyMergesController;
use App\Mailroom\Http\HearsController;
use App\Mailroom\Http\LetterTemplateController;
use App\Mailroom\Http\LetterToManyController;
use App\Mailroom\Http\MailroomController;
use App\Mailroom\Http\SchoolNoticeController;
use App\Models\Realm;
use App\OneRoster\Http\KeyController;
use App\OneRoster\Http\ServiceController;
use App\OneRoster\Http\TokenController;
use App\Platform\SecurityHeaders;
use App\PrintRoom\Http\CardController;
use App\PrintRoom\Http\LetterController;
use App\PrintRoom\Http\PrintController;
use App\PrintRoom\Http\WallController;
use App\Retention\Http\EraseController;
use App\Retention\Http\HeldAskingController;
use App\Retention\Http\HeldController;
use App\Retention\Http\OwnHeldController;
use App\Roll\Http\ChangeManyController;
use App\Roll\Http\EditController;
use App\Roll\Http\RollController;
use App\Roll\Http\TransferManyController;
use App\Roll\Http\ViewController;
use App\Rosters\Http\RosterController;
use App\Sections\Http\ManyController;
use App\Sections\Http\PlacementController;
use App\Sections\Http\RenameController;
use App\Sections\Http\SectionController;
use App\Settings\Http\SettingsController;
use App\Staffing\Http\InvitationController;
use App\Staffing\Http\OwnInvitationController as AnswerInvitation;
use App\Staffing\Http\StaffController;
use App\StandIns\OpenIdProvider;
use App\YearTurn\Http\YearTurnController;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Route;

// Ids are ULIDs: what cannot be one is not found, and never reaches the database.
foreach (
    [
        'school',
        'section',
        'person',
        'intake',
        'invitation',
        'entry',
        'message',
        'year',
        'asking',
        'transfer',
        'credential',
        'view',
        'print',
        'claim',
        'tie',
        'sought',
        'notice',
        'mailing',
        'key',
        'passkey',
        'held',
    ]
    as $id
) {
    Route::pattern($id, '[0-7][0-9A-HJKMNP-TV-Z]{25}');
}
Route::pattern('realm', Realm::ALL . '|[0-7][0-9A-HJKMNP-TV-Z]{25}');
Route::bind('realm', fn(string $word): Realm => Realm::named($word, Auth::user()));
Route::pattern('accounts', '[0-7][0-9A-HJKMNP-TV-Z]{25}(-[0-7][0-9A-HJKMNP-TV-Z]{25}){1,4}');
Route::pattern('session', '[0-9a-f]{32}');
Route::pattern('token', '[A-Za-z0-9_-]{1,64}');

Route::get('up', fn() => response('up', 200, ['Content-Type' => 'text/plain']))->withoutMiddleware('web');

Route::prefix('api')->group(function (): void {
    require __DIR__ . '/open.php';

    // A person's own things, also while they have yet to set a password or a second factor.
    Route::middleware(['auth', 'flood'])->group(function (): void {
        Route::get('me', [SessionController::class, 'show'])->can('own');
        Route::post('sign-out', [SessionController::class, 'destroy'])->can('own');
        Route::middleware('can:own-secrets')->group(function (): void {
            Route::post('password', [SecretController::class, 'password']);
            Route::get('sessions', [SessionController::class, 'index']);
            Route::delete('sessions', [SessionController::class, 'endOthers']);
            Route::delete('sessions/{session}', [SessionController::class, 'end']);
        });
        Route::middleware('can:second-factor')->group(function (): void {
            Route::get('second-factor', [SecretController::class, 'secondFactor']);
            Route::post('second-factor', [SecretController::class, 'beginSecondFactor']);
            Route::post('second-factor/confirm', [SecretController::class, 'confirmSecondFactor']);
            Route::delete('second-factor', [SecretController::class, 'removeSecondFactor']);
            Route::get('passkeys', [PasskeyController::class, 'index']);
            Route::post('passkeys/ask', [PasskeyController::class, 'ask']);
            Route::post('passkeys', [PasskeyController::class, 'store']);
            Route::post('passkeys/{passkey}/end', [PasskeyController::class, 'end']);
        });
    });

    Route::middleware(['auth', 'flood', 'finished'])->group(function (): void {
        Route::get('home', [HomeController::class, 'show'])->can('own');
        Route::post('home/seen', [HomeController::class, 'seen'])->can('own');
        Route::post('join', [JoinController::class, 'store'])->can('join');
        Route::post('family/connect', [FamilyController::class, 'connect'])->can('connect-child');
        Route::middleware('can:connect-child')->group(function (): void {
            Route::post('family/seek-own', [SeekController::class, 'askFromAccount']);
            Route::post('guardian/connect', [GuardianLinkController::class, 'connect']);
            Route::get('own/contact', [OwnFamilyController::class, 'show']);
            Route::post('own/contact', [OwnFamilyController::class, 'begin']);
            Route::post('own/contact/confirm', [OwnFamilyController::class, 'confirm']);
            Route::post('own/hears', [OwnFamilyController::class, 'hears']);
            Route::post('own/children/{person}/leave', [OwnFamilyController::class, 'leave']);
            Route::get('own/held', [OwnHeldController::class, 'index']);
            Route::post('own/held/{person}', [OwnHeldController::class, 'ask']);
            Route::get('own/held/{person}', [OwnHeldController::class, 'show'])->middleware('throttle:upload');
        });
        Route::get('invitations', [AnswerInvitation::class, 'mine'])->can('own');
        Route::post('invitations/{invitation}/answer', [AnswerInvitation::class, 'answer'])->can(
            'answer-invitation',
            'invitation',
        );
        Route::get('roles', [StaffController::class, 'roles'])->can('own');
        Route::get('languages', [RollController::class, 'languages'])->can('own');

        Route::prefix('schools/{school}')->group(function (): void {
            Route::get('sections', [SectionController::class, 'index'])->can('list-sections', 'school');
            Route::get('command', [CommandController::class, 'offers'])->can('list-sections', 'school');
            Route::get('staff', [StaffController::class, 'index'])->can('list-staff', 'school');
            Route::middleware('can:coordinate,school')->group(function (): void {
                Route::get('desk', [DeskController::class, 'show']);
                Route::get('desk/counts', [DeskController::class, 'counts']);
                Route::post('desk/put-off', [DeskController::class, 'putOffOne']);
                Route::post('desk/take-back', [DeskController::class, 'takeBack']);
                Route::post('desk/read', [DeskController::class, 'read']);
                Route::get('coverage', [CoverageController::class, 'show']);
                Route::get('coverage/sheet', [CoverageController::class, 'sheet']);
                Route::get('intakes', [IntakeController::class, 'index']);
                Route::post('intakes', [IntakeController::class, 'store'])->middleware('throttle:upload');
                Route::get('record', [RecordController::class, 'show']);
                Route::post('record', [RecordController::class, 'store']);
                Route::delete('record', [RecordController::class, 'destroy']);
                Route::post('record/pull', [RecordController::class, 'pull'])->middleware('throttle:upload');
                Route::post('people/change/plan', [ChangeManyController::class, 'plan']);
                Route::post('people/change', [ChangeManyController::class, 'apply']);
                Route::post('people/named', [RollController::class, 'named']);
                Route::get('views', [ViewController::class, 'index']);
                Route::post('views', [ViewController::class, 'store']);
                Route::delete('views/{view}', [ViewController::class, 'destroy']);
                Route::get('roster', [RosterController::class, 'school']);
                Route::delete('weights', [WeightController::class, 'forget']);
                Route::post('sections', [SectionController::class, 'store']);
                Route::post('many-sections/plan', [ManyController::class, 'plan']);
                Route::post('many-sections', [ManyController::class, 'store']);
                Route::post('rename-sections/plan', [RenameController::class, 'plan']);
                Route::post('rename-sections', [RenameController::class, 'store']);
                Route::post('place/plan', [PlacementController::class, 'planPlace']);
                Route::post('place', [PlacementController::class, 'place']);
                Route::get('settings', [SettingsController::class, 'show']);
                Route::post('settings', [SettingsController::class, 'update']);
                Route::get('settings/names', [SettingsController::class, 'names']);
                Route::post('years', [SettingsController::class, 'planYear']);
                Route::get('card-sheet', [CardController::class, 'sheet']);
                Route::get('card-test', [CardController::class, 'test']);
                Route::post('cards', [CardController::class, 'store']);
                Route::get('claims', [ClaimController::class, 'index']);
                Route::get('guardians', [GuardianController::class, 'index']);
                Route::get('guardians/counts', [GuardianController::class, 'counts']);
                Route::post('guardians/invite/plan', [GuardianController::class, 'planInvite']);
                Route::post('guardians/invite', [GuardianController::class, 'invite']);
                Route::get('guardians/runs', [GuardianController::class, 'runs']);
                Route::post('guardians/remind', [GuardianController::class, 'remind']);
                Route::post('guardians/{tie}/again', [GuardianController::class, 'again']);
                Route::post('guardians/{tie}/withdraw', [GuardianController::class, 'withdraw']);
                Route::post('guardians/{tie}/disconnect', [GuardianController::class, 'disconnect']);
                Route::post('guardians/{tie}/restrict', [GuardianController::class, 'restrict']);
                Route::post('guardians/{tie}/lift', [GuardianController::class, 'lift']);
                Route::post('guardians/{tie}/consent', [GuardianController::class, 'consent']);
                Route::get('claims/{claim}/record', [ClaimController::class, 'inRecord']);
                Route::get('sought/{sought}', [ClaimController::class, 'maybe']);
                Route::post('sought/{sought}/found', [ClaimController::class, 'found']);
                Route::post('sought/{sought}/refuse', [ClaimController::class, 'refuseSought']);
                Route::get('held-askings', [HeldAskingController::class, 'index']);
                Route::get('held-askings/{held}', [HeldAskingController::class, 'show']);
                Route::post('held-askings/{held}/give', [HeldAskingController::class, 'give']);
                Route::post('held-askings/{held}/refuse', [HeldAskingController::class, 'refuse']);
                Route::post('claims/approve', [ClaimController::class, 'approveMany']);
                Route::post('claims/{claim}/approve', [ClaimController::class, 'approve']);
                Route::post('claims/{claim}/refuse', [ClaimController::class, 'refuse']);
                Route::get('roster-keys', [KeyController::class, 'index']);
                Route::post('roster-keys', [KeyController::class, 'store']);
                Route::delete('roster-keys/{key}', [KeyController::class, 'destroy']);
                Route::get('prints', [PrintController::class, 'index']);
                Route::post('letters', [LetterController::class, 'store']);
                Route::post('letters/counts', [LetterController::class, 'counts']);
                Route::get('letters/wording', [LetterController::class, 'wording']);
                Route::post('letters/wording', [LetterController::class, 'write']);
                Route::get('letters/sample', [LetterController::class, 'sample']);
                Route::get('slips', [LetterController::class, 'slips']);
                Route::post('slips', [LetterController::class, 'tickOff']);
                Route::post('codes/print', [WallController::class, 'school']);
                Route::get('year-turn', [YearTurnController::class, 'show']);
                Route::post('year-turn/rehearse', [YearTurnController::class, 'rehearse']);
                Route::post('year-turn', [YearTurnController::class, 'store']);
                Route::get('ledger', [LedgerController::class, 'index']);
                Route::get('ledger/sheet', [LedgerController::class, 'sheet']);
                Route::get('messages', [MailroomController::class, 'index']);
                Route::get('mailings', [LetterToManyController::class, 'index']);
                Route::post('mailings/plan', [LetterToManyController::class, 'plan']);
                Route::post('mailings', [LetterToManyController::class, 'store']);
                Route::post('mailings/files', [LetterToManyController::class, 'file']);
                Route::get('mailings/kept', [LetterTemplateController::class, 'index']);
                Route::post('mailings/kept', [LetterTemplateController::class, 'store']);
                Route::delete('mailings/kept/{template}', [LetterTemplateController::class, 'destroy']);
                Route::post('mailings/{mailing}/stop', [LetterToManyController::class, 'stop']);
                Route::get('notices', [SchoolNoticeController::class, 'index']);
                Route::post('notices', [SchoolNoticeController::class, 'store']);
                Route::post('notices/gradebook/plan', [GradebookController::class, 'plan']);
                Route::post('notices/gradebook', [GradebookController::class, 'store']);
                Route::post('notices/{notice}', [SchoolNoticeController::class, 'update']);
                Route::delete('notices/{notice}', [SchoolNoticeController::class, 'destroy']);
                Route::get('transfers', [TransferController::class, 'index']);
                Route::post('transfers/{transfer}/accept', [TransferController::class, 'accept']);
                Route::post('transfers/{transfer}/refuse', [TransferController::class, 'refuse']);
                Route::post('transfers/{transfer}/withdraw', [TransferController::class, 'withdraw']);
            });
        });

        // What somebody who coordinates several schools sees of all of them as one: `all` in place of a school's id.
        Route::prefix('schools/{realm}')
            ->middleware('can:oversee,realm')
            ->group(function (): void {
                Route::get('people', [RollController::class, 'index']);
                Route::get('find', [RollController::class, 'find']);
                Route::get('desks', [DistrictController::class, 'show']);
                Route::post('desks/read', [DistrictController::class, 'read']);
                Route::post('transfer/plan', [TransferManyController::class, 'plan']);
                Route::post('transfer', [TransferManyController::class, 'apply']);
                Route::get('look-alikes', [LookAlikeController::class, 'index']);
                Route::post('look-alikes/again', [LookAlikeController::class, 'again']);
                Route::post('look-alikes/many/plan', [ManyMergesController::class, 'plan']);
                Route::post('look-alikes/many', [ManyMergesController::class, 'apply']);
                Route::get('look-alikes/{accounts}', [LookAlikeController::class, 'show']);
                Route::post('look-alikes/{accounts}/merge', [LookAlikeController::class, 'merge']);
                Route::post('look-alikes/{accounts}/apart', [LookAlikeController::class, 'apart']);
            });

        Route::post('years/{year}', [SettingsController::class, 'editYear'])->can('coordinate-year', 'year');
        Route::prefix('people/{person}')
            ->middleware('can:view-person,person')
            ->group(function (): void {
                Route::get('/', [RollController::class, 'show']);
                Route::post('/', [EditController::class, 'update']);
                Route::get('credentials', [CredentialController::class, 'index']);
                Route::post('credentials/end', [CredentialController::class, 'end']);
                Route::post('credentials/end-all', [CredentialController::class, 'endAll']);
                Route::post('sign-in-link', [CredentialController::class, 'sendLink']);
                Route::post('sign-in-slip', [CredentialController::class, 'slip']);
                Route::post('off-board/plan', [CredentialController::class, 'planOffBoarding']);
                Route::post('off-board', [CredentialController::class, 'offBoard']);
                Route::get('held', [HeldController::class, 'show']);
                Route::post('erase/plan', [EraseController::class, 'plan']);
                Route::post('erase', [EraseController::class, 'erase']);
            });

        Route::prefix('intakes/{intake}')
            ->middleware('can:work-intake,intake')
            ->group(function (): void {
                Route::get('/', [IntakeController::class, 'show']);
                Route::get('rows', [RowController::class, 'rows']);
                Route::get('sheet', [RowController::class, 'sheet']);
                Route::get('weights', [WeightController::class, 'show']);
                Route::post('weights', [WeightController::class, 'accept']);
                Route::get('rows-to-mend', [RowController::class, 'toMend']);
                Route::post('everyone', [IntakeController::class, 'everyone']);
                Route::post('domain', [IntakeController::class, 'domain']);
                Route::post('answers', [IntakeController::class, 'answers']);
                Route::post('apply', [IntakeController::class, 'apply']);
                Route::delete('/', [IntakeController::class, 'destroy']);
            });

        require __DIR__ . '/section.php';

        Route::post('invitations/{invitation}/again', [InvitationController::class, 'again'])->can(
            'manage-invitation',
            'invitation',
        );
        Route::delete('invitations/{invitation}', [InvitationController::class, 'destroy'])->can(
            'manage-invitation',
            'invitation',
        );

        Route::get('ledger/{entry}', [LedgerController::class, 'show'])->can('read-ledger', 'entry');
        Route::get('ledger/{entry}/undo', [LedgerController::class, 'outlook'])->can('work-ledger', 'entry');
        Route::post('ledger/{entry}/undo', [LedgerController::class, 'undo'])->can('work-ledger', 'entry');
        Route::post('ledger/{entry}/redo', [LedgerController::class, 'redo'])->can('work-ledger', 'entry');
        Route::prefix('prints/{print}')
            ->middleware('can:read-print,print')
            ->group(function (): void {
                Route::get('/', [PrintController::class, 'show']);
                Route::get('file', [PrintController::class, 'file']);
                Route::delete('/', [PrintController::class, 'destroy']);
            });
        Route::prefix('messages/{message}')
            ->middleware('can:read-message,message')
            ->group(function (): void {
                Route::get('/', [MailroomController::class, 'show']);
                Route::get('html', [MailroomController::class, 'html']);
                Route::get('eml', [MailroomController::class, 'eml']);
                Route::post('again', [MailroomController::class, 'again']);
                Route::post('settle', [MailroomController::class, 'settle']);
                Route::post('stop', [MailroomController::class, 'stop']);
            });
    });

    Route::fallback(fn() => abort(404));
});

Route::get('b/{token}', [SessionController::class, 'badge'])->middleware('throttle:guest');
Route::get('school-sign-on', [SingleSignOnController::class, 'begin'])->middleware('throttle:guest');
Route::get('school-sign-on/back', [SingleSignOnController::class, 'back'])->middleware('throttle:guest');

// Digests end with one touch: a mail program asks, and has no session of ours.
Route::prefix('u/{token}')
    ->where(['token' => '[0-9a-z]{58}'])
    ->withoutMiddleware('web')
    ->middleware(['throttle:guest', SecurityHeaders::class])
    ->group(function (): void {
        Route::get('/', [HearsController::class, 'page']);
        Route::post('/', [HearsController::class, 'oneTouch']);
    });

// For the school's other programs, by keys of their own: no sessions, no cookies.
Route::prefix('ims/oneroster')
    ->withoutMiddleware('web')
    ->middleware(['throttle:roster', SecurityHeaders::class])
    ->group(function (): void {
        Route::post('token', TokenController::class);
        Route::prefix('rostering/v1p2')->group(function (): void {
            Route::get('schools/{id}/classes/{class}/{collection}', [ServiceController::class, 'withinClass']);
            Route::get('{of}/{id}/{collection}', [ServiceController::class, 'within']);
            Route::get('{collection}/{id}', [ServiceController::class, 'one']);
            Route::get('{collection}', [ServiceController::class, 'collection']);
        });
        Route::any('{any?}', [ServiceController::class, 'nothing'])->where('any', '.*');
    });

// Behind the interface of a real provider, so without our sessions and their tokens.
Route::prefix('stand-in/openid')
    ->withoutMiddleware('web')
    ->group(function (): void {
        Route::get('.well-known/openid-configuration', [OpenIdProvider::class, 'discovery']);
        Route::get('authorize', [OpenIdProvider::class, 'authorize']);
        Route::post('token', [OpenIdProvider::class, 'token']);
        Route::get('keys', [OpenIdProvider::class, 'keys']);
    });

Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/|stand-in/|ims/).*')->name('app');
