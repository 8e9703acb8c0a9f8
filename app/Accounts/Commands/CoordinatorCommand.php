<?php

declare(strict_types=1);

namespace App\Accounts\Commands;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\PlannerKit;
use Illuminate\Console\Command;
use Vantrel\Core\Accounts\CoordinatorRoles;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;

/** Given on the server only: whoever coordinates a school can do everything in it. */
final class CoordinatorCommand extends Command
{
    protected $signature = 'vantrel:coordinator {user : user name of somebody on the staff}
        {--school= : code of the school}';

    protected $description = 'Make somebody on the staff coordinator of a school';

    public function handle(Ledger $ledger, Snapshots $snapshots, PlannerKit $kit): int
    {
        $user = $this->argument('user');
        $signIn = SignIn::query()->where('user_name', UserNames::fold($user))->first();
        $school = School::query()->where('code', (string) $this->option('school'))->first();
        $person = $signIn === null ? null : $snapshots->find(Records\Person::class, $signIn->person_id);
        if ($person === null || $school === null) {
            $this->error(
                $school === null
                    ? 'There is no school of that code. Give it as --school=CODE.'
                    : 'Nobody has that user name.',
            );

            return self::INVALID;
        }
        $role =
            $snapshots->list(
                Records\Coordinator::class,
                fn($q) => $q->where('person_id', $person->id)->where('school_id', $school->id),
            )[0] ?? null;
        try {
            $ledger->apply(
                $plan = CoordinatorRoles::give($person, $school->id, $school->name, $role, $kit->ids($kit->seed())),
                $school->id,
                null,
                Action::Settings,
            );
        } catch (Refusal $e) {
            $this->error($e->getMessage());

            return self::FAILURE;
        }
        $this->info($plan->sentence);

        return self::SUCCESS;
    }
}
