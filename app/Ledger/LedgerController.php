<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\Wishes\LedgerPageWish;
use App\Ledger\Wishes\LedgerSheetWish;
use App\Ledger\Wishes\OutlookWish;
use App\Ledger\Wishes\UndoWish;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Models\StaffStanding;
use App\Platform\Answers;
use App\Platform\FileOut;
use App\Platform\SchoolDay;
use App\Platform\SheetOut;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class LedgerController
{
    private const PAGE = 50;

    /** Records of one entry that a person looks through; the sheet has them all. */
    private const SHOWN = 200;

    public function __construct(private readonly Entries $entries) {}

    #[Answers(LedgerPage::class, 'What was done at a school, newest first')]
    #[Takes(LedgerPageWish::class)]
    public function index(School $school, Request $request): LedgerPage
    {
        $wish = Wishes::of(LedgerPageWish::class, $request);
        /** @var Collection<int, LedgerEntry> $entries */
        $entries = $this->entries
            ->asked($school, $wish)
            ->limit(self::PAGE + 1)
            ->get();
        $more = $entries->count() > self::PAGE;
        $entries = $entries->take(self::PAGE);
        /** @var Collection<string, Person> $names */
        $names = Person::query()
            ->whereIn('id', $entries->pluck('actor_id')->filter()->unique())
            ->get()
            ->keyBy('id');

        return new LedgerPage(
            array_values(
                $entries
                    ->map(
                        fn(LedgerEntry $e): LedgerLine => LedgerLine::of(
                            $e,
                            $names->get((string) $e->actor_id)?->fullName() ?? 'Vantrel',
                        ),
                    )
                    ->all(),
            ),
            $more ? (string) $entries->last()?->seq : null,
            $this->entries->actors($school),
            $wish->about === null ? null : $this->entries->about($school, $wish->about)['name'],
        );
    }

    #[Answers('file', 'What was done at a school as a sheet: an entry a row, or every field that was changed')]
    #[Takes(LedgerPageWish::class, LedgerSheetWish::class)]
    public function sheet(School $school, Request $request): BinaryFileResponse
    {
        $wish = Wishes::of(LedgerSheetWish::class, $request);
        $entries = $this->entries->asked($school, Wishes::of(LedgerPageWish::class, $request));
        $path = FileOut::scratch();
        SheetOut::write($wish->format, $path, [
            'Ledger' => $wish->records
                ? [LedgerSheet::RECORDS, LedgerSheet::records($entries, $school->id)]
                : [LedgerSheet::ENTRIES, LedgerSheet::entries($entries, $school->id)],
        ]);
        $day = SchoolDay::today($school->id);

        return FileOut::response(
            $path,
            "Ledger $school->code $day.{$wish->format->value}",
            $wish->format->contentType(),
        );
    }

    #[Answers(LedgerDetail::class, 'One entry with the records it changed; of other schools’ records nothing')]
    public function show(LedgerEntry $entry, Request $request): LedgerDetail
    {
        $mine = StaffStanding::of(Person::signedIn($request))->schools;
        $all = array_diff($entry->schools(), $mine) === [];
        $shown = [];
        foreach (LedgerChange::of($entry->seq, $all ? null : $mine) as $change) {
            $shown[] = $change;
            if (count($shown) === self::SHOWN) {
                break;
            }
        }

        return new LedgerDetail($this->line($entry), $shown);
    }

    #[
        Answers(
            UndoOutlook::class,
            'What undoing an entry would come to: what goes back, what stays and why, what would have to be ' .
                'undone first',
        ),
    ]
    #[Takes(OutlookWish::class)]
    public function outlook(LedgerEntry $entry, Request $request, Ledger $ledger): UndoOutlook
    {
        $wish = Wishes::of(OutlookWish::class, $request);
        return $ledger->outlook($entry, $wish->together);
    }

    #[Answers(LedgerLine::class, 'Undo an entry, and later ones with it, newest first: all or none')]
    #[Takes(UndoWish::class)]
    public function undo(LedgerEntry $entry, Request $request, Ledger $ledger): LedgerLine
    {
        $wish = Wishes::of(UndoWish::class, $request);
        $first = $wish->first;
        foreach (LedgerEntry::query()->whereIn('id', $first)->get() as $later) {
            Gate::authorize('work-ledger', $later);
        }

        return $this->line($ledger->undo($entry, Person::signedIn($request), $first, $wish->fingerprint));
    }

    #[Answers(LedgerLine::class, 'Do again what an undo took back')]
    public function redo(LedgerEntry $entry, Request $request, Ledger $ledger): LedgerLine
    {
        return $this->line($ledger->redo($entry, Person::signedIn($request)));
    }

    private function line(LedgerEntry $entry): LedgerLine
    {
        return LedgerLine::of($entry, Person::query()->find($entry->actor_id)?->fullName() ?? 'Vantrel');
    }
}
