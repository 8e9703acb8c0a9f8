<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\Realm;
use App\Models\School;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\LookAlikes\Cluster;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Records\PersonKind;

/** The look-alikes of a school, or of several, as {@see Finding} has kept them. */
final class Kept
{
    public function __construct(private readonly Accounts $accounts) {}

    /** @return list<Cluster> likeliest first, without what a person has told apart; evidence is {@see judge}'s */
    public function clusters(Realm $realm): array
    {
        return Cluster::gather(
            $realm->isOne()
                ? array_values(self::shown($realm)->get('l.*')->map(Clustering::pair(...))->all())
                : array_values(
                    array_filter(
                        array_column(Clustering::of(self::pairs($realm)), 0),
                        fn(LookAlike $p): bool => $p->accounts > 0,
                    ),
                ),
        );
    }

    /** How many people there are that seem to have several accounts. */
    public function count(School $school): int
    {
        return self::waits($school)->count();
    }

    /** People of a school that seem to have several accounts. */
    public static function waits(School $school): Builder
    {
        return DB::query()->fromSub(self::shown(Realm::of($school))->distinct()->select('l.cluster'), 'c');
    }

    /** How many of these pairs are of two schools. */
    public function across(Realm $realm): int
    {
        return $realm->isOne() ? 0 : self::shown($realm)->whereNull('l.school_id')->count();
    }

    /** People whom something was written about and who have not been looked through since. */
    public function waiting(Realm $realm): int
    {
        return DB::table('look_alike_todo as t')
            ->join('people as p', 'p.id', '=', 't.person_id')
            ->whereIn('p.school_id', $realm->ids)
            ->where('p.state', 'active')
            ->count();
    }

    /**
     * @param  list<string>  $ids
     * @return list<Subject> those of the schools, in the order asked
     */
    public function subjects(Realm $realm, PersonKind $kind, array $ids): array
    {
        $found = [];
        foreach (
            $this->accounts->list(
                $kind,
                fn(Builder $q): Builder => $q->whereIn('p.id', $ids)->whereIn('p.school_id', $realm->ids),
            )
            as $subject
        ) {
            $found[$subject->id] = $subject;
        }

        return array_values(array_filter(array_map(fn(string $id): ?Subject => $found[$id] ?? null, $ids)));
    }

    /**
     * Each two of them judged against everyone of their kind, as the list does.
     *
     * @param  list<Subject>  $subjects
     * @return list<LookAlike>
     */
    public function judge(PersonKind $kind, array $subjects): array
    {
        $linkage = Matcher::link(
            $subjects,
            $this->accounts->each($kind, fn(Builder $q): Builder => $q->where('p.state', '!=', 'merged')),
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
    private static function shown(Realm $realm): Builder
    {
        return self::pairs($realm)->where('l.accounts', '>', 0)->whereNotExists(
            fn(Builder $q) => $q
                ->from('known_apart as k')
                ->whereColumn('k.left_id', 'l.left_id')
                ->whereColumn('k.right_id', 'l.right_id')
                ->whereIn('k.facts', ['', DB::raw('l.facts')]),
        );
    }

    /** Kept pairs (`l`) of which both are there, at the schools. */
    private static function pairs(Realm $realm): Builder
    {
        $query = DB::table('look_alikes as l')->where(
            fn(Builder $q) => $q
                ->whereIn('l.school_id', $realm->ids)
                ->when(!$realm->isOne(), fn(Builder $q) => $q->orWhereNull('l.school_id')),
        );
        foreach (['left', 'right'] as $side) {
            $query->join(
                "people as $side",
                fn($on) => $on
                    ->on("$side.id", '=', "l.{$side}_id")
                    ->whereIn("$side.school_id", $realm->ids)
                    ->where("$side.state", 'active'),
            );
        }

        return $query;
    }
}
