<?php

declare(strict_types=1);

use App\Door\Http\CodeController;
use App\Door\Http\RequestController;
use App\Door\Http\ReserveController;
use App\Door\Http\RoomPassController;
use App\Door\Http\StudentInviteController;
use App\Intake\Http\GradebookController;
use App\Mailroom\Http\LetterTemplateController;
use App\Mailroom\Http\LetterToManyController;
use App\Mailroom\Http\NoticeController;
use App\PrintRoom\Http\CardController;
use App\PrintRoom\Http\WallController;
use App\Rosters\Http\RosterController;
use App\Sections\Http\PlacementController;
use App\Sections\Http\SectionController;
use App\Staffing\Http\InvitationController;
use App\Staffing\Http\StaffController;
use Illuminate\Support\Facades\Route;

// One section: by what its roles may do.
Route::prefix('sections/{section}')->group(function (): void {
    Route::middleware('can:see_roster,section')->group(function (): void {
        Route::get('/', [SectionController::class, 'show']);
        Route::get('roster', [RosterController::class, 'section']);
        Route::post('as-student', [SectionController::class, 'asStudent']);
        Route::get('notices', [NoticeController::class, 'index']);
    });
    Route::middleware('can:write_notices,section')->group(function (): void {
        Route::post('letter/plan', [LetterToManyController::class, 'planForSection']);
        Route::post('letter', [LetterToManyController::class, 'storeForSection']);
        Route::post('letter/files', [LetterToManyController::class, 'fileForSection']);
        Route::get('letter/kept', [LetterTemplateController::class, 'indexForSection']);
        Route::post('letter/kept', [LetterTemplateController::class, 'storeForSection']);
        Route::delete('letter/kept/{template}', [LetterTemplateController::class, 'destroyForSection']);
        Route::post('notices', [NoticeController::class, 'store']);
        Route::post('notices/line', [NoticeController::class, 'line']);
        Route::post('notices/gradebook/plan', [GradebookController::class, 'planForSection']);
        Route::post('notices/gradebook', [GradebookController::class, 'storeForSection']);
        Route::post('notices/{notice}', [NoticeController::class, 'update']);
        Route::delete('notices/{notice}', [NoticeController::class, 'destroy']);
        Route::get('notices/{notice}/work', [NoticeController::class, 'work']);
        Route::post('notices/{notice}/work', [NoticeController::class, 'goThrough']);
    });
    Route::get('notices/{notice}/readers', [NoticeController::class, 'readers'])->can('hand_over_lead', 'section');
    Route::post('cards', [CardController::class, 'section'])->can('print_cards', 'section');
    Route::middleware('can:use_code,section')->group(function (): void {
        Route::get('code', [CodeController::class, 'show']);
        Route::post('code', [CodeController::class, 'store']);
        Route::post('code/terms', [CodeController::class, 'update']);
        Route::get('code/print', [WallController::class, 'section']);
        Route::get('code/chosen', [CodeController::class, 'judge']);
        Route::delete('code', [CodeController::class, 'destroy']);
    });
    Route::middleware('can:answer_requests,section')->group(function (): void {
        Route::get('requests', [RequestController::class, 'index']);
        Route::post('requests/refuse-all', [RequestController::class, 'refuseAll']);
        Route::post('requests/{asking}/approve', [RequestController::class, 'approve']);
        Route::post('requests/{asking}/refuse', [RequestController::class, 'refuse']);
    });
    Route::middleware('can:room_pass,section')->group(function (): void {
        Route::post('room-pass', [RoomPassController::class, 'store']);
        Route::delete('room-pass', [RoomPassController::class, 'destroy']);
        Route::delete('people/{person}/pictures', [RoomPassController::class, 'forgetPictures']);
    });
    Route::middleware('can:place_students,section')->group(function (): void {
        Route::get('invited', [StudentInviteController::class, 'index']);
        Route::post('invited/plan', [StudentInviteController::class, 'plan']);
        Route::post('invited', [StudentInviteController::class, 'store']);
        Route::post('invited/{invited}/again', [StudentInviteController::class, 'again']);
        Route::delete('invited/{invited}', [StudentInviteController::class, 'destroy']);
        Route::post('place/plan', [PlacementController::class, 'plan']);
        Route::post('place', [PlacementController::class, 'store']);
        Route::post('reserves', [ReserveController::class, 'store']);
        Route::post('reserves/{person}', [ReserveController::class, 'claim']);
    });
    Route::middleware('can:invite_staff,section')->group(function (): void {
        Route::post('invitations', [InvitationController::class, 'store']);
        Route::delete('staff/{person}', [StaffController::class, 'takeOff']);
    });
    Route::post('/', [SectionController::class, 'update'])->can('edit_section', 'section');
    Route::post('lead', [StaffController::class, 'handOver'])->can('hand_over_lead', 'section');
    Route::middleware('can:archive,section')->group(function (): void {
        Route::get('archive', [SectionController::class, 'archivePlan']);
        Route::post('archive', [SectionController::class, 'archive']);
    });
});
