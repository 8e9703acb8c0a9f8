<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Models\Intake;
use App\Models\IntakeState;
use App\Models\LedgerEntry;
use App\Platform\Resource;
use Vantrel\Core\Intake\Leavers;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;

/** One list with its layout and the outline of its plan; the rows come page by page. */
final readonly class IntakeDetail extends Resource
{
    /**
     * @param  int  $total of what is being done: rows to plan, records to write
     * @param  int  $rows of the list
     * @param  int  $quiet seconds without news of the job that works on it; 0 where none does
     * @param  string|null  $everyone whose whole list it is: school, grade:04 or section:ID; null for additions
     * @param  list<SheetView>  $sheets
     * @param  list<FieldChoice>  $fields what a column can be
     * @param  list<FieldChoice>  $kinds what the rows of a sheet can be
     * @param  list<string>  $kept keys of cells and columns that are left as they are written
     * @param  list<string>  $said keys of what was said of rows, headers and lists side by side
     * @param  list<RepairTally>  $repairs
     * @param  list<string>  $domains mail domains that most of the list uses and the school has not named
     * @param  string|null  $rosterOf id of the section whose roster this is, as it went out and came back
     * @param  int  $leaving students who leave, or are taken out of the section
     * @param  bool  $password whether applying it takes the password once more
     * @param  string  $words what is typed to go past the trip-wire
     * @param  array<string, int>  $verdicts
     * @param  int  $going lines that applying does something to
     * @param  int  $waiting lines that are left for somebody to answer or mend
     * @param  list<Tally>  $tallies
     * @param  list<string>  $warnings
     * @param  list<string>  $blockers
     * @param  list<Question>  $questions
     */
    public function __construct(
        public string $id,
        public string $schoolId,
        public string $title,
        public IntakeState $state,
        public ?string $message,
        public int $done,
        public int $total,
        public int $rows,
        public int $quiet,
        public int $round,
        public ?string $everyone,
        public array $sheets,
        public array $fields,
        public array $kinds,
        public array $kept,
        public array $said,
        public array $repairs,
        public array $domains,
        public ?string $rosterOf,
        public int $leaving,
        public bool $password,
        public string $words,
        public bool $confirmed,
        public array $verdicts,
        public int $going,
        public int $waiting,
        public array $tallies,
        public array $warnings,
        public array $blockers,
        public array $questions,
        public string $sentence,
        public int $changes,
        public ?string $fingerprint,
        public ?string $undoUntil,
        public ?string $entryId,
    ) {}

    public static function of(Intake $intake): self
    {
        $layout = $intake->layout ?? [];
        $summary = $intake->summary ?? [];

        return new self(
            $intake->id,
            $intake->school_id,
            $intake->title,
            $intake->state,
            $intake->message,
            $intake->done,
            $intake->total,
            $summary['rows'] ?? $intake->total,
            $intake->state->busy() ? max(0, now()->getTimestamp() - (int) strtotime("$intake->changed_at UTC")) : 0,
            $intake->round,
            $intake->everyone,
            array_map(SheetView::restore(...), array_values(array_filter($layout, is_array(...)))),
            array_map(fn(Field $f): FieldChoice => new FieldChoice($f->value, $f->label()), Field::cases()),
            array_map(fn(ListKind $k): FieldChoice => new FieldChoice($k->value, $k->label()), ListKind::cases()),
            self::keys($intake, '/^keep\./'),
            self::keys($intake, '/^s\d+\./'),
            array_map(fn(array $r): RepairTally => new RepairTally(...$r), array_values($summary['repairs'] ?? [])),
            $summary['domains'] ?? [],
            $summary['roster_of'] ?? null,
            $summary['leaving'] ?? 0,
            Leavers::takePassword($summary['leaving'] ?? 0),
            $summary['words'] ?? '',
            $intake->confirmed !== '' && $intake->confirmed === ($summary['words'] ?? ''),
            $summary['verdicts'] ?? [],
            self::count($summary['verdicts'] ?? [], fn(Verdict $v): bool => $v->acts()),
            self::count($summary['verdicts'] ?? [], fn(Verdict $v): bool => $v->waits()),
            $summary['tallies'] ?? [],
            $summary['warnings'] ?? [],
            $summary['blockers'] ?? [],
            $summary['questions'] ?? [],
            $summary['sentence'] ?? '',
            $summary['changes'] ?? 0,
            $intake->fingerprint,
            LedgerEntry::openFromNow(Action::Intake),
            $intake->entry_seq === null ? null : LedgerEntry::query()->where('seq', $intake->entry_seq)->value('id'),
        );
    }

    /** @return list<string> keys of answers of one kind */
    private static function keys(Intake $intake, string $kind): array
    {
        return array_values(preg_grep($kind, array_map(strval(...), array_keys($intake->answers))) ?: []);
    }

    /**
     * @param  array<string, int>  $verdicts
     * @param  callable(Verdict): bool  $such
     */
    private static function count(array $verdicts, callable $such): int
    {
        return array_sum(
            array_filter($verdicts, fn(string $v): bool => $such(Verdict::from($v)), ARRAY_FILTER_USE_KEY),
        );
    }
}
