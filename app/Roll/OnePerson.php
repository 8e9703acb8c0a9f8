<?php

declare(strict_types=1);

namespace App\Roll;

use App\Ledger\FieldChange;
use App\Models\Person;
use App\Platform\Instant;
use App\Roll\Views\Enrolled;
use App\Roll\Views\Happening;
use App\Roll\Views\PersonDetail;
use App\Roll\Views\Relative;
use App\Roll\Views\SentTo;
use App\Roll\Views\UserName;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Names\NameShown;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** All that is known of one person. */
final class OnePerson
{
    /**
     * One person, as a coordinator of some schools may see them: of a guardian's children at other schools, only that
     * there are some.
     *
     * @param  list<string>  $schools  ids of the schools whose coordinator asks
     */
    public function detail(Person $person, array $schools): PersonDetail
    {
        $other = $person->kind === 'guardian' ? ['student_id', 'guardian_id'] : ['guardian_id', 'student_id'];
        $relatives = DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', "g.$other[0]")
            ->join('schools as o', 'o.id', '=', 'p.school_id')
            ->where("g.$other[1]", $person->id)
            ->where('g.state', '!=', 'ended')
            ->orderBy('p.given_name')
            ->get([
                'p.id',
                'p.kind',
                'p.given_name',
                'p.family_name',
                'p.email',
                'p.phone',
                'p.school_id',
                'o.name as school',
                'g.state',
            ]);
        $enrollments = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->where('e.person_id', $person->id)
            ->orderByRaw('e.ends_on is null desc')
            ->orderByDesc('e.begins_on')
            ->orderBy('s.name')
            ->get(['s.id', 's.name', 's.state', 'e.role', 'e.begins_on', 'e.ends_on']);
        $signIns = DB::table('sign_ins as i')
            ->leftJoin('badges as b', fn($j) => $j->on('b.sign_in_id', '=', 'i.id')->where('b.state', 'live'))
            ->where('i.person_id', $person->id)
            ->groupBy('i.id', 'i.user_name', 'i.last_signed_in_at')
            ->selectRaw(
                'i.user_name, i.last_signed_in_at last, count(b.id) cards, max(i.password is not null) own, ' .
                    'max(i.passphrase is not null) printed',
            )
            ->orderBy('i.user_name')
            ->get();
        $history = DB::table('ledger_changes as c')
            ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
            ->where('c.row_id', $person->id)
            ->whereExists(
                fn(Builder $q) => $q
                    ->from('ledger_schools as l')
                    ->whereColumn('l.entry_seq', 'e.seq')
                    ->whereIn('l.school_id', $schools),
            )
            ->orderByDesc('c.id')
            ->limit(20)
            ->get(['e.id', 'e.title', 'c.reason', 'e.made_at', 'e.undone_at', 'c.was_version', 'c.before', 'c.after']);

        return new PersonDetail(
            $person->id,
            $person->version,
            $person->fullName(),
            $person->given_name,
            $person->family_name,
            (string) $person->preferred_name,
            PersonKind::from($person->kind),
            PersonState::from($person->state),
            GradeLevel::read((string) $person->grade)?->short() ?? '',
            (string) $person->grade,
            (string) $person->number,
            (string) $person->birth_date,
            (string) $person->email,
            (string) $person->phone,
            (string) $person->language,
            Language::read((string) $person->language)?->name() ?? '',
            NameShown::tryFrom((string) $person->name_shown),
            $person->school->name,
            $person->school_id,
            $person->erased_on !== null,
            array_values(
                $enrollments
                    ->map(
                        fn(object $e): Enrolled => new Enrolled(
                            $e->id,
                            $e->name,
                            EnrollmentRole::from($e->role)->label(),
                            $e->begins_on,
                            $e->ends_on,
                            $e->state === 'archived',
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $relatives
                    ->map(
                        fn(object $r): Relative => $r->kind === 'student' && !in_array($r->school_id, $schools, true)
                            ? new Relative('', "A student of $r->school", '', '', GuardianshipState::from($r->state))
                            : new Relative(
                                $r->id,
                                trim("$r->given_name $r->family_name"),
                                (string) $r->email,
                                (string) $r->phone,
                                GuardianshipState::from($r->state),
                            ),
                    )
                    ->all(),
            ),
            array_values(
                $signIns
                    ->map(
                        fn(object $i): UserName => new UserName(
                            $i->user_name,
                            (int) $i->own === 1
                                ? 'own password'
                                : ((int) $i->printed === 1
                                    ? 'passphrase on a card'
                                    : 'no card yet'),
                            (int) $i->cards,
                            Instant::isoOrNull($i->last),
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $history
                    ->map(
                        fn(object $h): Happening => new Happening(
                            $h->id,
                            $h->title,
                            $h->reason,
                            Instant::iso($h->made_at),
                            $h->undone_at !== null,
                            $h->was_version === null ? [] : FieldChange::between($h->before, $h->after),
                        ),
                    )
                    ->all(),
            ),
            $this->messages($person, $schools),
            $person->email === null
                ? ''
                : (string) DB::table('bounced_addresses')->where('address', $person->email)->value('said'),
        );
    }

    /**
     * @param  list<string>  $schools
     * @return list<SentTo>
     */
    private function messages(Person $person, array $schools): array
    {
        return $person->email === null
            ? []
            : array_values(
                DB::table('outgoing_messages')
                    ->where('to_address', $person->email)
                    ->whereIn('school_id', $schools)
                    ->orderByDesc('made_at')
                    ->limit(10)
                    ->get(['id', 'subject', 'made_at', 'problem'])
                    ->map(
                        fn(object $m): SentTo => new SentTo(
                            $m->id,
                            $m->subject,
                            Instant::iso($m->made_at),
                            (string) $m->problem,
                        ),
                    )
                    ->all(),
            );
    }
}
