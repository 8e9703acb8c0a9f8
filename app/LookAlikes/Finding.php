<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Ledger\Touched;
use App\Models\School;
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
    /** How many are looked through at a time, 50,000 in some 30 seconds; what is kept is whole after each. */
    private const CHUNK = 50_000;

    public function __construct(private readonly Accounts $accounts) {}

    /** Everyone of a school is looked through once more. */
    public function all(School $school): void
    {
        $this->wait(
            DB::table('people')->where('school_id', $school->id)->where('state', 'active')->orderBy('id')->pluck('id'),
        );
    }

    /** Whom an entry, written, undone or done again, has touched: people, their guardians, pairs told apart. */
    public function touched(int $seq): void
    {
        $this->wait(Touched::people($seq, Entity::Person, Entity::Guardianship, Entity::KnownApart));
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
                    ->orderBy('p.school_id')
                    ->orderBy('t.person_id')
                    ->limit(self::CHUNK)
                    ->get(['t.person_id', 't.since', 'p.school_id', 'p.kind']);
                foreach ($waiting->groupBy(fn(stdClass $t): string => "$t->school_id $t->kind") as $whose => $of) {
                    [$school, $kind] = explode(' ', (string) $whose);
                    $this->find($school, PersonKind::tryFrom($kind) ?? PersonKind::Student, $of);
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

    /** @param  Collection<int, stdClass>  $waiting of one school and kind */
    private function find(string $school, PersonKind $kind, Collection $waiting): void
    {
        $ids = $waiting->pluck('person_id')->all();
        $active = fn(Builder $q): Builder => $q->where('p.school_id', $school)->where('p.state', 'active');
        $touched = $this->accounts->list(
            $kind,
            fn(Builder $q): Builder => $active($q)->whereIn('p.id', DB::table('look_alike_todo')->select('person_id')),
        );
        $everyone = count($touched) === $active(DB::table('people as p')->where('p.kind', $kind->value))->count();
        $known = $everyone ? $touched : $this->accounts->each($kind, $active);
        $pairs = match (true) {
            $touched === [] => [],
            $kind === PersonKind::Student => LookAlikes::of($touched, $known),
            default => LookAlikes::ofAdults($kind, $touched, $known),
        };
        DB::transaction(function () use ($school, $waiting, $ids, $pairs): void {
            foreach (array_chunk($ids, 1000) as $some) {
                DB::table('look_alikes')->whereIn('left_id', $some)->delete();
                DB::table('look_alikes')->whereIn('right_id', $some)->delete();
            }
            foreach (array_chunk($pairs, 500) as $chunk) {
                DB::table('look_alikes')->upsert(
                    array_map(
                        fn(LookAlike $p): array => [
                            'left_id' => $p->leftId,
                            'right_id' => $p->rightId,
                            'school_id' => $school,
                            'probability' => $p->probability,
                            'caution' => $p->caution,
                            'facts' => $p->facts,
                        ],
                        $chunk,
                    ),
                    ['left_id', 'right_id'],
                );
            }
            $this->cluster($school);
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

    private function cluster(string $school): void
    {
        $pairs = DB::table('look_alikes as l')
            ->join('people as a', 'a.id', '=', 'l.left_id')
            ->join('people as b', 'b.id', '=', 'l.right_id')
            ->leftJoin(
                'known_apart as k',
                fn($on) => $on
                    ->on('k.left_id', '=', 'l.left_id')
                    ->on('k.right_id', '=', 'l.right_id')
                    ->whereIn('k.facts', ['', DB::raw('l.facts')]),
            )
            ->where('l.school_id', $school)
            ->orderBy('l.left_id')
            ->orderBy('l.right_id')
            ->get([
                'l.left_id',
                'l.right_id',
                'l.probability',
                'l.accounts',
                'l.cluster',
                'a.number as left_number',
                'b.number as right_number',
                'k.id as apart',
            ]);
        $numbers = $apart = $links = [];
        foreach ($pairs as $p) {
            $numbers[$p->left_id] = [$school, (string) $p->left_number];
            $numbers[$p->right_id] = [$school, (string) $p->right_number];
            if ($p->apart === null) {
                $links[] = $p;
            } else {
                $apart["$p->left_id $p->right_id"] = $apart["$p->right_id $p->left_id"] = true;
            }
        }
        $clusters = LookAlikes::clusters(
            array_map(
                fn(stdClass $p): LookAlike => new LookAlike($p->left_id, $p->right_id, (float) $p->probability, '', []),
                $links,
            ),
            $numbers,
            $apart,
        );
        foreach ($links as $i => $p) {
            [$cluster, $accounts] = $clusters[$i];
            if ([$cluster, $accounts] !== [(string) $p->cluster, (int) $p->accounts]) {
                DB::table('look_alikes')
                    ->where('left_id', $p->left_id)
                    ->where('right_id', $p->right_id)
                    ->update(['cluster' => $cluster, 'accounts' => $accounts]);
            }
        }
    }

    /** Of this database: several instances may share a server. */
    private function lock(): string
    {
        return substr('look-alikes ' . DB::connection()->getDatabaseName(), 0, 64);
    }
}
