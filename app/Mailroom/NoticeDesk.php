<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Views\NoticeLine;
use App\Mailroom\Views\NoticePage;
use App\Mailroom\Views\WorkLine;
use App\Mailroom\Views\WorkSheet;
use App\Models\Person as PersonModel;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Mailroom\Notices;
use Vantrel\Core\Mailroom\NoticeWish;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Records\WorkState;

/** Notices of a section or a school, as their writers work with them. */
final readonly class NoticeDesk
{
    private const MOST = 200;

    public function __construct(private Ledger $ledger, private Snapshots $snapshots, private PlannerKit $kit) {}

    /** @param  string|null  $sectionId null for those of the whole school */
    public function page(string $schoolId, ?string $sectionId, string $said = ''): NoticePage
    {
        $rows = DB::table('notices as n')
            ->leftJoin('people as p', 'p.id', '=', 'n.made_by')
            ->where('n.school_id', $schoolId)
            ->where('n.section_id', $sectionId)
            ->where('n.state', 'live')
            ->orderByDesc('n.made_at')
            ->orderByDesc('n.id')
            ->limit(self::MOST)
            ->get(['n.*', 'p.given_name', 'p.family_name']);
        $count = fn(string $table, callable $also): Collection => DB::table($table)
            ->whereIn('notice_id', $rows->pluck('id'))
            ->when(true, $also)
            ->groupBy('notice_id')
            ->selectRaw('notice_id, count(*) n')
            ->pluck('n', 'notice_id');
        $seen = $count('notice_seen', fn(Builder $q) => $q);
        $missing = $count('work_results', fn(Builder $q) => $q->where('state', WorkState::Missing->value));

        return new NoticePage(
            array_values(
                $rows
                    ->map(
                        fn(stdClass $n): NoticeLine => self::line(
                            $n,
                            (int) ($seen[$n->id] ?? 0),
                            (int) ($missing[$n->id] ?? 0),
                        ),
                    )
                    ->all(),
            ),
            $said,
        );
    }

    public function publish(NoticeWish $wish, string $schoolId, ?string $sectionId, PersonModel $actor): string
    {
        return $this->apply(
            Notices::publish($wish, $schoolId, $sectionId, $actor->id, $this->kit->occasion($schoolId)),
            $schoolId,
            $actor,
        );
    }

    /** @param  int  $seen version of it that was looked at */
    public function change(Notice $notice, NoticeWish $wish, int $seen, PersonModel $actor): string
    {
        $plan = Notices::change($notice, $wish, $seen, $this->kit->occasion($notice->schoolId()));

        return $this->apply($plan, $notice->schoolId(), $actor);
    }

    public function withdraw(Notice $notice, PersonModel $actor): string
    {
        return $this->apply(Notices::withdraw($notice), $notice->schoolId(), $actor);
    }

    public function work(Notice $work): WorkSheet
    {
        $students = $this->students($work);
        $states = DB::table('work_results')->where('notice_id', $work->id)->pluck('state', 'person_id');

        return new WorkSheet(
            $work->title(),
            array_values(
                $students
                    ->map(
                        fn(string $name, string $id): WorkLine => new WorkLine(
                            $id,
                            $name,
                            WorkState::tryFrom((string) ($states[$id] ?? '')),
                        ),
                    )
                    ->all(),
            ),
        );
    }

    /** @param  array<string, string>  $states by student; of others than the section’s nothing is kept */
    public function goThrough(Notice $work, array $states, PersonModel $actor): string
    {
        $own = array_intersect_key($states, $this->students($work)->all());

        return $this->apply(
            Notices::goThrough(
                $work,
                array_map(WorkState::from(...), $own),
                $this->snapshots->list(WorkResult::class, fn($q) => $q->where('notice_id', $work->id)),
                $this->kit->occasion($work->schoolId()),
            ),
            $work->schoolId(),
            $actor,
        );
    }

    /** @return list<string> names of those who have seen it */
    public function readers(Notice $notice): array
    {
        return array_values(
            DB::table('notice_seen as s')
                ->join('people as p', 'p.id', '=', 's.person_id')
                ->where('s.notice_id', $notice->id)
                ->where('p.state', 'active')
                ->orderBy('p.called_name')
                ->orderBy('p.family_name')
                ->limit(1000)
                ->selectRaw("TRIM(CONCAT(p.called_name, ' ', p.family_name)) n")
                ->pluck('n')
                ->map(strval(...))
                ->all(),
        );
    }

    /**
     * A live notice of that place: of another section or school there is none.
     *
     * @throws NotFoundHttpException
     */
    public function find(string $id, string $schoolId, ?string $sectionId): Notice
    {
        $notice = $this->snapshots->find(Notice::class, $id);
        if ($notice === null || $notice->schoolId() !== $schoolId || $notice->sectionId() !== $sectionId) {
            throw new NotFoundHttpException();
        }

        return $notice;
    }

    private function apply(Plan $plan, string $schoolId, PersonModel $actor): string
    {
        $this->ledger->apply($plan, $schoolId, $actor, Action::Notice);

        return $plan->sentence;
    }

    /** @return Collection<string, string> name by id, of the section now */
    private function students(Notice $work): Collection
    {
        /** @var Collection<string, string> */
        return DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $work->sectionId())
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($work->schoolId())))
            ->whereIn('p.state', ['active', 'reserve'])
            ->orderBy('p.called_name')
            ->orderBy('p.family_name')
            ->selectRaw("p.id, TRIM(CONCAT(p.called_name, ' ', p.family_name)) n")
            ->pluck('n', 'id');
    }

    private static function line(stdClass $row, int $seen, int $missing): NoticeLine
    {
        $texts = (array) json_decode((string) $row->texts, true);

        return new NoticeLine(
            (string) $row->id,
            NoticeKind::from((string) $row->kind),
            (string) $row->title,
            (string) $row->body,
            (string) $row->on_day,
            $row->readers === 'guardians',
            array_map(fn(array $t): string => (string) $t['title'], $texts),
            array_map(fn(array $t): string => (string) $t['body'], $texts),
            trim("$row->given_name $row->family_name"),
            Instant::iso((string) $row->made_at),
            $seen,
            $row->gone_through_at !== null,
            $missing,
            (int) $row->version,
        );
    }
}
