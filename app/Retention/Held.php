<?php

declare(strict_types=1);

namespace App\Retention;

use App\Ledger\RecordNames;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Records\Entity;

/**
 * All that is held about somebody, for who asks by right: rows of every table that point at them, found in the schema
 * itself, and every text that names them, from {@see Places}. Of others who stand in it no more than their part in it.
 */
final class Held
{
    /** Columns by which a row belongs to somebody, in whatever table. */
    private const THEIRS = ['person_id', 'student_id', 'guardian_id', 'user_id', 'left_id', 'right_id'];

    /** Of the program itself: words to search by, and who is to be looked at again. */
    private const NOT_TOLD = ['search_words', 'look_alike_todo'];

    /** Secrets, and keys of rows. */
    private const HIDDEN =
        '/(^id|_hash|password|passphrase|secret|pending|recovery|credential_id|public_key|sealed|payload|pictures|' .
        'content|token|version|live_number|plain_number|_order|search_name|claim|claimed_until|open_now|fingerprint|shape)$/';

    /**
     * @param  string|null  $guardianId whom a child's is for: of their other guardians nothing is in it then
     * @return array<string, list<array<string, string>>> what it is to the rows of it, each field to its value
     */
    public static function about(string $personId, ?string $guardianId = null): array
    {
        $forms = Forms::of($personId);
        $names = DB::table('sections')
            ->pluck('name', 'id')
            ->union(DB::table('schools')->pluck('name', 'id'))
            ->union(self::family($forms->ids, $guardianId))
            ->all();
        $tell = function (string $table, string $column, array $ids) use ($names, $forms, $guardianId): array {
            $rows = [];
            foreach (DB::table($table)->whereIn($column, $ids)->get() as $row) {
                if ($guardianId === null || self::isFor($row, $column, $guardianId)) {
                    $rows[] = self::told($row, $names, $forms->ids);
                }
            }

            return $rows;
        };
        $held = ['The account' => $tell('people', 'id', $forms->ids)];
        foreach (self::tables() as [$table, $column]) {
            $rows = $tell($table, $column, $forms->ids);
            if ($rows !== []) {
                $label = self::label($table);
                $held[$label] = [...$held[$label] ?? [], ...$rows];
            }
        }
        $signIns = array_map(
            strval(...),
            array_values(DB::table('sign_ins')->whereIn('person_id', $forms->ids)->pluck('id')->all()),
        );
        foreach (['badges', 'password_resets'] as $table) {
            $rows = $tell($table, 'sign_in_id', $signIns);
            if ($rows !== []) {
                $held[self::label($table)] = $rows;
            }
        }
        $others = $guardianId === null ? [] : self::others($forms->ids, $guardianId);
        foreach ([...array_keys(Places::WORDS), ...array_keys(Places::ROWS)] as $table) {
            $lines = self::lines($table, $forms, $others);
            if ($lines !== []) {
                $held['Named in ' . str_replace('_', ' ', $table)] = $lines;
            }
        }

        return $held;
    }

    /** Whether a row about a child says nothing of another guardian. */
    private static function isFor(stdClass $row, string $column, string $guardianId): bool
    {
        if ($column !== 'student_id') {
            return true;
        }
        foreach (['guardian_id', 'person_id'] as $whose) {
            if (property_exists($row, $whose) && $row->{$whose} !== $guardianId) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  list<string>  $ids of a child
     * @return list<Forms> of the guardians they have or had besides this one
     */
    private static function others(array $ids, string $guardianId): array
    {
        return array_map(
            fn(mixed $id): Forms => Forms::of((string) $id),
            array_values(
                DB::table('guardianships')
                    ->whereIn('student_id', $ids)
                    ->where('guardian_id', '!=', $guardianId)
                    ->distinct()
                    ->pluck('guardian_id')
                    ->all(),
            ),
        );
    }

    /**
     * @param  list<string>  $ids
     * @param  string|null  $guardianId the only guardian named, where one is given
     * @return array<string, string> guardians of a child, or children of a guardian: id to name
     */
    private static function family(array $ids, ?string $guardianId): array
    {
        return DB::table('guardianships as g')
            ->join('people as p', fn($on) => $on->on('p.id', '=', 'g.guardian_id')->orOn('p.id', '=', 'g.student_id'))
            ->where(fn($q) => $q->whereIn('g.student_id', $ids)->orWhereIn('g.guardian_id', $ids))
            ->when($guardianId !== null, fn($q) => $q->where('g.guardian_id', $guardianId))
            ->selectRaw("p.id, TRIM(CONCAT(p.given_name, ' ', p.family_name)) n")
            ->pluck('n', 'id')
            ->map(fn(mixed $name): string => (string) $name)
            ->all();
    }

    /** @return list<array{string, string}> table and column, of each that points at people */
    private static function tables(): array
    {
        $places = implode(',', array_fill(0, count(self::THEIRS), '?'));

        return array_values(
            array_filter(
                array_map(
                    fn(stdClass $c): array => [(string) $c->t, (string) $c->c],
                    DB::select(
                        'SELECT TABLE_NAME t, COLUMN_NAME c FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = ' .
                            "DATABASE() AND COLUMN_NAME IN ($places) ORDER BY 1, 2",
                        self::THEIRS,
                    ),
                ),
                fn(array $at): bool => !in_array($at[0], self::NOT_TOLD, true),
            ),
        );
    }

    /**
     * @param  array<array-key, mixed>  $names of sections and schools, by id
     * @param  list<string>  $own ids of the person themselves
     * @return array<string, string>
     */
    private static function told(stdClass $row, array $names, array $own): array
    {
        $told = [];
        foreach ((array) $row as $column => $value) {
            $text = is_scalar($value) ? (string) $value : '';
            // What is not so is not told.
            if ($text === '' || $text === '0' || preg_match(self::HIDDEN, (string) $column) === 1) {
                continue;
            }
            if (str_ends_with((string) $column, '_id')) {
                $text = in_array($text, $own, true) ? '' : (string) ($names[$text] ?? '');
            }
            if ($text !== '') {
                $told[str_replace('_', ' ', (string) preg_replace('/_id$/', '', (string) $column))] = $text;
            }
        }

        return $told;
    }

    /**
     * Lines that name them, and nothing beside these: the rest of a text may be about others.
     *
     * @param  list<Forms>  $others whose lines are left out
     * @return list<array<string, string>>
     */
    private static function lines(string $table, Forms $forms, array $others): array
    {
        $lines = [];
        foreach (Places::naming($table, $forms) as $row) {
            foreach ((array) $row as $column => $value) {
                foreach (preg_split('/\R/u', mb_scrub((string) $value)) ?: [] as $line) {
                    if ($forms->areIn($line) && array_filter($others, fn(Forms $o): bool => $o->areIn($line)) === []) {
                        $lines[] = [str_replace('_', ' ', (string) $column) => mb_strimwidth(trim($line), 0, 400, '…')];
                    }
                }
            }
        }

        return $lines;
    }

    private static function label(string $table): string
    {
        $entity = Entity::tryFrom($table);

        return ucfirst($entity === null ? str_replace('_', ' ', $table) : RecordNames::kind($entity));
    }
}
