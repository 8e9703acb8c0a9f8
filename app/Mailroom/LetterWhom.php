<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\School;
use App\Models\Section;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\Readers;
use Vantrel\Core\Values\GradeLevel;

/** Whom a letter is for: a section, a grade, people who were chosen, or the whole school. */
final readonly class LetterWhom
{
    /** @param  list<string>|null  $ids of students, or of staff, who were chosen */
    public function __construct(
        public School $school,
        public Readers $readers,
        public ?Section $section = null,
        public ?string $grade = null,
        public ?array $ids = null,
    ) {}

    public function inWords(): string
    {
        $who = match ($this->readers) {
            Readers::Guardians => 'guardians',
            Readers::Students => 'students',
            Readers::Staff => 'staff',
        };

        return match (true) {
            $this->section !== null => "$who of {$this->section->name}",
            $this->ids !== null => $this->readers === Readers::Guardians ? 'guardians of those chosen' : "chosen $who",
            $this->grade !== null => "$who of grade " . (GradeLevel::read($this->grade)?->short() ?? $this->grade),
            default => "all $who",
        };
    }

    /**
     * Everyone it is for, once each: those without an address too. Who is kept away from a child is not among them.
     *
     * @return list<Receiver> by name
     */
    public function receivers(): array
    {
        $people =
            $this->readers === Readers::Guardians
                ? $this->guardians()
                : $this->chosen($this->readers === Readers::Staff ? 'staff' : 'student')->get([
                    'p.id',
                    'p.called_name',
                    'p.family_name',
                    'p.email',
                    'p.phone',
                    'p.language',
                ]);
        $bounced = Bounces::of(array_values($people->pluck('email')->filter()->map(strval(...))->all()));

        return array_values(
            $people
                ->groupBy('id')
                ->map(function (Collection $ties) use ($bounced): Receiver {
                    /** @var stdClass $one */
                    $one = $ties->first();

                    return new Receiver(
                        (string) $one->id,
                        trim("$one->called_name $one->family_name"),
                        $one->email === null ? null : (string) $one->email,
                        $one->phone === null ? null : (string) $one->phone,
                        $bounced[(string) $one->email] ?? '',
                        $one->language === null ? null : (string) $one->language,
                        array_values($ties->pluck('child_id')->filter()->map(strval(...))->all()),
                        array_values($ties->pluck('child_name')->filter()->map(strval(...))->all()),
                    );
                })
                // Of two of one name always the same first: what is sent is compared with what was looked at.
                ->sortBy([['name', 'asc'], ['id', 'asc']])
                ->all(),
        );
    }

    /** @return Collection<int, stdClass> a row for each child */
    private function guardians(): Collection
    {
        return DB::table('guardianships as g')
            ->joinSub(
                $this->chosen('student')->select('p.id', 'p.called_name', 'p.language'),
                's',
                's.id',
                '=',
                'g.student_id',
            )
            ->join('people as p', 'p.id', '=', 'g.guardian_id')
            ->where('p.state', 'active')
            ->whereNull('g.restriction')
            ->whereIn('g.state', MessageKind::Letter->heardBy())
            ->orderBy('s.called_name')
            ->orderBy('s.id')
            ->get([
                'p.id',
                'p.called_name',
                'p.family_name',
                'p.email',
                'p.phone',
                DB::raw('coalesce(p.language, s.language) as language'),
                's.id as child_id',
                's.called_name as child_name',
            ]);
    }

    private function chosen(string $kind): Builder
    {
        $today = SchoolDay::today($this->school->id);

        return DB::table('people as p')
            ->where('p.school_id', $this->school->id)
            ->where('p.kind', $kind)
            ->where('p.state', 'active')
            ->when($this->ids !== null, fn(Builder $q) => $q->whereIn('p.id', $this->ids ?? []))
            ->when($this->grade !== null, fn(Builder $q) => $q->where('p.grade', $this->grade))
            ->when(
                $this->section !== null,
                fn(Builder $q) => $q->whereExists(
                    fn(Builder $e) => $e
                        ->from('enrollments as e')
                        ->whereColumn('e.person_id', 'p.id')
                        ->where('e.section_id', $this->section?->id)
                        ->where('e.role', $kind === 'student' ? '=' : '<>', 'student')
                        ->where(SchoolDay::inForce('e', $today)),
                ),
            );
    }
}
