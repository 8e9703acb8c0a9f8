<?php

declare(strict_types=1);

namespace App\Retention;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;

/**
 * Every column that may hold somebody's name, number or address, and what an erasure does with it. tests/Api/SchemaTest
 * holds it against the schema: a column of words that is in none of the lists fails. The same lists answer what is held
 * about somebody.
 */
final class Places
{
    /**
     * Words that somebody wrote, or that were made of names: table to key, school of a row, columns with their room.
     *
     * @var array<string, array{string, string, array<string, int>}>
     */
    public const WORDS = [
        'notices' => ['id', 't.school_id', ['title' => 120, 'body' => 2000, 'texts' => 16_000]],
        'mailings' => ['id', 't.school_id', ['whom' => 200, 'subject' => 250]],
        'letter_templates' => ['id', 't.school_id', ['name' => 60, 'texts' => 4_000_000]],
        'letter_wordings' => ['id', 't.school_id', ['texts' => 60_000]],
        'desk_put_off' => ['reason', 't.school_id', ['reason' => 200]],
        'column_mappings' => ['id', 't.school_id', ['said' => 4_000_000]],
        'imports' => [
            'id',
            't.school_id',
            [
                'title' => 160,
                'files' => 4_000_000,
                'message' => 60_000,
                'answers' => 4_000_000,
                'layout' => 4_000_000,
                'summary' => 4_000_000,
            ],
        ],
        'invite_runs' => ['id', 't.school_id', ['whom' => 4_000_000, 'said' => 500]],
        'record_sources' => ['school_id', 't.school_id', ['said' => 500]],
        'print_runs' => ['id', 't.school_id', ['what' => 160, 'problem' => 60_000]],
        'family_askings' => ['id', 't.school_id', ['reason' => 300]],
        'held_askings' => ['id', '(select p.school_id from people p where p.id = t.student_id)', ['reason' => 300]],
        'guardian_claims' => ['id', '(select p.school_id from people p where p.id = t.student_id)', ['reason' => 300]],
        'guardianships' => [
            'id',
            '(select p.school_id from people p where p.id = t.student_id)',
            ['restriction' => 200],
        ],
        'ledger_entries' => [
            'seq',
            self::LEDGER . ' = t.seq',
            ['title' => 200, 'sentence' => 60_000, 'tallies' => 4_000_000, 'kept' => 4_000_000],
        ],
        'ledger_changes' => [
            'id',
            self::LEDGER . ' = t.entry_seq',
            ['before' => 4_000_000, 'after' => 4_000_000, 'reason' => 200],
        ],
    ];

    /**
     * Rows that go whole where they name somebody: table to key, school of a row, columns.
     *
     * @var array<string, array{string, string, list<string>}>
     */
    public const ROWS = [
        'outgoing_messages' => ['id', 't.school_id', ['to_address', 'subject', 'text', 'html', 'reply_to', 'problem']],
        'roll_views' => ['id', 't.school_id', ['name', 'query']],
        'mailing_files' => ['id', 't.school_id', ['name', 'content']],
        'failed_jobs' => ['id', '', ['payload', 'exception']],
        'cache' => ['key', '', ['value']],
    ];

    /** Columns of a person's own rows, which the plan of an erasure or {@see Erasing} empties, and rows of lists. */
    public const OWN = [
        'people' => [
            'given_name',
            'family_name',
            'preferred_name',
            'called_name',
            'birth_date',
            'number',
            'live_number',
            'plain_number',
            'number_order',
            'email',
            'email_order',
            'phone',
            'phone_confirmed',
        ],
        'sign_ins' => ['user_name', 'passphrase', 'password'],
        'guardianships' => ['relationship', 'consent_on'],
        'guardian_claims' => ['given_name', 'family_name', 'email', 'phone'],
        'guardian_invitations' => ['email'],
        'invitations' => ['email'],
        'student_invitations' => ['email', 'typed'],
        'join_requests' => ['given_name', 'family_name', 'birth_date', 'number', 'email', 'password'],
        'family_askings' => [
            'given_name',
            'family_name',
            'email',
            'phone',
            'child_given',
            'child_family',
            'child_birth_date',
        ],
        'transfer_requests' => ['said'],
        'contact_changes' => ['value'],
        'credential_uses' => ['address', 'device'],
        'password_resets' => ['address'],
        'bounced_addresses' => ['address', 'said'],
        'second_factors' => ['secret', 'pending', 'recovery'],
        'passkeys' => ['public_key', 'name'],
        'sessions' => ['id', 'user_id', 'ip_address', 'user_agent', 'payload', 'way'],
        'import_rows' => ['sheet', 'content'],
        'print_runs' => ['sealed'],
    ];

    /** What says nothing of anybody: settings, kinds, days, what the school itself is called. */
    public const NOBODY = [
        'cache' => ['key'],
        'cache_locks' => ['key', 'owner'],
        'coverage_weeks' => ['week'],
        'desk_put_off' => ['until'],
        'enrollments' => ['begins_on', 'ends_on'],
        'failed_jobs' => ['uuid', 'connection', 'queue'],
        'imports' => ['everyone', 'confirmed', 'fingerprint', 'planned_on'],
        'invitations' => ['begins_on', 'ends_on'],
        // Of jobs the ids of what they work on.
        'jobs' => ['queue', 'payload'],
        'ledger_entries' => ['action', 'work_key'],
        'look_alikes' => ['caution'],
        'match_weights' => ['m'],
        'migrations' => ['migration'],
        'notices' => ['on_day', 'source_key'],
        'outgoing_messages' => ['from_name'],
        'people' => ['grade', 'erased_on'],
        'record_sources' => ['base_url', 'token_url', 'client_id', 'sealed_key'],
        'roll_days' => ['day'],
        'roll_problems' => ['since'],
        'roster_keys' => ['name', 'scopes', 'last_used_for'],
        'roster_tokens' => ['scopes'],
        'schools' => [
            'code',
            'name',
            'mail_domains',
            'time_zone',
            'country',
            'naming_pattern',
            'sign_in_policy',
            'day_opens',
            'day_closes',
        ],
        'school_years' => ['name', 'begins_on', 'ends_on'],
        'sections' => ['name', 'grade', 'period', 'archived_on'],
    ];

    private const LEDGER = 'exists (select 1 from ledger_schools l where l.school_id in (%s) and l.entry_seq';

    /**
     * Rows of {@see WORDS} or {@see ROWS} that name somebody, at the schools they are or were at.
     *
     * @param  string  $table one of {@see WORDS} or {@see ROWS}
     * @return list<stdClass> key and columns
     */
    public static function naming(string $table, Forms $forms): array
    {
        [$key, $school, $columns] = isset(self::WORDS[$table])
            ? [self::WORDS[$table][0], self::WORDS[$table][1], array_keys(self::WORDS[$table][2])]
            : self::ROWS[$table];
        if ($forms->all === []) {
            return [];
        }
        $query = DB::table("$table as t")->where(function (Builder $any) use ($columns, $forms): void {
            foreach ($columns as $column) {
                foreach ($forms->needles() as $needle) {
                    $any->orWhereRaw("locate(?, t.`$column`) > 0", [$needle]);
                }
            }
        });
        if (str_starts_with($school, 'exists')) {
            $query->whereRaw(
                sprintf("$school)", implode(',', array_fill(0, count($forms->schools), '?'))),
                $forms->schools,
            );
        } elseif ($school !== '') {
            $query->where(
                fn(Builder $q): Builder => $q
                    ->whereIn(DB::raw($school), $forms->schools)
                    ->orWhereNull(DB::raw($school)),
            );
        }

        return array_values(
            $query
                ->orderBy("t.$key")
                ->get(["t.$key", ...array_map(fn(string $c): string => "t.$c", $columns)])
                ->all(),
        );
    }

    /** Takes them out of all words. */
    public static function clear(Forms $forms): void
    {
        foreach (self::WORDS as $table => [$key, , $columns]) {
            foreach (self::naming($table, $forms) as $row) {
                $bare = [];
                foreach ($columns as $column => $most) {
                    $text = (string) $row->$column;
                    $without = $forms->without($text);
                    if ($without !== $text) {
                        $bare[$column] = mb_substr($without, 0, $most);
                    }
                }
                if ($bare !== []) {
                    DB::table($table)->where($key, $row->$key)->update($bare);
                }
            }
        }
    }

    /**
     * Rows that name them and go whole; of messages also those about a child, by whatever name it is called there.
     *
     * @return array<string, list<string>> table to keys
     */
    public static function rows(Forms $forms): array
    {
        /** @var array<string, list<string>> $found */
        $found = [];
        foreach (self::ROWS as $table => [$key]) {
            $found[$table] = array_map(fn(stdClass $row): string => (string) $row->$key, self::naming($table, $forms));
        }
        $about = DB::table('outgoing_messages')
            ->whereIn('person_id', $forms->ids)
            ->orWhereIn(
                'id',
                fn(Builder $q) => $q
                    ->select('message_id')
                    ->from('message_children')
                    ->whereIn('student_id', $forms->ids),
            )
            ->pluck('id')
            ->map(fn(mixed $id): string => (string) $id)
            ->all();
        $found['outgoing_messages'] = array_values(array_unique([...$found['outgoing_messages'] ?? [], ...$about]));

        return $found;
    }
}
