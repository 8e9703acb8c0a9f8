<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/**
 * Whom an entry has touched, whether it was written, undone or done again: what follows from the records is worked out
 * anew for them alone. What is not there any more is read from the images that the ledger keeps.
 */
final class Touched
{
    /**
     * @param  Entity  ...$through records that the reader goes by: of people it is they themselves, of others whom they
     *     belong to
     * @return Builder ids of people (`id`), some of whom may be gone
     */
    public static function people(int $seq, Entity ...$through): Builder
    {
        $changes = fn(Entity $of): Builder => DB::table('ledger_changes as c')
            ->where('c.entry_seq', $seq)
            ->where('c.entity', $of->value);
        $image = fn(Entity $of, string $column): string => "coalesce(json_value(c.after, '$.$column'), " .
            "json_value(c.before, '$.$column'))";
        $all = null;
        foreach ($through as $of) {
            $row = fn(string $column): Builder => $changes($of)
                ->join("$of->value as r", 'r.id', '=', 'c.row_id')
                ->select("r.$column as id");
            $gone = fn(string $column): Builder => $changes($of)->selectRaw($image($of, $column) . ' as id');
            $ways = match ($of) {
                Entity::Person => [$changes($of)->select('c.row_id as id')],
                Entity::Enrollment, Entity::SignIn => [$row('person_id'), $gone('person_id')],
                Entity::Section => [
                    $changes($of)
                        ->join('enrollments as e', 'e.section_id', '=', 'c.row_id')
                        ->select('e.person_id as id'),
                ],
                Entity::Badge => [
                    $changes($of)
                        ->join('badges as b', 'b.id', '=', 'c.row_id')
                        ->join('sign_ins as i', 'i.id', '=', 'b.sign_in_id')
                        ->select('i.person_id as id'),
                    $changes($of)
                        ->join('sign_ins as i', fn($on) => $on->whereRaw('i.id = ' . $image($of, 'sign_in_id')))
                        ->select('i.person_id as id'),
                ],
                Entity::Guardianship => [
                    $row('student_id'),
                    $gone('student_id'),
                    // A guardian is one way to reach a student.
                    $changes(Entity::Person)
                        ->join('guardianships as g', 'g.guardian_id', '=', 'c.row_id')
                        ->select('g.student_id as id'),
                ],
                Entity::KnownApart => [$row('left_id'), $gone('left_id')],
                Entity::School => [
                    $changes($of)->join('people as p', 'p.school_id', '=', 'c.row_id')->select('p.id as id'),
                ],
                default => throw new \LogicException("Nobody is reached by $of->value."),
            };
            foreach ($ways as $way) {
                $all = $all === null ? $way : $all->union($way);
            }
        }

        return $all ?? throw new \LogicException('By nothing, nobody is reached.');
    }
}
