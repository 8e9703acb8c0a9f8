<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\School;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\Cluster;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Records\PersonKind;

/** The look-alikes of a school as {@see Finding} has kept them. */
final class Kept
{
    public function __construct(private readonly Accounts $accounts) {}

    /** @return list<Cluster> likeliest first, without what a person has told apart; evidence is {@see judge}'s */
    public function clusters(School $school): array
    {
        return Cluster::gather(
            array_values(
                self::shown($school)
                    ->get([
                        'l.left_id',
                        'l.right_id',
                        'l.probability',
                        'l.caution',
                        'l.accounts',
                        'l.facts',
                        'l.cluster',
                    ])
                    ->map(
                        fn(stdClass $l): LookAlike => new LookAlike(
                            $l->left_id,
                            $l->right_id,
                            (float) $l->probability,
                            $l->caution,
                            [],
                            (int) $l->accounts,
                            $l->facts,
                            (string) $l->cluster,
                        ),
                    )
                    ->all(),
            ),
        );
    }

    /** How many people there are that seem to have several accounts. */
    public function count(School $school): int
    {
        return self::shown($school)->distinct()->count('l.cluster');
    }

    /** People of the school whom something was written about and who have not been looked through since. */
    public function waiting(School $school): int
    {
        return DB::table('look_alike_todo as t')
            ->join('people as p', 'p.id', '=', 't.person_id')
            ->where('p.school_id', $school->id)
            ->where('p.state', 'active')
            ->count();
    }

    /**
     * @param  list<string>  $ids
     * @return list<Subject> those of the school, in the order asked
     */
    public function subjects(School $school, PersonKind $kind, array $ids): array
    {
        $found = [];
        foreach (
            $this->accounts->list(
                $kind,
                fn(Builder $q): Builder => $q->whereIn('p.id', $ids)->where('p.school_id', $school->id),
            )
            as $subject
        ) {
            $found[$subject->id] = $subject;
        }

        return array_values(array_filter(array_map(fn(string $id): ?Subject => $found[$id] ?? null, $ids)));
    }

    /**
     * Each two of them judged against everyone of their kind at the school, as the list does.
     *
     * @param  list<Subject>  $subjects
     * @return list<LookAlike>
     */
    public function judge(School $school, PersonKind $kind, array $subjects): array
    {
        $linkage = Matcher::link(
            $subjects,
            $this->accounts->each(
                $kind,
                fn(Builder $q): Builder => $q->where('p.school_id', $school->id)->where('p.state', '!=', 'merged'),
            ),
        );
        $judged = [];
        foreach ($subjects as $i => $left) {
            foreach (array_slice($subjects, $i + 1) as $right) {
                $c = $linkage->judge($left, $right);
                $caution = LookAlikes::careful($kind, $c->caution, $c->evidence);
                $judged[] = new LookAlike($left->id, $right->id, $c->probability, $caution, $c->evidence);
            }
        }

        return $judged;
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
