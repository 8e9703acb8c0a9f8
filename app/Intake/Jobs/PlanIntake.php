<?php

declare(strict_types=1);

namespace App\Intake\Jobs;

use App\Intake\IntakePlans;
use App\Intake\KeptPictures;
use App\Intake\LeavingWords;
use App\Intake\Views\RepairTally;
use App\Intake\Views\SheetView;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Platform\QueuedWithState;
use App\Platform\SchoolDay;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\DB;
use Throwable;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Table\UnreadableList;

/**
 * Works out the plan of a list in the background. Run twice, it gives the same; of two for one list, the later round
 * wins.
 */
final class PlanIntake implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    public int $tries = 3;

    public function __construct(public readonly string $importId, public readonly int $round)
    {
        $this->queueWithState();
    }

    public function handle(IntakePlans $planner): void
    {
        ini_set('memory_limit', '512M');
        $intake = Intake::query()->find($this->importId);
        if ($intake === null || $intake->round !== $this->round || $intake->state !== IntakeState::Reading) {
            return;
        }
        try {
            $today = SchoolDay::today($intake->school_id);
            $planned = $planner->plan($intake, $today);
        } catch (UnreadableList | Refusal $e) {
            // Whoever sees the sheet can say where its header is.
            KeptPictures::keep($intake, $this->round, $planner->unread($intake));
            $this->finish(['state' => 'unreadable', 'message' => $e->getMessage()]);

            return;
        }
        KeptPictures::keep($intake, $this->round, $planned->book);
        DB::transaction(function () use ($planned, $intake, $today): void {
            DB::table('import_rows')->where('import_id', $this->importId)->delete();
            foreach (array_chunk($planned->plan->rows, 500) as $rows) {
                DB::table('import_rows')->insert(
                    array_map(
                        fn(PlanRow $row): array => [
                            'import_id' => $this->importId,
                            'sheet' => mb_substr($row->sheet, 0, 160),
                            'number' => $row->number,
                            'verdict' => $row->verdict->value,
                            'content' => json_encode($row, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                        ],
                        $rows,
                    ),
                );
            }
            $plan = $planned->plan;
            $this->finish([
                'state' => 'planned',
                'planned_on' => $today,
                'total' => $planned->book->contents->rows(),
                'done' => $planned->book->contents->rows(),
                'fingerprint' => $plan->fingerprint(),
                'answers' => json_encode((object) $planned->answers, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'layout' => json_encode(SheetView::all($planned->book), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'summary' => json_encode(
                    [
                        'rows' => $planned->book->contents->rows(),
                        'sentence' => $plan->sentence,
                        'tallies' => $plan->tallies,
                        'warnings' => $plan->warnings,
                        'blockers' => $plan->blockers,
                        'verdicts' => $plan->verdicts(),
                        'questions' => $plan->questions,
                        'changes' => count($plan->changes),
                        'domains' => $planned->domains,
                        'roster_of' => $planned->rosterOf,
                        'schools' => $planned->others,
                        'repairs' => RepairTally::all($plan),
                        'leaving' => $plan->verdicts()['leaving'] ?? 0,
                        'words' => LeavingWords::of($planned, $intake->everyone),
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
                ),
            ]);
        });
    }

    public function failed(?Throwable $e): void
    {
        $this->finish([
            'state' => 'unreadable',
            'message' =>
                'Reading this list failed here; nothing was written. Save it again as .xlsx or .csv and drop ' .
                'that in; if that fails too, tell whoever looks after this server.',
        ]);
    }

    /** @param  array<string, mixed>  $values */
    private function finish(array $values): void
    {
        // Only while the round is still ours: someone may have renamed a column in the meantime.
        DB::table('imports')
            ->where('id', $this->importId)
            ->where('round', $this->round)
            ->where('state', 'reading')
            ->update([...$values, 'changed_at' => now()]);
    }
}
