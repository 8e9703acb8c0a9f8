<?php

declare(strict_types=1);

namespace App\Mailroom;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Guardians\Hears;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Records\StudentInvitationState;

/** Whether whoever a message is for may still hear what it says, in the moment it goes out. */
final class MayStillHear
{
    /**
     * @param  Builder  $query of `outgoing_messages as m`
     * @param  bool  $merged whether somebody merged since it was written is whom they were merged into
     */
    public static function narrow(Builder $query, MessageKind $kind, bool $merged): Builder
    {
        $is = fn(string $of, string $id) => $merged ? DB::raw("coalesce($of.merged_into, $id)") : $id;
        $children = fn(Builder $q) => $q
            ->from('message_children as c')
            ->when(
                $merged,
                fn(Builder $m) => $m
                    ->leftJoin('people as hearer', 'hearer.id', '=', 'm.person_id')
                    ->leftJoin('people as child', 'child.id', '=', 'c.student_id'),
            )
            ->leftJoin(
                'guardianships as g',
                fn($j) => $j
                    ->on('g.student_id', '=', $is('child', 'c.student_id'))
                    ->on('g.guardian_id', '=', $is('hearer', 'm.person_id')),
            )
            ->whereColumn('c.message_id', 'm.id')
            ->where(
                fn(Builder $lost) => $lost
                    ->whereNull('g.id')
                    ->orWhereNotNull('g.restriction')
                    ->orWhereNotIn('g.state', $kind->heardBy()),
            );

        return $query
            ->whereNotExists($children)
            ->when(
                $kind === MessageKind::Student,
                fn(Builder $q) => $q->whereExists(
                    fn(Builder $i) => $i
                        ->from('student_invitations as i')
                        ->join('sections as s', 's.id', '=', 'i.section_id')
                        ->leftJoin('people as p', 'p.id', '=', 'i.person_id')
                        ->whereColumn('i.id', 'm.about_id')
                        ->where('i.state', StudentInvitationState::Invited->value)
                        ->where('s.state', 'open')
                        ->where(fn(Builder $w) => $w->whereNull('p.id')->orWhere('p.state', 'active')),
                ),
            )
            ->when(
                $kind === MessageKind::Digest,
                fn(Builder $q) => $q->whereNotExists(
                    fn(Builder $d) => $d
                        ->from('digest_choices as d')
                        ->when($merged, fn(Builder $m) => $m->join('people as hears', 'hears.id', '=', 'm.person_id'))
                        ->where(
                            fn(Builder $own) => $own
                                ->whereColumn('d.person_id', 'm.person_id')
                                ->when(
                                    $merged,
                                    fn(Builder $m) => $m->orWhereColumn('d.person_id', 'hears.merged_into'),
                                ),
                        )
                        ->where('d.often', Hears::Off->value),
                ),
            );
    }

    /**
     * Of letters those to somebody who has left since they were written; who was merged is who they were merged into.
     *
     * @param  Collection<int, mixed>  $ids of messages
     * @return Collection<int, mixed> ids
     */
    public static function ofThoseWhoLeft(Collection $ids): Collection
    {
        return DB::table('outgoing_messages as m')
            ->join('people as p', 'p.id', '=', 'm.person_id')
            ->leftJoin('people as now', 'now.id', '=', 'p.merged_into')
            ->whereIn('m.id', $ids)
            ->where('m.kind', MessageKind::Letter->value)
            ->whereRaw('coalesce(now.state, p.state) <> ?', ['active'])
            ->pluck('m.id');
    }
}
