<?php

declare(strict_types=1);

namespace App\Retention;

use App\Intake\ListFiles;
use App\Ledger\Entries;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Roll\SearchIndex;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Roll\ErasedRecords;
use Vantrel\Core\Roll\Erasure;

/** Erases somebody from everything: the records, the images and words of the ledger, mail, files of lists, sessions. */
final class Erasing
{
    /** Columns of images that say who somebody is. */
    private const PERSONAL = [
        'given_name',
        'family_name',
        'preferred_name',
        'search_name',
        'birth_date',
        'number',
        'email',
        'phone',
        'phone_confirmed',
        'language',
        'user_name',
        'subject',
        'relationship',
        'restriction',
        'said',
        'typed',
    ];

    private const ERASED = '(erased)';

    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly Entries $entries,
        private readonly SearchIndex $search,
        private readonly PlannerKit $kit,
    ) {}

    public function plan(Person $person, string $seed): Plan
    {
        $now = $this->kit->ids($seed)->instant();

        return Erasure::plan(
            $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException(),
            $this->records($person),
            [
                [count($this->messages($person)), 'message that names them', 'messages that name them'],
                [
                    count(array_merge(...array_values($this->writings($person)))),
                    'notice or letter that names them',
                    'notices and letters that name them',
                ],
                [count($this->lists($person)[0]), 'list that named them', 'lists that named them'],
                [$this->about($person)->count('entry_seq'), 'entry of the Ledger', 'entries of the Ledger'],
            ],
            SchoolDay::at($person->school_id, $now),
            $now,
        );
    }

    public function erase(Person $person, Plan $plan, Person $actor): void
    {
        // Read before anything of it is gone.
        $names = $this->words($person);
        [$lists] = $this->lists($person);
        $messages = $this->messages($person);
        $writings = $this->writings($person);
        $found = DB::table('search_words')->whereIn('person_id', $this->accounts($person))->pluck('word');
        $this->ledger->apply(
            $plan,
            $person->school_id,
            $actor,
            Action::Erase,
            within: function (LedgerEntry $entry) use ($person, $names, $lists, $messages, $writings): void {
                array_map(ListFiles::clear(...), $lists);
                DB::table('outgoing_messages')->whereIn('id', $messages)->delete();
                $this->outside($person, $entry, $names);
                Writings::clear($writings, fn(string $text): string => $this->without($text, $names));
            },
        );
        // Once the words of all who are left have been written anew.
        $this->search->forget(array_values(array_map(strval(...), $found->unique()->all())));
    }

    /**
     * What no plan changes.
     *
     * @param  list<string>  $names what they are and were called
     */
    private function outside(Person $person, LedgerEntry $entry, array $names): void
    {
        $ids = $this->accounts($person);
        DB::table('second_factors')->whereIn('person_id', $ids)->delete();
        DB::table('credential_uses')->whereIn('person_id', $ids)->delete();
        DB::table('sessions')->whereIn('user_id', $ids)->delete();
        DB::table('contact_changes')->whereIn('person_id', $ids)->delete();
        DB::table('bounced_addresses')->whereIn('address', $this->addresses($person))->delete();
        DB::table('family_askings')
            ->whereIn('person_id', $ids)
            ->orWhereIn('email', $this->addresses($person))
            ->orWhere(
                fn(Builder $q) => $q
                    ->where('school_id', $person->school_id)
                    ->where('child_birth_date', $person->birth_date)
                    ->where('child_family', $person->family_name),
            )
            ->delete();
        DB::table('invite_runs')->whereIn('person_id', $ids)->delete();
        DB::table('digest_choices')->whereIn('person_id', $ids)->delete();
        DB::table('digests_told')->whereIn('person_id', $ids)->delete();
        $signIns = DB::table('sign_ins')->whereIn('person_id', $ids)->pluck('id');
        DB::table('password_resets')->whereIn('sign_in_id', $signIns)->delete();
        $seqs = $this->about($person)->pluck('seq')->push($entry->seq)->unique();
        $rows = $this->entries->about(School::query()->findOrFail($person->school_id), $person->id)['ids'];
        foreach (
            DB::table('ledger_changes')
                ->whereIn('row_id', [...$ids, ...$rows])
                ->orderBy('id')
                ->get()
            as $change
        ) {
            DB::table('ledger_changes')
                ->where('id', $change->id)
                ->update(['before' => $this->bare($change->before), 'after' => $this->bare($change->after)]);
        }
        foreach (DB::table('ledger_changes')->whereIn('entry_seq', $seqs)->orderBy('id')->cursor() as $change) {
            $reason = $this->without($change->reason, $names);
            if ($reason !== $change->reason) {
                DB::table('ledger_changes')
                    ->where('id', $change->id)
                    ->update(['reason' => $reason]);
            }
        }
        foreach (DB::table('ledger_entries')->whereIn('seq', $seqs)->get() as $about) {
            DB::table('ledger_entries')
                ->where('seq', $about->seq)
                ->update([
                    'title' => mb_substr($this->without($about->title, $names), 0, 200),
                    'sentence' => $this->without($about->sentence, $names),
                    'kept' => $about->kept === null ? null : $this->without($about->kept, $names),
                ]);
        }
    }

    private function bare(string $image): string
    {
        $values = (array) json_decode($image, true);
        foreach (self::PERSONAL as $column) {
            if (isset($values[$column])) {
                $values[$column] = self::ERASED;
            }
        }

        return json_encode((object) $values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }

    /** @param  list<string>  $names */
    private function without(string $text, array $names): string
    {
        return str_replace($names, mb_strtolower(Erasure::NAME), $text);
    }

    /** @return list<string> what they are and were called, and what else means them alone, the longest first */
    private function words(Person $person): array
    {
        $words = $this->addresses($person);
        $ids = $this->accounts($person);
        $images = DB::table('ledger_changes')
            ->where('entity', 'people')
            ->whereIn('row_id', $ids)
            ->get(['before', 'after']);
        $now = Person::query()->whereIn('id', $ids)->get();
        $known = $now->map(fn(Person $p): array => $p->only(['given_name', 'family_name', 'number']))->values()->all();
        foreach ($images as $image) {
            foreach ([$image->before, $image->after] as $side) {
                // An image has the columns that changed: the others are those of the account.
                $known[] = [...$known[0] ?? [], ...array_filter((array) json_decode($side, true), is_string(...))];
            }
        }
        foreach ($known as $of) {
            $words[] = trim(($of['given_name'] ?? '') . ' ' . ($of['family_name'] ?? ''));
            $words[] = (string) ($of['number'] ?? '');
        }
        foreach (DB::table('sign_ins')->whereIn('person_id', $ids)->pluck('user_name') as $userName) {
            $words[] = (string) $userName;
        }
        $words = array_values(array_unique(array_filter($words, fn(string $w): bool => mb_strlen($w) > 3)));
        usort($words, fn(string $a, string $b): int => strlen($b) <=> strlen($a));

        return $words;
    }

    /** @return list<string> */
    private function wholeNames(Person $person): array
    {
        return array_values(array_filter($this->words($person), fn(string $w): bool => str_contains($w, ' ')));
    }

    /** @return array<string, list<string>> ids by table of what was written to many and names them */
    private function writings(Person $person): array
    {
        return Writings::naming($person->school_id, $this->wholeNames($person));
    }

    /** @return list<string> their own, and those they once had */
    private function addresses(Person $person): array
    {
        $ids = $this->accounts($person);
        $addresses = Person::query()->whereIn('id', $ids)->whereNotNull('email')->pluck('email');
        foreach (['before', 'after'] as $side) {
            $addresses = $addresses->concat(
                DB::table('ledger_changes')
                    ->where('entity', 'people')
                    ->whereIn('row_id', $ids)
                    ->selectRaw("json_value(`$side`, '$.email') e")
                    ->pluck('e'),
            );
        }

        return array_values(
            $addresses
                ->filter(fn(mixed $a): bool => is_string($a) && $a !== '' && $a !== self::ERASED)
                ->unique()
                ->all(),
        );
    }

    /** @return list<string> ids of their account and of those that were merged into it */
    private function accounts(Person $person): array
    {
        return [
            $person->id,
            ...array_values(
                array_map(strval(...), Person::query()->where('merged_into', $person->id)->pluck('id')->all()),
            ),
        ];
    }

    private function about(Person $person): Builder
    {
        $rows = $this->entries->about(School::query()->findOrFail($person->school_id), $person->id)['ids'];

        return DB::table('ledger_changes')
            ->whereIn('row_id', [...$this->accounts($person), ...$rows])
            ->distinct()
            ->select('entry_seq as seq');
    }

    /**
     * Messages to them, and those to others that call them by their whole name.
     *
     * @return list<string> ids
     */
    private function messages(Person $person): array
    {
        $names = $this->wholeNames($person);
        $ids = DB::table('outgoing_messages')
            ->whereIn('to_address', $this->addresses($person))
            ->orWhere(
                fn(Builder $q) => $q
                    ->where('school_id', $person->school_id)
                    ->where(function (Builder $any) use ($names): void {
                        $any->whereRaw('false');
                        foreach ($names as $name) {
                            $any->orWhereRaw('instr(text, ?) > 0', [$name])->orWhereRaw('instr(subject, ?) > 0', [
                                $name,
                            ]);
                        }
                    }),
            )
            ->orderBy('id')
            ->pluck('id');

        return array_values(array_map(strval(...), $ids->all()));
    }

    /** @return array{list<string>, list<string>} ids of lists whose rows name them, and titles of those that wait */
    private function lists(Person $person): array
    {
        $number = (string) $person->number;
        // As a cell by itself; one that is as short as a grade is no sign of anybody.
        $cells = strlen($number) > 3 ? [json_encode($number, JSON_THROW_ON_ERROR)] : [];
        $needles = [...$this->accounts($person), ...$cells, ...array_filter([(string) $person->email])];
        $lists = DB::table('imports as i')
            ->join('import_rows as r', 'r.import_id', '=', 'i.id')
            ->where('i.school_id', $person->school_id)
            ->whereNull('i.cleared_at')
            ->where(function (Builder $any) use ($needles): void {
                foreach ($needles as $needle) {
                    $any->orWhereRaw('instr(r.content, ?) > 0', [$needle]);
                }
            })
            ->distinct()
            ->orderBy('i.id')
            ->get(['i.id', 'i.title', 'i.state']);
        $text = fn(Collection $of): array => array_values(array_map(strval(...), $of->all()));

        return [
            $text($lists->pluck('id')),
            $text($lists->whereNotIn('state', ['applied', 'discarded', 'unreadable'])->pluck('title')),
        ];
    }

    private function records(Person $person): ErasedRecords
    {
        $ids = $this->accounts($person);
        $signIns = $this->having(Records\SignIn::class, 'person_id', $ids);

        return new ErasedRecords(
            $this->having(Records\Person::class, 'merged_into', [$person->id]),
            $signIns,
            $this->having(
                Records\Badge::class,
                'sign_in_id',
                array_map(fn(Records\SignIn $s): string => $s->id, $signIns),
            ),
            $this->having(Records\Identity::class, 'person_id', $ids),
            [
                ...$this->having(Records\Guardianship::class, 'student_id', $ids),
                ...$this->having(Records\Guardianship::class, 'guardian_id', $ids),
            ],
            $this->having(Records\JoinRequest::class, 'person_id', $ids),
            $this->having(Records\Invitation::class, 'email', $this->addresses($person)),
            $this->having(Records\Coordinator::class, 'person_id', $ids),
            $this->having(Records\TransferRequest::class, 'person_id', $ids),
            $this->having(Records\GuardianClaim::class, 'person_id', $ids),
            $this->having(Records\GuardianInvitation::class, 'guardian_id', $ids),
            $this->snapshots->list(
                Records\StudentInvitation::class,
                fn(Builder $q): Builder => $q
                    ->whereIn('person_id', $ids)
                    ->orWhereIn('guardian_id', $ids)
                    ->orWhereIn('email', $this->addresses($person)),
            ),
            $this->lists($person)[1],
            DB::table('enrollments')->whereIn('person_id', $ids)->count(),
        );
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @param  list<string>  $values
     * @return list<T>
     */
    private function having(string $kind, string $column, array $values): array
    {
        return $this->snapshots->list($kind, fn(Builder $q): Builder => $q->whereIn($column, $values)->orderBy('id'));
    }
}
