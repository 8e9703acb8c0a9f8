<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Accounts\PasswordAgain;
use App\Intake\Http\Wishes\AnswersWish;
use App\Intake\Http\Wishes\ApplyWish;
use App\Intake\Http\Wishes\DomainWish;
use App\Intake\Http\Wishes\ScopeWish;
use App\Intake\Http\Wishes\UploadWish;
use App\Intake\Jobs\ApplyIntake;
use App\Intake\Jobs\PlanIntake;
use App\Intake\ListFiles;
use App\Intake\NewIntakes;
use App\Intake\Views\IntakeDetail;
use App\Intake\Views\IntakeLine;
use App\Intake\Views\IntakeList;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\InstallationDomains;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Closure;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Vantrel\Core\Intake\Leavers;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\MailDomains;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;
use Vantrel\Core\Table\ReadingAnswers;

/** Lists from the upload to the ledger. */
final class IntakeController
{
    public function __construct(private readonly NewIntakes $lists) {}

    #[Answers(IntakeList::class, 'Lists brought in, newest first')]
    public function index(School $school): IntakeList
    {
        /** @var Collection<int, Intake> $intakes */
        $intakes = Intake::query()
            ->where('school_id', $school->id)
            ->where('state', '!=', 'discarded')
            ->orderByDesc('made_at')
            ->limit(100)
            ->get();

        return new IntakeList(
            array_values($intakes->map(IntakeLine::of(...))->all()),
            ListContents::MOST_STUDENTS,
            intdiv((int) config('vantrel.upload_bytes'), 1024 * 1024),
        );
    }

    #[Answers(IntakeDetail::class, 'Bring a list in: one or several files, or what was pasted')]
    #[Takes(UploadWish::class)]
    public function store(School $school, Request $request): IntakeDetail
    {
        $bytes = (int) config('vantrel.upload_bytes');
        $most = ['max:' . intdiv($bytes, 1024)];
        $mb = intdiv($bytes, 1024 * 1024);
        $none =
            "No list arrived, or it is larger than $mb MB. Split it, or save it without pictures, and drop it in " .
            'again.';
        $wish = Wishes::of(
            UploadWish::class,
            $request,
            ['file' => $most, 'files.*' => $most],
            [
                'file' => $none,
                'file.*' => $none,
                'files.*' => "Up to 10 files can be brought in together, each of up to $mb MB.",
            ],
        );
        $files = [];
        foreach ($wish->file === null ? $wish->files : [$wish->file] as $file) {
            $title = Str::limit(
                trim((string) preg_replace('/[\p{Cc}\/\\\\<>]+/u', ' ', mb_scrub($file->getClientOriginalName()))) ?:
                'List',
                150,
                '…',
            );
            $files[] = [(string) $file->getRealPath(), $title, $file];
        }
        if ($files === []) {
            $files[] = [self::pasted($wish), 'Pasted list', null];
        }
        // What cannot be read at all is refused here, before anything is kept or queued.
        try {
            $intake = $this->lists->begin($school, Person::signedIn($request), $files);
        } finally {
            // A paste was written out to be read like a file; the names in it do not stay in a temporary folder.
            foreach ($files as [$path, , $upload]) {
                if ($upload === null) {
                    @unlink($path);
                }
            }
        }

        return IntakeDetail::of(Intake::query()->findOrFail($intake->id));
    }

    /** What a spreadsheet put on the clipboard: its cells as a table if it gave one, else as text. */
    private static function pasted(UploadWish $wish): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'paste');
        file_put_contents($path, stripos($wish->html, '<table') !== false ? "<html>$wish->html" : $wish->text);

        return $path;
    }

    #[Answers(IntakeDetail::class, 'One list: layout, tallies, questions')]
    public function show(Intake $intake): IntakeDetail
    {
        return IntakeDetail::of($intake);
    }

    #[
        Answers(
            IntakeDetail::class,
            'Say whose whole list this is, or that it only adds; and confirm in words how many leave',
        ),
    ]
    #[Takes(ScopeWish::class)]
    public function everyone(Intake $intake, Request $request): IntakeDetail
    {
        $wish = Wishes::of(ScopeWish::class, $request);
        $scope = $wish->everyone;
        if ($scope !== null) {
            $read = Scope::read($scope);
            if (
                $read->sectionId !== null &&
                !Section::query()->where('id', $read->sectionId)->where('school_id', $intake->school_id)->exists()
            ) {
                throw new Refusal('This section is not one of the school’s. Choose one that is.');
            }
        }

        return $this->again($intake, function (Intake $intake) use ($scope, $wish): void {
            $intake->everyone = $scope !== null ? (string) Scope::read($scope) : null;
            $intake->confirmed = (string) $wish->words;
        });
    }

    #[Answers(IntakeDetail::class, 'Add a mail domain that most of the list uses to the school’s own')]
    #[Takes(DomainWish::class)]
    public function domain(
        Intake $intake,
        Request $request,
        Snapshots $snapshots,
        Ledger $ledger,
        InstallationDomains $domains,
    ): IntakeDetail {
        $wish = Wishes::of(DomainWish::class, $request);
        $domain = $wish->domain;
        if (!in_array($domain, $intake->summary['domains'] ?? [], true)) {
            throw new Refusal('Most of this list does not use that domain.');
        }
        $actor = Person::signedIn($request);
        $domains->mustBeOurs([$domain], $actor);
        $school =
            $snapshots->find(Records\School::class, $intake->school_id) ??
            throw new Refusal('The school is not there any more.');
        $ledger->apply(MailDomains::adding($school, $domain), $intake->school_id, $actor, Action::Settings);

        return $this->again($intake, function (): void {});
    }

    #[
        Answers(
            IntakeDetail::class,
            'Answer questions, name columns, keep cells as written; an empty answer takes one back',
        ),
    ]
    #[Takes(AnswersWish::class)]
    public function answers(Intake $intake, Request $request): IntakeDetail
    {
        $wish = Wishes::of(AnswersWish::class, $request);
        foreach ($wish->answers as $question => $choice) {
            if (is_string($choice) && !ReadingAnswers::allows((string) $question, $choice)) {
                throw ValidationException::withMessages(['answers' => "“{$choice}” is no answer to {$question}."]);
            }
        }

        return $this->again($intake, function (Intake $intake) use ($wish): void {
            $answers = $intake->answers;
            if (array_filter(array_keys($wish->answers), ReadingAnswers::ofShape(...)) !== []) {
                // The columns will be others: what was said of these would be read as said of those.
                $answers = array_filter(
                    $answers,
                    fn(string $key): bool => preg_match('/^(keep\.)?t\d+\./', $key) !== 1,
                    ARRAY_FILTER_USE_KEY,
                );
            }
            foreach ($wish->answers as $question => $choice) {
                if (is_string($choice) && $choice !== '') {
                    $answers[mb_substr((string) $question, 0, 40)] = $choice;
                } else {
                    unset($answers[$question]);
                }
            }
            $intake->answers = $answers;
        });
    }

    #[Answers(IntakeDetail::class, 'Apply the plan, as looked at')]
    #[Takes(ApplyWish::class)]
    public function apply(Intake $intake, Request $request, PasswordAgain $passwordAgain): IntakeDetail
    {
        $wish = Wishes::of(ApplyWish::class, $request);
        if ($intake->state === IntakeState::Applying) {
            throw new Refusal('This list is being applied already.');
        }
        if ($intake->state !== IntakeState::Planned) {
            throw new Refusal('There is no plan of this list to apply.');
        }
        if (!hash_equals((string) $intake->fingerprint, $wish->fingerprint)) {
            throw new StalePlan([$intake->title]);
        }
        $actor = Person::signedIn($request);
        if (Leavers::takePassword($intake->summary['leaving'] ?? 0)) {
            $passwordAgain->mustBe(
                $actor,
                (string) $wish->password,
                'People leave with this list, so it takes your password, and this is not it.',
                'password',
            );
        }
        DB::transaction(function () use ($intake, $actor): void {
            $changed = Intake::query()
                ->where('id', $intake->id)
                ->where('state', 'planned')
                ->where('round', $intake->round)
                ->update(['state' => 'applying', 'done' => 0, 'total' => 0, 'message' => null, 'changed_at' => now()]);
            if ($changed === 1) {
                ApplyIntake::dispatch($intake->id, $intake->round, (string) $intake->fingerprint, $actor->id);
            }
        });

        return IntakeDetail::of(Intake::query()->findOrFail($intake->id));
    }

    #[Answers(null, 'Throw a list away that was not applied')]
    public function destroy(Intake $intake): Response
    {
        // Under lock, and by the state as it is now: somebody may just have clicked "apply".
        DB::transaction(function () use ($intake): void {
            /** @var Intake $locked */
            $locked = Intake::query()->where('id', $intake->id)->lockForUpdate()->firstOrFail();
            match ($locked->state) {
                IntakeState::Applied => throw new Refusal('This list has been applied; undo it in the Ledger instead.'),
                IntakeState::Applying => throw new Refusal(
                    'This list is being applied. Wait until it is done, then undo it in the Ledger.',
                ),
                default => $locked
                    ->fill(['state' => 'discarded', 'round' => $locked->round + 1, 'changed_at' => now()])
                    ->save(),
            };
        });
        DB::table('import_rows')->where('import_id', $intake->id)->delete();
        foreach ($intake->files as ['file' => $file]) {
            ListFiles::remove($file);
        }

        return response()->noContent();
    }

    /**
     * Changes what was said of a list and plans it anew. Under lock: two answers given at once must both count.
     *
     * @param  Closure(Intake): void  $change
     */
    private function again(Intake $intake, Closure $change): IntakeDetail
    {
        return DB::transaction(function () use ($intake, $change): IntakeDetail {
            /** @var Intake $locked */
            $locked = Intake::query()->where('id', $intake->id)->lockForUpdate()->firstOrFail();
            if (!$locked->state->open()) {
                throw new Refusal("This list cannot be changed any more: it is {$locked->state->value}.");
            }
            $change($locked);
            $locked
                ->fill([
                    'state' => 'reading',
                    'round' => $locked->round + 1,
                    'fingerprint' => null,
                    'message' => null,
                    'changed_at' => now(),
                ])
                ->save();
            PlanIntake::dispatch($locked->id, $locked->round);

            return IntakeDetail::of($locked);
        });
    }
}
