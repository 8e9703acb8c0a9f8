<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use LogicException;
use Vantrel\Core\Records\Entity;

/**
 * Whom an entry has touched, whether it was written, undone or done again: what follows from the records is worked out
 * anew for them alone. What is not there any more is read from the images that the ledger keeps.
 */
final class Touched
{
    private const CHUNK = 1000;

    /**
     * Way by way, each by its index: one statement of them all would be gone through row by row.
     *
     * @param  Entity  ...$through records that the reader goes by: of people it is they themselves, of others whom they
     *     belong to
     * @return Collection<int, string> ids of people, each once and in order, some of whom may be gone
     */
    public static function people(int $seq, Entity ...$through): Collection
    {
        $changes = fn(Entity $of): Builder => DB::table('ledger_changes as c')
            ->where('c.entry_seq', $seq)
            ->where('c.entity', $of->value);
        $there = fn(Entity $of, string $column): Collection => $changes($of)
            ->join("$of->value as r", 'r.id', '=', 'c.row_id')
            ->pluck("r.$column");
        $gone = fn(Entity $of, string $column): Collection => $changes($of)
            ->selectRaw("coalesce(json_value(c.after, '$.$column'), json_value(c.before, '$.$column')) of")
            ->pluck('of');
        $ids = collect();
        foreach ($through as $of) {
            $ids = $ids->concat(
                match ($of) {
                    Entity::Person => $changes($of)->pluck('c.row_id'),
                    Entity::Enrollment, Entity::SignIn => $there($of, 'person_id')->concat($gone($of, 'person_id')),
                    Entity::Section => $changes($of)
                        ->join('enrollments as e', 'e.section_id', '=', 'c.row_id')
                        ->pluck('e.person_id'),
                    Entity::Badge => self::through(
                        'sign_ins',
                        'id',
                        'person_id',
                        $there($of, 'sign_in_id')->concat($gone($of, 'sign_in_id')),
                    ),
                    // A guardian is one way to reach a student, and known by them.
                    Entity::Guardianship => $there($of, 'student_id')
                        ->concat($gone($of, 'student_id'))
                        ->concat($there($of, 'guardian_id'))
                        ->concat($gone($of, 'guardian_id'))
                        ->concat(
                            self::through(
                                'guardianships',
                                'guardian_id',
                                'student_id',
                                $changes(Entity::Person)->pluck('c.row_id'),
                            ),
                        ),
                    Entity::KnownApart => $there($of, 'left_id')->concat($gone($of, 'left_id')),
                    Entity::School => $changes($of)->join('people as p', 'p.school_id', '=', 'c.row_id')->pluck('p.id'),
                    default => throw new LogicException("Nobody is reached by $of->value."),
                },
            );
        }

        return $ids->filter()->map(strval(...))->unique()->sort()->values();
    }

    /**
     * @param  Collection<int, mixed>  $keys
     * @return Collection<int, mixed>
     */
    private static function through(string $table, string $key, string $column, Collection $keys): Collection
    {
        return $keys
            ->filter()
            ->unique()
            ->chunk(self::CHUNK)
            ->flatMap(fn(Collection $some): Collection => DB::table($table)->whereIn($key, $some)->pluck($column))
            ->values();
    }
}
