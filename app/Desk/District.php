<?php

declare(strict_types=1);

namespace App\Desk;

use App\Desk\Views\DistrictCount;
use App\Desk\Views\DistrictDesk;
use App\Desk\Views\DistrictLoop;
use App\Desk\Views\DistrictNews;
use App\Desk\Views\DistrictSchool;
use App\LookAlikes\Kept;
use App\Models\Realm;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\SchoolDay;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\PersonKind;

/** Several schools as one: what waits at each, and what others have done there. */
final class District
{
    public function __construct(
        private readonly Loops $loops,
        private readonly WhatChanged $changed,
        private readonly Kept $kept,
    ) {}

    public function desk(Realm $realm, string $reader): DistrictDesk
    {
        $schools = School::query()->whereIn('id', $realm->ids)->orderBy('name')->get();
        [$news, $more] = $this->news($realm, $reader);

        return new DistrictDesk(
            $this->schools($schools),
            $this->waiting($schools),
            $this->kept->across($realm),
            $news,
            $more,
        );
    }

    /**
     * @param  Collection<int, School>  $schools
     * @return list<DistrictSchool>
     */
    private function schools(Collection $schools): array
    {
        $ids = $schools->pluck('id');
        $years = SchoolYear::query()->whereIn('school_id', $ids)->where('state', 'current')->pluck('name', 'school_id');
        // Kind by kind, so that each count is a range of an index for each school.
        $people = fn(PersonKind $kind) => DB::table('people')
            ->whereIn('school_id', $ids)
            ->where('kind', $kind)
            ->where('state', 'active')
            ->groupBy('school_id')
            ->selectRaw('school_id, count(*) n')
            ->pluck('n', 'school_id');
        [$students, $staff] = [$people(PersonKind::Student), $people(PersonKind::Staff)];
        $sections = DB::table('sections')
            ->whereIn('school_id', $ids)
            ->where('state', 'open')
            ->groupBy('school_id')
            ->selectRaw('school_id, count(*) n')
            ->pluck('n', 'school_id');

        return array_values(
            $schools
                ->map(
                    fn(School $s): DistrictSchool => new DistrictSchool(
                        $s->id,
                        $s->code,
                        $s->name,
                        (string) ($years[$s->id] ?? ''),
                        (int) ($students[$s->id] ?? 0),
                        (int) ($staff[$s->id] ?? 0),
                        (int) ($sections[$s->id] ?? 0),
                    ),
                )
                ->all(),
        );
    }

    /**
     * @param  Collection<int, School>  $schools
     * @return list<DistrictLoop> those of which something waits somewhere
     */
    private function waiting(Collection $schools): array
    {
        $off = [];
        foreach (DB::table('desk_put_off')->whereIn('school_id', $schools->pluck('id'))->get() as $row) {
            if ($row->until > SchoolDay::today($row->school_id)) {
                $off["$row->school_id $row->loop"] = true;
            }
        }
        $at = [];
        foreach ($schools as $school) {
            foreach ($this->loops->of($school) as $loop) {
                // In the order of the work, whether something waits or not.
                $at[$loop->key] ??= [];
                if ($loop->count > 0 && !isset($off["$school->id $loop->key"])) {
                    $at[$loop->key][] = new DistrictCount($school->id, $loop->count, $loop->since, $loop->path);
                }
            }
        }
        $loops = [];
        foreach (array_filter($at) as $key => $counts) {
            $total = array_sum(array_map(fn(DistrictCount $c): int => $c->count, $counts));
            $of = Loops::loop($key, $total, null);
            $loops[] = new DistrictLoop($key, $of->title, $of->detail, $total, $counts);
        }

        return $loops;
    }

    /** @return array{list<DistrictNews>, int} newest first, and how many more there are */
    private function news(Realm $realm, string $reader): array
    {
        $all = $seen = [];
        $more = 0;
        foreach ($realm->ids as $school) {
            $news = $this->changed->news($school, $reader);
            $more += $news->more;
            foreach ($news->lines as $line) {
                // An entry of several schools is news once.
                if (!isset($seen[$line->entryId])) {
                    $seen[$line->entryId] = true;
                    $all[] = new DistrictNews($school, $line);
                }
            }
        }
        usort($all, fn(DistrictNews $a, DistrictNews $b): int => $b->line->at <=> $a->line->at);

        return [array_slice($all, 0, WhatChanged::LINES), $more + max(0, count($all) - WhatChanged::LINES)];
    }
}
