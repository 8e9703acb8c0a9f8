<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Files\Packed;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Mailroom\FromGradebook;
use Vantrel\Core\OneRoster\Gradebook;
use Vantrel\Core\OneRoster\KnownUser;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\UnreadableList;

/** Work and results of a gradebook, for one section or all of a school. */
final readonly class GradebookDesk
{
    private const TABLES = ['lineitems', 'results', 'classes', 'users'];

    private const CHUNK = 1000;

    public function __construct(private Ledger $ledger, private Snapshots $snapshots, private PlannerKit $kit) {}

    /**
     * @param  list<UploadedFile>  $files a zip, or the tables by themselves
     * @param  Section|null  $only where only one section’s work is meant
     *
     * @throws UnreadableList
     */
    public function plan(School $school, ?Section $only, array $files, Person $by, string $seed): Plan
    {
        $book = Gradebook::read($this->tables($files), $school->time_zone);
        $names = $this->open($school);
        $sections = $book->sections($names, $only?->id);
        $works = $this->snapshots->list(
            Notice::class,
            fn(Builder $q): Builder => $q->whereIn('section_id', $sections)->whereNotNull('source_key')->orderBy('id'),
        );
        $ids = $this->kit->ids($seed);

        return FromGradebook::plan(
            $book,
            $sections,
            $names,
            $book->students($this->known($school, $book)),
            $this->in($school, array_values($sections)),
            $works,
            $this->snapshots->list(
                WorkResult::class,
                fn(Builder $q): Builder => $q->whereIn('notice_id', array_map(fn(Notice $n): string => $n->id, $works)),
            ),
            $school->id,
            $by->id,
            new Occasion($ids, SchoolDay::at($school->id, $ids->instant()), $ids->instant()),
        );
    }

    /** @param  list<UploadedFile>  $files the same as were looked at */
    public function apply(School $school, ?Section $only, array $files, Person $by, AsSeen $seen): string
    {
        $plan = $this->plan($school, $only, $files, $by, $this->kit->fresh($seen->seed));
        $seen->mustBe($plan, 'the work here, or the file');
        $this->ledger->apply($plan, $school->id, $by, Action::Notice);

        return $plan->sentence;
    }

    /**
     * @param  list<UploadedFile>  $files
     * @return array<string, iterable<Line>>
     */
    private function tables(array $files): array
    {
        $tables = [];
        foreach ($files as $file) {
            $path = (string) $file->getRealPath();
            if (str_starts_with((string) file_get_contents($path, length: 4), "PK\x03\x04")) {
                $tables += Packed::tables($path, (int) $file->getSize(), self::TABLES);
                continue;
            }
            $name = strtolower($file->getClientOriginalName());
            foreach (self::TABLES as $table) {
                // As browsers keep a second copy: "lineItems (1).csv".
                if (preg_match('/^' . $table . '\b[^.]*\.csv$/', $name) === 1) {
                    $tables[$table] = DelimitedText::lines(
                        Lettering::read((string) file_get_contents($path))->text,
                        ',',
                    );
                }
            }
        }

        return $tables;
    }

    /** @return array<string, string> names by id */
    private function open(School $school): array
    {
        return DB::table('sections as s')
            ->join('school_years as y', 'y.id', '=', 's.school_year_id')
            ->where('s.school_id', $school->id)
            ->where('s.state', 'open')
            ->where('y.state', 'current')
            ->pluck('s.name', 's.id')
            ->map(strval(...))
            ->all();
    }

    /** @return list<KnownUser> students of the school whom the gradebook may mean */
    private function known(School $school, Gradebook $book): array
    {
        $known = [];
        foreach (array_chunk($book->keys(), self::CHUNK) as $keys) {
            $rows = DB::table('people as p')
                ->leftJoin('sign_ins as i', 'i.person_id', '=', 'p.id')
                ->where('p.school_id', $school->id)
                ->where('p.kind', 'student')
                ->where(
                    fn(Builder $q) => $q
                        ->whereIn('p.id', $keys)
                        ->orWhereIn('p.number', $keys)
                        ->orWhereIn('i.user_name', $keys),
                )
                ->get(['p.id', 'p.number', 'i.user_name', DB::raw('coalesce(p.merged_into, p.id) as now')]);
            foreach ($rows as $row) {
                $known[] = new KnownUser($row->id, $row->number, $row->user_name, $row->now);
            }
        }

        return $known;
    }

    /**
     * @param  list<string>  $sections ids
     * @return array<string, list<string>> ids of students who are in it today, by section
     */
    private function in(School $school, array $sections): array
    {
        $in = [];
        $rows = DB::table('enrollments as e')
            ->whereIn('e.section_id', $sections)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
            ->orderBy('e.person_id')
            ->get(['e.section_id', 'e.person_id']);
        foreach ($rows as $row) {
            $in[(string) $row->section_id][] = (string) $row->person_id;
        }

        return $in;
    }
}
