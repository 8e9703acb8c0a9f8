<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\School;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Mailroom\Board;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkState;

/** What there is to be read about children: of their sections and their schools. */
final class Boards
{
    /**
     * @param  list<string>  $children ids
     * @param  bool  $asGuardian whether what only guardians read is among it
     * @param  string  $language a tag: what the writer has given in it is read in it
     * @return array<string, Board> by child
     */
    public static function of(array $children, bool $asGuardian, string $language): array
    {
        $schools = DB::table('people')->whereIn('id', $children)->pluck('school_id', 'id');
        $boards = [];
        $from = CarbonImmutable::now('UTC')->subDays(Board::FRESH + 1);
        foreach (self::items($children, $asGuardian, $language, $from) as $child => $items) {
            $boards[$child] = Board::of($items, SchoolDay::today((string) $schools[$child]));
        }

        return $boards;
    }

    /**
     * All there is about each child that may be told of.
     *
     * @param  list<string>  $children ids
     * @param  CarbonImmutable  $from instant before which a notice is old
     * @return array<string, list<BoardItem>> by child
     */
    public static function items(array $children, bool $asGuardian, string $language, CarbonImmutable $from): array
    {
        $students = DB::table('people')
            ->whereIn('id', $children)
            ->get(['id', 'school_id']);
        $all = [];
        foreach ($students->groupBy('school_id') as $schoolId => $of) {
            $school = School::query()->findOrFail($schoolId);
            $today = SchoolDay::today($school->id);
            $ids = $of->pluck('id');
            $sections = DB::table('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->whereIn('e.person_id', $ids)
                ->where('e.role', 'student')
                ->where(SchoolDay::inForce('e', $today))
                ->where('s.state', 'open')
                ->get(['e.person_id', 's.id', 's.name'])
                ->groupBy('person_id');
            $rows = self::rows(
                $school->id,
                $sections->flatten(1)->pluck('id')->unique()->all(),
                $asGuardian,
                $today,
                $from,
            );
            $results = self::results($ids->all(), $rows->where('kind', 'work')->pluck('id')->all());
            foreach ($ids as $id) {
                /** @var Collection<string, string> $own */
                $own = ($sections[$id] ?? collect())->pluck('name', 'id');
                $all[(string) $id] = [];
                foreach ($rows as $row) {
                    if ($row->section_id === null || isset($own[$row->section_id])) {
                        $all[(string) $id][] = self::item(
                            $row,
                            (string) ($own[$row->section_id] ?? ''),
                            $results["$row->id $id"] ?? null,
                            $school,
                            $language,
                        );
                    }
                }
            }
        }

        return $all;
    }

    /**
     * @param  array<mixed>  $sections ids
     * @return Collection<int, stdClass>
     */
    private static function rows(
        string $schoolId,
        array $sections,
        bool $asGuardian,
        string $today,
        CarbonImmutable $from,
    ): Collection {
        return DB::table('notices')
            ->where('state', 'live')
            ->where(
                fn(Builder $q) => $q
                    ->whereIn('section_id', $sections)
                    ->orWhere(fn(Builder $all) => $all->where('school_id', $schoolId)->whereNull('section_id')),
            )
            ->when(!$asGuardian, fn(Builder $q) => $q->where('readers', 'all'))
            ->where(
                fn(Builder $q) => $q
                    ->where(
                        fn(Builder $n) => $n
                            ->where('kind', 'notice')
                            ->where('made_at', '>=', $from->format('Y-m-d H:i:s')),
                    )
                    ->orWhere(
                        fn(Builder $d) => $d
                            ->where('kind', '<>', 'notice')
                            ->where(
                                'on_day',
                                '>=',
                                CarbonImmutable::parse($today)->subDays(Board::BEHIND)->format('Y-m-d'),
                            ),
                    ),
            )
            ->orderBy('id')
            ->get();
    }

    /**
     * By the person a result is of now: those of merged accounts are the survivor’s.
     *
     * @param  array<mixed>  $students ids
     * @param  array<mixed>  $works ids
     * @return array<string, WorkState> by work and student
     */
    private static function results(array $students, array $works): array
    {
        $results = [];
        $rows = DB::table('work_results as r')
            ->join('people as p', 'p.id', '=', 'r.person_id')
            ->whereIn('r.notice_id', $works)
            ->where(fn(Builder $q) => $q->whereIn('p.id', $students)->orWhereIn('p.merged_into', $students))
            ->selectRaw('r.notice_id, coalesce(p.merged_into, p.id) as student, r.state')
            ->get();
        foreach ($rows as $row) {
            $key = "$row->notice_id $row->student";
            $state = WorkState::from((string) $row->state);
            $results[$key] = $state->with($results[$key] ?? null);
        }

        return $results;
    }

    private static function item(
        stdClass $row,
        string $section,
        ?WorkState $result,
        School $school,
        string $language,
    ): BoardItem {
        $text = ((array) json_decode((string) $row->texts, true))[$language] ?? null;

        return new BoardItem(
            (string) $row->id,
            NoticeKind::from((string) $row->kind),
            (string) ($text['title'] ?? $row->title),
            (string) ($text['body'] ?? $row->body),
            $section,
            (string) $row->on_day,
            CarbonImmutable::parse((string) $row->made_at, 'UTC')->setTimezone($school->time_zone)->format('Y-m-d'),
            (string) $row->made_at,
            $result,
        );
    }
}
