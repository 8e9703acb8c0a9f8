<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Jobs\PullRecord;
use App\Ledger\Ledger;
use App\Ledger\Turns;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Models\Person;
use App\Models\RecordSource;
use App\Models\School;
use App\OneRoster\Client\RecordClient;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use RuntimeException;
use Vantrel\Core\Intake\NightLimits;
use Vantrel\Core\OneRoster\Changes;
use Vantrel\Core\OneRoster\Tables;
use Vantrel\Core\OneRoster\Values;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
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

    /** What has not come by then, with every try of its job, does not come. */
    private const GIVEN_UP_MINUTES = 20;

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
     * Has a record asked in the background.
     *
     * @param  string  $what whole or changes
     *
     * @throws Refusal where it is being asked
     */
    public function ask(School $school, string $what, Person $actor): void
    {
        self::source($school);
        DB::transaction(function () use ($school, $what, $actor): void {
            $now = CarbonImmutable::now('UTC');
            $free = RecordSource::query()
                ->where('school_id', $school->id)
                ->where(
                    fn(Builder $q): Builder => $q
                        ->whereNull('asking')
                        ->orWhere('asking_since', '<', $now->subMinutes(self::GIVEN_UP_MINUTES)),
                )
                ->update(['asking' => $what, 'asking_since' => $now, 'said' => null]);
            if ($free !== 1) {
                throw new Refusal('The record is being asked already. What comes of it stands here in a moment.');
            }
            PullRecord::dispatch($school->id, $what, $actor->id);
        });
    }

    /** What a record is being asked for, '' where it is not. */
    public static function asking(?RecordSource $source): string
    {
        $since = CarbonImmutable::now('UTC')->subMinutes(self::GIVEN_UP_MINUTES)->format('Y-m-d H:i:s');

        return $source?->asking_since !== null && $source->asking_since > $since ? (string) $source->asking : '';
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
        $path = $records === null ? null : $this->zip($records);
        try {
            // Together: a kill in between would bring the same list twice.
            $intake = DB::transaction(function () use ($school, $source, $what, $number, $actor, $began, $said, $path) {
                $intake =
                    $path === null
                        ? null
                        : $this->lists->begin($school, $actor, [[$path, self::title($what, $number, $began), null]]);
                $this->note($source, $what, $began, $said, $intake);

                return $intake;
            });
        } finally {
            if ($path !== null) {
                @unlink($path);
            }
        }

        return [$intake, $said];
    }

    /** As the scheduler does: what has changed, and nobody looks. */
    public function nightly(School $school): string
    {
        $source = self::source($school);
        if (self::asking($source) !== '') {
            return 'The record is being asked by hand.';
        }
        if (self::waits($source)) {
            return 'The last list of the record still waits in Intake. It is asked again once that is applied or ' .
                'discarded.';
        }
        $began = CarbonImmutable::now('UTC');
        [$records, $said] = $this->records($source, 'changes', '');
        $left = null;
        if ($records !== null) {
            $path = $this->zip($records);
            try {
                [$did, $left] = $this->apply($school, $source, $path, self::title('changes', '', $began));
                $said = trim("$said $did");
            } finally {
                @unlink($path);
            }
        }
        $this->note($source, 'changes', $began, $said, $left);

        return $said;
    }

    /** @return array{string, Intake|null} what was done, and the list where all of it waits for a person */
    private function apply(School $school, RecordSource $source, string $path, string $title): array
    {
        $limits = new NightLimits($source->most_new, $source->most_changed);
        [$planned, $entry] = Turns::take(function () use ($school, $limits, $path, $title): array {
            $planned = $this->planner->planFiles(
                new FilesOfList([[$path, $title]], $school, $title, (string) Str::ulid()),
            );

            return [
                $planned,
                $planned->plan->isEmpty() || $limits->exceeded($planned->plan) !== ''
                    ? null
                    : $this->ledger->apply($planned->plan, $school->id, null, Action::Intake),
            ];
        });
        $over = $limits->exceeded($planned->plan);
        // What needs a person is not asked for again by itself: it waits where a person finds it.
        $left =
            $over !== '' || NightLimits::leaves($planned->plan)
                ? $this->lists->begin($school, null, [[$path, $title, null]])
                : null;
        if ($entry !== null || $left !== null) {
            $this->report->send($school, $title, $over, $planned, $entry);
        }

        return $over !== '' ? [$over, $left] : [$planned->plan->sentence, null];
    }

    /**
     * Since when changes are asked for: what came the last time counts once it has been applied.
     *
     * @return string|null null where everything has to be asked for
     */
    private static function since(RecordSource $source): ?string
    {
        return $source->list_id === null || self::state($source) === IntakeState::Applied
            ? $source->pulled_at
            : $source->settled_at;
    }

    private static function waits(RecordSource $source): bool
    {
        return in_array(
            self::state($source),
            [IntakeState::Reading, IntakeState::Planned, IntakeState::Applying],
            true,
        );
    }

    private static function state(RecordSource $source): ?IntakeState
    {
        return $source->list_id === null ? null : Intake::query()->find($source->list_id)?->state;
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
        $since = self::since($source);
        if ($what === 'whole' || $since === null) {
            return [$this->whole($client), ''];
        }
        $from = CarbonImmutable::parse($since, 'UTC')->subMinutes(self::OVERLAP_MINUTES);
        $filter = "dateLastModified>='" . $from->format('Y-m-d\TH:i:s.v\Z') . "'";
        $changes = Changes::of(
            $client->all('users', $filter),
            $client->all('enrollments', $filter),
            $client->all('demographics', $filter),
        );
        $said =
            $changes->gone === 0
                ? ''
                : Words::count($changes->gone, 'student is', 'students are') .
                    ' marked as gone in the record. Bring in the whole record as “this is everyone” to see them off.';
        $records = $changes->people === [] ? [] : $this->whole($client);
        $people = $changes->among($records['users'] ?? []);

        return $people === null
            ? [null, trim("Nothing has changed since the last pull. $said")]
            : [[...$records, 'users' => $people], $said];
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
        $students = $client->students(trim($number));
        $agents = $enrollments = $births = $classes = [];
        foreach ($students as $student) {
            $id = RecordClient::quoted(Values::of($student, 'sourcedId')[0] ?? '');
            array_push($agents, ...$client->named('users', Values::of($student, 'agents.sourcedId')));
            array_push($enrollments, ...$client->all('enrollments', "user.sourcedId=$id"));
            array_push($births, ...$client->all('demographics', "sourcedId=$id"));
        }
        foreach ($enrollments as $enrollment) {
            array_push($classes, ...Values::of($enrollment, 'class.sourcedId'));
        }

        return [
            'orgs' => $client->all('orgs'),
            'classes' => $client->named('classes', $classes),
            'users' => [...$students, ...$agents],
            'enrollments' => $enrollments,
            'demographics' => $births,
        ];
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

    private function note(RecordSource $source, string $what, CarbonImmutable $began, string $said, ?Intake $list): void
    {
        $at = $began->format('Y-m-d H:i:s.v');
        $source->update([
            'said' => $said === '' ? null : mb_strimwidth($said, 0, 500, '…'),
            ...$what === 'one'
                ? []
                : [
                    'settled_at' => self::since($source),
                    'pulled_at' => $at,
                    'list_id' => $list?->id,
                    'asking' => null,
                    'asking_since' => null,
                ],
            ...$what !== 'one' && ($what === 'whole' || self::since($source) === null)
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
}
