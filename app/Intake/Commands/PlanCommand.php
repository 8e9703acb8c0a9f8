<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\ImportPlanner;
use App\Intake\PlanJson;
use App\Models\School;
use Illuminate\Console\Command;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Table\UnreadableList;

/** Computes what a list would change and prints it. Changes nothing. */
class PlanCommand extends Command
{
    protected $signature = 'vantrel:plan {file : the list} {--school= : code of the school} {--json : print the whole plan as JSON}';

    protected $description = 'Print what a list of students would change';

    public function handle(ImportPlanner $planner): int
    {
        $plan = $this->plan($planner, []);
        if ($plan === null) {
            return self::INVALID;
        }
        $this->show($plan);

        return self::SUCCESS;
    }

    /** @param  array<string, string>  $answers */
    protected function plan(ImportPlanner $planner, array $answers, ?string $seed = null): ?Plan
    {
        $file = (string) $this->argument('file');
        $school = School::query()->where('code', (string) $this->option('school'))->first();
        if ($school === null) {
            $this->error('No such school. Use --school with one of: '.implode(', ', School::query()->orderBy('code')->pluck('code')->all()));

            return null;
        }
        if (! is_file($file)) {
            $this->error("$file is not there.");

            return null;
        }
        try {
            return $planner->planFile($file, $school, basename($file), $seed ?? '01K3QZ0000'.strtoupper(substr(hash_file('sha256', $file) ?: '', 0, 16)), 1, [], null, $answers)->plan;
        } catch (UnreadableList|Refusal $e) {
            $this->error($e->getMessage());

            return null;
        }
    }

    protected function show(Plan $plan): void
    {
        if ($this->option('json')) {
            $this->output->writeln(PlanJson::of($plan), \Symfony\Component\Console\Output\OutputInterface::OUTPUT_RAW);

            return;
        }
        $this->line($plan->sentence);
        foreach ($plan->warnings as $warning) {
            $this->line("Note: $warning");
        }
        $open = array_filter($plan->rows, fn (PlanRow $r): bool => in_array($r->verdict, [Verdict::Ask, Verdict::Cannot], true));
        if ($open !== []) {
            $this->table(['Row', 'Verdict', 'Name', 'Why'], array_map(fn (PlanRow $r): array => [
                $r->number, $r->verdict->value, $r->cells['Name']->after, $r->problems === [] ? $r->why : $r->problems[0]->column.': '.$r->problems[0]->message,
            ], $open));
        }
    }
}
