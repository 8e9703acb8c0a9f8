<?php

declare(strict_types=1);

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** What every test of them begins with. */
function readyToUndo(object $test): void
{
    $test->world = World::make();
    $test->ledger = app(Ledger::class);
    $test->actingAs($test->world->as('coordinator'));
    $test->list = function (string $csv) use ($test): string {
        $id = $test
            ->post(
                "/api/schools/{$test->world->school}/intakes",
                ['files' => [UploadedFile::fake()->createWithContent('list.csv', $csv)]],
                ['Accept' => 'application/json'],
            )
            ->assertOk()
            ->json('id');
        $test
            ->postJson("/api/intakes/$id/apply", [
                'fingerprint' => $test->getJson("/api/intakes/$id")->json('fingerprint'),
            ])
            ->assertOk();

        return (string) $test
            ->getJson("/api/intakes/$id")
            ->assertJsonPath('state', 'applied')
            ->json('entryId');
    };
    $test->outlook = fn(string $entry): array => $test
        ->getJson("/api/ledger/$entry/undo")
        ->assertOk()
        ->json();
    $test->undo = fn(string $entry, array $first = []) => $test->postJson(
        "/api/ledger/$entry/undo",
        $first === [] ? [] : ['first' => $first],
    );
    $test->row = fn(string $kind, string $id) => app(Snapshots::class)->find($kind, $id) ??
        throw new LogicException("no $id");
    $test->change = function (string $person, array $fields) use ($test): LedgerEntry {
        $plan = new PlanBuilder();
        $plan->update(($test->row)(Person::class, $person), $fields, 'by hand');

        return $test->ledger->apply(
            $plan->build('By hand', 'Changes something.'),
            $test->world->school,
            $test->world->as('coordinator'),
            Action::Place,
            also: [$test->world->otherSchool],
        );
    };
    // The plan of a merge, as two coordinators may look at it at once.
    $test->merge = function (string $from, string $into) use ($test): Plan {
        $plan = new PlanBuilder();
        $plan->update(($test->row)(Person::class, $from), ['state' => 'merged', 'merged_into' => $into], 'merged');
        $plan->update(
            ($test->row)(SignIn::class, (string) DB::table('sign_ins')->where('person_id', $from)->value('id')),
            ['person_id' => $into],
            'goes with the account',
        );

        return $plan->build('Merge', 'Merges two accounts.');
    };
}
