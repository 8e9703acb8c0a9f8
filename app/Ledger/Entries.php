<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\Wishes\LedgerPageWish;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;

/** The entries of a school's ledger that somebody asks for, and who stands behind them. */
final class Entries
{
    private const OF_PERSON = [
        'sign_ins',
        'identities',
        'enrollments',
        'coordinators',
        'join_requests',
        'transfer_requests',
        'guardian_claims',
        'work_results',
        'student_invitations',
    ];

    private const OF_SECTION = [
        'enrollments',
        'join_codes',
        'invitations',
        'join_requests',
        'room_passes',
        'notices',
        'student_invitations',
    ];

    /**
     * @return Builder<LedgerEntry> newest first
     *
     * @throws NotFoundHttpException where they are to be about something that this school does not have
     */
    public function asked(School $school, LedgerPageWish $wish): Builder
    {
        $about = $wish->about === null ? null : $this->about($school, $wish->about);

        return LedgerEntry::query()
            ->whereIn('seq', fn($q) => $q->select('entry_seq')->from('ledger_schools')->where('school_id', $school->id))
            ->when($wish->after !== null, fn(Builder $q) => $q->where('seq', '<', $wish->after))
            ->when(
                $wish->area !== null,
                fn(Builder $q) => $q->whereIn(
                    'action',
                    array_map(fn(Action $a): string => $a->value, $wish->area?->actions() ?? []),
                ),
            )
            ->when(
                $wish->actor !== null,
                fn(Builder $q) => $wish->actor === LedgerPageWish::NOBODY
                    ? $q->whereNull('actor_id')
                    : $q->where('actor_id', $wish->actor),
            )
            ->when(
                $wish->from !== null,
                fn(Builder $q) => $q->where('made_at', '>=', SchoolDay::instant($school->id, "$wish->from 00:00")),
            )
            ->when(
                $wish->to !== null,
                fn(Builder $q) => $q->where(
                    'made_at',
                    '<',
                    SchoolDay::instant(
                        $school->id,
                        CarbonImmutable::parse((string) $wish->to)->addDay()->format('Y-m-d 00:00'),
                    ),
                ),
            )
            ->when(
                $about !== null,
                fn(Builder $q) => $q->whereIn(
                    'seq',
                    fn($q) => $q
                        ->select('entry_seq')
                        ->from('ledger_changes')
                        ->whereIn('row_id', $about['ids'] ?? []),
                ),
            )
            ->orderByDesc('seq');
    }

    /**
     * What a person or a section is called, and the ids of it and of all that belongs to it.
     *
     * @return array{name: string, ids: list<string>}
     *
     * @throws NotFoundHttpException where the school does not have it
     */
    public function about(School $school, string $id): array
    {
        $person = Person::query()->whereKey($id)->where('school_id', $school->id)->first();
        if ($person !== null) {
            return ['name' => $person->fullName(), 'ids' => [$id, ...$this->ofPerson($id)]];
        }
        $section =
            Section::query()->whereKey($id)->where('school_id', $school->id)->first() ??
            throw new NotFoundHttpException();

        return ['name' => $section->name, 'ids' => [$id, ...$this->having('section_id', $id, self::OF_SECTION)]];
    }

    /** @return list<ActorLine> everybody who has done something at the school, by name */
    public function actors(School $school): array
    {
        $ids = LedgerEntry::query()->where('school_id', $school->id)->distinct()->pluck('actor_id');
        $actors = array_values(
            Person::query()
                ->whereIn('id', $ids->filter())
                ->orderBy('given_name')
                ->orderBy('family_name')
                ->get()
                ->map(fn(Person $p): ActorLine => new ActorLine($p->id, $p->fullName()))
                ->all(),
        );

        return $ids->contains(null) ? [...$actors, new ActorLine(LedgerPageWish::NOBODY, 'Vantrel')] : $actors;
    }

    /** @return list<string> */
    private function ofPerson(string $id): array
    {
        return [
            ...$this->having('person_id', $id, self::OF_PERSON),
            ...$this->having('student_id', $id, ['guardianships', 'family_letters', 'guardian_claims']),
            ...$this->having('guardian_id', $id, ['guardianships', 'guardian_invitations', 'student_invitations']),
            ...$this->having('left_id', $id, ['known_apart']),
            ...$this->having('right_id', $id, ['known_apart']),
            ...array_map(
                strval(...),
                array_values(
                    DB::table('badges as b')
                        ->join('sign_ins as s', 's.id', '=', 'b.sign_in_id')
                        ->where('s.person_id', $id)
                        ->pluck('b.id')
                        ->all(),
                ),
            ),
        ];
    }

    /**
     * @param  list<string>  $tables
     * @return list<string> ids of their rows
     */
    private function having(string $column, string $id, array $tables): array
    {
        $ids = [];
        foreach ($tables as $table) {
            $ids = [...$ids, ...array_map(strval(...), DB::table($table)->where($column, $id)->pluck('id')->all())];
        }

        return array_values($ids);
    }
}
