<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\ImportPlanner;
use App\Ledger\Ledger;
use App\Models\School;
use Illuminate\Support\Str;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;

final class ApplyCommand extends PlanCommand
{
    protected $signature = 'vantrel:apply {file : the list} {--school= : code of the school} {--answers= : JSON file of question id to choice} {--json : print the whole plan as JSON}';

    protected $description = 'Apply a list of students; exits with 2 if questions are open, and writes nothing then';

    public function handle(ImportPlanner $planner, ?Ledger $ledger = null): int
    {
        $ledger ??= app(Ledger::class);
        $answers = [];
        if ($this->option('answers') !== null) {
            $decoded = json_decode((string) @file_get_contents((string) $this->option('answers')), true);
            if (! is_array($decoded)) {
                $this->error("{$this->option('answers')} is not a JSON object of question ids and choices.");

                return self::INVALID;
            }
            $answers = array_map(strval(...), array_filter($decoded, is_scalar(...)));
        }
        $plan = $this->plan($planner, $answers, (string) Str::ulid());
        if ($plan === null) {
            return self::INVALID;
        }
        $this->show($plan);
        if ($plan->openQuestions() !== []) {
            $this->error(count($plan->openQuestions()).' questions are open. Answer them with --answers=FILE; nothing was written.');

            return 2;
        }
        if ($plan->isEmpty()) {
            return self::SUCCESS;
        }
        try {
            $entry = $ledger->apply($plan, School::query()->where('code', (string) $this->option('school'))->firstOrFail()->id, null, 'intake');
        } catch (StalePlan|Refusal $e) {
            $this->error($e->getMessage());

            return self::FAILURE;
        }
        if (! $this->option('json')) {
            $this->info("Applied. To undo: php artisan vantrel:undo $entry->id");
        }

        return self::SUCCESS;
    }
}
