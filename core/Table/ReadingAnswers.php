<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * What a person has said of how a file is to be read. Kept among the answers, under keys that name the place: `t0` is
 * the first sheet, `t0.c3` its fourth column (a field, or `-` for none), `t0.kind`, `t0.names` (family or given),
 * `t0.dates` (day, month or none), `t0.skip`; `keep.t0.c3` leaves a column's cells as they are written,
 * `keep.t0.r17.c3` one cell.
 */
final readonly class ReadingAnswers
{
    /** @param  array<string, string>  $answers */
    public function __construct(private array $answers = []) {}

    /** Whether an answer can be one to its question, as far as the question's key says. */
    public static function allows(string $question, string $answer): bool
    {
        return match (true) {
            preg_match('/^t\d+\.c\d+$/', $question) === 1 => $answer === '-' || Field::tryFrom($answer) !== null,
            preg_match('/^t\d+\.kind$/', $question) === 1 => ListKind::tryFrom($answer) !== null,
            preg_match('/^t\d+\.names$/', $question) === 1 => in_array($answer, ['given', 'family'], true),
            preg_match('/^t\d+\.dates$/', $question) === 1 => in_array($answer, ['day', 'month', 'none'], true),
            default => true,
        };
    }

    public function about(int $table, string $what): ?string
    {
        return $this->answers["t$table.$what"] ?? null;
    }

    /** @return array<int, Field|null> column to field, null for none */
    public function columns(int $table): array
    {
        $columns = [];
        foreach ($this->answers as $key => $answer) {
            if (preg_match("/^t$table\\.c(\\d+)$/", (string) $key, $m) === 1) {
                $columns[(int) $m[1]] = Field::tryFrom($answer);
            }
        }

        return $columns;
    }

    public function keeps(int $table, int $row, int $column): bool
    {
        return isset($this->answers["keep.t$table.c$column"]) || isset($this->answers["keep.t$table.r$row.c$column"]);
    }

    /**
     * What can be remembered for another file of the same shape: all that is not about one row.
     *
     * @return array<string, string> without the sheet's place
     */
    public function layoutOf(int $table): array
    {
        $kept = [];
        foreach ($this->answers as $key => $answer) {
            if (preg_match("/^t$table\\.(c\\d+|kind|names|dates)$/", (string) $key, $m) === 1) {
                $kept[$m[1]] = $answer;
            }
        }
        ksort($kept);

        return $kept;
    }
}
