<?php

declare(strict_types=1);

namespace App\Retention;

use App\Intake\ListFiles;
use App\Ledger\Entries;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Roll\SearchIndex;
use Illuminate\Database\Query\Builder;
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
        'called_name',
        'password',
        'reason',
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

    /** What was written to many. */
    private const WRITTEN = ['notices', 'mailings', 'letter_templates'];

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
        $forms = Forms::of($person->id);
        $rows = Places::rows($forms);
        $words = array_map(fn(string $t): int => count(Places::naming($t, $forms)), self::WRITTEN);

        return Erasure::plan(
            $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException(),
            $this->records($forms),
            [
                [count($rows['outgoing_messages']), 'message that names them', 'messages that name them'],
                [array_sum($words), 'notice or letter that names them', 'notices and letters that name them'],
                [count($this->lists($forms)[0]), 'list that named them', 'lists that named them'],
                [$this->about($person)->count('entry_seq'), 'entry of the Ledger', 'entries of the Ledger'],
            ],
            SchoolDay::at($person->school_id, $now),
            $now,
        );
    }

    public function erase(Person $person, Plan $plan, Person $actor): void
    {
        // Read before anything of it is gone.
        $forms = Forms::of($person->id);
        [$lists] = $this->lists($forms);
        $rows = Places::rows($forms);
        $asked = $this->refused($forms);
        $this->search->settle();
        $found = DB::table('search_words')->whereIn('person_id', $forms->ids)->pluck('word');
        $this->ledger->apply(
            $plan,
            $person->school_id,
            $actor,
            Action::Erase,
            within: function () use ($person, $forms, $lists, $rows, $asked): void {
                array_map(ListFiles::clear(...), $lists);
                foreach ($rows as $table => $keys) {
                    foreach (array_chunk($keys, 1000) as $some) {
                        DB::table($table)->whereIn(Places::ROWS[$table][0], $some)->delete();
                    }
                }
                $this->outside($person, $forms, $asked);
                Places::clear($forms);
            },
            also: array_values(array_diff($forms->schools, [$person->school_id])),
        );
        // Once the words of all who are left have been written anew.
        $this->search->settle();
        $this->search->forget(array_values(array_map(strval(...), $found->unique()->all())));
    }

    /**
     * What no plan changes.
     *
     * @param  list<string>  $asked ids of requests at a door that were made in their name and turned away
     */
    private function outside(Person $person, Forms $forms, array $asked): void
    {
        $ids = $forms->ids;
        $rows = $this->entries->about(School::query()->findOrFail($person->school_id), $person->id)['ids'];
        DB::table('second_factors')->whereIn('person_id', $ids)->delete();
        DB::table('passkeys')->whereIn('person_id', $ids)->delete();
        DB::table('held_askings')->whereIn('student_id', $ids)->orWhereIn('guardian_id', $ids)->delete();
        DB::table('credential_uses')->whereIn('person_id', $ids)->delete();
        DB::table('sessions')->whereIn('user_id', $ids)->delete();
        DB::table('contact_changes')->whereIn('person_id', $ids)->delete();
        DB::table('bounced_addresses')->whereIn('address', $forms->addresses)->delete();
        DB::table('family_askings')
            ->whereIn('person_id', $ids)
            ->orWhereIn('email', $forms->addresses)
            ->orWhere(
                fn(Builder $q) => $q
                    ->whereIn('school_id', $forms->schools)
                    ->where('child_birth_date', $person->birth_date)
                    ->where('child_family', $person->family_name),
            )
            ->delete();
        DB::table('invite_runs')->whereIn('person_id', $ids)->delete();
        DB::table('digest_choices')->whereIn('person_id', $ids)->delete();
        DB::table('digests_told')->whereIn('person_id', $ids)->delete();
        // Sealed sheets of the last day: nobody looks into them for whom they hold, and all can be printed again.
        DB::table('print_runs')->whereIn('school_id', $forms->schools)->delete();
        $signIns = DB::table('sign_ins')->whereIn('person_id', $ids)->pluck('id');
        DB::table('password_resets')->whereIn('sign_in_id', $signIns)->delete();
        foreach (['student_invitations' => 'join_request_id', 'join_requests' => 'id'] as $table => $column) {
            DB::table($table)->whereIn($column, $asked)->delete();
        }
        foreach (
            DB::table('ledger_changes')
                ->whereIn('row_id', [...$ids, ...$rows, ...$asked])
                ->orderBy('id')
                ->get()
            as $change
        ) {
            DB::table('ledger_changes')
                ->where('id', $change->id)
                ->update(['before' => $this->bare($change->before), 'after' => $this->bare($change->after)]);
        }
    }

    /**
     * Requests at a door in their name that were turned away, or wait: no account is theirs by them.
     *
     * @return list<string> ids
     */
    private function refused(Forms $forms): array
    {
        return array_values(
            array_map(
                strval(...),
                DB::table('join_requests as r')
                    ->join('sections as s', 's.id', '=', 'r.section_id')
                    ->whereIn('s.school_id', $forms->schools)
                    ->whereNull('r.person_id')
                    ->where(
                        fn(Builder $any): Builder => $any
                            ->whereIn(DB::raw("trim(concat(r.given_name, ' ', r.family_name))"), $forms->all)
                            ->orWhereIn('r.number', $forms->marks)
                            ->orWhereIn('r.email', $forms->marks),
                    )
                    ->pluck('r.id')
                    ->all(),
            ),
        );
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

    private function about(Person $person): Builder
    {
        $rows = $this->entries->about(School::query()->findOrFail($person->school_id), $person->id)['ids'];

        return DB::table('ledger_changes')->whereIn('row_id', $rows)->distinct()->select('entry_seq as seq');
    }

    /**
     * @return array{list<string>, list<string>} ids of lists whose rows name them, and titles of those that wait and
     *     surely mean them
     */
    private function lists(Forms $forms): array
    {
        $naming = fn(array $needles): Builder => DB::table('imports as i')
            ->join('import_rows as r', 'r.import_id', '=', 'i.id')
            ->whereIn('i.school_id', $forms->schools)
            ->whereNull('i.cleared_at')
            ->where(function (Builder $any) use ($needles): void {
                foreach ($needles as $needle) {
                    $any->orWhereRaw('locate(?, r.content) > 0', [$needle]);
                }
            })
            ->distinct()
            ->orderBy('i.id');
        $waits = fn(Builder $q): Builder => $q->whereNotIn('i.state', ['applied', 'discarded', 'unreadable']);
        // A number as a cell by itself.
        $surely = [...$forms->ids, ...array_map(fn(string $m): string => json_encode($m) ?: $m, $forms->marks)];
        $text = fn(array $of): array => array_values(array_map(strval(...), $of));

        return [
            $text([
                ...$naming($surely)->pluck('i.id')->all(),
                ...$naming($forms->needles())
                    ->whereIn('i.state', ['applied', 'discarded', 'unreadable'])
                    ->pluck('i.id')
                    ->all(),
            ]),
            $text($waits($naming($surely))->pluck('i.title', 'i.id')->all()),
        ];
    }

    private function records(Forms $forms): ErasedRecords
    {
        $ids = $forms->ids;
        $signIns = $this->having(Records\SignIn::class, 'person_id', $ids);

        return new ErasedRecords(
            $this->having(Records\Person::class, 'merged_into', [$ids[0]]),
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
            $this->having(Records\Invitation::class, 'email', $forms->addresses),
            $this->having(Records\Coordinator::class, 'person_id', $ids),
            $this->having(Records\TransferRequest::class, 'person_id', $ids),
            $this->having(Records\GuardianClaim::class, 'person_id', $ids),
            $this->having(Records\GuardianInvitation::class, 'guardian_id', $ids),
            $this->snapshots->list(
                Records\StudentInvitation::class,
                fn(Builder $q): Builder => $q
                    ->whereIn('person_id', $ids)
                    ->orWhereIn('guardian_id', $ids)
                    ->orWhereIn('email', $forms->addresses),
            ),
            $this->lists($forms)[1],
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
