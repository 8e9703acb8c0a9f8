<?php

declare(strict_types=1);

namespace App\Desk\Http;

use App\Desk\Http\Wishes\LoopWish;
use App\Desk\Http\Wishes\PutOffWish;
use App\Desk\Loops;
use App\Desk\Views\Desk;
use App\Desk\Views\DeskCounts;
use App\Desk\Views\Loop;
use App\Desk\Views\PutOff;
use App\Desk\WhatChanged;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\Answers;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Desk\PuttingOff;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Roll\AccountProblem;

/** The first screen: what waits, counted, and what others have done. */
final class DeskController
{
    public function __construct(private readonly Loops $loops, private readonly WhatChanged $changed) {}

    #[Answers(Desk::class, 'Open loops of a school, oldest first, and what others have done since one read it last')]
    public function show(School $school, Request $request): Desk
    {
        $open = array_values(array_filter($this->loops->of($school), fn(Loop $l): bool => $l->count > 0));
        // Oldest first; what has no date follows in the order of the work.
        // Whoever waits for an answer comes first, the longest waiting before the others; what is amiss with accounts
        // comes in the order of the work.
        $waits = fn(Loop $l): string => AccountProblem::tryFrom($l->key) === null ? $l->since ?? '9999' : '9999';
        usort($open, fn(Loop $a, Loop $b): int => $waits($a) <=> $waits($b));
        $putOff = $this->putOff($school, $open);
        $away = array_map(fn(PutOff $p): string => $p->key, $putOff);
        return new Desk(
            $school->name,
            (string) SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->first()?->name,
            array_values(array_filter($open, fn(Loop $l): bool => !in_array($l->key, $away, true))),
            $putOff,
            $this->changed->news($school->id, Person::signedIn($request)->id),
        );
    }

    #[Answers(DeskCounts::class, 'How many people and sections a school has')]
    public function counts(School $school): DeskCounts
    {
        // Kind by kind, so that each count is one range of an index.
        $people = fn(PersonKind $kind): int => DB::table('people')
            ->where('school_id', $school->id)
            ->where('kind', $kind)
            ->where('state', 'active')
            ->count();

        return new DeskCounts(
            $people(PersonKind::Student),
            $people(PersonKind::Guardian),
            $people(PersonKind::Staff),
            DB::table('sections')->where('school_id', $school->id)->where('state', 'open')->count(),
        );
    }

    #[Answers(Desk::class, 'Put off what waits, for everyone of the school, until a day and for a reason')]
    #[Takes(PutOffWish::class)]
    public function putOffOne(School $school, Request $request): Desk
    {
        $wish = Wishes::of(PutOffWish::class, $request);
        $keys = array_map(fn(Loop $l): string => $l->key, $this->loops->of($school));
        if (!in_array($wish->loop, $keys, true)) {
            throw new Refusal('Nothing of this kind waits on a Desk.');
        }
        $off = new PuttingOff($wish->until, $wish->reason, SchoolDay::today($school->id));
        DB::table('desk_put_off')->upsert(
            [
                [
                    'school_id' => $school->id,
                    'loop' => $wish->loop,
                    'until' => $off->until,
                    'reason' => $off->reason,
                    'by_id' => Person::signedIn($request)->id,
                ],
            ],
            ['school_id', 'loop'],
        );

        return $this->show($school, $request);
    }

    #[Answers(Desk::class, 'Have back what was put off')]
    #[Takes(LoopWish::class)]
    public function takeBack(School $school, Request $request): Desk
    {
        DB::table('desk_put_off')
            ->where('school_id', $school->id)
            ->where('loop', Wishes::of(LoopWish::class, $request)->loop)
            ->delete();

        return $this->show($school, $request);
    }

    #[Answers(null, 'What others have done is read, up to now')]
    public function read(School $school, Request $request): Response
    {
        $this->changed->read([$school->id], Person::signedIn($request)->id);

        return response()->noContent();
    }

    /**
     * @param  list<Loop>  $open
     * @return list<PutOff> of what is open, what is put off beyond today
     */
    private function putOff(School $school, array $open): array
    {
        $rows = DB::table('desk_put_off as d')
            ->leftJoin('people as p', 'p.id', '=', 'd.by_id')
            ->where('d.school_id', $school->id)
            ->where('d.until', '>', SchoolDay::today($school->id))
            ->get(['d.loop', 'd.until', 'd.reason', 'p.given_name', 'p.family_name'])
            ->keyBy('loop');
        $putOff = [];
        foreach ($open as $loop) {
            $row = $rows[$loop->key] ?? null;
            if ($row !== null) {
                $putOff[] = new PutOff(
                    $loop->key,
                    $loop->title,
                    $loop->count,
                    $row->until,
                    $row->reason,
                    trim("$row->given_name $row->family_name"),
                );
            }
        }

        return $putOff;
    }
}
