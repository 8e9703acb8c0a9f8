<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Snapshots;
use App\Models\Import;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\CoreKit;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Intake\ListReader;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListLayout;
use Vantrel\Core\Table\UnreadableList;

/** From the file of an import, and what has been said about it, to its plan. The same every time nothing has changed. */
final class ImportPlanner
{
    public function __construct(private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    /**
     * @throws UnreadableList
     * @throws Refusal
     */
    public function plan(Import $import): PlannedImport
    {
        $school = School::query()->findOrFail($import->school_id);
        $named = [];
        foreach ($import->named ?? [] as $column => $field) {
            $named[(int) $column] = $field === null ? null : Field::from($field);
        }

        return $this->planFile(ImportFiles::path($import->file), $school, $import->title, "$import->id", $import->round, $named, $import->family_first, $import->answers);
    }

    /**
     * @param  array<int, Field|null>  $named
     * @param  array<string, string>  $answers
     *
     * @throws UnreadableList
     */
    public function planFile(string $path, School $school, string $title, string $seed, int $round = 1, array $named = [], ?bool $familyFirst = null, array $answers = []): PlannedImport
    {
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->first()
            ?? throw new Refusal("$school->name has no current school year. Make one first.");
        $grid = SheetFile::read($path);
        $layout = ListLayout::of($grid, $named, $familyFirst);
        $lines = ListReader::read($grid, $layout);
        if ($lines === []) {
            throw new UnreadableList('The list has a header and no students below it. Open the file, check its first sheet, save it and drop it in again.');
        }
        $plan = IntakePlanner::plan(
            $lines, $this->snapshots->forIntake($school->id, $year->id),
            new IntakeWish($title, $school->id, $year->id, $this->kit->today($school), $answers),
            // A list applied, undone and applied again writes new records, not the old ones under old ids.
            $this->kit->ids(substr($seed, 0, 10).strtoupper(substr(hash('sha256', "$seed|$round"), 0, 16))), $this->kit->userNames(),
        );

        return new PlannedImport($layout, $plan, count($lines));
    }
}
