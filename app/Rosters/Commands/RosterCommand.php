<?php

declare(strict_types=1);

namespace App\Rosters\Commands;

use App\Models\School;
use App\Models\Section;
use App\Platform\PlannerKit;
use App\Platform\SheetFormat;
use App\Platform\SheetOut;
use App\Rosters\OneRosterExport;
use App\Rosters\Roster;
use Illuminate\Console\Command;

final class RosterCommand extends Command
{
    protected $signature = 'vantrel:roster {--section= : id of a section}
        {--school= : code of a school, for all its students}
        {--as-of= : the day, YYYY-MM-DD}
        {--format=xlsx : csv, xlsx, ods or oneroster (a whole school)}
        {--since= : with oneroster, only what has changed since YYYY-MM-DD}
        {--out= : the file to write}';

    protected $description = 'Write a roster to a file';

    public function handle(PlannerKit $kit): int
    {
        $out = (string) $this->option('out');
        $section = $this->option('section') === null ? null : Section::query()->find((string) $this->option('section'));
        /** @var School|null $school */
        $school =
            $section !== null
                ? School::query()->find($section->school_id)
                : School::query()->where('code', (string) $this->option('school'))->first();
        $format = SheetFormat::tryFrom((string) $this->option('format'));
        $asOf = (string) ($this->option('as-of') ?? ($school === null ? '' : $kit->today($school)));
        $wrong = match (true) {
            $out === '' => 'Say where to: --out=FILE.',
            $school === null || ($this->option('section') !== null && $section === null)
                => 'No such section or school. Use --section=ID, or --school with one of: ' .
                implode(', ', School::query()->orderBy('code')->pluck('code')->all()),
            $format === null && $this->option('format') !== 'oneroster' => '--format is csv, xlsx, ods or oneroster.',
            $format === null && $section !== null => 'A OneRoster export is of a whole school: use --school=CODE.',
            preg_match('/^\d{4}-\d\d-\d\d$/', $asOf) !== 1 => '--as-of is a day, such as 2026-09-01.',
            !is_dir(dirname($out)) || is_dir($out) => "$out cannot be written.",
            default => null,
        };
        if ($wrong !== null) {
            $this->error($wrong);

            return self::INVALID;
        }
        if ($format === null) {
            $since = $this->option('since');
            is_string($since)
                ? OneRosterExport::writeChanges($school, $since, $out)
                : OneRosterExport::write($school, $out);
        } else {
            SheetOut::write($format, $out, [
                $section->name ?? 'Roll' => [
                    Roster::headings(true),
                    $section !== null ? Roster::ofSection($section, $asOf, true) : Roster::ofSchool($school, $asOf),
                ],
            ]);
        }
        chmod($out, 0600);
        $this->info("Written: $out");

        return self::SUCCESS;
    }
}
