<?php

declare(strict_types=1);

namespace App\Roll;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Roll\SearchWords;

/**
 * The words people are found by. It follows every entry ({@see Stale}): a small one at once, a large one right after
 * it, in the background. Names they had before, which the ledger knows, and those of accounts merged into theirs are
 * former words: whoever knows them by these finds them too.
 */
final class SearchIndex
{
    private const CHUNK = 1000;

    /** Up to so many are worked out by whoever searches next; more are left to the worker. */
    private const AT_ONCE = 500;

    public function settle(): void
    {
        Stale::Words->settle($this->of(...));
    }

    /** Before somebody searches, who does not wait for thousands to be found by every word. */
    public function settleFew(): void
    {
        $marked = Stale::Words->count(self::AT_ONCE + 1);
        if ($marked > 0 && $marked <= self::AT_ONCE) {
            $this->settle();
        }
    }

    /** Everyone there is. */
    public function all(): void
    {
        $last = '';
        do {
            $ids = DB::table('people')->where('id', '>', $last)->orderBy('id')->limit(5000)->pluck('id');
            $this->of($ids);
            $last = (string) $ids->last();
        } while ($ids->isNotEmpty());
    }

    /** @param  Collection<int, mixed>  $ids */
    private function of(Collection $ids): void
    {
        foreach ($ids->sort()->chunk(self::CHUNK) as $some) {
            $people = DB::table('people')
                ->whereIn('id', $some)
                ->get(['id', 'given_name', 'family_name', 'preferred_name', 'number', 'email', 'phone'])
                ->keyBy('id');
            $userNames = DB::table('sign_ins')
                ->whereIn('person_id', $some)
                ->get(['person_id', 'user_name'])
                ->groupBy('person_id');
            $former = $this->formerNames($some);
            $is = [];
            foreach ($people as $id => $p) {
                $words = SearchWords::of(
                    [$p->given_name, $p->family_name, (string) $p->preferred_name],
                    (string) $p->number,
                    (string) $p->email,
                    (string) $p->phone,
                    array_values(($userNames[$id] ?? collect())->pluck('user_name')->all()),
                );
                foreach ([...SearchWords::of($former[$id] ?? [], '', '', '', []), ...$words] as $word) {
                    $is["$id $word"] = [
                        'person_id' => (string) $id,
                        'word' => $word,
                        'former' => in_array($word, $words, true) ? 0 : 1,
                    ];
                }
            }
            $was = DB::table('search_words')
                ->whereIn('person_id', $some)
                ->get(['person_id', 'word', 'former'])
                ->keyBy(fn(stdClass $w): string => "$w->person_id $w->word");
            $this->write($is, $was);
        }
    }

    /**
     * @param  Collection<int, mixed>  $ids
     * @return array<string, list<string>> id to names
     */
    private function formerNames(Collection $ids): array
    {
        $names = [];
        $before = DB::table('ledger_changes as c')
            ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
            ->whereIn('c.row_id', $ids)
            ->where('c.entity', Entity::Person->value)
            ->whereNotNull('c.was_version')
            ->whereNull('e.undone_at')
            ->selectRaw(
                "c.row_id id, json_value(c.before, '$.given_name') given, json_value(c.before, '$.family_name') family",
            )
            ->get();
        $merged = DB::table('people')
            ->whereIn('merged_into', $ids)
            ->get(['merged_into as id', 'given_name as given', 'family_name as family']);
        foreach ([...$before, ...$merged] as $was) {
            $names[$was->id] = [...$names[$was->id] ?? [], ...array_filter([$was->given, $was->family])];
        }

        return $names;
    }

    /**
     * @param  array<string, array{person_id: string, word: string, former: int}>  $is
     * @param  Collection<string, stdClass>  $was
     */
    private function write(array $is, Collection $was): void
    {
        $new = array_filter(
            $is,
            fn(array $w, string $key): bool => !isset($was[$key]) || (int) $was[$key]->former !== $w['former'],
            ARRAY_FILTER_USE_BOTH,
        );
        foreach (array_chunk($new, 500) as $rows) {
            DB::table('search_words')->upsert($rows, ['word', 'person_id'], ['former']);
        }
        $still = array_column($is, 'person_id', 'person_id');
        $gone = $was->filter(fn(stdClass $w, string $key): bool => !isset($is[$key]));
        $isGone = fn(stdClass $w): bool => !isset($still[$w->person_id]);
        DB::table('search_words')
            ->whereIn('person_id', $gone->filter($isGone)->pluck('person_id')->unique()->values())
            ->delete();
        foreach ($gone->reject($isGone)->groupBy('person_id') as $id => $of) {
            DB::table('search_words')->where('person_id', $id)->whereIn('word', $of->pluck('word'))->delete();
        }
        $words = array_values(array_unique(array_column($new, 'word')));
        $known = DB::table('search_keys')->whereIn('word', $words)->distinct()->pluck('word')->flip();
        $keys = [];
        foreach ($words as $word) {
            foreach ($known->has($word) ? [] : SearchWords::keys($word) as $key) {
                $keys[] = ['key' => $key, 'word' => $word];
            }
        }
        foreach (array_chunk($keys, 1000) as $rows) {
            DB::table('search_keys')->insertOrIgnore($rows);
        }
    }

    /**
     * Takes away of some words those that nobody has any more: their keys, which stay where a word is likely to come
     * back.
     *
     * @param  list<string>  $words
     */
    public function forget(array $words): void
    {
        foreach (array_chunk($words, 500) as $some) {
            $still = DB::table('search_words')->whereIn('word', $some)->distinct()->pluck('word')->all();
            DB::table('search_keys')->whereIn('word', array_diff($some, array_map(strval(...), $still)))->delete();
        }
    }
}
