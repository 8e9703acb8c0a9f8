<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\School;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;

/** The look-alikes of a school as {@see Finding} has kept them. */
final class Pairs
{
    public function __construct(private readonly Students $students) {}

    /** @return list<LookAlike> likeliest first, without those a person has told apart; evidence is {@see judge}'s */
    public function of(School $school): array
    {
        return array_values(
            self::shown($school)
                ->orderByDesc('l.probability')
                ->orderBy('l.left_id')
                ->orderBy('l.right_id')
                ->get(['l.left_id', 'l.right_id', 'l.probability', 'l.caution', 'l.accounts', 'l.facts'])
                ->map(
                    fn(stdClass $l): LookAlike => new LookAlike(
                        $l->left_id,
                        $l->right_id,
                        (float) $l->probability,
                        $l->caution,
                        [],
                        (int) $l->accounts,
                        $l->facts,
                    ),
                )
                ->all(),
        );
    }

    public function count(School $school): int
    {
        return self::shown($school)->count();
    }

    /** Students of the school whom something was written about and who have not been looked through since. */
    public function waiting(School $school): int
    {
        return DB::table('look_alike_todo as t')
            ->join('people as p', 'p.id', '=', 't.person_id')
            ->where('p.school_id', $school->id)
            ->where('p.state', 'active')
            ->count();
    }

    public function subject(string $personId): ?Subject
    {
        return $this->students->list(fn(Builder $q): Builder => $q->where('p.id', $personId))[0] ?? null;
    }

    /** Both judged against everyone of the school, as the list does. */
    public function judge(Subject $left, Subject $right): LookAlike
    {
        $candidate = Matcher::link(
            [$left],
            $this->students->list(
                fn(Builder $q): Builder => $q->where('p.school_id', $left->schoolId)->where('p.state', '!=', 'merged'),
            ),
        )->judge($left, $right);

        return new LookAlike($left->id, $right->id, $candidate->probability, $candidate->caution, $candidate->evidence);
    }

    /** Kept pairs (`l`) of which both still are there, and nobody has said that they are two. */
    private static function shown(School $school): Builder
    {
        $query = DB::table('look_alikes as l')->where('l.school_id', $school->id)->where('l.accounts', '>', 0);
        foreach (['left', 'right'] as $side) {
            $query->join(
                "people as $side",
                fn($on) => $on
                    ->on("$side.id", '=', "l.{$side}_id")
                    ->on("$side.school_id", '=', 'l.school_id')
                    ->where("$side.state", 'active'),
            );
        }

        return $query->whereNotExists(
            fn(Builder $q) => $q
                ->from('known_apart as k')
                ->whereColumn('k.left_id', 'l.left_id')
                ->whereColumn('k.right_id', 'l.right_id')
                // What was said before facts were kept with it stays said.
                ->whereIn('k.facts', ['', DB::raw('l.facts')]),
        );
    }
}
