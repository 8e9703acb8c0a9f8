<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\IntakePlans;
use App\Ledger\Ledger;
use App\Ledger\Turns;
use Illuminate\Support\Str;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;

final class ApplyCommand extends PlanCommand
{
    protected $description = 'Apply lists; exits with 2 if questions are open, and writes nothing then';

    public function __construct()
    {
        $this->signature = self::signatureOf('vantrel:apply');
        parent::__construct();
    }

    public function handle(IntakePlans $planner, ?Ledger $ledger = null): int
    {
        $ledger ??= app(Ledger::class);
        try {
            [$planned, $entry] = Turns::take(function () use ($planner, $ledger): array {
                $planned = $this->plan($planner, (string) Str::ulid());
                $plan = $planned?->plan;
                $nothing = $plan === null || $plan->openQuestions() !== [] || $plan->isEmpty();

                return [
                    $planned,
                    $nothing ? null : $ledger->apply($plan, (string) $this->school()?->id, null, Action::Intake),
                ];
            });
        } catch (StalePlan | Refusal $e) {
            $this->error($e->getMessage());

            return self::FAILURE;
        }
        if ($planned === null) {
            return self::INVALID;
        }
        $this->show($planned);
        if ($planned->plan->openQuestions() !== []) {
            $this->getOutput()
                ->getErrorStyle()
                ->error(
                    count($planned->plan->openQuestions()) .
                        ' questions are open. Answer them with --answers=FILE; nothing was written.',
                );

            return 2;
        }
        if ($entry !== null && !$this->option('json')) {
            $this->info("Applied. To undo: php artisan vantrel:undo $entry->id");
        }

        return self::SUCCESS;
    }
}
