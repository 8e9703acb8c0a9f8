<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Import;
use App\Models\LedgerEntry;
use App\Platform\Resource;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Table\Field;

/** One list with its layout and the outline of its plan; the rows come page by page. */
final readonly class ImportDetail extends Resource
{
    /**
     * @param  list<ColumnView>  $columns
     * @param  list<FieldChoice>  $fields what a column can be
     * @param  array<string, int>  $verdicts
     * @param  list<Tally>  $tallies
     * @param  list<string>  $warnings
     * @param  list<string>  $blockers
     * @param  list<Question>  $questions
     */
    public function __construct(
        public string $id,
        public string $schoolId,
        public string $title,
        public string $state,
        public ?string $message,
        public int $done,
        public int $total,
        public int $round,
        public ?int $headerRow,
        public bool $familyFirst,
        public array $columns,
        public array $fields,
        public array $verdicts,
        public array $tallies,
        public array $warnings,
        public array $blockers,
        public array $questions,
        public string $sentence,
        public int $changes,
        public ?string $fingerprint,
        public string $undoUntil,
        public ?string $entryId,
    ) {
    }

    public static function of(Import $import): self
    {
        $layout = $import->layout ?? [];
        $summary = $import->summary ?? [];

        return new self(
            $import->id, $import->school_id, $import->title, $import->state, $import->message, $import->done, $import->total, $import->round,
            $layout['header_row'] ?? null, $layout['family_first'] ?? false,
            array_map(fn (array $c): ColumnView => new ColumnView($c['index'], $c['heading'], $c['samples'], $c['field'], $c['why']), $layout['columns'] ?? []),
            array_map(fn (Field $f): FieldChoice => new FieldChoice($f->value, $f->label()), Field::cases()),
            $summary['verdicts'] ?? [], $summary['tallies'] ?? [], $summary['warnings'] ?? [], $summary['blockers'] ?? [], $summary['questions'] ?? [],
            $summary['sentence'] ?? '', $summary['changes'] ?? 0, $import->fingerprint, now()->addDays((int) config('vantrel.undo_days'))->format('Y-m-d'),
            $import->entry_seq === null ? null : LedgerEntry::query()->where('seq', $import->entry_seq)->value('id'),
        );
    }
}
