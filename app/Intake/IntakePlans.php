<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\IntakeNeeds;
use App\Ledger\Snapshots;
use App\Models\ConfirmedAddresses;
use App\Models\Coordinators;
use App\Models\Intake;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Platform\Known;
use App\Platform\PlannerKit;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Intake\LineFolder;
use Vantrel\Core\Intake\MailDomains;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Intake\StaffLine;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Intake\WhoAnswer;
use Vantrel\Core\Matching\Linkage;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\UnreadableList;

/**
 * From the files of an intake, and what has been said about them, to the plan. The same every time nothing has changed.
 */
final class IntakePlans
{
    public function __construct(
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly KnownStudents $known,
        private readonly ColumnMemory $memory,
        private readonly SchoolWeights $weights,
    ) {}

    /**
     * @throws UnreadableList
     * @throws Refusal
     */
    public function plan(Intake $intake, ?string $today = null): PlannedIntake
    {
        return $this->planFiles(
            new FilesOfList(
                array_map(fn(array $f): array => [ListFiles::path($f['file']), $f['title']], $intake->files),
                School::query()->findOrFail($intake->school_id),
                $intake->title,
                $intake->id,
                $intake->round,
                $intake->answers,
                $intake->everyone,
                $intake->confirmed,
                $intake->actor_id,
                $today,
            ),
        );
    }

    /**
     * @throws UnreadableList
     * @throws Refusal
     */
    public function planFiles(FilesOfList $list): PlannedIntake
    {
        $school = $list->school;
        $year =
            SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->first() ??
            throw new Refusal("$school->name has no current school year. Make one first.");
        $today = $list->today ?? $this->kit->today($school);
        $answers = $list->answers;
        $facts = $this->facts($school);
        $names = $this->known->names();
        $book = $this->read($list->files, $facts, $names, $today, $answers, $school->id);
        if ($book->contents->rows() === 0) {
            throw new UnreadableList(
                'The list has a header and nobody below it. Open the file, check its first sheet, save it ' .
                    'and drop it in again.',
            );
        }
        $book->contents->mustBeHeld();
        // The students a list makes have the same ids whenever the same files come again; whatever else it writes has
        // new ones.
        $ids = $this->kit->ids(
            substr($list->seed, 0, 10) . strtoupper(substr(hash('sha256', "$list->seed|$list->round"), 0, 16)),
        );
        $scope = $list->everyone === null ? null : Scope::read($list->everyone);
        $folder = new LineFolder($book->contents->students);
        $people = $this->kit->ids(
            '01K3QZ0000' .
                strtoupper(
                    substr(
                        hash(
                            'sha256',
                            implode('|', [
                                $school->id,
                                ...array_map(fn(array $f): string => (string) hash_file('sha256', $f[0]), $list->files),
                            ]),
                        ),
                        0,
                        16,
                    ),
                ),
        );
        $own = IntakePlanner::own($folder, $people);
        $linkage = Matcher::link(
            IntakePlanner::subjects($folder, $school->id),
            $this->known->all($own),
            $this->weights->of($school->id),
        );
        $snapshot = $this->snapshots->forIntake($school->id, $this->needs($book, $linkage, $own, $answers, $scope));
        $wish = new IntakeWish(
            $list->title,
            $school->id,
            $year->id,
            $today,
            $answers,
            $facts,
            $scope,
            $list->confirmed,
            Coordinators::otherSchools($list->madeBy, $school->id),
            $list->madeBy,
            $school->user_names_from === 'preferred',
            ConfirmedAddresses::among(
                array_map(fn(StudentLine|StaffLine $line): string => $line->email, [
                    ...$book->contents->students,
                    ...$book->contents->staff,
                ]),
            ),
        );
        $plan = IntakePlanner::plan(
            $book->contents,
            $snapshot,
            $wish,
            $ids,
            $this->kit->userNames(),
            $linkage,
            $people,
        );

        return new PlannedIntake(
            $book,
            $plan,
            $answers,
            array_values(
                array_filter(
                    MailDomains::unknown($book->contents, $school->mail_domains),
                    fn(string $domain): bool => !Known::publicMail()->has($domain),
                ),
            ),
            $this->rosterOf($book, $school->id),
            $this->othersIn($snapshot, $wish),
        );
    }

    /**
     * @return list<string> other schools whose people the plan speaks of: who does not coordinate those does not see it
     */
    private function othersIn(Snapshot $snapshot, IntakeWish $wish): array
    {
        $schools = [];
        foreach ($snapshot->all(Records\Person::class) as $person) {
            if (
                $person->kind() === PersonKind::Student &&
                $person->schoolId() !== $wish->schoolId &&
                $wish->writes($person)
            ) {
                $schools[$person->schoolId()] = true;
            }
        }

        return array_map(strval(...), array_keys($schools));
    }

    /** The files of an intake as they are read, nobody in them looked for. */
    public function book(Intake $intake): BookReader
    {
        $school = School::query()->findOrFail($intake->school_id);
        $answers = $intake->answers;

        return $this->read(
            array_map(fn(array $f): array => [ListFiles::path($f['file']), $f['title']], $intake->files),
            $this->facts($school),
            $this->known->names(),
            $this->kit->today($school),
            $answers,
            $school->id,
        );
    }

    /** The files of a list that cannot be planned, as far as their cells can be read. */
    public function unread(Intake $intake): BookReader
    {
        $school = School::query()->findOrFail($intake->school_id);
        $sheets = [];
        foreach ($intake->files as $file) {
            try {
                array_push(
                    $sheets,
                    ...KeptSheets::of(ListFiles::path($file['file']), $file['title'], $school->name, $school->code),
                );
            } catch (UnreadableList) {
                // Nothing of this one can be shown.
            }
        }

        return BookReader::unread($sheets, new ReadingAnswers($intake->answers));
    }

    /** @return list<Subject> the rows as the matcher sees them, for estimating weights */
    public function subjects(Intake $intake): array
    {
        return IntakePlanner::subjects(new LineFolder($this->book($intake)->contents->students), $intake->school_id);
    }

    /**
     * @param  list<array{string, string}>  $files
     * @param  array<string, string>  $answers gains what is remembered of files of the same shape
     */
    private function read(
        array $files,
        SchoolFacts $facts,
        NameBook $names,
        string $today,
        array &$answers,
        string $schoolId,
    ): BookReader {
        $sheets = [];
        foreach ($files as [$path, $title]) {
            array_push($sheets, ...KeptSheets::of($path, $title, $facts->name, $facts->code));
        }
        $book = BookReader::read($sheets, new ReadingAnswers($answers), $facts, $names, $today);
        $remembered = $this->memory->recall($schoolId, $book, $answers);
        if ($remembered !== $answers) {
            $answers = $remembered;
            $book = BookReader::read($sheets, new ReadingAnswers($answers), $facts, $names, $today);
        }

        return $book;
    }

    private function rosterOf(BookReader $book, string $schoolId): ?string
    {
        $name = $book->contents->rosterOf();

        return $name === null
            ? null
            : Section::query()
                ->where('school_id', $schoolId)
                ->where('state', 'open')
                ->where('name', $name)
                ->value('id');
    }

    private function facts(School $school): SchoolFacts
    {
        $others = [];
        foreach (
            School::query()
                ->where('id', '!=', $school->id)
                ->get(['code', 'name'])
            as $other
        ) {
            $others[$other->code] = $others[$other->name] = $other->name;
        }

        return new SchoolFacts(
            $school->name,
            $school->code,
            $school->country,
            $school->lowest_grade,
            $school->highest_grade,
            $school->mail_domains,
            $others,
            SchoolFacts::usualWidth($this->known->numberWidths($school->id)),
        );
    }

    /**
     * @param  array<string, true>  $own
     * @param  array<string, string>  $answers
     */
    private function needs(BookReader $book, Linkage $linkage, array $own, array $answers, ?Scope $scope): IntakeNeeds
    {
        $students = array_fill_keys([...$linkage->people(), ...array_map(strval(...), array_keys($own))], true);
        foreach ($answers as $answer) {
            $named = WhoAnswer::read($answer)?->personId;
            if ($named !== null) {
                $students[$named] = true;
            }
        }
        $numbers = $emails = $phones = [];
        foreach ($book->contents->students as $line) {
            $this->named($line, $numbers, $emails, $phones);
            if ($line->account !== '') {
                $students[$line->account] = true;
            }
        }
        $texts = fn(array $set): array => array_values(
            array_filter(array_map(strval(...), array_keys($set)), fn(string $s): bool => $s !== ''),
        );

        return new IntakeNeeds(
            $texts($students),
            $texts($own),
            $texts($numbers),
            $texts($emails),
            $texts($phones),
            $book->contents->staff !== [] || $book->contents->sections !== [],
            $scope,
        );
    }

    /**
     * @param  array<string, true>  $numbers
     * @param  array<string, true>  $emails
     * @param  array<string, true>  $phones
     */
    private function named(StudentLine $line, array &$numbers, array &$emails, array &$phones): void
    {
        $numbers[$line->studentNumber] = true;
        array_map(function (GuardianLine $g) use (&$emails, &$phones): void {
            $emails[$g->email] = true;
            $phones[$g->phone] = true;
        }, $line->guardians);
    }
}
