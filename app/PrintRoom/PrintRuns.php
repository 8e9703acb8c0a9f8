<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Models\Person;
use App\Models\PrintRun;
use App\Models\PrintState;
use App\Models\School;
use App\Models\Section;
use App\Platform\PlannerKit;
use App\PrintRoom\Jobs\SetPrint;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\GoneHttpException;
use Throwable;
use Vantrel\Core\Plan\Refusal;

/**
 * What is printed with secrets on it: a few pages at once, many in the background with progress. The file is kept
 * sealed for a day, for whoever printed it and nobody else, so that a tab closed half-way loses nothing; then it is
 * gone.
 */
final class PrintRuns
{
    /** Up to so many are set while the page waits: a second. */
    public const AT_ONCE = 150;

    private const HOURS = 24;

    public function __construct(
        private readonly CardPrinter $cards,
        private readonly LetterPrinter $letters,
        private readonly PrintedPeople $people,
        private readonly PlannerKit $kit,
    ) {}

    /**
     * @param  Section|null  $section where it is printed from a section's page
     *
     * @throws Refusal where it cannot be printed, if that shows at once
     */
    public function begin(School $school, ?Section $section, Person $maker, CardJob|LetterJob $job): PrintRun
    {
        $total = $this->people->count($school, $job->whom);
        $now = CarbonImmutable::now('UTC');
        $run = new PrintRun([
            'id' => $this->kit->seed(),
            'school_id' => $school->id,
            'section_id' => $section?->id,
            'person_id' => $maker->id,
            'what' => self::called($section, $job, $total),
            'state' => PrintState::Waiting,
            'done' => 0,
            'total' => $total,
            'made_at' => $now->format('Y-m-d H:i:s'),
            'expires_at' => $now->addHours(self::HOURS)->format('Y-m-d H:i:s'),
        ]);
        $run->save();
        if ($total > self::AT_ONCE && $total <= PrintedPeople::MOST) {
            SetPrint::dispatch($run->id, $job);

            return $run;
        }
        try {
            $this->set($run, $job);
        } catch (Throwable $e) {
            $run->delete();
            throw $e;
        }

        return $run->refresh();
    }

    /**
     * Issues and sets it.
     *
     * @throws Refusal
     */
    public function set(PrintRun $run, CardJob|LetterJob $job): void
    {
        $school = School::query()->findOrFail($run->school_id);
        $maker = Person::query()->find($run->person_id);
        $run->update(['state' => PrintState::Working]);
        $progress = function (int $done) use ($run): void {
            // Not on every sheet: a print of a thousand is told some ten times.
            if ($done - $run->done >= 100) {
                $run->update(['done' => $done]);
            }
        };
        $pdf =
            $job instanceof CardJob
                ? $this->cards->print($school, $job, $maker, $progress)
                : $this->letters->print($school, $job, $maker, $progress);
        $run->update([
            'sealed' => Crypt::encryptString($pdf),
            'done' => $run->total,
            'state' => PrintState::Done,
        ]);
    }

    /** @param  string|null  $field what the problem is about */
    public function fail(PrintRun $run, string $problem, ?string $field): void
    {
        $run->update(['state' => PrintState::Failed, 'problem' => $problem, 'field' => $field]);
    }

    /** @return string the PDF */
    public function file(PrintRun $run): string
    {
        if ($run->sealed === null || $run->expires_at <= $this->kit->now()) {
            throw new GoneHttpException('This print is not kept any more. Print it again.');
        }
        try {
            return Crypt::decryptString($run->sealed);
        } catch (DecryptException) {
            throw new GoneHttpException('This print cannot be read with this server’s key. Print it again.');
        }
    }

    /**
     * @return list<PrintRun> of the last day by one person, the latest first
     */
    public function of(School $school, Person $maker): array
    {
        return array_values(
            PrintRun::query()
                ->where('person_id', $maker->id)
                ->where('school_id', $school->id)
                ->where('expires_at', '>', $this->kit->now())
                ->orderByDesc('made_at')
                ->orderByDesc('id')
                ->limit(50)
                ->get(['id', 'what', 'state', 'done', 'total', 'problem', 'field', 'made_at', 'expires_at'])
                ->all(),
        );
    }

    /** @return int how many were past their day */
    public function clear(): int
    {
        return DB::table('print_runs')->where('expires_at', '<=', $this->kit->now())->delete();
    }

    private static function called(?Section $section, CardJob|LetterJob $job, int $total): string
    {
        $kind = $job instanceof CardJob ? 'login card' : mb_strtolower($job->kind->label());
        $what = number_format($total) . " $kind" . ($total === 1 ? '' : 's');

        return $section === null ? $what : mb_strimwidth("$what, $section->name", 0, 160, '…');
    }
}
