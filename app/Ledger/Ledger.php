<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use Closure;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\QueryException;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\RedoPlanner;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Entity;

/**
 * The one place that writes what plans say. A plan is applied whole or not at all: one transaction, versions checked
 * under lock, set-based statements, an image of every record before and after. Undo puts the images back.
 *
 * A row's version is the number of the entry that wrote it last. Undo brings the old number back together with the old
 * contents, so a number always means the same contents.
 */
final class Ledger
{
    private const CHUNK = 500;

    /** Times a piece of work is begun again after the database has taken it back for the sake of another. */
    private const ATTEMPTS = 6;

    /** SQLSTATE and MariaDB's number of a reference to a row that is gone. */
    private const NO_PARENT = 1452;

    /** And of taking away what something refers to. */
    private const HAS_CHILD = 1451;

    public function __construct(private readonly PlanLock $lock, private readonly ChangeWriter $writer) {}

    /**
     * @param  string  $schoolId in whose ledger it stands
     * @param list<string> $also other schools whose people the plan may write: all those its maker coordinates, or the
     *     two of a transfer
     * @param string|null $workKey names the piece of work; a second run with the same key finds the entry of the first
     * @param  Closure(int): void|null  $progress called with the number of changes written so far
     * @param  Closure(LedgerEntry): void|null  $within runs inside the transaction, after all is written
     *
     * @throws StalePlan where a record has changed since the plan was made; nothing is written
     * @throws Refusal where the plan has blockers, or would write another school's people
     */
    public function apply(
        Plan $plan,
        string $schoolId,
        ?Person $actor,
        Action $action,
        ?string $workKey = null,
        ?Closure $progress = null,
        ?Closure $within = null,
        array $also = [],
    ): LedgerEntry {
        if ($plan->blockers !== []) {
            throw new Refusal($plan->blockers[0]);
        }

        return $this->fitting(
            fn(): LedgerEntry => DB::transaction(function () use (
                $plan,
                $schoolId,
                $actor,
                $action,
                $workKey,
                $progress,
                $within,
                $also,
            ): LedgerEntry {
                $known = $workKey === null ? null : LedgerEntry::query()->where('work_key', $workKey)->first();
                if ($known !== null) {
                    return $known;
                }
                Outcome::writing();
                $schools = $this->schools($plan, $schoolId, $also, $this->lock->hold($plan));
                $entry = $this->enter($plan, $schoolId, $actor, $action, $workKey);
                DB::table('ledger_schools')->insert(
                    array_map(
                        fn(string $school): array => ['school_id' => $school, 'entry_seq' => $entry->seq],
                        $schools,
                    ),
                );
                $this->writer->write($plan->changes, $entry->seq, $progress);
                if ($within !== null) {
                    $within($entry);
                }
                EntryWritten::dispatch($entry, $plan, Affected::by($plan->changes));

                return $entry;
            }, self::ATTEMPTS),
        );
    }

    /**
     * Work with leave to write, whose collisions with what others have just written are said in words.
     *
     * @param  Closure(): LedgerEntry  $work
     */
    private function fitting(Closure $work): LedgerEntry
    {
        try {
            return WriteGuard::within($work);
        } catch (UniqueConstraintViolationException $e) {
            throw new StalePlan([$this->collision($e)]);
        } catch (QueryException $e) {
            throw in_array($e->errorInfo[1] ?? null, [self::NO_PARENT, self::HAS_CHILD], true)
                ? new StalePlan(['Something this refers to has gone in the meantime.'])
                : $e;
        }
    }

    /**
     * Makes a plan and applies it under locks on what it is about. Plans that bring something to an end, a merge, an
     * archive, a year turn, need that: what others tie to it between the reading and the writing would be missing from
     * the plan, and no version of a row in it would show.
     *
     * @template T
     *
     * @param  array<string, list<string>>  $rows table to ids
     * @param  Closure(): T  $work begun again where the database took it back for the sake of another
     * @return T
     */
    public function holding(array $rows, Closure $work): mixed
    {
        return DB::transaction(function () use ($rows, $work): mixed {
            // The first reading of the transaction is a locking one: what follows reads what was there once the locks
            // were had.
            ksort($rows);
            foreach ($rows as $table => $ids) {
                foreach (array_chunk($ids, self::CHUNK) as $chunk) {
                    DB::table($table)->whereIn('id', $chunk)->orderBy('id')->lockForUpdate()->pluck('id');
                }
            }

            return $work();
        }, self::ATTEMPTS);
    }

    /**
     * What undoing an entry would come to. Nothing is changed, and nothing locked: it may be another thing by the time
     * it is done.
     *
     * @param bool $together with the later entries that hold what would stay, and those that hold what would stay of
     *     them
     *
     * @throws Refusal where it was undone before, or too long ago
     */
    public function outlook(LedgerEntry $entry, bool $together = false): UndoOutlook
    {
        $this->mustBeUndoable($entry);
        $run = new UndoRun([$entry], UndoRun::tables([$entry->id]));
        while ($together && ($more = $run->missing()) !== []) {
            $first = [...$run->with(), ...$more];
            $run = new UndoRun($this->together($entry, $first, false), UndoRun::tables([$entry->id, ...$first]));
        }

        return $run->look();
    }

    /**
     * Puts back what an entry changed. What has changed again since stays as it is and is listed.
     *
     * @param  list<string>  $first ids of later entries to undo with it, newest first; all of them or none
     * @param  string|null  $fingerprint of the outlook somebody has looked at; null where nobody has
     * @return LedgerEntry as it is now
     *
     * @throws Refusal where one of them was undone before, or too long ago, or what it is about could not go back
     * @throws StalePlan where it would come to something else than was looked at
     */
    public function undo(
        LedgerEntry $entry,
        ?Person $actor,
        array $first = [],
        ?string $fingerprint = null,
    ): LedgerEntry {
        $tables = UndoRun::tables([$entry->id, ...$first]);

        return $this->fitting(
            fn(): LedgerEntry => DB::transaction(function () use (
                $entry,
                $actor,
                $first,
                $fingerprint,
                $tables,
            ): LedgerEntry {
                Outcome::writing();
                $together = $this->together($entry, $first, true);
                array_map($this->mustBeUndoable(...), $together);
                $run = new UndoRun($together, $tables);
                $kept = $run->run($fingerprint);
                foreach ($kept as $seq => $words) {
                    DB::table('ledger_entries')
                        ->where('seq', $seq)
                        ->update([
                            'undone_at' => now()->format('Y-m-d H:i:s.u'),
                            'undone_by' => $actor?->id,
                            'kept' => json_encode($words, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                        ]);
                    EntryUndone::dispatch($seq, $run->affected($seq));
                }

                return LedgerEntry::query()->where('seq', $entry->seq)->firstOrFail();
            }, self::ATTEMPTS),
        );
    }

    /**
     * @param  list<string>  $first ids of later entries
     * @return list<LedgerEntry> those and the entry itself, the last done first
     */
    private function together(LedgerEntry $entry, array $first, bool $lock): array
    {
        /** @var Builder<LedgerEntry> $entries */
        $entries = LedgerEntry::query()
            ->whereRaw('COALESCE(redone_as, seq) >= ?', [$entry->done()])
            ->whereIn('id', [...$first, $entry->id])
            ->orderByRaw('COALESCE(redone_as, seq) DESC');
        if ($lock) {
            $entries->lockForUpdate();
        }

        return array_values($entries->get()->all());
    }

    /**
     * Does again what an undo took back, whole or not at all.
     *
     * @throws Refusal where it was not undone, or too long ago, or wrote secrets that nothing can bring back
     * @throws StalePlan where what the undo put back has changed since
     */
    public function redo(LedgerEntry $entry, ?Person $actor): LedgerEntry
    {
        return $this->fitting(
            fn(): LedgerEntry => DB::transaction(function () use ($entry, $actor): LedgerEntry {
                Outcome::writing();
                /** @var LedgerEntry $locked */
                $locked = LedgerEntry::query()->where('seq', $entry->seq)->lockForUpdate()->firstOrFail();
                if ($locked->undone_at === null) {
                    throw new Refusal('This has not been undone.');
                }
                $this->mustBeInTime($locked);
                $plan = new Plan($locked->title, $locked->sentence, $this->again($locked));
                $this->lock->hold($plan);
                $this->writer->writeAgain($plan->changes, $locked->seq);
                // The undo leaves no other trace once it is taken back.
                $trace = $this->enter(
                    new Plan("Done again: $locked->title", $locked->sentence, []),
                    $locked->school_id,
                    $actor,
                    Action::Redo,
                    null,
                );
                DB::table('ledger_entries')
                    ->where('seq', $locked->seq)
                    ->update(['undone_at' => null, 'undone_by' => null, 'kept' => null, 'redone_as' => $trace->seq]);
                DB::statement(
                    'INSERT INTO ledger_schools (school_id, entry_seq) SELECT school_id, ? FROM ' .
                        'ledger_schools WHERE entry_seq = ?',
                    [$trace->seq, $locked->seq],
                );
                EntryRedone::dispatch($locked->seq, Affected::by($plan->changes));

                return LedgerEntry::query()->where('seq', $locked->seq)->firstOrFail();
            }, self::ATTEMPTS),
        );
    }

    /** @return list<Change> */
    private function again(LedgerEntry $entry): array
    {
        $now = [];
        foreach (Entity::cases() as $entity) {
            $rows = DB::table('ledger_changes as c')
                ->join("$entity->value as t", 't.id', '=', 'c.row_id')
                ->leftJoin('ledger_entries as w', 'w.seq', '=', 't.version')
                ->where('c.entry_seq', $entry->seq)
                ->where('c.entity', $entity->value)
                ->get(['t.id', 't.version', 'w.made_at']);
            foreach ($rows as $row) {
                $now["$entity->value $row->id"] = [
                    (int) $row->version,
                    $row->made_at !== null && $row->made_at <= $entry->undone_at,
                ];
            }
        }
        try {
            return RedoPlanner::plan($entry->seq, array_values(Images::of($entry->seq)->all()), $now);
        } catch (StalePlan $e) {
            throw new StalePlan(StaleWords::of(array_slice($e->changed, 0, 20)));
        }
    }

    private function mustBeUndoable(LedgerEntry $entry): void
    {
        if ($entry->undone_at !== null) {
            throw new Refusal('This has been undone already.');
        }
        $this->mustBeInTime($entry);
    }

    private function mustBeInTime(LedgerEntry $entry): void
    {
        $days = $entry->action()->undoDays() ?? throw new Refusal((string) $entry->action()->whyNot());
        if ($entry->cleared_at !== null) {
            throw new Refusal('Its details are kept no longer, so it cannot be undone. Change it by hand.');
        }
        if ($entry->made_at < now()->subDays($days)->format('Y-m-d H:i:s')) {
            throw new Refusal("This is older than $days days and cannot be undone in one piece. Change it by hand.");
        }
    }

    /**
     * @param  list<string>  $also
     * @param  array<string, string>  $held of some records the plan is about, their school
     * @return list<string> the schools in whose ledgers the entry stands
     */
    private function schools(Plan $plan, string $schoolId, array $also, array $held): array
    {
        $written = Ownership::of($plan, $held);
        $foreign = array_diff($written, [$schoolId, ...$also]);
        if ($foreign !== []) {
            throw new Refusal(
                'This would change records of ' .
                    (string) School::query()->find(reset($foreign))?->name .
                    '. Only that school’s coordinators can; ask them.',
            );
        }
        // The school a request is put to sees it too.
        foreach ($plan->changes as $change) {
            if ($change->entity === Entity::TransferRequest && $change->inserts()) {
                $written[] = (string) $change->after['from_school_id'];
            }
        }

        return array_values(array_unique([$schoolId, ...$written]));
    }

    private function enter(Plan $plan, string $schoolId, ?Person $actor, Action $action, ?string $workKey): LedgerEntry
    {
        $values = [
            'id' => (string) Str::ulid(),
            'school_id' => $schoolId,
            'actor_id' => $actor?->id,
            'action' => $action->value,
            'title' => mb_substr($plan->title, 0, 200),
            'sentence' => $plan->sentence,
            'tallies' => json_encode($plan->tallies, JSON_THROW_ON_ERROR),
            'changes_count' => count($plan->changes),
            'work_key' => $workKey,
            'made_at' => now()->format('Y-m-d H:i:s.u'),
        ];
        // As it is read back, without reading it back.
        $seq = DB::table('ledger_entries')->insertGetId($values, 'seq');

        return (new LedgerEntry())->newFromBuilder([
            'seq' => $seq,
            ...$values,
            'undone_at' => null,
            'undone_by' => null,
            'kept' => null,
            'redone_as' => null,
            'cleared_at' => null,
        ]);
    }

    private function collision(UniqueConstraintViolationException $e): string
    {
        $message = $e->getMessage();

        return match (true) {
            str_contains($message, 'people_number')
                => 'A student number in this plan has been given to someone in the meantime.',
            str_contains($message, 'user_name') => 'A user name in this plan has been taken in the meantime.',
            str_contains($message, 'sections_open_name') => 'A section of this name has been made in the meantime.',
            str_contains($message, 'enrollments_open')
                => 'Someone in this plan has come into the section in the meantime.',
            default => 'Something in this plan has been made by someone else in the meantime.',
        };
    }
}
