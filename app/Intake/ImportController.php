<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Import;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use Closure;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Table\Field;

/** Lists from the upload to the ledger. */
final class ImportController
{
    private const PAGE = 500;

    #[Answers(ImportPage::class, 'Lists brought in, newest first')]
    public function index(School $school): ImportPage
    {
        /** @var Collection<int, Import> $imports */
        $imports = Import::query()->where('school_id', $school->id)->where('state', '!=', 'discarded')->orderByDesc('made_at')->limit(100)->get();

        return new ImportPage(array_values($imports->map(ImportLine::of(...))->all()));
    }

    #[Answers(ImportDetail::class, 'Bring a list in')]
    #[Takes(['file' => 'file'])]
    public function store(School $school, Request $request): ImportDetail
    {
        $request->validate(['file' => ['required', 'file', 'max:'.intdiv((int) config('vantrel.upload_bytes'), 1024)]], [
            'file.*' => 'No list arrived, or it is larger than '.intdiv((int) config('vantrel.upload_bytes'), 1024 * 1024).' MB. Split it, or save it without pictures, and drop it in again.',
        ]);
        /** @var UploadedFile $file */
        $file = $request->file('file');
        $title = Str::limit(trim((string) preg_replace('/[\p{Cc}\/\\\\<>]+/u', ' ', mb_scrub($file->getClientOriginalName()))) ?: 'List', 150, '…');
        // What cannot be read at all is refused here, before anything is kept or queued.
        SheetFile::read((string) $file->getRealPath());
        /** @var Person $actor */
        $actor = $request->user();
        $import = Import::query()->create([
            'id' => (string) Str::ulid(), 'school_id' => $school->id, 'actor_id' => $actor->id, 'title' => $title, 'file' => ImportFiles::keep($file),
            'state' => 'reading', 'answers' => [], 'round' => 1, 'done' => 0, 'total' => 0, 'made_at' => now(), 'changed_at' => now(),
        ]);
        PlanImport::dispatch($import->id, 1);

        return ImportDetail::of(Import::query()->findOrFail($import->id));
    }

    #[Answers(ImportDetail::class, 'One list: layout, tallies, questions')]
    public function show(Import $import): ImportDetail
    {
        return ImportDetail::of($import);
    }

    #[Answers(RowPage::class, 'Rows of the plan, in the order of the file')]
    #[Takes(['verdict?' => 'string', 'after?' => 'int'])]
    public function rows(Import $import, Request $request): RowPage
    {
        $request->validate(['verdict' => ['string', 'regex:/^(new|update|same|ask|cannot)(,(new|update|same|ask|cannot))*$/'], 'after' => 'integer|min:0']);
        $rows = DB::table('import_rows')->where('import_id', $import->id)
            ->when($request->filled('verdict'), fn ($q) => $q->whereIn('verdict', explode(',', $request->string('verdict')->value())))
            ->where('id', '>', $request->integer('after'))->orderBy('id')->limit(self::PAGE + 1)->get(['id', 'content']);
        $page = $rows->take(self::PAGE);

        return new RowPage(
            array_values($page->map(fn (object $r): mixed => json_decode($r->content, false, 64, JSON_THROW_ON_ERROR))->all()),
            $rows->count() > self::PAGE ? (string) $page->last()?->id : null,
        );
    }

    #[Answers(ImportDetail::class, 'Say what columns are, or which way names stand')]
    #[Takes(['columns?' => 'map<string>', 'family_first?' => 'bool'])]
    public function layout(Import $import, Request $request): ImportDetail
    {
        $request->validate(['columns' => 'array|max:200', 'columns.*' => ['nullable', Rule::enum(Field::class)], 'family_first' => 'boolean']);

        return $this->again($import, function (Import $import) use ($request): void {
            $named = $import->named ?? [];
            foreach ($request->array('columns') as $index => $field) {
                $named[(int) $index] = is_string($field) ? $field : null;
            }
            $import->named = $named;
            if ($request->has('family_first')) {
                $import->family_first = $request->boolean('family_first');
            }
        });
    }

    #[Answers(ImportDetail::class, 'Answer questions; an empty answer takes one back')]
    #[Takes(['answers' => 'map<string>'])]
    public function answers(Import $import, Request $request): ImportDetail
    {
        $request->validate(['answers' => 'required|array|min:1|max:5000', 'answers.*' => 'nullable|string|max:80']);

        return $this->again($import, function (Import $import) use ($request): void {
            $answers = $import->answers;
            foreach ($request->array('answers') as $question => $choice) {
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
    #[Takes(['fingerprint' => 'string'])]
    public function apply(Import $import, Request $request): ImportDetail
    {
        $request->validate(['fingerprint' => 'required|string|size:64']);
        if ($import->state === 'applying') {
            throw new Refusal('This list is being applied already.');
        }
        if ($import->state !== 'planned') {
            throw new Refusal('There is no plan of this list to apply.');
        }
        if (! hash_equals((string) $import->fingerprint, $request->string('fingerprint')->value())) {
            throw new StalePlan([$import->title]);
        }
        /** @var Person $actor */
        $actor = $request->user();
        $changed = Import::query()->where('id', $import->id)->where('state', 'planned')->where('round', $import->round)
            ->update(['state' => 'applying', 'done' => 0, 'message' => null, 'changed_at' => now()]);
        if ($changed === 1) {
            ApplyImport::dispatch($import->id, $import->round, (string) $import->fingerprint, $actor->id);
        }

        return ImportDetail::of(Import::query()->findOrFail($import->id));
    }

    #[Answers(null, 'Throw a list away that was not applied')]
    public function destroy(Import $import): Response
    {
        if (in_array($import->state, ['applying', 'applied'], true)) {
            throw new Refusal('This list has been applied; undo it in the Ledger instead.');
        }
        Import::query()->where('id', $import->id)->update(['state' => 'discarded', 'round' => $import->round + 1, 'changed_at' => now()]);
        DB::table('import_rows')->where('import_id', $import->id)->delete();
        ImportFiles::remove($import->file);

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
            if (! in_array($locked->state, ['planned', 'reading', 'unreadable'], true)) {
                throw new Refusal('This list cannot be changed any more: it is '.$locked->state.'.');
            }
            $change($locked);
            $locked->fill(['state' => 'reading', 'round' => $locked->round + 1, 'fingerprint' => null, 'message' => null, 'changed_at' => now()])->save();
            PlanImport::dispatch($locked->id, $locked->round);

            return ImportDetail::of($locked);
        });
    }
}
