<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\Wishes\LedgerPageWish;
use App\Ledger\Wishes\OutlookWish;
use App\Ledger\Wishes\UndoWish;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;

final class LedgerController
{
    private const PAGE = 50;

    // prettier-ignore
    private const WHAT = [
        'people' => 'person', 'sign_ins' => 'user name', 'badges' => 'card', 'sections' => 'section',
        'enrollments' => 'enrollment', 'join_codes' => 'join code', 'invitations' => 'invitation',
        'guardianships' => 'guardian', 'join_requests' => 'request', 'room_passes' => 'room pass',
        'schools' => 'school', 'school_years' => 'school year', 'known_apart' => 'told apart',
        'coordinators' => 'coordinator', 'identities' => 'school sign-on',
        'transfer_requests' => 'request to a school',
    ];

    #[Answers(LedgerPage::class, 'What was done at a school, newest first')]
    #[Takes(LedgerPageWish::class)]
    public function index(School $school, Request $request): LedgerPage
    {
        $wish = Wishes::of(LedgerPageWish::class, $request);
        /** @var Collection<int, LedgerEntry> $entries */
        $entries = LedgerEntry::query()
            ->whereIn('seq', fn($q) => $q->select('entry_seq')->from('ledger_schools')->where('school_id', $school->id))
            ->when($wish->after !== null, fn($q) => $q->where('seq', '<', $wish->after))
            ->orderByDesc('seq')
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
        );
    }

    #[Answers(LedgerDetail::class, 'One entry with the records it changed')]
    public function show(LedgerEntry $entry): LedgerDetail
    {
        $changes = DB::table('ledger_changes')->where('entry_seq', $entry->seq)->orderBy('id')->limit(200)->get();
        $names = [];
        foreach ($changes->groupBy('entity') as $table => $group) {
            $names[$table] = $this->names((string) $table, array_values($group->pluck('row_id')->all()));
        }

        return new LedgerDetail(
            $this->line($entry),
            array_values(
                $changes
                    ->map(
                        fn(object $c): LedgerChange => new LedgerChange(
                            self::WHAT[$c->entity] ?? $c->entity,
                            $names[$c->entity][$c->row_id] ?? $this->nameIn($c->after),
                            $this->fields($c->before),
                            $this->fields($c->after),
                            $c->reason,
                        ),
                    )
                    ->all(),
            ),
        );
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

    /**
     * @param  list<mixed>  $ids
     * @return array<string, string>
     */
    private function names(string $table, array $ids): array
    {
        $person = "TRIM(CONCAT(p.given_name, ' ', p.family_name))";
        $query = match ($table) {
            'people' => DB::table('people as p')
                ->whereIn('p.id', $ids)
                ->selectRaw("p.id id, $person n"),
            'sections' => DB::table('sections as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.name n'),
            'sign_ins' => DB::table('sign_ins as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.user_name n'),
            'enrollments' => DB::table('enrollments as e')
                ->join('people as p', 'p.id', '=', 'e.person_id')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->whereIn('e.id', $ids)
                ->selectRaw("e.id id, CONCAT($person, ' in ', s.name) n"),
            'badges' => DB::table('badges as b')
                ->join('sign_ins as s', 's.id', '=', 'b.sign_in_id')
                ->whereIn('b.id', $ids)
                ->selectRaw('b.id id, s.user_name n'),
            'join_codes' => DB::table('join_codes as c')
                ->join('sections as s', 's.id', '=', 'c.section_id')
                ->whereIn('c.id', $ids)
                ->selectRaw('c.id id, s.name n'),
            'invitations' => DB::table('invitations as i')->whereIn('i.id', $ids)->selectRaw('i.id id, i.email n'),
            'join_requests' => DB::table('join_requests as r')
                ->whereIn('r.id', $ids)
                ->selectRaw("r.id id, TRIM(CONCAT(r.given_name, ' ', r.family_name)) n"),
            'room_passes' => DB::table('room_passes as r')
                ->join('sections as s', 's.id', '=', 'r.section_id')
                ->whereIn('r.id', $ids)
                ->selectRaw('r.id id, s.name n'),
            'schools' => DB::table('schools as s')->whereIn('s.id', $ids)->selectRaw('s.id id, s.name n'),
            'guardianships' => DB::table('guardianships as g')
                ->join('people as p', 'p.id', '=', 'g.guardian_id')
                ->join('people as c', 'c.id', '=', 'g.student_id')
                ->whereIn('g.id', $ids)
                ->selectRaw("g.id id, CONCAT($person, ' for ', c.given_name) n"),
            'coordinators' => DB::table('coordinators as k')
                ->join('people as p', 'p.id', '=', 'k.person_id')
                ->whereIn('k.id', $ids)
                ->selectRaw("k.id id, $person n"),
            'identities' => DB::table('identities as k')
                ->join('people as p', 'p.id', '=', 'k.person_id')
                ->whereIn('k.id', $ids)
                ->selectRaw("k.id id, $person n"),
            'school_years' => DB::table('school_years as y')->whereIn('y.id', $ids)->selectRaw('y.id id, y.name n'),
            default => null,
        };

        return $query === null ? [] : $query->pluck('n', 'id')->all();
    }

    /** The name in an image, for a record that an undo has taken away. */
    private function nameIn(string $image): string
    {
        $values = (array) json_decode($image, true);

        return trim(($values['given_name'] ?? '') . ' ' . ($values['family_name'] ?? '')) ?:
            (string) ($values['name'] ?? ($values['user_name'] ?? ($values['email'] ?? '')));
    }

    private function fields(string $image): string
    {
        $values = array_filter(
            (array) json_decode($image, true),
            fn(mixed $v, int|string $k): bool => $v !== null &&
                $v !== '' &&
                !str_ends_with((string) $k, '_id') &&
                !in_array($k, ['search_name', 'kind', 'token_hash', 'code'], true),
            ARRAY_FILTER_USE_BOTH,
        );

        return implode(
            ', ',
            array_map(
                fn(int|string $k, mixed $v): string => str_replace('_', ' ', (string) $k) . ' ' . $v,
                array_keys($values),
                $values,
            ),
        );
    }
}
