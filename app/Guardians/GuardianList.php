<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Guardians\Views\GuardianLine;
use App\Guardians\Views\GuardianPage;
use App\Guardians\Views\StandingCount;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Guardians\ConsentWay;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Values\GradeLevel;

/** The guardians of a school's students: a line for each child of each. */
final class GuardianList
{
    public const PAGE = 100;

    /** @param  int  $after how many lines stand before */
    public function page(School $school, GuardianWhom $whom, int $after = 0): GuardianPage
    {
        $rows = $this->query($school, $whom)
            ->leftJoin('people as b', 'b.id', '=', 'g.state_by')
            ->orderBy('s.family_name')
            ->orderBy('s.given_name')
            ->orderBy('g.id')
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
            $this->query($school, $whom)->count(),
            $after === 0 ? $this->counts($school) : [],
        );
    }

    /** @return list<string> ids of ties, in the order of their making */
    public function ids(School $school, GuardianWhom $whom): array
    {
        return array_values($this->query($school, $whom)->orderBy('g.id')->pluck('g.id')->map(strval(...))->all());
    }

    /** How many guardians have been reminded, or let their link run out, and have not answered. */
    public function unanswered(School $school): int
    {
        return (int) DB::table('guardian_invitations as i')
            ->where('i.school_id', $school->id)
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
                    ->where('s.school_id', $school->id)
                    ->where('s.state', 'active'),
            )
            ->count();
    }

    /** Ties (`g`) with guardian (`p`), student (`s`) and the open link there may be (`i`). */
    private function query(School $school, GuardianWhom $whom): Builder
    {
        $query = DB::table('people as s')
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
        foreach ($whom->q === '' ? [] : explode(' ', NameKey::of($whom->q)) as $word) {
            $part = '%' . addcslashes($word, '%_\\') . '%';
            $query->where(
                fn(Builder $q) => $q
                    ->where('p.search_name', 'like', $part)
                    ->orWhere('s.search_name', 'like', $part)
                    ->orWhere('p.email', 'like', $part),
            );
        }
        $standing = Standing::tryFrom($whom->standing);

        return $standing === null ? $query : $query->whereRaw(self::standing($standing));
    }

    /** @return list<StandingCount> in the order of {@see Standing} */
    private function counts(School $school): array
    {
        $sums = array_map(
            fn(Standing $s): string => 'SUM(' . self::standing($s) . ") AS `$s->value`",
            Standing::cases(),
        );
        $row = $this->query($school, new GuardianWhom())->selectRaw(implode(', ', $sums))->first();

        return array_map(
            fn(Standing $s): StandingCount => new StandingCount($s, (int) ($row->{$s->value} ?? 0)),
            Standing::cases(),
        );
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
