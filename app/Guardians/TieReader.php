<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\Snapshots;
use App\Models\School;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Guardians\GuardianPolicy;
use Vantrel\Core\Guardians\OnRecord;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;

/** Reads guardians, children and what ties them, as plans take them. */
final readonly class TieReader
{
    private const CHUNK = 1000;

    public function __construct(private Snapshots $snapshots) {}

    /** @return list<OnRecord> guardians of a student, however they stand */
    public function record(string $studentId): array
    {
        $links = $this->snapshots->list(Guardianship::class, fn($q) => $q->where('student_id', $studentId));
        $people = $this->people(array_map(fn(Guardianship $g): string => $g->guardianId(), $links));
        $found = [];
        foreach ($links as $link) {
            $person = $people[$link->guardianId()] ?? null;
            if ($person !== null) {
                $found[] = new OnRecord($person, $link);
            }
        }

        return $found;
    }

    /**
     * A tie of the school's, with both its ends.
     *
     * @return array{Guardianship, Person, Person} tie, guardian, student
     */
    public function tie(School $school, string $id): array
    {
        $link = $this->snapshots->find(Guardianship::class, $id) ?? throw new NotFoundHttpException();
        $student = $this->snapshots->find(Person::class, $link->studentId());
        if ($student?->schoolId() !== $school->id) {
            throw new NotFoundHttpException();
        }

        return [
            $link,
            $this->snapshots->find(Person::class, $link->guardianId()) ?? throw new NotFoundHttpException(),
            $student,
        ];
    }

    /** @return list<Guardianship> ties of a guardian to students of a school */
    public function at(string $guardianId, string $schoolId): array
    {
        return $this->snapshots->list(
            Guardianship::class,
            fn(Builder $q) => $q
                ->where('guardian_id', $guardianId)
                ->whereIn(
                    'student_id',
                    fn(Builder $s) => $s->select('id')->from('people')->where('school_id', $schoolId),
                ),
        );
    }

    /**
     * @param  list<string>  $ids of ties
     * @return list<Guardianship>
     */
    public function ties(array $ids): array
    {
        $found = [];
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            array_push($found, ...$this->snapshots->list(Guardianship::class, fn($q) => $q->whereIn('id', $chunk)));
        }

        return $found;
    }

    /**
     * @param  list<string>  $ids
     * @return array<string, Person> by id
     */
    public function people(array $ids): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($ids)), self::CHUNK) as $chunk) {
            foreach ($this->snapshots->list(Person::class, fn($q) => $q->whereIn('id', $chunk)) as $person) {
                $found[$person->id] = $person;
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $guardians ids
     * @return list<GuardianInvitation> open ones, at a school
     */
    public function open(array $guardians, string $schoolId): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($guardians)), self::CHUNK) as $chunk) {
            array_push(
                $found,
                ...$this->snapshots->list(
                    GuardianInvitation::class,
                    fn($q) => $q->where('school_id', $schoolId)->where('state', 'open')->whereIn('guardian_id', $chunk),
                ),
            );
        }

        return $found;
    }

    public static function policy(string $schoolId): GuardianPolicy
    {
        return GuardianPolicy::from((string) DB::table('schools')->where('id', $schoolId)->value('guardians_in'));
    }
}
