<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Accounts\PasswordAgain;
use App\Intake\Files\ListFile;
use App\Intake\Http\Wishes\AnswersWish;
use App\Intake\Http\Wishes\ApplyWish;
use App\Intake\Http\Wishes\DomainWish;
use App\Intake\Http\Wishes\RowsWish;
use App\Intake\Http\Wishes\ScopeWish;
use App\Intake\Http\Wishes\UploadWish;
use App\Intake\ImportFiles;
use App\Intake\Jobs\ApplyImport;
use App\Intake\Jobs\PlanImport;
use App\Intake\KeptSheets;
use App\Intake\RowsToMend;
use App\Intake\Views\ImportDetail;
use App\Intake\Views\ImportLine;
use App\Intake\Views\ImportPage;
use App\Intake\Views\RowPage;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Import;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Rosters\SheetFormat;
use Closure;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\MailDomains;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;
use Vantrel\Core\Table\Said;

/** Lists from the upload to the ledger. */
final class ImportController
{
    private const PAGE = 500;

    #[Answers(ImportPage::class, 'Lists brought in, newest first')]
    public function index(School $school): ImportPage
    {
        /** @var Collection<int, Import> $imports */
        $imports = Import::query()
            ->where('school_id', $school->id)
            ->where('state', '!=', 'discarded')
            ->orderByDesc('made_at')
            ->limit(100)
            ->get();

        return new ImportPage(
            array_values($imports->map(ImportLine::of(...))->all()),
            ListContents::MOST_STUDENTS,
            intdiv((int) config('vantrel.upload_bytes'), 1024 * 1024),
        );
    }

    #[Answers(ImportDetail::class, 'Bring a list in: one or several files, or what was pasted')]
    #[Takes(UploadWish::class)]
    public function store(School $school, Request $request): ImportDetail
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
            $sheets = array_map(
                fn(array $f): array => ListFile::sheets($f[0], $f[1], $school->name, $school->code),
                $files,
            );
            $actor = Person::signedIn($request);
            $hash = hash(
                'sha256',
                implode('|', array_map(fn(array $f): string => (string) hash_file('sha256', $f[0]), $files)),
            );
            $kept = array_map(
                fn(array $f): array => [
                    'file' => $f[2] === null ? ImportFiles::copy($f[0]) : ImportFiles::keep($f[2]),
                    'title' => $f[1],
                ],
                $files,
            );
            foreach ($kept as $i => ['file' => $file]) {
                KeptSheets::keep(ImportFiles::path($file), $sheets[$i]);
            }
            $import = DB::transaction(function () use ($school, $actor, $files, $kept, $hash): Import {
                $import = Import::query()->create([
                    'id' => (string) Str::ulid(),
                    'school_id' => $school->id,
                    'actor_id' => $actor->id,
                    'title' => Str::limit(implode(', ', array_map(fn(array $f): string => $f[1], $files)), 150, '…'),
                    'files' => $kept,
                    'content_hash' => $hash,
                    'state' => 'reading',
                    'answers' => $this->answersBefore($school, $hash),
                    'round' => 1,
                    'done' => 0,
                    'total' => 0,
                    'made_at' => now(),
                    'changed_at' => now(),
                ]);
                PlanImport::dispatch($import->id, 1);

                return $import;
            });
        } finally {
            // A paste was written out to be read like a file; the names in it do not stay in a temporary folder.
            foreach ($files as [$path, , $upload]) {
                if ($upload === null) {
                    @unlink($path);
                }
            }
        }

        return ImportDetail::of(Import::query()->findOrFail($import->id));
    }

    /** What a spreadsheet put on the clipboard: its cells as a table if it gave one, else as text. */
    private static function pasted(UploadWish $wish): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'paste');
        file_put_contents($path, stripos($wish->html, '<table') !== false ? "<html>$wish->html" : $wish->text);

        return $path;
    }

    /**
     * The answers given the last time the very same file was brought in: nobody answers twice.
     *
     * @return array<string, string>
     */
    private function answersBefore(School $school, string $hash): array
    {
        return Import::query()
            ->where('school_id', $school->id)
            ->where('content_hash', $hash)
            ->orderByDesc('made_at')
            ->orderByDesc('id')
            ->first()->answers ?? [];
    }

    #[Answers(ImportDetail::class, 'One list: layout, tallies, questions')]
    public function show(Import $import): ImportDetail
    {
        return ImportDetail::of($import);
    }

    #[Answers(RowPage::class, 'Rows of the plan, in the order of the file')]
    #[Takes(RowsWish::class)]
    public function rows(Import $import, Request $request): RowPage
    {
        $wish = Wishes::of(RowsWish::class, $request);
        $rows = DB::table('import_rows')
            ->where('import_id', $import->id)
            ->when($wish->verdict !== null, fn($q) => $q->whereIn('verdict', explode(',', (string) $wish->verdict)))
            ->where('id', '>', $wish->after)
            ->orderBy('id')
            ->limit(self::PAGE + 1)
            ->get(['id', 'content']);
        $page = $rows->take(self::PAGE);

        return new RowPage(
            array_values(
                $page->map(fn(object $r): mixed => json_decode($r->content, false, 64, JSON_THROW_ON_ERROR))->all(),
            ),
            $rows->count() > self::PAGE ? (string) $page->last()?->id : null,
        );
    }

    #[
        Answers(
            ImportDetail::class,
            'Say whose whole list this is, or that it only adds; and confirm in words how many leave',
        ),
    ]
    #[Takes(ScopeWish::class)]
    public function everyone(Import $import, Request $request): ImportDetail
    {
        $wish = Wishes::of(ScopeWish::class, $request);
        $scope = $wish->everyone;
        if ($scope !== null) {
            $read = Scope::read($scope);
            if (
                $read->sectionId !== null &&
                !Section::query()->where('id', $read->sectionId)->where('school_id', $import->school_id)->exists()
            ) {
                throw new Refusal('This section is not one of the school’s. Choose one that is.');
            }
        }

        return $this->again($import, function (Import $import) use ($scope, $wish): void {
            $import->everyone = $scope !== null ? (string) Scope::read($scope) : null;
            $import->confirmed = (string) $wish->words;
        });
    }

    #[Answers(ImportDetail::class, 'Add a mail domain that most of the list uses to the school’s own')]
    #[Takes(DomainWish::class)]
    public function domain(Import $import, Request $request, Snapshots $snapshots, Ledger $ledger): ImportDetail
    {
        $wish = Wishes::of(DomainWish::class, $request);
        $domain = $wish->domain;
        if (!in_array($domain, $import->summary['domains'] ?? [], true)) {
            throw new Refusal('Most of this list does not use that domain.');
        }
        $actor = Person::signedIn($request);
        $school =
            $snapshots->find(Records\School::class, $import->school_id) ??
            throw new Refusal('The school is not there any more.');
        $ledger->apply(MailDomains::adding($school, $domain), $import->school_id, $actor, Action::Settings);

        return $this->again($import, function (): void {});
    }

    #[
        Answers(
            ImportDetail::class,
            'Answer questions, name columns, keep cells as written; an empty answer takes one back',
        ),
    ]
    #[Takes(AnswersWish::class)]
    public function answers(Import $import, Request $request): ImportDetail
    {
        $wish = Wishes::of(AnswersWish::class, $request);
        foreach ($wish->answers as $question => $choice) {
            if (is_string($choice) && !Said::allows((string) $question, $choice)) {
                throw ValidationException::withMessages(['answers' => "“{$choice}” is no answer to {$question}."]);
            }
        }

        return $this->again($import, function (Import $import) use ($wish): void {
            $answers = $import->answers;
            foreach ($wish->answers as $question => $choice) {
                if (is_string($choice) && $choice !== '') {
                    $answers[mb_substr((string) $question, 0, 40)] = $choice;
                } else {
                    unset($answers[$question]);
                }
            }
            $import->answers = $answers;
        });
    }

    #[Answers(ImportDetail::class, 'Apply the plan, as looked at')]
    #[Takes(ApplyWish::class)]
    public function apply(Import $import, Request $request, PasswordAgain $passwordAgain): ImportDetail
    {
        $wish = Wishes::of(ApplyWish::class, $request);
        if ($import->state === 'applying') {
            throw new Refusal('This list is being applied already.');
        }
        if ($import->state !== 'planned') {
            throw new Refusal('There is no plan of this list to apply.');
        }
        if (!hash_equals((string) $import->fingerprint, $wish->fingerprint)) {
            throw new StalePlan([$import->title]);
        }
        $actor = Person::signedIn($request);
        if (($import->summary['leaving'] ?? 0) > 0) {
            $passwordAgain->mustBe(
                $actor,
                (string) $wish->password,
                'People leave with this list, so it takes your password, and this is not it.',
                'password',
            );
        }
        DB::transaction(function () use ($import, $actor): void {
            $changed = Import::query()
                ->where('id', $import->id)
                ->where('state', 'planned')
                ->where('round', $import->round)
                ->update(['state' => 'applying', 'done' => 0, 'total' => 0, 'message' => null, 'changed_at' => now()]);
            if ($changed === 1) {
                ApplyImport::dispatch($import->id, $import->round, (string) $import->fingerprint, $actor->id);
            }
        });

        return ImportDetail::of(Import::query()->findOrFail($import->id));
    }

    #[Answers('file', 'The rows that need work, as a workbook with what to do beside each')]
    public function toMend(Import $import, RowsToMend $rows): BinaryFileResponse
    {
        if (!in_array($import->state, ['planned', 'applied'], true)) {
            throw new Refusal('There is no plan of this list yet.');
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'mend');
        $rows->write($import, $path);
        $name =
            trim((string) preg_replace(['/\.[A-Za-z0-9]{1,5}$/', '/[\/\\\\%\p{Cc}]+/u'], ['', ' '], $import->title)) .
            ', rows to mend.xlsx';

        return (new BinaryFileResponse($path, 200, [
            'Content-Type' => SheetFormat::Xlsx->contentType(),
            'Cache-Control' => 'no-store',
        ]))
            ->setContentDisposition('attachment', $name, Str::ascii($name))
            ->deleteFileAfterSend();
    }

    #[Answers(null, 'Throw a list away that was not applied')]
    public function destroy(Import $import): Response
    {
        // Under lock, and by the state as it is now: somebody may just have clicked "apply".
        DB::transaction(function () use ($import): void {
            /** @var Import $locked */
            $locked = Import::query()->where('id', $import->id)->lockForUpdate()->firstOrFail();
            match ($locked->state) {
                'applied' => throw new Refusal('This list has been applied; undo it in the Ledger instead.'),
                'applying' => throw new Refusal(
                    'This list is being applied. Wait until it is done, then undo it in the Ledger.',
                ),
                default => $locked
                    ->fill(['state' => 'discarded', 'round' => $locked->round + 1, 'changed_at' => now()])
                    ->save(),
            };
        });
        DB::table('import_rows')->where('import_id', $import->id)->delete();
        foreach ($import->files as ['file' => $file]) {
            ImportFiles::remove($file);
        }

        return response()->noContent();
    }

    /**
     * Changes what was said of a list and plans it anew. Under lock: two answers given at once must both count.
     *
     * @param  Closure(Import): void  $change
     */
    private function again(Import $import, Closure $change): ImportDetail
    {
        return DB::transaction(function () use ($import, $change): ImportDetail {
            /** @var Import $locked */
            $locked = Import::query()->where('id', $import->id)->lockForUpdate()->firstOrFail();
            if (!in_array($locked->state, ['planned', 'reading', 'unreadable'], true)) {
                throw new Refusal('This list cannot be changed any more: it is ' . $locked->state . '.');
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
            PlanImport::dispatch($locked->id, $locked->round);

            return ImportDetail::of($locked);
        });
    }
}
