<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Ledger\Affected;
use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
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
        // Whom nobody reads nobody is told of: a program begins by reading all.
        if (DB::table('roster_keys')->doesntExist()) {
            return;
        }
        $affected = $event->affected;
        // A tie stands in the records of both its ends, a user name in that of whose it is.
        $ids = collect([
            ...$affected->rows(Entity::School, Entity::SchoolYear, Entity::Section, Entity::Enrollment),
            ...$affected->people(Entity::Person, Entity::SignIn, Entity::Guardianship),
            ...self::following($affected),
        ])->unique();
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
     * @return list<string> ids
     */
    private static function following(Affected $affected): array
    {
        $years = $affected->moved(Entity::SchoolYear);
        $people = $affected->moved(Entity::Person);
        $sections = $affected->found('sections', 'school_year_id', 'id', $years);

        return [
            ...$sections,
            ...$affected->found('enrollments', 'section_id', 'id', [
                ...$affected->moved(Entity::Section),
                ...$sections,
            ]),
            ...$affected->found('enrollments', 'person_id', 'id', $people),
            ...$affected->found('guardianships', 'student_id', 'guardian_id', $people),
        ];
    }
}
