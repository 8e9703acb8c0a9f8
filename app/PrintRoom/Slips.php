<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\PrintRoom\Views\SlipLine;
use App\PrintRoom\Views\SlipList;
use App\PrintRoom\Views\TickedSlip;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterIssue;
use Vantrel\Core\Records\FamilyLetter;

/** The slips of family letters: which are out, and the ticking off of those that come back. */
final readonly class Slips
{
    public function __construct(private Ledger $ledger, private Snapshots $snapshots, private PlannerKit $kit) {}

    public function list(School $school): SlipList
    {
        $today = SchoolDay::today($school->id);
        $students = [];
        $back = 0;
        foreach (
            DB::table('family_letters as l')
                ->join('people as p', 'p.id', '=', 'l.student_id')
                ->where('p.school_id', $school->id)
                ->whereIn('p.state', ['active', 'reserve'])
                ->groupBy('p.id', 'p.called_name', 'p.family_name', 'p.given_name')
                ->orderByRaw('max(l.returned_at) is not null')
                ->orderBy('p.family_name')
                ->orderBy('p.given_name')
                ->orderBy('p.id')
                ->select(['p.id', 'p.called_name', 'p.family_name'])
                ->selectRaw('max(l.made_at) made, max(l.returned_at) returned, max(l.language) language')
                ->selectSub(
                    DB::table('enrollments as e')
                        ->join('sections as s', 's.id', '=', 'e.section_id')
                        ->whereColumn('e.person_id', 'p.id')
                        ->where('e.role', 'student')
                        ->where('s.school_id', $school->id)
                        ->where(SchoolDay::inForce('e', $today))
                        ->selectRaw("group_concat(s.name order by s.kind, s.name separator ', ')"),
                    'sections',
                )
                ->get()
            as $row
        ) {
            $returned = $row->returned === null ? null : (string) $row->returned;
            $back += $returned === null ? 0 : 1;
            $students[] = new SlipLine(
                (string) $row->id,
                (new PersonName((string) $row->called_name, (string) $row->family_name))->full(),
                (string) $row->sections,
                (string) $row->language,
                substr((string) $row->made, 0, 10),
                Instant::isoOrNull($returned),
            );
        }

        return new SlipList($students, count($students) - $back, $back);
    }

    /**
     * @param  string  $typed or scanned
     *
     * @throws Refusal saying what is wrong with it
     */
    public function tickOff(School $school, string $typed, Person $actor): TickedSlip
    {
        try {
            $slip = CodeSymbols::parse($typed);
        } catch (MalformedCode $e) {
            throw new Refusal("“{$typed}” is not the code of a slip. Check the letters below its square.", 'slip');
        }
        if (strlen($slip->symbols) > LetterIssue::SLIP + 1) {
            throw new Refusal('That is the family code. The slip has a shorter one, below its square.', 'slip');
        }
        $letter =
            $this->snapshots->list(
                FamilyLetter::class,
                fn($q) => $q
                    ->where('slip', $slip->symbols)
                    ->whereIn(
                        'student_id',
                        fn($p) => $p->select('id')->from('people')->where('school_id', $school->id),
                    ),
            )[0] ?? throw new Refusal('There is no slip with this code at this school.', 'slip');
        $student = DB::table('people')
            ->where('id', $letter->studentId())
            ->firstOrFail(['called_name', 'family_name']);
        $name = (new PersonName((string) $student->called_name, (string) $student->family_name))->full();
        $entry = $this->ledger->apply(
            LetterIssue::returned($letter, $name, $this->kit->now()),
            $school->id,
            $actor,
            Action::Slip,
        );

        return new TickedSlip($name, $entry->seq);
    }
}
