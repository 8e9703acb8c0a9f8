<?php

declare(strict_types=1);

namespace App\Intake;

use App\Mailroom\Mail\NightlyListMail;
use App\Models\LedgerEntry;
use App\Models\School;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Verdict;

/** Tells the coordinators of a school what came of a list that nobody brought in by hand. */
final class NightlyReport
{
    private const ROWS = 40;

    public function send(
        School $school,
        string $file,
        string $trouble,
        ?PlannedIntake $planned,
        ?LedgerEntry $entry,
    ): void {
        $plan = $planned?->plan;
        $waiting = array_values(
            array_filter(
                $plan->rows ?? [],
                fn(PlanRow $r): bool => in_array($r->verdict, [Verdict::Ask, Verdict::Cannot], true),
            ),
        );
        $rows = array_map(
            fn(PlanRow $r): string => "row $r->number" .
                ($r->sheet === '' ? '' : " of $r->sheet") .
                ': ' .
                implode(
                    ', ',
                    array_unique([$r->why, ...array_map(fn(Problem $p): string => $p->column, $r->problems)]),
                ),
            array_slice($waiting, 0, self::ROWS),
        );
        if (count($waiting) > self::ROWS) {
            $rows[] = 'and ' . (count($waiting) - self::ROWS) . ' more';
        }
        $link = url($entry === null ? "/s/$school->code/intake" : "/s/$school->code/ledger");
        $to = DB::table('coordinators as c')
            ->join('people as p', 'p.id', '=', 'c.person_id')
            ->where('c.school_id', $school->id)
            ->where('c.state', 'active')
            ->where('p.state', 'active')
            ->whereNotNull('p.email')
            ->orderBy('p.email')
            ->pluck('p.email');
        foreach ($to as $address) {
            Mail::to($address)->send(
                new NightlyListMail(
                    $school->id,
                    $school->name,
                    $file,
                    $trouble,
                    $plan->sentence ?? '',
                    $rows,
                    $plan->warnings ?? [],
                    $link,
                ),
            );
        }
    }
}
