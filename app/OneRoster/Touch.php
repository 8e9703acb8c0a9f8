<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\Ledger\Touched;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/**
 * Notes when records were changed that programs read: in the transaction that changes them, also where that is undone,
 * so that a program that asks for what has changed since is told of it.
 */
final class Touch
{
    private const CHUNK = 1000;

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        $seq = $event instanceof EntryWritten ? $event->entry->seq : $event->seq;
        $own = [Entity::School, Entity::SchoolYear, Entity::Section, Entity::Enrollment];
        $rows = DB::table('ledger_changes')
            ->where('entry_seq', $seq)
            ->whereIn('entity', array_map(fn(Entity $e): string => $e->value, $own))
            ->distinct()
            ->pluck('row_id');
        // A tie stands in the records of both its ends, a user name in that of whose it is.
        $ids = $rows
            ->concat(Touched::people($seq, Entity::Person, Entity::SignIn, Entity::Guardianship))
            ->concat(self::following($seq))
            ->unique();
        $now = now()->format('Y-m-d H:i:s.v');
        foreach ($ids->chunk(self::CHUNK) as $chunk) {
            DB::table('roster_touched')->upsert(
                $chunk->map(fn(mixed $id): array => ['row_id' => (string) $id, 'at' => $now])->values()->all(),
                ['row_id'],
            );
        }
    }

    /**
     * What is told of differently because another record’s state is another: enrollments by the section, its year and
     * who is enrolled, sections by their year, guardians by their students.
     *
     * @return Collection<int, mixed> ids
     */
    private static function following(int $seq): Collection
    {
        $moved = fn(Entity $of): Builder => DB::table('ledger_changes as c')
            ->where('c.entry_seq', $seq)
            ->where('c.entity', $of->value)
            ->whereRaw("json_value(c.before, '$.state') is not null");

        return $moved(Entity::Section)
            ->join('enrollments as e', 'e.section_id', '=', 'c.row_id')
            ->pluck('e.id')
            ->concat(
                $moved(Entity::SchoolYear)->join('sections as s', 's.school_year_id', '=', 'c.row_id')->pluck('s.id'),
            )
            ->concat(
                $moved(Entity::SchoolYear)
                    ->join('sections as s', 's.school_year_id', '=', 'c.row_id')
                    ->join('enrollments as e', 'e.section_id', '=', 's.id')
                    ->pluck('e.id'),
            )
            ->concat($moved(Entity::Person)->join('enrollments as e', 'e.person_id', '=', 'c.row_id')->pluck('e.id'))
            ->concat(
                $moved(Entity::Person)
                    ->join('guardianships as g', 'g.student_id', '=', 'c.row_id')
                    ->pluck('g.guardian_id'),
            );
    }
}
