<?php

declare(strict_types=1);

namespace App\Door;

use App\Models\Section;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Door\KnownGuardian;
use Vantrel\Core\Door\KnownStudent;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Values\MailAddress;

/** Reads students whom somebody may mean who types addresses, numbers and user names. */
final class InviteeReader
{
    /**
     * @param  list<string>  $lines as typed
     * @return list<KnownStudent> by name
     */
    public function known(Section $section, array $lines): array
    {
        $addresses = $keys = [];
        foreach ($lines as $line) {
            $mail = MailAddress::read($line);
            if ($mail !== null) {
                $addresses[] = $mail->address;
            } else {
                array_push($keys, $line, mb_strtolower($line), mb_strtoupper($line));
            }
        }
        $students = DB::table('people as p')
            ->where('p.school_id', $section->school_id)
            ->where('p.kind', 'student')
            ->where('p.state', 'active')
            ->where(
                fn(Builder $q) => $q
                    ->whereIn('p.email', $addresses)
                    ->orWhereIn('p.number', $keys)
                    ->orWhereIn(
                        'p.id',
                        fn(Builder $s) => $s->select('person_id')->from('sign_ins')->whereIn('user_name', $keys),
                    )
                    ->orWhereIn(
                        'p.id',
                        fn(Builder $g) => $g
                            ->select('g.student_id')
                            ->from('guardianships as g')
                            ->join('people as o', 'o.id', '=', 'g.guardian_id')
                            ->whereIn('o.email', $addresses),
                    ),
            )
            ->orderBy('p.called_name')
            ->orderBy('p.id')
            ->get(['p.id', 'p.called_name', 'p.email', 'p.email_by', 'p.email_state', 'p.number', 'p.language']);
        $ids = $students->pluck('id');
        $userNames = DB::table('sign_ins')
            ->whereIn('person_id', $ids)
            ->get(['person_id', 'user_name'])
            ->groupBy('person_id');
        $guardians = $this->guardians($ids)->groupBy('student_id');
        $in = DB::table('enrollments')
            ->where('section_id', $section->id)
            ->whereIn('person_id', $ids)
            ->where(
                fn(Builder $q) => $q
                    ->whereNull('ends_on')
                    ->orWhere('ends_on', '>', SchoolDay::today($section->school_id)),
            )
            ->pluck('person_id')
            ->all();

        return array_values(
            $students
                ->map(
                    fn(stdClass $s): KnownStudent => new KnownStudent(
                        (string) $s->id,
                        (string) $s->called_name,
                        self::address($s),
                        array_values(
                            ($userNames[$s->id] ?? collect())
                                ->pluck('user_name')
                                ->push($s->number)
                                ->filter()
                                ->map(strval(...))
                                ->all(),
                        ),
                        $s->language === null ? null : (string) $s->language,
                        in_array($s->id, $in, true),
                        array_values(
                            ($guardians[$s->id] ?? collect())
                                ->map(
                                    fn(stdClass $g): KnownGuardian => new KnownGuardian(
                                        (string) $g->id,
                                        $g->email === null ? null : (string) $g->email,
                                        $g->language === null ? null : (string) $g->language,
                                        GuardianshipState::from((string) $g->state),
                                        $g->restriction !== null,
                                    ),
                                )
                                ->all(),
                        ),
                    ),
                )
                ->all(),
        );
    }

    /**
     * @param  Collection<int, mixed>  $students ids
     * @return Collection<int, stdClass>
     */
    private function guardians(Collection $students): Collection
    {
        return DB::table('guardianships as g')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->whereIn('g.student_id', $students)
            ->where('p.state', 'active')
            ->orderBy('g.id')
            ->get(['g.student_id', 'p.id', 'p.email', 'p.language', 'g.state', 'g.restriction']);
    }

    private static function address(stdClass $student): ?string
    {
        $theirs = Address::isTheirs(
            AddressState::from((string) $student->email_state),
            AddressSource::tryFrom((string) $student->email_by),
        );

        return $student->email === null || !$theirs ? null : (string) $student->email;
    }
}
