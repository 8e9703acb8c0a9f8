<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use App\Ledger\Ledger;
use App\Ledger\UndoFirst;
use App\Models\LedgerEntry;
use App\Platform\SignedIn;
use Closure;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;

/** The ledger as it is, on the database of the connection. */
final class RealHouse implements House
{
    private readonly Ledger $ledger;

    private readonly string $school;

    public function __construct()
    {
        $this->ledger = app(Ledger::class);
        $this->school = (string) array_key_first(Histories::beginning()['schools']);
    }

    /** Empties the database and writes the beginning. */
    public static function reset(): void
    {
        DB::statement('SET FOREIGN_KEY_CHECKS = 0');
        foreach (
            [
                ...array_map(fn(Entity $e): string => $e->value, Entity::cases()),
                'ledger_changes',
                'ledger_schools',
                'ledger_entries',
            ]
            as $table
        ) {
            DB::table($table)->delete();
        }
        DB::statement('SET FOREIGN_KEY_CHECKS = 1');
        foreach (Histories::beginning() as $table => $rows) {
            foreach ($rows as $id => $values) {
                DB::table($table)->insert(['id' => $id, 'version' => 0, ...$values]);
            }
        }
    }

    public function snapshot(): Snapshot
    {
        $tables = [];
        foreach (Entity::cases() as $entity) {
            foreach (DB::table($entity->value)->orderBy('id')->get() as $record) {
                $values = (array) $record;
                unset($values['id'], $values['version']);
                $tables[$entity->value][$record->id] = new ($entity->record())(
                    $record->id,
                    (int) $record->version,
                    $values,
                );
            }
        }

        return new Snapshot($tables, array_map(fn(Record $s): string => $s->field('name'), $tables['schools'] ?? []));
    }

    public function apply(Plan $plan, Action $action): int
    {
        return $this->ledger->apply($plan, $this->school, null, $action)->seq;
    }

    public function holding(array $rows, Closure $plan, Action $action): int
    {
        return $this->ledger->holding($rows, fn(): int => $this->apply($plan(), $action));
    }

    public function undo(int $seq, bool $together): array
    {
        $entry = LedgerEntry::query()->where('seq', $seq)->firstOrFail();
        $look = $this->ledger->outlook($entry, $together);
        $this->ledger->undo(
            $entry,
            null,
            $together ? array_map(fn(UndoFirst $f): string => $f->id, $look->first) : [],
            $look->fingerprint,
        );

        // What only goes with something else is counted, and not named.
        return $look->staysCount === 0
            ? []
            : array_values(
                array_unique(
                    array_map(
                        fn(string $stays): string => substr($stays, (int) strrpos($stays, ': ') + 2),
                        $look->stays,
                    ),
                ),
            );
    }

    public function redo(int $seq): void
    {
        $this->ledger->redo(LedgerEntry::query()->where('seq', $seq)->firstOrFail(), null);
    }

    public function signIn(string $signInId): void
    {
        DB::table('sign_ins')
            ->where('id', $signInId)
            ->update(['last_signed_in_at' => Histories::NOW]);
        SignedIn::dispatch((string) DB::table('sign_ins')->where('id', $signInId)->value('person_id'));
    }

    public function entries(): array
    {
        return LedgerEntry::query()
            ->where('action', '!=', Action::Redo->value)
            ->orderByRaw('COALESCE(redone_as, seq)')
            ->get(['seq', 'undone_at'])
            ->mapWithKeys(fn(LedgerEntry $e): array => [$e->seq => $e->undone_at !== null])
            ->all();
    }

    /** Every row of every table that plans change, in order. */
    public static function rows(): string
    {
        return json_encode(
            array_map(fn(Entity $e): array => DB::table($e->value)->orderBy('id')->get()->all(), Entity::cases()),
            JSON_THROW_ON_ERROR,
        );
    }
}
