<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use Closure;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;

/**
 * The one place that writes what plans say. A plan is applied whole or not at all: one transaction, versions checked under
 * lock, set-based statements, an image of every record before and after. Undo puts the images back.
 *
 * A row's version is the number of the entry that wrote it last. Undo brings the old number back together with the old
 * contents, so a number always means the same contents.
 */
final class Ledger
{
    private const CHUNK = 500;

    /**
     * @param  string  $schoolId in whose ledger it stands
     * @param  list<string>  $also other schools whose people the plan may write: all those its maker coordinates, or the two of a transfer
     * @param  string|null  $workKey names the piece of work; a second run with the same key finds the entry of the first
     * @param  Closure(int): void|null  $progress called with the number of changes written so far
     * @param  Closure(LedgerEntry): void|null  $within runs inside the transaction, after all is written
     *
     * @throws StalePlan where a record has changed since the plan was made; nothing is written
     * @throws Refusal where the plan has blockers, or would write another school's people
     */
    public function apply(Plan $plan, string $schoolId, ?Person $actor, Action $action, ?string $workKey = null, ?Closure $progress = null, ?Closure $within = null, array $also = []): LedgerEntry
    {
        if ($plan->blockers !== []) {
            throw new Refusal($plan->blockers[0]);
        }
        try {
            return WriteGuard::within(fn (): LedgerEntry => DB::transaction(function () use ($plan, $schoolId, $actor, $action, $workKey, $progress, $within, $also): LedgerEntry {
                $known = $workKey === null ? null : LedgerEntry::query()->where('work_key', $workKey)->first();
                if ($known !== null) {
                    return $known;
                }
                $this->lockVersions($plan);
                $schools = $this->schools($plan, $schoolId, $also);
                $entry = $this->enter($plan, $schoolId, $actor, $action, $workKey);
                DB::table('ledger_schools')->insert(array_map(fn (string $school): array => ['school_id' => $school, 'entry_seq' => $entry->seq], $schools));
                $this->write($plan->changes, $entry->seq, $progress);
                if ($within !== null) {
                    $within($entry);
                }
                EntryWritten::dispatch($entry, $plan);

                return $entry;
            }));
        } catch (UniqueConstraintViolationException $e) {
            throw new StalePlan([$this->collision($e)]);
        }
    }

    /**
     * Puts back what an entry changed. What has changed again since stays as it is and is listed.
     *
     * @throws Refusal where it was undone before, or too long ago
     */
    public function undo(LedgerEntry $entry, ?Person $actor): LedgerEntry
    {
        return WriteGuard::within(fn (): LedgerEntry => DB::transaction(function () use ($entry, $actor): LedgerEntry {
            /** @var LedgerEntry $entry */
            $entry = LedgerEntry::query()->where('seq', $entry->seq)->lockForUpdate()->firstOrFail();
            if ($entry->undone_at !== null) {
                throw new Refusal('This has been undone already.');
            }
            $days = $entry->action()->undoDays() ?? throw new Refusal((string) $entry->action()->whyNot());
            if ($entry->made_at < now()->subDays($days)->format('Y-m-d H:i:s')) {
                throw new Refusal("This is older than $days days and cannot be undone in one piece. Change it by hand.");
            }
            $kept = (new UndoRun($entry))->run();
            DB::table('ledger_entries')->where('seq', $entry->seq)->update(['undone_at' => now()->format('Y-m-d H:i:s.u'), 'undone_by' => $actor?->id, 'kept' => json_encode($kept, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
            EntryUndone::dispatch($entry->seq);

            return LedgerEntry::query()->where('seq', $entry->seq)->firstOrFail();
        }));
    }

    /**
     * @param  list<string>  $also
     * @return list<string> the schools in whose ledgers the entry stands
     */
    private function schools(Plan $plan, string $schoolId, array $also): array
    {
        $written = Ownership::of($plan);
        $foreign = array_diff($written, [$schoolId, ...$also]);
        if ($foreign !== []) {
            throw new Refusal('This would change records of '.(string) School::query()->find(reset($foreign))?->name.'. Only that school’s coordinators can; ask them.');
        }
        // The school a request is put to sees it too.
        foreach ($plan->changes as $change) {
            if ($change->entity === Entity::TransferRequest && $change->inserts()) {
                $written[] = (string) $change->after['from_school_id'];
            }
        }

        return array_values(array_unique([$schoolId, ...$written]));
    }

    /** Every record the plan updates is locked and must have the version the plan was made from. */
    private function lockVersions(Plan $plan): void
    {
        $stale = [];
        foreach ($this->byEntity($plan->changes) as $table => $changes) {
            $expected = [];
            foreach ($changes as $change) {
                if ($change->version !== null) {
                    $expected[$change->id] = $change->version;
                }
            }
            foreach (array_chunk($expected, self::CHUNK, true) as $chunk) {
                $found = DB::table($table)->whereIn('id', array_map(strval(...), array_keys($chunk)))->lockForUpdate()->pluck('version', 'id');
                foreach ($chunk as $id => $version) {
                    if ((int) ($found[$id] ?? -1) !== $version) {
                        $stale[] = "$table $id";
                    }
                }
            }
        }
        if ($stale !== []) {
            throw new StalePlan(StaleWords::of(array_slice($stale, 0, 20)));
        }
    }

    private function enter(Plan $plan, string $schoolId, ?Person $actor, Action $action, ?string $workKey): LedgerEntry
    {
        $values = [
            'id' => (string) Str::ulid(), 'school_id' => $schoolId, 'actor_id' => $actor?->id, 'action' => $action->value,
            'title' => mb_substr($plan->title, 0, 200), 'sentence' => $plan->sentence, 'tallies' => json_encode($plan->tallies, JSON_THROW_ON_ERROR),
            'changes_count' => count($plan->changes), 'work_key' => $workKey, 'made_at' => now()->format('Y-m-d H:i:s.u'),
        ];
        // As it is read back, without reading it back.
        $seq = DB::table('ledger_entries')->insertGetId($values, 'seq');

        return (new LedgerEntry)->newFromBuilder(['seq' => $seq, ...$values, 'undone_at' => null, 'undone_by' => null, 'kept' => null]);
    }

    /**
     * @param  list<Change>  $changes
     * @param  Closure(int): void|null  $progress
     */
    private function write(array $changes, int $seq, ?Closure $progress): void
    {
        $done = 0;
        foreach (self::runs($changes) as $run) {
            foreach (array_chunk($run, self::CHUNK) as $chunk) {
                $this->record($chunk, $seq);
                $chunk[0]->inserts() ? $this->insert($chunk, $seq) : SetUpdate::run($chunk[0]->entity->value, array_map(fn (Change $c): array => ['id' => $c->id, 'version' => $seq, ...$c->after], $chunk));
                $done += count($chunk);
                $progress?->__invoke($done);
            }
        }
    }

    /**
     * Changes in an order that foreign keys and unique constraints allow, grouped into runs that one statement can write:
     * updates of what was there, which make room (an old code closes before its successor opens); inserts in order of
     * dependence; updates that refer to what was inserted.
     *
     * @param  list<Change>  $changes
     * @return list<non-empty-list<Change>>
     */
    private static function runs(array $changes): array
    {
        $inserted = [];
        foreach ($changes as $change) {
            if ($change->inserts()) {
                $inserted[$change->id] = true;
            }
        }
        $order = array_flip(array_map(fn (Entity $e): string => $e->value, Entity::cases()));
        $runs = [1 => [], 2 => [], 3 => []];
        foreach ($changes as $change) {
            $columns = array_keys($change->after);
            sort($columns);
            $refers = array_filter($change->after, fn (string|int|null $value): bool => is_string($value) && isset($inserted[$value])) !== [];
            $phase = $change->inserts() ? 2 : ($refers ? 3 : 1);
            $runs[$phase][sprintf('%02d', $order[$change->entity->value]).implode(',', $columns)][] = $change;
        }
        ksort($runs[2], SORT_STRING);

        return [...array_values($runs[1]), ...array_values($runs[2]), ...array_values($runs[3])];
    }

    /** @param  non-empty-list<Change>  $changes */
    private function insert(array $changes, int $seq): void
    {
        DB::table($changes[0]->entity->value)->insert(array_map(fn (Change $c): array => ['id' => $c->id, 'version' => $seq, ...$c->after], $changes));
    }

    /** @param  list<Change>  $changes */
    private function record(array $changes, int $seq): void
    {
        DB::table('ledger_changes')->insert(array_map(fn (Change $c): array => [
            'entry_seq' => $seq, 'entity' => $c->entity->value, 'row_id' => $c->id, 'was_version' => $c->version,
            'before' => $this->image($c->entity, $c->before, true), 'after' => $this->image($c->entity, $c->after, false), 'reason' => mb_substr($c->reason, 0, 200),
        ], $changes));
    }

    /**
     * Secrets leave no copy in the ledger. An absent one (null) is none, and is kept so that undo can make it absent again.
     *
     * @param  array<string, string|int|null>  $values
     */
    private function image(Entity $entity, array $values, bool $before): string
    {
        foreach ($entity->secrets() as $column) {
            if (isset($values[$column])) {
                if ($before) {
                    unset($values[$column]);
                } else {
                    $values[$column] = '(secret)';
                }
            }
        }

        return json_encode((object) $values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }

    /**
     * @param  list<Change>  $changes
     * @return array<string, list<Change>>
     */
    private function byEntity(array $changes): array
    {
        $groups = [];
        foreach ($changes as $change) {
            $groups[$change->entity->value][] = $change;
        }
        ksort($groups);

        return $groups;
    }

    private function collision(UniqueConstraintViolationException $e): string
    {
        $message = $e->getMessage();

        return match (true) {
            str_contains($message, 'people_number') => 'A student number in this plan has been given to someone in the meantime.',
            str_contains($message, 'user_name') => 'A user name in this plan has been taken in the meantime.',
            str_contains($message, 'sections_school_year_id_name') => 'A section of this name has been made in the meantime.',
            str_contains($message, 'enrollments_open') => 'Someone in this plan has come into the section in the meantime.',
            default => 'Something in this plan has been made by someone else in the meantime.',
        };
    }
}
