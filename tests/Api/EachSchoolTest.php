<?php

declare(strict_types=1);

use App\Models\School;
use App\Platform\EachSchool;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Exceptions;
use Tests\Support\World;

/** What is done by the clock for every school. */
beforeEach(function (): void {
    $this->world = World::make();
    Exceptions::fake();
});

it('goes on with the others where it goes wrong at one, and undoes what that one had begun', function (): void {
    $done = [];
    $level = DB::transactionLevel();
    $ends = EachSchool::run(function (School $school) use (&$done): void {
        if ($school->id === $this->world->school) {
            DB::beginTransaction();
            DB::table('schools')
                ->where('id', $school->id)
                ->update(['name' => 'Half']);
            throw new RuntimeException('fell over');
        }
        $done[] = $school->id;
    });
    expect($ends)
        ->toBe(Command::FAILURE)
        ->and($done)
        ->toBe(School::query()->where('id', '<>', $this->world->school)->orderBy('code')->pluck('id')->all())
        ->and($done)
        ->not->toBe([])
        ->and(DB::table('schools')->where('name', 'Half')->exists())
        ->toBeFalse()
        ->and(DB::transactionLevel())
        ->toBe($level);
    Exceptions::assertReported(fn(RuntimeException $e): bool => $e->getMessage() === 'fell over');
});

it('says so by its exit where all went well', function (): void {
    expect(EachSchool::run(fn() => null))->toBe(Command::SUCCESS);
    Exceptions::assertNothingReported();
});

it('is how every command of the clock goes through the schools', function (string $command): void {
    $this->artisan($command)->assertExitCode(Command::SUCCESS);
})->with([
    'vantrel:digests',
    'vantrel:clean-up',
    'vantrel:coverage',
    'vantrel:look-alikes --all',
    'vantrel:remind-guardians --now',
]);
