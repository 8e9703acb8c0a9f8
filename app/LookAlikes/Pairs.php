<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\School;
use App\Models\Subjects;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;

/** The look-alikes of a school, worked out again only when the ledger has moved on. */
final class Pairs
{
    /** @return list<LookAlike> without those a person has told apart */
    public function of(School $school): array
    {
        $at = DB::table('ledger_entries')
            ->selectRaw('coalesce(max(seq), 0) + coalesce(sum(undone_at is not null), 0) * 1000000007 as at')
            ->value('at');

        return Cache::remember("look-alikes|$school->id|$at", 3600, fn(): array => $this->find($school));
    }

    public function subject(string $personId): ?Subject
    {
        return $this->subjects(fn(Builder $q): Builder => $q->where('p.id', $personId))[0] ?? null;
    }

    /** Both judged against everyone of the school, as the list does. */
    public function judge(Subject $left, Subject $right): LookAlike
    {
        $candidate = Matcher::link(
            [$left],
            $this->subjects(
                fn(Builder $q): Builder => $q->where('p.school_id', $left->schoolId)->where('p.state', '!=', 'merged'),
            ),
        )->judge($left, $right);

        return new LookAlike($left->id, $right->id, $candidate->probability, $candidate->caution, $candidate->evidence);
    }

    /** @return list<LookAlike> */
    private function find(School $school): array
    {
        $apart = [];
        foreach (DB::table('known_apart')->get(['left_id', 'right_id']) as $pair) {
            $apart["$pair->left_id $pair->right_id"] = $apart["$pair->right_id $pair->left_id"] = true;
        }

        return LookAlikes::among(
            $this->subjects(
                fn(Builder $q): Builder => $q->where('p.school_id', $school->id)->where('p.state', 'active'),
            ),
            null,
            $apart,
        );
    }

    /**
     * @param  callable(Builder): Builder  $where
     * @return list<Subject>
     */
    private function subjects(callable $where): array
    {
        $students = $where(DB::table('people as p')->where('p.kind', 'student'))
            ->orderBy('p.id')
            ->get([
                'p.id',
                'p.given_name',
                'p.family_name',
                'p.birth_date',
                'p.number',
                'p.email',
                'p.grade',
                'p.school_id',
            ]);
        $contacts = [];
        foreach (
            DB::table('guardianships as g')
                ->join('people as c', 'c.id', '=', 'g.guardian_id')
                ->whereIn('g.student_id', $students->pluck('id'))
                ->where('g.state', '!=', 'ended')
                ->get(['g.student_id', 'c.email', 'c.phone'])
            as $c
        ) {
            $contacts[$c->student_id] = [
                ...$contacts[$c->student_id] ?? [],
                ...array_values(array_filter([(string) $c->email, (string) $c->phone])),
            ];
        }

        return array_values(
            $students->map(fn(stdClass $s): Subject => Subjects::of($s, $contacts[$s->id] ?? []))->all(),
        );
    }
}
