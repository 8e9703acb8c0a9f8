<?php

declare(strict_types=1);

namespace App\Roll;

use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * People of whom something that is kept has to be worked out anew. Whoever writes marks them, in one statement and in
 * the transaction that writes; whoever reads settles them first, and a worker whatever nobody reads. So no writer works
 * out anything under its locks, and what is read is true at once.
 */
enum Stale: string
{
    private const CHUNK = 2000;

    private const ATTEMPTS = 3;

    case Problems = 'problems';
    case Words = 'words';

    /** @param  Collection<int, string>  $people each once and in order, so that two who mark wait for each other */
    public function mark(Collection $people): void
    {
        foreach ($people->chunk(self::CHUNK) as $some) {
            DB::table('roll_stale')->insertOrIgnore(
                $some->map(fn(string $id): array => ['what' => $this->value, 'person_id' => $id])->values()->all(),
            );
        }
    }

    /** One who is marked; none where nobody is. */
    public function first(): Builder
    {
        return DB::table('roll_stale')->where('what', $this->value)->select('person_id')->limit(1);
    }

    /** How many are marked, counted no further than asked for. */
    public function count(int $most): int
    {
        return DB::query()
            ->fromSub(DB::table('roll_stale')->where('what', $this->value)->select('person_id')->limit($most), 's')
            ->count();
    }

    /**
     * Works out all who are marked, some at a time. A mark is locked before what it stands for is read: whoever marks
     * the same person meanwhile waits, and marks them again. Whoever marks others does not: only the marks are locked,
     * not what lies between them, where all who come in on a morning are written.
     *
     * @param  Closure(Collection<int, string>): void  $work
     */
    public function settle(Closure $work): void
    {
        do {
            $marked = $this->marks(DB::table('roll_stale')->orderBy('person_id')->limit(self::CHUNK));
            if ($marked->isEmpty()) {
                return;
            }
            DB::statement('SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED');
            try {
                DB::transaction(function () use ($marked, $work): void {
                    $still = $this->marks(DB::table('roll_stale')->whereIn('person_id', $marked)->lockForUpdate());
                    if ($still->isNotEmpty()) {
                        $work($still);
                        DB::table('roll_stale')->where('what', $this->value)->whereIn('person_id', $still)->delete();
                    }
                }, self::ATTEMPTS);
            } finally {
                DB::statement('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ');
            }
        } while ($marked->count() === self::CHUNK);
    }

    /** @return Collection<int, string> */
    private function marks(Builder $query): Collection
    {
        return $query->where('what', $this->value)->pluck('person_id')->map(fn(mixed $id): string => (string) $id);
    }
}
