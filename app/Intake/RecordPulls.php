<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Ledger;
use App\Ledger\Turns;
use App\Models\Intake;
use App\Models\Person;
use App\Models\RecordSource;
use App\Models\School;
use App\OneRoster\Client\RecordClient;
use Carbon\CarbonImmutable;
use Illuminate\Support\Str;
use RuntimeException;
use Vantrel\Core\OneRoster\Tables;
use Vantrel\Core\OneRoster\Values;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use ZipArchive;

/**
 * Pulls from a school's record: whole, what has changed, or one student. What comes is a list like any other, read,
 * matched and planned as such; with nobody looking it is applied only inside the limits that the school has set.
 */
final readonly class RecordPulls
{
    /** Clocks of two machines are never the same: asked for again is better than missed. */
    private const OVERLAP_MINUTES = 10;

    /** Not every program takes a longer address. */
    private const IDS_A_FILTER = 2;

    public function __construct(
        private NewIntakes $lists,
        private IntakePlans $planner,
        private Ledger $ledger,
        private NightlyReport $report,
    ) {}

    /** @throws Refusal where there is no record, or it cannot be asked */
    public static function source(School $school): RecordSource
    {
        return RecordSource::query()->find($school->id) ??
            throw new Refusal('No record is set up. Name its address in Settings first.');
    }

    /**
     * @param  string  $what whole, changes or one
     * @param  string  $number of the one student
     * @return array{Intake|null, string} the list it became, and what is to be said
     */
    public function pull(School $school, string $what, string $number, Person $actor): array
    {
        $source = self::source($school);
        $began = CarbonImmutable::now('UTC');
        [$records, $said] = $this->records($source, $what, $number);
        if ($records === null) {
            $this->note($source, $what, $began, $said);

            return [null, $said];
        }
        $path = $this->zip($records);
        try {
            $intake = $this->lists->begin($school, $actor, [[$path, self::title($what, $number, $began), null]]);
        } finally {
            @unlink($path);
        }
        $this->note($source, $what, $began, $said);

        return [$intake, $said];
    }

    /** As the scheduler does: what has changed, and nobody looks. */
    public function nightly(School $school): string
    {
        $source = self::source($school);
        $began = CarbonImmutable::now('UTC');
        [$records, $said] = $this->records($source, 'changes', '');
        if ($records === null) {
            $this->note($source, 'changes', $began, $said);

            return $said;
        }
        $path = $this->zip($records);
        $title = self::title('changes', '', $began);
        try {
            [$planned, $entry] = Turns::take(function () use ($school, $source, $path, $title): array {
                $planned = $this->planner->planFiles(
                    new FilesOfList([[$path, $title]], $school, $title, (string) Str::ulid()),
                );

                return [
                    $planned,
                    $planned->plan->isEmpty() || self::over($source, $planned) !== ''
                        ? null
                        : $this->ledger->apply($planned->plan, $school->id, null, Action::Intake),
                ];
            });
            $over = self::over($source, $planned);
            if ($over !== '') {
                $this->lists->begin($school, null, [[$path, $title, null]]);
            }
        } finally {
            @unlink($path);
        }
        if ($entry !== null || $over !== '') {
            $this->report->send($school, $title, $over, $planned, $entry);
        }
        $said = trim("$said " . ($over !== '' ? $over : $planned->plan->sentence));
        $this->note($source, 'changes', $began, $said);

        return $said;
    }

    private static function over(RecordSource $source, PlannedIntake $planned): string
    {
        $count = fn(Verdict $v): int => count(
            array_filter($planned->plan->rows, fn(PlanRow $r): bool => $r->verdict === $v),
        );
        [$new, $changed] = [$count(Verdict::New), $count(Verdict::Update)];

        return $new > $source->most_new || $changed > $source->most_changed
            ? "$new new and $changed changed are more than a night may bring ($source->most_new and " .
                    "$source->most_changed). The list waits in Intake until somebody has looked."
            : '';
    }

    /**
     * @return array{array<string, list<array<string, mixed>>>|null, string} null where there is nothing to bring in
     */
    private function records(RecordSource $source, string $what, string $number): array
    {
        $client = new RecordClient($source);
        if ($what === 'one') {
            return [$this->one($client, $number), ''];
        }
        if ($what === 'whole' || $source->pulled_at === null) {
            return [$this->whole($client), ''];
        }
        $since = CarbonImmutable::parse($source->pulled_at, 'UTC')->subMinutes(self::OVERLAP_MINUTES);
        $filter = "dateLastModified>='" . $since->format('Y-m-d\TH:i:s.v\Z') . "'";
        $touched = [];
        $gone = 0;
        foreach ($client->all('users', $filter) as $user) {
            $touched[Values::of($user, 'sourcedId')[0] ?? ''] = true;
            $gone +=
                (int) (($user['status'] ?? '') === 'tobedeleted' &&
                    in_array('student', Values::of($user, 'roles.role'), true));
            foreach (Values::of($user, 'agents.sourcedId') as $agent) {
                $touched[$agent] = true;
            }
        }
        foreach ($client->all('enrollments', $filter) as $enrollment) {
            $touched[Values::of($enrollment, 'user.sourcedId')[0] ?? ''] = true;
        }
        foreach ($client->all('demographics', $filter) as $birth) {
            $touched[Values::of($birth, 'sourcedId')[0] ?? ''] = true;
        }
        $said =
            $gone === 0
                ? ''
                : Words::count($gone, 'student is', 'students are') .
                    ' marked as gone in the record. Bring in the whole record as “this is everyone” to see them off.';
        $records = $touched === [] ? [] : $this->whole($client);
        $records['users'] = array_values(
            array_filter($records['users'] ?? [], function (array $user) use ($touched): bool {
                $isFamily = array_intersect(Values::of($user, 'roles.role'), ['guardian', 'parent', 'relative']) !== [];

                return $isFamily || isset($touched[Values::of($user, 'sourcedId')[0] ?? '']);
            }),
        );
        $people = array_filter(
            $records['users'],
            fn(array $u): bool => ($u['status'] ?? '') !== 'tobedeleted' &&
                array_intersect(Values::of($u, 'roles.role'), ['guardian', 'parent', 'relative']) === [],
        );
        if ($people === []) {
            return [null, trim("Nothing has changed since the last pull. $said")];
        }

        return [$records, $said];
    }

    /** @return array<string, list<array<string, mixed>>> */
    private function whole(RecordClient $client): array
    {
        $records = [];
        foreach (['orgs', 'classes', 'users', 'enrollments', 'demographics'] as $collection) {
            $records[$collection] = $client->all($collection);
        }

        return $records;
    }

    /** @return array<string, list<array<string, mixed>>> of one student: who joined after the last pull */
    private function one(RecordClient $client, string $number): array
    {
        if (trim($number) === '') {
            throw new Refusal('Type the student’s number.', 'number');
        }
        $quoted = self::quoted(trim($number));
        $students = $client->all('users', "identifier=$quoted AND roles.role='student'");
        if ($students === []) {
            throw new Refusal("The school’s record has no student with the number “{$number}”.", 'number');
        }
        $agents = $enrollments = $births = $classes = [];
        foreach ($students as $student) {
            $id = self::quoted(Values::of($student, 'sourcedId')[0] ?? '');
            array_push($agents, ...$this->named($client, 'users', Values::of($student, 'agents.sourcedId')));
            array_push($enrollments, ...$client->all('enrollments', "user.sourcedId=$id"));
            array_push($births, ...$client->all('demographics', "sourcedId=$id"));
        }
        foreach ($enrollments as $enrollment) {
            array_push($classes, ...Values::of($enrollment, 'class.sourcedId'));
        }

        return [
            'orgs' => $client->all('orgs'),
            'classes' => $this->named($client, 'classes', $classes),
            'users' => [...$students, ...$agents],
            'enrollments' => $enrollments,
            'demographics' => $births,
        ];
    }

    /**
     * @param  list<string>  $ids
     * @return list<array<string, mixed>>
     */
    private function named(RecordClient $client, string $collection, array $ids): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($ids)), self::IDS_A_FILTER) as $some) {
            $filter = implode(' OR ', array_map(fn(string $id): string => 'sourcedId=' . self::quoted($id), $some));
            array_push($found, ...$client->all($collection, $filter));
        }

        return $found;
    }

    /** @param  array<string, list<array<string, mixed>>>  $records */
    private function zip(array $records): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'record');
        $zip = new ZipArchive();
        if ($zip->open($path, ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException("$path cannot be written.");
        }
        foreach (Tables::of($records) as $table => $rows) {
            $out = fopen('php://temp', 'w+') ?: throw new RuntimeException('There is no memory for a table.');
            foreach ($rows as $row) {
                fputcsv($out, $row, ',', '"', '');
            }
            $zip->addFromString("$table.csv", (string) stream_get_contents($out, -1, 0));
        }
        $zip->close();

        return $path;
    }

    private function note(RecordSource $source, string $what, CarbonImmutable $began, string $said): void
    {
        $at = $began->format('Y-m-d H:i:s.v');
        $source->update([
            'said' => $said === '' ? null : mb_strimwidth($said, 0, 500, '…'),
            ...$what === 'one' ? [] : ['pulled_at' => $at],
            ...$what === 'whole' || ($what === 'changes' && $source->pulled_at === null)
                ? ['pulled_whole_at' => $at]
                : [],
        ]);
    }

    private static function title(string $what, string $number, CarbonImmutable $at): string
    {
        return match ($what) {
            'one' => "From the school’s record: number $number",
            'whole' => 'The school’s record, whole, ' . $at->format('Y-m-d H:i'),
            default => 'The school’s record, changes, ' . $at->format('Y-m-d H:i'),
        };
    }

    private static function quoted(string $text): string
    {
        return "'" . str_replace("'", "''", $text) . "'";
    }
}
