<?php

declare(strict_types=1);

namespace App\Roll;

use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Roll\SearchWords;
use Vantrel\Core\Roll\WordFit;

/**
 * Finds people by any part of a name, number, address, telephone number or user name, in whatever order, with slips of
 * the keys and by the sound; the best first.
 */
final class Search
{
    /** What more people than these fit is no search yet. */
    public const MOST = 2000;

    /** Words that anybody types; the rest says nothing new. */
    private const WORDS = 6;

    /** What somebody is called no longer counts a little less. */
    private const FORMER = 0.97;

    public function __construct(private readonly SearchIndex $index) {}

    /**
     * @param  Closure(Builder): Builder  $among over people (`p`)
     * @return list<string> ids of those the text fits, the best first
     */
    public function ids(string $text, Closure $among): array
    {
        $typed = array_slice(SearchWords::typed($text), 0, self::WORDS);
        if ($typed === []) {
            return [];
        }
        $this->index->settleFew();
        $near = $this->near($typed);
        $found = $this->fitting($typed, $near, $among);
        // One word of several may be about something we do not know, or be too far off.
        for ($i = 0; $found === [] && count($typed) > 1 && $i < count($typed); $i++) {
            $rest = $typed;
            unset($rest[$i]);
            $found += $this->fitting(array_values($rest), $near, $among);
        }
        uksort(
            $found,
            fn(string $a, string $b): int => [$found[$b][0], ...$found[$a][1]] <=> [$found[$a][0], ...$found[$b][1]],
        );

        return array_map(strval(...), array_keys($found));
    }

    /**
     * @param  list<string>  $typed
     * @return array<string, array<string, float>> word typed to words there are that are near it, and how well they fit
     */
    private function near(array $typed): array
    {
        $keys = array_map(SearchWords::keys(...), array_combine($typed, $typed));
        $words = [];
        foreach (
            DB::table('search_keys')
                ->whereIn('key', array_map(strval(...), array_unique(array_merge(...array_values($keys)))))
                ->get(['key', 'word'])
            as $k
        ) {
            $words[$k->key][] = $k->word;
        }
        $near = [];
        foreach ($keys as $word => $of) {
            $word = (string) $word;
            $near[$word] = [];
            foreach ($of as $key) {
                foreach ($words[$key] ?? [] as $other) {
                    $fit = WordFit::of($word, $other);
                    if ($fit > 0.0) {
                        $near[$word][$other] = $fit;
                    }
                }
            }
        }

        return $near;
    }

    /**
     * @param  list<string>  $typed all of which have to fit
     * @param  array<string, array<string, float>>  $near
     * @param  Closure(Builder): Builder  $among
     * @return array<string, array{float, list<string>}> id to how well they fit, and what equals are ordered by
     */
    private function fitting(array $typed, array $near, Closure $among): array
    {
        $query = $among(DB::table('people as p'));
        $columns = ['p.id', 'p.kind', 'p.family_name', 'p.given_name'];
        foreach ($typed as $i => $word) {
            $query
                ->join("search_words as w$i", "w$i.person_id", '=', 'p.id')
                ->where(
                    fn(Builder $q) => $q
                        ->where("w$i.word", 'like', addcslashes($word, '%_\\') . '%')
                        ->when(
                            $near[$word] !== [],
                            fn(Builder $q) => $q->orWhereIn(
                                "w$i.word",
                                array_map(strval(...), array_keys($near[$word])),
                            ),
                        ),
                );
            array_push($columns, "w$i.word as word$i", "w$i.former as former$i");
        }
        $found = [];
        foreach ($query->limit(self::MOST)->get($columns) as $row) {
            $score = 0.0;
            $used = [];
            foreach ($typed as $i => $word) {
                $is = (string) $row->{"word$i"};
                // Two words typed are two of the person's.
                $used[$is] = true;
                $score +=
                    ($near[$word][$is] ?? WordFit::of($word, $is)) *
                    ((int) $row->{"former$i"} === 1 ? self::FORMER : 1.0);
            }
            $score = (round($score, 6) * count($used)) / count($typed);
            if ($score > ($found[$row->id][0] ?? 0.0)) {
                $found[$row->id] = [$score, self::order($row)];
            }
        }

        return $found;
    }

    /** @return list<string> students first, then by name */
    private static function order(stdClass $row): array
    {
        return [$row->kind === 'student' ? '0' : '1', $row->family_name, $row->given_name, $row->id];
    }
}
