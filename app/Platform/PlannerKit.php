<?php

declare(strict_types=1);

namespace App\Platform;

use App\Models\School;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\WordList;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\StalePlan;

/** Hands the core what it does not take by itself: the time, randomness, and what has been given out before. */
final class PlannerKit
{
    public function now(): string
    {
        return CarbonImmutable::now('UTC')->format('Y-m-d H:i:s');
    }

    /** The day it is at the school. */
    public function today(?School $school): string
    {
        return CarbonImmutable::now($school->time_zone ?? 'UTC')->format('Y-m-d');
    }

    public function seed(): string
    {
        return (string) Str::ulid(CarbonImmutable::now());
    }

    /**
     * The seed of the plan that was looked at, as it comes back to be applied.
     *
     * @param  string  $seed a ULID
     *
     * @throws StalePlan where it is older than a day: what was looked at yesterday is looked at again
     */
    public function fresh(string $seed): string
    {
        if (!$this->ids($seed)->isFresh($this->now())) {
            throw new StalePlan(['the day it was looked at']);
        }

        return $seed;
    }

    public function ids(string $seed): Ids
    {
        return new Ids($seed);
    }

    /** Now at a school, with the ids of a seed, or of a new one. */
    public function occasion(string $schoolId, ?string $seed = null): Occasion
    {
        return new Occasion($this->ids($seed ?? $this->seed()), SchoolDay::today($schoolId), $this->now());
    }

    /**
     * Unforeseeable without the application's key, and the same again for the same seed: a plan looked at is the plan
     * applied.
     */
    public function random(string $seed): KeyedStream
    {
        return new KeyedStream((string) base64_decode(substr((string) config('app.key'), 7), true), $seed);
    }

    public function codeBook(string $seed): CodeBook
    {
        return new CodeBook(
            $this->random("$seed codes"),
            $this->usedCodes(),
            DB::table('join_codes')->where('state', 'open')->count(),
            TryCounter::codesADay(),
        );
    }

    /** @return array<string, true> symbols of every code there ever was */
    public function usedCodes(): array
    {
        $used = [];
        foreach (DB::table('join_codes')->select('code')->cursor() as $row) {
            $used[$row->code] = true;
        }

        return $used;
    }

    /** @return list<string> fragments that no user name and no code may hold */
    public function unfitWords(): array
    {
        return array_values(array_filter(array_map(trim(...), file(resource_path('words/unfit.txt')) ?: [])));
    }

    public function userNames(): UserNames
    {
        $taken = [];
        foreach (DB::table('sign_ins')->select('user_name')->cursor() as $row) {
            $taken[$row->user_name] = true;
        }

        return new UserNames($taken, $this->unfitWords());
    }

    /** As long as one can be. */
    public function longestPassphrase(): string
    {
        // Each of 1,000 cards is tried with it.
        return once(function (): string {
            $longest = max([1, ...array_map(strlen(...), $this->words()->words)]);

            return implode(' ', array_fill(0, PassphraseSheet::WORDS, str_repeat('w', $longest)));
        });
    }

    public function passphrases(string $seed): PassphraseSheet
    {
        return new PassphraseSheet($this->words(), $this->random("$seed passphrases"));
    }

    private function words(): WordList
    {
        return WordList::fromText((string) file_get_contents(resource_path('words/passphrase.txt')));
    }
}
