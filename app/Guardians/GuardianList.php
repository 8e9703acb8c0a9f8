<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Guardians\Views\GuardianCounts;
use App\Guardians\Views\GuardianLine;
use App\Guardians\Views\GuardianPage;
use App\Guardians\Views\StandingCount;
use App\Models\FamilyAsking;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Roll\Search;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Guardians\ConsentWay;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Values\GradeLevel;

/** The guardians of a school's students: a line for each child of each. */
final class GuardianList
{
    public const PAGE = 100;

    public function __construct(private readonly Search $search) {}

    /** @param  int  $after how many lines stand before */
    public function page(School $school, GuardianWhom $whom, int $after = 0): GuardianPage
    {
        $rows = $this->query($school, $whom)
            ->leftJoin('people as b', 'b.id', '=', 'g.state_by')
            // In the order of the index the students are read by; those of one student as they stand.
            ->orderBy('s.family_name')
            ->orderBy('s.given_name')
            ->orderBy('s.id')
            ->offset($after)
            ->limit(self::PAGE + 1)
            ->get([
                'g.id',
                'g.state',
                'g.restriction',
                'g.relationship',
                'g.state_at',
                'g.consent_on',
                'g.consent_way',
                's.id as student_id',
                's.called_name',
                's.family_name as student_family',
                's.grade',
                'p.id as guardian_id',
                'p.given_name',
                'p.family_name',
                'p.email',
                'p.email_state',
                'p.phone',
                'i.sent_at',
                'i.reminded_at',
                'i.expires_at',
                'b.given_name as by_given',
                'b.family_name as by_family',
                DB::raw(self::awaits() . ' as awaits'),
            ]);

        return new GuardianPage(
            array_values($rows->take(self::PAGE)->map(self::line(...))->all()),
            $rows->count() > self::PAGE ? $after + self::PAGE : null,
        );
    }

    /** How many ties of the whole school stand how. */
    public function counts(School $school): GuardianCounts
    {
        $ties = fn(): Builder => DB::table('guardianships as g')
            ->join('people as s', 's.id', '=', 'g.student_id')
            ->where('s.school_id', $school->id)
            ->where('s.kind', 'student')
            ->where('s.state', 'active');
        $counts = array_fill_keys(array_map(fn(Standing $s): string => $s->value, Standing::cases()), 0);
        $all = 0;
        foreach (
            $ties()
                ->groupBy('g.state', 'restricted')
                ->selectRaw('g.state, g.restriction IS NOT NULL AS restricted, COUNT(*) AS n')
                ->get()
            as $row
        ) {
            $counts[$row->state] += (int) $row->n;
            $counts[Standing::Restricted->value] += (int) $row->restricted === 1 ? (int) $row->n : 0;
            $all += (int) $row->n;
        }
        foreach ([Standing::Awaiting, Standing::Unanswered, Standing::NoAddress] as $few) {
            $counts[$few->value] = $this->few($school, $ties(), $few);
        }

        return new GuardianCounts(
            $all,
            self::requests($school->id)->count(),
            array_map(fn(Standing $s): StandingCount => new StandingCount($s, $counts[$s->value]), Standing::cases()),
        );
    }

    /** @return list<string> ids of ties, in the order of their making */
    public function ids(School $school, GuardianWhom $whom): array
    {
        return array_values($this->query($school, $whom)->orderBy('g.id')->pluck('g.id')->map(strval(...))->all());
    }

    /** The instants of guardian requests that wait: with a letter or a link, and those whose child is to be found. */
    public static function requests(string $schoolId): Builder
    {
        $claims = DB::table('guardian_claims as c')
            ->join('people as s', 's.id', '=', 'c.student_id')
            ->where('c.state', 'waiting')
            ->where('s.school_id', $schoolId)
            ->select('c.made_at');

        return DB::query()->fromSub(
            $claims->unionAll(FamilyAsking::waiting()->where('f.school_id', $schoolId)->select('f.made_at')),
            'w',
        );
    }

    /** Invitations of guardians who have been reminded, or let their link run out, and have not answered. */
    public static function unanswered(string $schoolId): Builder
    {
        return DB::table('guardian_invitations as i')
            ->where('i.school_id', $schoolId)
            ->where('i.state', 'open')
            ->where(
                fn(Builder $q) => $q
                    ->where('i.expires_at', '<=', now()->format('Y-m-d H:i:s'))
                    ->orWhere('i.reminded_at', '<=', now()->subDays(Invites::REMIND_AFTER)->format('Y-m-d H:i:s')),
            )
            ->whereExists(
                fn(Builder $g) => $g
                    ->from('guardianships as g')
                    ->join('people as s', 's.id', '=', 'g.student_id')
                    ->whereColumn('g.guardian_id', 'i.guardian_id')
                    ->where('g.state', 'invited')
                    ->where('s.school_id', $schoolId)
                    ->where('s.state', 'active'),
            );
    }

    /** Ties (`g`) with guardian (`p`), student (`s`) and the open link there may be (`i`). */
    private function query(School $school, GuardianWhom $whom): Builder
    {
        // Of all of a school, in the order they are shown; of few, by what they are found by.
        $all = $whom->ids === [] && $whom->section === '' && $whom->q === '';
        $query = DB::table(DB::raw('people as s' . ($all ? ' FORCE INDEX (people_roll)' : '')))
            ->join('guardianships as g', 'g.student_id', '=', 's.id')
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->leftJoin(
                'guardian_invitations as i',
                fn($j) => $j
                    ->on('i.guardian_id', '=', 'p.id')
                    ->where('i.school_id', $school->id)
                    ->where('i.state', 'open'),
            )
            ->where('s.school_id', $school->id)
            ->where('s.kind', 'student')
            ->where('s.state', 'active');
        if ($whom->ids !== []) {
            return $query->whereIn('g.id', $whom->ids);
        }
        if ($whom->grade !== '') {
            $query->where('s.grade', $whom->grade);
        }
        if ($whom->section !== '') {
            $query->whereIn(
                's.id',
                fn(Builder $e) => $e
                    ->select('person_id')
                    ->from('enrollments as e')
                    ->where('e.section_id', $whom->section)
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', SchoolDay::today($school->id))),
            );
        }
        if ($whom->q !== '') {
            $found = $this->search->ids(
                $whom->q,
                fn(Builder $p): Builder => $p
                    ->where('p.school_id', $school->id)
                    ->whereIn('p.kind', ['student', 'guardian'])
                    ->where('p.state', 'active'),
            );
            $query->where(fn(Builder $q) => $q->whereIn('s.id', $found)->orWhereIn('p.id', $found));
        }
        return $whom->standing === null ? $query : $query->whereRaw(self::standing($whom->standing));
    }

    /**
     * Those of whom there are few, found by what makes them so.
     *
     * @param  Builder  $ties with their students
     */
    private function few(School $school, Builder $ties, Standing $standing): int
    {
        $query = match ($standing) {
            Standing::Awaiting => $ties->join(
                'guardian_claims as c',
                fn($j) => $j
                    ->on('c.student_id', '=', 's.id')
                    ->where('c.state', 'waiting')
                    ->where(
                        fn($w) => $w
                            ->whereColumn('c.suggested_id', 'g.guardian_id')
                            ->orWhereColumn('c.person_id', 'g.guardian_id'),
                    ),
            ),
            Standing::Unanswered => $ties
                ->join('guardian_invitations as i', 'i.guardian_id', '=', 'g.guardian_id')
                ->where('i.school_id', $school->id)
                ->where('i.state', 'open')
                ->whereRaw(self::standing($standing)),
            default => $ties->join('people as p', 'p.id', '=', 'g.guardian_id')->whereRaw(self::standing($standing)),
        };

        return (int) $query->distinct()->count('g.id');
    }

    /** The condition, of ties as {@see query} names them. */
    private static function standing(Standing $standing): string
    {
        $week = CarbonImmutable::now('UTC')->subDays(Invites::REMIND_AFTER)->format('Y-m-d H:i:s');
        $now = CarbonImmutable::now('UTC')->format('Y-m-d H:i:s');

        return match ($standing) {
            Standing::Restricted => '(g.restriction IS NOT NULL)',
            Standing::NoAddress => "(g.state = 'listed' AND g.restriction IS NULL AND p.email IS NULL)",
            Standing::Unanswered => "(g.state = 'invited' AND i.id IS NOT NULL AND " .
                "(i.expires_at <= '$now' OR i.reminded_at <= '$week'))",
            Standing::Awaiting => '(' . self::awaits() . ')',
            default => "(g.state = '$standing->value')",
        };
    }

    private static function awaits(): string
    {
        return "EXISTS (SELECT 1 FROM guardian_claims c WHERE c.student_id = s.id AND c.state = 'waiting' AND " .
            '(c.suggested_id = p.id OR c.person_id = p.id))';
    }

    private static function line(stdClass $row): GuardianLine
    {
        return new GuardianLine(
            (string) $row->id,
            (string) $row->guardian_id,
            trim("$row->given_name $row->family_name"),
            (string) $row->student_id,
            trim("$row->called_name $row->student_family"),
            GradeLevel::read((string) $row->grade)?->short() ?? '',
            (string) $row->relationship,
            (string) $row->email,
            $row->email_state === 'confirmed',
            (string) $row->phone,
            GuardianshipState::from((string) $row->state),
            (int) $row->awaits === 1,
            (string) $row->restriction,
            Instant::isoOrNull($row->state_at === null ? null : (string) $row->state_at),
            trim("$row->by_given $row->by_family"),
            Instant::isoOrNull($row->sent_at === null ? null : (string) $row->sent_at),
            Instant::isoOrNull($row->reminded_at === null ? null : (string) $row->reminded_at),
            Instant::isoOrNull($row->expires_at === null ? null : (string) $row->expires_at),
            $row->consent_on === null ? null : (string) $row->consent_on,
            ConsentWay::tryFrom((string) $row->consent_way)?->label() ?? '',
        );
    }
}
