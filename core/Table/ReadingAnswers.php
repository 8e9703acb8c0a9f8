<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * What a person has said of how a file is to be read. Kept among the answers, under keys that name the place: `t0` is
 * the first sheet, `t0.c3` its fourth column (a field, or `-` for none), `t0.kind`, `t0.names` (family or given),
 * `t0.dates` (day, month or none), `t0.skip`; `keep.t0.c3` leaves a column's cells as they are written,
 * `keep.t0.r17.c3` one cell. What is said of a sheet of a file before tables are looked for in it stands under `s0`:
 * `s0.header` (number of the header's row, 0 for none), `s0.r17` (row or skip), `s0.beside` (columns in which lists
 * begin that stand side by side, counted from 0; `-` for one list), `s0.hidden` (take or leave).
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
            preg_match('/^s\d+\.header$/', $question) === 1 => preg_match('/^\d{1,5}$/', $answer) === 1,
            preg_match('/^s\d+\.r\d+$/', $question) === 1 => in_array($answer, ['row', 'skip'], true),
            preg_match('/^s\d+\.beside$/', $question) === 1 => preg_match(
                '/^(-|\d{1,3}(,\d{1,3}){0,19})$/',
                $answer,
            ) === 1,
            preg_match('/^s\d+\.hidden$/', $question) === 1 => in_array($answer, ['take', 'leave'], true),
            default => true,
        };
    }

    /** Whether an answer says what the tables of a sheet are, so that what was said of their columns counts no more. */
    public static function ofShape(string $question): bool
    {
        return preg_match('/^s\d+\.(header|beside)$/', $question) === 1;
    }

    /** Number of the header's row, 0 where there is none, null where nobody said. */
    public function header(int $source): ?int
    {
        $said = $this->about($source, 'header', 's');

        return $said === null ? null : (int) $said;
    }

    /** @return array<int, bool> number of a row to whether it is one of the list */
    public function rows(int $source): array
    {
        $rows = [];
        foreach ($this->answers as $key => $answer) {
            if (preg_match("/^s$source\\.r(\\d+)$/", (string) $key, $m) === 1) {
                $rows[(int) $m[1]] = $answer === 'row';
            }
        }

        return $rows;
    }

    /** @return list<int>|null columns in which lists begin; none for one list, null where nobody said */
    public function beside(int $source): ?array
    {
        $said = $this->about($source, 'beside', 's');

        return match ($said) {
            null => null,
            '-' => [],
            default => array_map(intval(...), explode(',', $said)),
        };
    }

    public function takesHidden(int $source): bool
    {
        return $this->about($source, 'hidden', 's') === 'take';
    }

    /** @param  string  $of t for a table, s for a sheet of a file */
    public function about(int $place, string $what, string $of = 't'): ?string
    {
        return $this->answers["$of$place.$what"] ?? null;
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
