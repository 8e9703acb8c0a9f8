<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Ledger\Affected;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\PersonKind;

/**
 * Finds the look-alikes of those something was written about, and keeps them. What was written while it worked stays
 * to be done; killed half-way, it begins again.
 */
final class Finding
{
    /**
     * How many are looked through at a time, each time among everybody: more hold more memory, fewer read everybody
     * more often. What is kept is whole after each.
     */
    private const CHUNK = 20_000;

    public function __construct(private readonly Accounts $accounts) {}

    /** Everyone of a school is looked through once more. */
    public function all(string $schoolId): void
    {
        $this->wait(
            DB::table('people')->where('school_id', $schoolId)->where('state', 'active')->orderBy('id')->pluck('id'),
        );
    }

    /**
     * Whom an entry, written, undone or done again, has affected: people, their guardians, pairs told apart.
     *
     * @return bool whether anybody
     */
    public function affected(Affected $affected): bool
    {
        $people = $affected->people(Entity::Person, Entity::Guardianship, Entity::KnownApart);
        $this->wait($people);

        return $people->isNotEmpty();
    }

    /** @param  Collection<int, string>  $people who wait from now on, in one order for all who write this at once */
    private function wait(Collection $people): void
    {
        $since = CarbonImmutable::now('UTC')->format('Y-m-d H:i:s.u');
        foreach ($people->chunk(1000) as $some) {
            $there = DB::table('people')->whereIn('id', $some)->orderBy('id')->pluck('id');
            DB::table('look_alike_todo')->upsert(
                array_values($there->map(fn(string $id): array => ['person_id' => $id, 'since' => $since])->all()),
                ['person_id'],
            );
        }
    }

    /**
     * Looks through all who wait.
     *
     * @return bool false where another is at it: who came to wait in the meantime is left to it, or to a later run
     */
    public function run(): bool
    {
        if (DB::table('look_alike_todo')->doesntExist()) {
            return true;
        }
        // Not waited for: whoever waits here may hold rows that the other needs, and no one would see that.
        if ((int) DB::scalar('select get_lock(?, 0)', [$this->lock()]) !== 1) {
            return false;
        }
        try {
            $before = null;
            do {
                $waiting = DB::table('look_alike_todo as t')
                    ->leftJoin('people as p', 'p.id', '=', 't.person_id')
                    ->orderBy('p.kind')
                    ->orderBy('t.person_id')
                    ->limit(self::CHUNK)
                    ->get(['t.person_id', 't.since', 'p.school_id', 'p.kind']);
                foreach ($waiting->groupBy('kind') as $kind => $of) {
                    $this->find(PersonKind::tryFrom((string) $kind) ?? PersonKind::Student, $of);
                }
                // The same once more: this connection does not see its own work end, so it is left to another.
                $stands = $waiting == $before;
                $before = $waiting;
            } while ($waiting->isNotEmpty() && !$stands);

            return true;
        } finally {
            DB::select('select release_lock(?)', [$this->lock()]);
        }
    }

    /**
     * Everyone of the kind is who they may be, whichever school they are at: a child who has changed school without
     * anybody saying so has an account at both.
     *
     * @param  Collection<int, stdClass>  $waiting of one kind
     */
    private function find(PersonKind $kind, Collection $waiting): void
    {
        $ids = $waiting->pluck('person_id')->all();
        $active = fn(Builder $q): Builder => $q->where('p.state', 'active');
        $touched = $this->accounts->list(
            $kind,
            fn(Builder $q): Builder => $active($q)->whereIn(
                'p.id',
                DB::table('look_alike_todo')
                    ->whereBetween('person_id', [$waiting->min('person_id'), $waiting->max('person_id')])
                    ->select('person_id'),
            ),
        );
        $everyone = count($touched) === $active(DB::table('people as p')->where('p.kind', $kind->value))->count();
        $known = $everyone ? $touched : $this->accounts->each($kind, $active);
        $pairs = match (true) {
            $touched === [] => [],
            $kind === PersonKind::Student => LookAlikes::of($touched, $known),
            default => LookAlikes::ofAdults($kind, $touched, $known),
        };
        $schools = $this->schools($pairs);
        DB::transaction(function () use ($waiting, $ids, $pairs, $schools): void {
            $stood = collect();
            foreach (array_chunk($ids, 1000) as $some) {
                foreach (['left_id', 'right_id'] as $side) {
                    $were = DB::table('look_alikes')->whereIn($side, $some);
                    $stood = $stood->concat((clone $were)->distinct()->pluck('school_id'));
                    $were->delete();
                }
            }
            foreach (array_chunk($pairs, 500) as $chunk) {
                DB::table('look_alikes')->upsert(
                    array_map(
                        fn(LookAlike $p): array => [
                            'left_id' => $p->leftId,
                            'right_id' => $p->rightId,
                            'school_id' => $schools[$p->leftId] === $schools[$p->rightId] ? $schools[$p->leftId] : null,
                            'probability' => $p->probability,
                            'caution' => $p->caution,
                            'facts' => $p->facts,
                        ],
                        $chunk,
                    ),
                    ['left_id', 'right_id'],
                );
            }
            foreach ($stood->concat($waiting->pluck('school_id'))->filter()->unique() as $school) {
                $this->cluster((string) $school);
            }
            // Only what was read: who was touched again in the meantime waits on.
            foreach ($waiting->groupBy('since') as $since => $of) {
                foreach ($of->chunk(1000) as $some) {
                    DB::table('look_alike_todo')
                        ->whereIn('person_id', $some->pluck('person_id'))
                        ->where('since', (string) $since)
                        ->delete();
                }
            }
        });
    }

    /**
     * @param  list<LookAlike>  $pairs
     * @return array<string, string> person to school
     */
    private function schools(array $pairs): array
    {
        $schools = [];
        $ids = array_merge(...array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId], $pairs), ...[[]]);
        foreach (array_chunk(array_unique($ids), 1000) as $some) {
            $schools += DB::table('people')->whereIn('id', $some)->pluck('school_id', 'id')->all();
        }

        return $schools;
    }

    private function cluster(string $school): void
    {
        foreach (Clustering::of(DB::table('look_alikes as l')->where('l.school_id', $school)) as [$pair, $was]) {
            if ([$pair->cluster, $pair->accounts] !== [(string) $was->cluster, (int) $was->accounts]) {
                DB::table('look_alikes')
                    ->where('left_id', $pair->leftId)
                    ->where('right_id', $pair->rightId)
                    ->update(['cluster' => $pair->cluster, 'accounts' => $pair->accounts]);
            }
        }
    }

    /** Of this database: several instances may share a server. */
    private function lock(): string
    {
        return substr('look-alikes ' . DB::connection()->getDatabaseName(), 0, 64);
    }
}
